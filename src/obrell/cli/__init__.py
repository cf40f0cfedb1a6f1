"""The same services from the command line."""

from obrell.cli.main import main

__all__ = ["main"]
