"""A resolved control as it is to be drawn, before any output draws it."""
