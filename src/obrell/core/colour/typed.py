"""Colours as people type them."""

from __future__ import annotations

import re

from obrell.core.colour.css import MOST_CHARACTERS, css_colour
from obrell.core.door import reads
from obrell.core.errors import BadValue

_DIGITS = re.compile(r"#?([0-9a-fA-F]{3,4}|[0-9a-fA-F]{6}|[0-9a-fA-F]{8})")


def typed_colour(text: str) -> str:
    """``#rrggbb`` of what was typed: hexadecimal digits with or without ``#``, or any colour of CSS Color 4. Raises
    ``BadValue`` in words."""
    return typed_with_opacity(text)[0]


def typed_swatch(text: str) -> str:
    """Return ``#rrggbb`` as ``typed_colour`` does; raise ``BadValue`` for a colour that can be seen through."""
    colour, opacity = typed_with_opacity(text)
    if opacity is not None and opacity < 1:
        raise BadValue(f"A swatch has no opacity: type “{colour}” instead of “{text.strip()}”.")
    return colour


def typed_with_opacity(text: str) -> tuple[str, float | None]:
    """Return the same, and the opacity that was typed with it, 0 to 1; None if there was none."""
    digits = _DIGITS.fullmatch(text.strip())
    colour, opacity = (css_colour(f"#{digits[1]}") if digits else None) or read_colour(text.strip())
    said = opacity < 1 or (digits is not None and len(digits[1]) in (4, 8))
    return colour, round(opacity, 2) if said else None


@reads(
    "colour", "Reading this colour", most=MOST_CHARACTERS, short=True,
    words=f"A colour can have at most {MOST_CHARACTERS} characters.",
)  # fmt: skip
def read_colour(text: str) -> tuple[str, float]:
    """Return ``#rrggbb`` and the opacity of any colour of CSS Color 4; raise ``BadValue`` in words."""
    found = css_colour(text)
    if found is None:
        raise BadValue(f"“{text[:40]}” is not a colour. Write it as #1f8a92, or as CSS does.", "colour")
    return found
