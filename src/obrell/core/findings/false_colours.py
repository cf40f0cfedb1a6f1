"""A control with every part in a flat colour of its own, to tell parts that overlap apart."""

from __future__ import annotations

from obrell.core.colour.gamut import from_oklch
from obrell.core.colour.spaces import to_hex
from obrell.core.document.model import Control, Part
from obrell.core.effects import Paint
from obrell.core.shapes import Group, Repeat
from obrell.core.values.paints import Solid

GOLDEN_DEGREES = 137.508
"""Hues a golden angle apart stay well apart however many there are."""
LIGHTNESS, CHROMA = (0.72, 0.56, 0.82), 0.13


def false_colours(control: Control) -> Control:
    """The same shapes at the same places, each flat and a little transparent."""
    return control.evolve(parts=tuple(_flat(part, number) for number, part in enumerate(control.parts)))


def _flat(part: Part, number: int) -> Part:
    if isinstance(part.shape, Group | Repeat):
        return part.evolve(effects=(), opacity=1.0, blend="normal")
    colour = to_hex(from_oklch((LIGHTNESS[number % 3], CHROMA, number * GOLDEN_DEGREES % 360)))
    paint = Paint(id="e1", fill=Solid(colour=colour), opacity=0.85)
    return part.evolve(effects=(paint,), opacity=1.0, blend="normal")
