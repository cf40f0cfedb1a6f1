"""Read numbers typed on the command line."""

from __future__ import annotations

import typer

from obrell.core.edit.typed import number_from
from obrell.core.errors import BadValue
from obrell.core.values.fields import Live


def a_number(text: str) -> float:
    """Return the number that was typed, or the result of a sum. Raise ``typer.BadParameter``."""
    try:
        return number_from(str(text), Live())
    except BadValue as error:
        raise typer.BadParameter(str(error)) from error


def a_time(text: str) -> float:
    """Return a time, ms, 0 or more. Raise ``typer.BadParameter``."""
    found = a_number(str(text).strip().lower().removesuffix("ms"))
    if found < 0:
        raise typer.BadParameter("a time cannot be less than 0 ms.")
    return found


def a_count(text: str) -> int:
    """Return a whole number, 0 or more. Raise ``typer.BadParameter``."""
    found = a_number(text)
    if found != int(found) or found < 0:
        raise typer.BadParameter(f"“{text}” is not a whole number.")
    return int(found)
