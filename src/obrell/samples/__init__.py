"""Wendmere Lock: the touch panel of a canal lock-keeper. All made up."""
