"""Stain: the colour that a piece of a shape has of its own. No document stores one: text makes them of
its runs."""

from __future__ import annotations

from typing import ClassVar, Literal

from pydantic import ConfigDict

from obrell.core.effects.base import Coat, Drawing, Effect, Side, Site, Zone
from obrell.core.effects.markup import element
from obrell.core.effects.pigments import solid
from obrell.core.geometry.combine import grown
from obrell.core.geometry.paths import Path
from obrell.core.geometry.svgdata import path_data
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

    def coats(self, site: Site, side: Side) -> tuple[Coat, ...]:
        wide = grown(self.piece.transformed(site.place), OVER_PX)
        return (Coat(site.cover(wide), solid(str(self.colour)), self.opacity, self.blend),)

    def svg(self, drawing: Drawing, side: Side) -> tuple[str, ...]:
        piece = grown(self.piece, OVER_PX) if drawing.cut else self.piece
        data = path_data(drawing.outline(piece))
        return (element("path", {"d": data, "fill": str(self.colour)}),)

    def sentence(self) -> Sentence:
        return ()
