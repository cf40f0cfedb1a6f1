"""What a terminal is told. What draws there is read when something is said: a server that starts says nothing."""

from __future__ import annotations

from functools import cache
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from rich.console import Console
    from rich.progress import Progress


def say(words: str) -> None:
    """A line about what was done."""
    _console().print(words, highlight=False, markup=False)


def complain(words: str) -> None:
    """A line about what was not."""
    _console().print(words, style="red", highlight=False, markup=False)


def progress() -> Progress:
    """How far something is, gone when it is done."""
    from rich.progress import Progress

    return Progress(*Progress.get_default_columns()[:3], console=_console(), transient=True)


@cache
def _console() -> Console:
    from rich.console import Console

    return Console(stderr=True)
