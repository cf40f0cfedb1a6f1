"""Kits and their history in SQLite. Sessions never leave this package."""
