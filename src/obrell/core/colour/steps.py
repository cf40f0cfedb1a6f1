"""Steps from colours to others in OKLCH."""

from __future__ import annotations

from collections.abc import Callable

from obrell.core.colour.gamut import from_oklch
from obrell.core.colour.spaces import from_hex, to_hex, to_oklch

NEAR_HUE, LEAST_CHROMA = 35.0, 0.03
"""Within how many degrees two colours are of one hue, and the chroma from which a colour has one."""


def lighter(by: float) -> Callable[[str], str]:
    """The step to a colour so much lighter in OKLCH, or darker where that is less than 0."""

    def changed(colour: str) -> str:
        lightness, chroma, hue = to_oklch(from_hex(colour))
        return to_hex(from_oklch((min(1.0, max(0.0, lightness + by)), chroma, hue)))

    return changed


def step_between(before: str, after: str) -> Callable[[str], str]:
    """The step from one colour to another in OKLCH: so much lighter, so many times the chroma, so far turned."""
    (l1, c1, h1), (l2, c2, h2) = (to_oklch(from_hex(one)) for one in (before, after))
    turn = h2 - h1 if min(c1, c2) > LEAST_CHROMA else 0.0

    def changed(colour: str) -> str:
        lightness, chroma, hue = to_oklch(from_hex(colour))
        stronger = chroma * c2 / c1 if c1 > LEAST_CHROMA else max(0.0, chroma + c2 - c1)
        return to_hex(from_oklch((min(1.0, max(0.0, lightness + l2 - l1)), stronger, hue + turn)))

    return changed


def of_one_hue(colour: str, other: str) -> bool:
    """Whether two colours are of one hue."""
    (_, c1, h1), (_, c2, h2) = (to_oklch(from_hex(one)) for one in (colour, other))
    return min(c1, c2) > LEAST_CHROMA and abs((h1 - h2 + 180) % 360 - 180) < NEAR_HUE
