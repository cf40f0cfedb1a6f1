"""Stain: the colour that a piece of a shape has of its own. No document stores one: text makes them of
its runs."""

from __future__ import annotations

from typing import ClassVar, Literal

from pydantic import ConfigDict

from obrell.core.effects.base import Effect, Operation, Side, Stand, Zone
from obrell.core.geometry.combine import grown
from obrell.core.geometry.paths import Path
from obrell.core.paint.areas import Spilled
from obrell.core.paint.sources import Flat
from obrell.core.shapes.base import Sentence
from obrell.core.values.colours import Colour

OVER_PX = 1.5
"""How far a stain reaches over its piece's edge, device px: past the pixels the shape partly covers."""


class Stain(Effect):
    """One colour over a piece of the shape, cut like all else by the whole of it."""

    model_config = ConfigDict(arbitrary_types_allowed=True)
    label: ClassVar[str] = "Stain"
    zone: ClassVar[Zone] = "surface"
    kind: Literal["stain"] = "stain"
    piece: Path
    colour: Colour

    def reach(self, light: float) -> float:
        return 0.0

    def operations(self, stand: Stand, side: Side) -> tuple[Operation, ...]:
        piece = self.piece.transformed(stand.place)
        area = Spilled(piece, grown(piece, OVER_PX))
        return (Operation(area, Flat(str(self.colour)), self.opacity, self.blend),)

    def sentence(self) -> Sentence:
        return ()
