"""Colours as SVG means them: what is not seen is none, and some stand for the current one."""

from __future__ import annotations

from obrell.core.colour.css import css_colour

CURRENT = "currentcolor"


def colour_of(text: str, current: str = "#000000") -> tuple[str, float] | None:
    """A colour and its opacity; None for none, for one that is not seen, and for what is no colour."""
    if text.strip().lower() == CURRENT:
        return None if text == current else colour_of(current)
    found = css_colour(text)
    return found if found and found[1] > 0 else None
