"""The kinds of findings, a module each; they do not know each other."""
