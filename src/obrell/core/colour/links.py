"""What a colour that follows a swatch looks like."""

from __future__ import annotations

from collections.abc import Mapping

from obrell.core.colour.spaces import from_hex, from_oklch, to_hex, to_oklch
from obrell.core.values.colours import Colour, SwatchLink

MISSING = "#ff00ff"
"""Shown for a link whose swatch is gone: impossible to overlook."""


def literal(colour: Colour, palette: Mapping[str, str]) -> str:
    """The ``#rrggbb`` a colour stands for, given each swatch's colour by id."""
    if not isinstance(colour, SwatchLink):
        return colour
    base = palette.get(colour.swatch)
    if base is None:
        return MISSING
    if colour.tint == 0 and colour.hue == 0:
        return base
    lightness, chroma, hue = to_oklch(from_hex(base))
    share = abs(colour.tint) / 100
    goal = 1.0 if colour.tint > 0 else 0.0
    lightness += (goal - lightness) * share
    return to_hex(from_oklch((lightness, chroma * (1 - share), hue + colour.hue)))
