"""What is painted: areas, and what they are filled with, as values that any output can read."""
