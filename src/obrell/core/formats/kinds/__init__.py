"""The kinds of files, a module each; they do not know each other."""
