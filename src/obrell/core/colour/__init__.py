"""Colour spaces and links to swatches."""
