"""The part kinds, a module each; they do not know each other."""
