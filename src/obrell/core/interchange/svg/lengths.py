"""Numbers, lengths and opacities of SVG and CSS (SVG 2, section 4; CSS Values 4, section 6)."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass

FONT_PX = 16.0
MOST = 1e6
"""Numbers beyond this are cut down to it."""
_NUMBER = re.compile(r"[-+]?(\d+\.?\d*|\.\d+)([eE][-+]?\d+)?")
_UNITS = {
    "": 1.0, "px": 1.0, "pt": 4 / 3, "pc": 16.0, "mm": 96 / 25.4, "cm": 96 / 2.54, "q": 96 / 101.6, "in": 96.0,
    "rem": FONT_PX,
}  # fmt: skip
_FONT_UNITS = {"em": 1.0, "ex": 0.5, "ch": 0.5}
_FONT_NAMES = {
    "xx-small": 9.0, "x-small": 10.0, "small": 13.0, "medium": 16.0, "large": 18.0, "x-large": 24.0, "xx-large": 32.0,
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class View:
    """What percentages are of: the sides of the viewport in its own units."""

    width: float
    height: float

    @property
    def across(self) -> float:
        return self.width

    @property
    def down(self) -> float:
        return self.height

    @property
    def whole(self) -> float:
        """For lengths that run neither across nor down."""
        return math.hypot(self.width, self.height) / math.sqrt(2)


def length(text: str | None, whole: float = 0.0, font: float = FONT_PX, usual: float = 0.0) -> float:
    """A length in user units; a percentage is of ``whole``. What is none is ``usual``.

    >>> length("12px"), length("1in"), length("50%", 80), length("NaN")
    (12.0, 96.0, 40.0, 0.0)
    """
    found = _NUMBER.match((text or "").strip())
    if found is None:
        return usual
    value, unit = float(found[0]), (text or "").strip()[found.end() :].strip().lower()
    if unit == "%":
        value *= whole / 100
    elif unit in _FONT_UNITS:
        value *= font * _FONT_UNITS[unit]
    elif unit in _UNITS:
        value *= _UNITS[unit]
    else:
        return usual
    return max(-MOST, min(MOST, value)) if math.isfinite(value) else usual


def numbers(text: str) -> list[str]:
    """What is said between spaces and commas."""
    return [piece for piece in re.split(r"[\s,]+", text.strip()) if piece]


def share(text: str | None, usual: float = 1.0) -> float:
    """A number or a percentage as a share."""
    return length(text, 1.0, usual=usual)


def opacity(text: str | None, usual: float = 1.0) -> float:
    """A share between 0 and 1."""
    return min(1.0, max(0.0, share(text, usual)))


def font_size(text: str, parent: str) -> float:
    """The size of letters in px; ``parent`` is what percentages and em are of."""
    before = length(parent, usual=FONT_PX)
    name = text.strip().lower()
    if name in _FONT_NAMES:
        return _FONT_NAMES[name]
    relative = {"smaller": before / 1.2, "larger": before * 1.2}.get(name)
    return relative if relative is not None else max(0.0, length(text, before, before, before))
