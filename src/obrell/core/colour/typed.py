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


def typed_with_opacity(text: str) -> tuple[str, float]:
    """The same with its opacity, 0 to 1."""
    digits = _DIGITS.fullmatch(text.strip())
    found = css_colour(f"#{digits[1]}") if digits else None
    return read_colour(text.strip()) if found is None else found


@reads(
    "colour", "Reading this colour", most=MOST_CHARACTERS, short=True,
    words=f"A colour can have at most {MOST_CHARACTERS} characters.",
)  # fmt: skip
def read_colour(text: str) -> tuple[str, float]:
    """``#rrggbb`` and the opacity of any colour of CSS Color 4; raises ``BadValue`` in words."""
    found = css_colour(text)
    if found is None:
        raise BadValue(f"“{text[:40]}” is not a colour. Write it as #1f8a92, or as CSS does.", "colour")
    return found
