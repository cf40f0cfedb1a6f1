"""Paths and what can be asked of them. Plain values and pure functions; units are the caller's."""
