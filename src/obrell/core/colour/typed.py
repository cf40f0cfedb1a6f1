"""Colours as people type them."""

from __future__ import annotations

from obrell.core.colour.css import css_colour
from obrell.core.errors import BadValue


def typed_colour(text: str) -> str:
    """``#rrggbb`` of what was typed: hexadecimal digits with or without ``#``, or any colour of CSS Color 4. Raises
    ``BadValue`` in words."""
    found = css_colour(text) or css_colour(f"#{text.strip()}")
    if found is None:
        raise BadValue(f"“{text.strip()[:40]}” is not a colour. Write it as #1f8a92, or as CSS does.", "colour")
    return found[0]
