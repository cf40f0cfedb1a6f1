"""Drop shadow: behind the part, cut out under it unless it shows through."""

from __future__ import annotations

from typing import ClassVar, Literal, Self

from pydantic import Field

from obrell.core.effects.base import Coat, Drawing, Side, Site, Zone
from obrell.core.effects.markup import element
from obrell.core.effects.pigments import solid
from obrell.core.effects.shadow import Shadow
from obrell.core.geometry.plane import Similarity
from obrell.core.geometry.svgdata import path_data
from obrell.core.raster.blur import TAIL
from obrell.core.values.fields import Share

PRESSED_SHARE = 0.4
"""What is left of its distance and blur under a part that is pressed."""


class DropShadow(Shadow):
    """Spread grows the shadow; a negative one shrinks it."""

    label: ClassVar[str] = "Drop shadow"
    zone: ClassVar[Zone] = "behind"
    kind: Literal["drop-shadow"] = "drop-shadow"
    opacity: Share = Field(0.4, title="strength")
    shows_through: bool = Field(False, title="shows through")

    def coats(self, site: Site, side: Side) -> tuple[Coat, ...]:
        scale = site.place.scale
        spread = self.spread if self.blur else site.stroke(self.spread)
        x, y = self.offset.vector(site.lamp.direction)
        moved = site.shape.spread(spread).transformed(Similarity(dx=x * scale, dy=y * scale).after(site.place))
        mask = site.shadow(moved, self.blur / 2 * scale)
        return (Coat(self.fallen(mask), solid(str(self.colour)), self.opacity, self.blend),)

    def svg(self, drawing: Drawing, side: Side) -> tuple[str, ...]:
        path = drawing.outline(drawing.shape.spread(self.spread), *self.offset.vector(drawing.lamp.direction))
        if not path:
            return ()
        blur = self.softened(drawing, path.bounds().grown(self.blur * TAIL + 1))
        return (element("path", {"d": path_data(path), "fill": str(self.colour), "filter": blur}),)

    def pressed(self, light: float) -> Self:
        return self.evolve(offset=self.offset.shortened(PRESSED_SHARE), blur=self.blur * PRESSED_SHARE)

    @property
    def shows_through_body(self) -> bool:
        return self.shows_through
