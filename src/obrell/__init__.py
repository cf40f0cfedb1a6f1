"""Obrell draws the controls of a user interface and delivers them pixel by pixel."""
