"""What a colour that follows a swatch looks like, and how one has to follow to look like another."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass

from obrell.core.colour.difference import ciede2000
from obrell.core.colour.gamut import from_oklch
from obrell.core.colour.spaces import Triple, from_hex, to_hex, to_oklch
from obrell.core.values.colours import MOST_CHROMA, Colour, SwatchLink
from obrell.core.workspace import remembered

MISSING = "#ff00ff"
"""Shown for a link whose swatch is gone: impossible to overlook."""
GREY = 0.012
"""Chroma below which a hue cannot be seen, and none is asked for."""
ALIKE = 1.0
"""CIEDE2000 that is hardly seen side by side: an adjustment that brings less is not made."""
OF_LIGHTNESS = 0.1
"""How much a difference in lightness counts when a swatch is looked for, beside one in chroma and hue: tints and
shades are what one colour is used for most."""
OF_WHAT_REMAINS = 0.02
"""How much a CIEDE2000 that remains and is seen counts beside distances in OKLCH."""
STEPS = (-80, -64, -48, -32, -16, 0, 16, 32, 48, 64, 80)
"""Tints of a ladder."""


def literal(colour: Colour, palette: Mapping[str, str]) -> str:
    """The ``#rrggbb`` a colour stands for, given each swatch's colour by id."""
    if not isinstance(colour, SwatchLink):
        return colour
    if colour.own is not None:
        return colour.own
    base = palette.get(colour.swatch)
    return MISSING if base is None else adjusted(base, colour.tint, colour.chroma, colour.hue)


@remembered(8192)
def adjusted(base: str, tint: float, chroma: float, hue: float) -> str:
    """A colour so much lighter (to 100, white) or darker (to -100, black), with so many hundredths of chroma more,
    turned by so many degrees in hue, all in OKLCH, in the gamut of sRGB."""
    if tint == 0 and chroma == 0 and hue % 360 == 0:
        return base
    lightness, strength, angle = _tinted(to_oklch(from_hex(base)), tint)
    return to_hex(from_oklch((lightness, max(0.0, strength + chroma / 100), angle + hue)))


def turned_in_hue(colour: str, degrees: float, strength: float = 1.0) -> str:
    """A colour turned in hue in OKLCH, its chroma multiplied; lightness is kept, in the gamut of sRGB."""
    lightness, chroma, hue = to_oklch(from_hex(colour))
    return to_hex(from_oklch((lightness, chroma * strength, hue + degrees)))


def half_turn(degrees: float) -> float:
    """An angle as the shortest way there, -180 to 180 degrees."""
    return (degrees + 180) % 360 - 180


def _tinted(lch: Triple, tint: float) -> Triple:
    lightness, chroma, hue = lch
    share, goal = abs(tint) / 100, 1.0 if tint > 0 else 0.0
    return lightness + (goal - lightness) * share, chroma * (1 - share), hue


def ladder(base: str, steps: tuple[int, ...] = STEPS) -> tuple[tuple[int, str], ...]:
    """Darker and lighter steps of a colour, each with its tint."""
    return tuple((tint, adjusted(base, tint, 0, 0)) for tint in steps)


@dataclass(frozen=True, slots=True)
class Match:
    """How a colour can follow a swatch, and the CIEDE2000 that remains between it and what it was."""

    link: SwatchLink
    remains: float


def match(colour: str, swatch: str, base: str) -> Match:
    """The link with the fewest adjustments that makes a colour look as it does: the swatch itself, a tint of it, with
    another chroma, in another hue."""
    lightness, chroma, hue = to_oklch(from_hex(colour))
    tint = round(_tint_to(to_oklch(from_hex(base))[0], lightness))
    _, tinted, angle = _tinted(to_oklch(from_hex(base)), tint)
    more = round(max(-MOST_CHROMA, min(MOST_CHROMA, (chroma - tinted) * 100)) * 2) / 2
    turned = round(half_turn(hue - angle)) if chroma > GREY else 0
    tried = (
        SwatchLink(swatch=swatch),
        SwatchLink(swatch=swatch, tint=tint),
        SwatchLink(swatch=swatch, tint=tint, chroma=more),
        SwatchLink(swatch=swatch, tint=tint, chroma=more, hue=turned),
    )
    matches = [Match(link, ciede2000(literal(link, {swatch: base}), colour)) for link in tried]
    fine = (one for one in matches if one.remains <= ALIKE)
    return next(fine, min(matches, key=lambda one: one.remains))


def _tint_to(base: float, lightness: float) -> float:
    """The tint that brings one lightness of OKLCH, 0 to 1, to another."""
    room = 1 - base if lightness > base else base
    return 0.0 if room < 1e-6 else 100 * (lightness - base) / room


def nearest(colour: str, palette: Mapping[str, str]) -> Match | None:
    """The match with the swatch that has to be adjusted least to look alike; None when there is no swatch."""
    matches = (match(colour, swatch, base) for swatch, base in palette.items())
    return min(matches, key=lambda one: _cost(colour, palette[one.link.swatch], one), default=None)


def _cost(colour: str, base: str, found: Match) -> float:
    return _apart(colour, base) + OF_WHAT_REMAINS * max(0.0, found.remains - ALIKE)


def _apart(colour: str, base: str) -> float:
    """How far a colour lies from the tints of a swatch, and a little how far along them."""
    goal, own = to_oklch(from_hex(colour)), to_oklch(from_hex(base))
    _, chroma, hue = _tinted(own, _tint_to(own[0], goal[0]))
    turn = math.radians(goal[2] - hue)
    across = math.sqrt(max(0.0, goal[1] ** 2 + chroma**2 - 2 * goal[1] * chroma * math.cos(turn)))
    return math.hypot(across, OF_LIGHTNESS * (goal[0] - own[0]))
