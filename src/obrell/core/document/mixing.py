"""Values on the way from one to another.

Numbers go straight; colours in OKLab (CSS Color 4, section 12: interpolation), what follows a swatch as it looks;
lists of equal length and values of one kind piece by piece. What has no way between changes at the middle (CSS Values
4, section 3: interpolation).
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from typing import Any

from pydantic import TypeAdapter, ValidationError

from obrell.core.colour.links import literal
from obrell.core.colour.spaces import from_hex, from_oklab, to_hex, to_oklab
from obrell.core.values.colours import Colour

_COLOUR = TypeAdapter[Colour](Colour)
HEX = re.compile(r"#[0-9a-fA-F]{6}")


class NoWay(Exception):
    """There is nothing between two values."""


def mixed(start: Any, end: Any, share: float, palette: Mapping[str, str]) -> Any:
    """The value that is ``share``, 0 to 1, of the way from one to another, as it is written down."""
    if start == end or share <= 0:
        return start
    if share >= 1:
        return end
    try:
        return travelled(start, end, share, palette)
    except NoWay:
        return start if share < 0.5 else end


def travelled(start: Any, end: Any, share: float, palette: Mapping[str, str]) -> Any:
    """The value that is ``share`` of the way from one to another, beyond both where that is less than 0 or more than
    1; raises ``NoWay``."""
    if start == end or share in {0, 1}:
        return end if share == 1 else start
    if is_number(start) and is_number(end):
        return start + (end - start) * share
    one, other = _colour(start, palette), _colour(end, palette)
    if one and other:
        return mixed_colours(one, other, share)
    if isinstance(start, list) and isinstance(end, list) and len(start) == len(end):
        return [travelled(a, b, share, palette) for a, b in zip(start, end, strict=True)]
    if isinstance(start, dict) and isinstance(end, dict) and start.keys() == end.keys():
        return {name: travelled(start[name], end[name], share, palette) for name in start}
    raise NoWay


def mixed_colours(one: str, other: str, share: float) -> str:
    """Two colours mixed in OKLab."""
    a, b = to_oklab(from_hex(one)), to_oklab(from_hex(other))
    first, second, third = (x + (y - x) * share for x, y in zip(a, b, strict=True))
    return to_hex(from_oklab((first, second, third)))


def is_number(value: Any) -> bool:
    """Whether a written-down value is one, and not yes or no."""
    return isinstance(value, int | float) and not isinstance(value, bool)


def _colour(value: Any, palette: Mapping[str, str]) -> str:
    """What a written-down colour looks like; empty for all that is none."""
    if isinstance(value, str):
        return value if HEX.fullmatch(value) else ""
    if not isinstance(value, dict) or "swatch" not in value:
        return ""
    try:
        return literal(_COLOUR.validate_python(value), palette)
    except ValidationError:
        return ""
