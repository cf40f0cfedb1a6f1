"""Inner shadow: the shadow of the shape's outside, seen inside."""

from __future__ import annotations

from typing import ClassVar, Literal, Self

from pydantic import Field

from obrell.core.colour.spaces import mixed
from obrell.core.effects.base import Coat, Drawing, Side, Site, Zone
from obrell.core.effects.markup import element
from obrell.core.effects.pigments import solid
from obrell.core.effects.shadow import Shadow
from obrell.core.geometry.plane import Similarity
from obrell.core.geometry.svgdata import path_data, rectangle
from obrell.core.raster.blur import TAIL
from obrell.core.values.fields import Share


class InnerShadow(Shadow):
    """Spread makes the shadow thicker; a negative one thinner."""

    label: ClassVar[str] = "Inner shadow"
    zone: ClassVar[Zone] = "surface"
    keeps_to_shape: ClassVar[bool] = False
    kind: Literal["inner-shadow"] = "inner-shadow"
    opacity: Share = Field(0.5, title="strength")
    takes_up: Share = Field(0.0, title="takes up the ground")

    def reach(self, light: float) -> float:
        return 0.0

    def on_ground(self, colour: str) -> Self:
        return (
            self.evolve(colour=mixed(str(self.colour), colour, self.takes_up), takes_up=0.0) if self.takes_up else self
        )

    def pressed(self, light: float) -> Self:
        return self.evolve(offset=self.offset.opposite(light))

    def coats(self, site: Site, side: Side) -> tuple[Coat, ...]:
        scale = site.place.scale
        spread = self.spread if self.blur else site.stroke(self.spread)
        x, y = self.offset.vector(site.lamp.direction)
        moved = site.shape.spread(-spread).transformed(Similarity(dx=x * scale, dy=y * scale).after(site.place))
        mask = site.shadow_inverse(moved, self.blur / 2 * scale)
        return (Coat(self.fallen(mask), solid(str(self.colour)), self.opacity, self.blend),)

    def svg(self, drawing: Drawing, side: Side) -> tuple[str, ...]:
        hole = drawing.outline(drawing.shape.spread(-self.spread), *self.offset.vector(drawing.lamp.direction))
        around = drawing.box.grown(2 * self.blur * TAIL + 1)
        data = f"{rectangle(around)} {path_data(hole)}".strip()
        blur = self.softened(drawing, around.grown(self.blur * TAIL))
        attributes = {"d": data, "fill-rule": "evenodd", "fill": str(self.colour), "filter": blur}
        return (element("path", attributes),)
