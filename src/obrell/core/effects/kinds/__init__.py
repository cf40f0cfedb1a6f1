"""The effect kinds, a module each; they do not know each other."""
