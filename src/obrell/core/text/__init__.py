"""Fonts, and words as outlines."""
