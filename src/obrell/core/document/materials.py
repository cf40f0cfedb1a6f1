"""Materials: named stacks of effects that fit any part of any size."""

from __future__ import annotations

from obrell.core.document.lengths import scale_lengths
from obrell.core.document.model import Material, Part
from obrell.core.effects import AnyEffect
from obrell.core.shapes import Text
from obrell.core.text.fonts import load

LETTER_SHARE = 0.55
"""What counts as the height of words, as a share of their capitals: their strokes are far thinner."""


def extent_of(part: Part) -> float:
    """What a material's lengths are shares of, for a part as it is drawn: the shorter side of the frame; less
    for words."""
    if isinstance(part.shape, Text):
        return load(part.shape.font).cap_height * part.shape.size * LETTER_SHARE
    frame = part.shape.frame()
    return max(1.0, min(frame.width, frame.height))


def scaled_effects(material: Material, extent: float, *, scaled: bool = True) -> tuple[AnyEffect, ...]:
    """The material's effects for a part of that extent: lengths that are shares of it multiplied, the others
    as they are."""
    if not scaled:
        return material.effects
    fixed = [path.split("/", 1) for path in material.fixed]
    factor = extent / material.extent
    return tuple(
        scale_lengths(effect, factor, fixed=[path for name, path in fixed if name == effect.id], round_off=True)
        for effect in material.effects
    )
