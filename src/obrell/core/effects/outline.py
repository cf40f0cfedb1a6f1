"""Outline: a band along the shape's edge, in one colour or gradient."""

from __future__ import annotations

from typing import ClassVar, Literal

from pydantic import Field

from obrell.core.effects.base import Coat, Drawing, Effect, Side, Site, Zone
from obrell.core.effects.markup import element
from obrell.core.geometry.combine import MITRE_LIMIT, stroked
from obrell.core.geometry.paths import Path
from obrell.core.geometry.svgdata import path_data
from obrell.core.shapes.base import Sentence, Shape, Slot, Words
from obrell.core.values.fields import Length
from obrell.core.values.paints import Fill, Gradient, Solid

OUTER_SHARE = {"inside": 0.0, "centre": 0.5, "outside": 1.0}


class Outline(Effect):
    """Joins are mitred with limit 4, as in SVG; a gradient spans the part's own box. With a gap it is dashed
    along the middle of its band, from where the shape begins."""

    label: ClassVar[str] = "Outline"
    zone: ClassVar[Zone] = "edge"
    kind: Literal["outline"] = "outline"
    place: Literal["inside", "centre", "outside"] = Field("inside", title="lies")
    width: Length = Field(1.0, title="width")
    dash: Length = Field(4.0, title="dash")
    gap: Length = Field(0.0, title="gap")
    fill: Fill = Field(default_factory=lambda: Solid(colour="#ffffff"), title="fill")

    def reach(self, light: float) -> float:
        return self.width * OUTER_SHARE[self.place] * MITRE_LIMIT

    def coats(self, site: Site, side: Side) -> tuple[Coat, ...]:
        width = site.stroke(self.width)
        outer = width * OUTER_SHARE[self.place]
        if self.gap > 0 and width > 0:
            if side == "outside" and outer <= 0:
                return ()
            mask = site.cover(self._dashes(site.shape, outer - width / 2, width).transformed(site.place))
        elif side == "outside" and outer > 0:
            mask = site.cover(site.shape.parallel(outer).transformed(site.place))
        elif side == "inside" and width > outer:
            mask = site.cover_inverse(site.shape.parallel(outer - width).transformed(site.place))
        else:
            return ()
        return (Coat(mask, site.pigment(self.fill, mask.box), self.opacity, self.blend),)

    def svg(self, drawing: Drawing, side: Side) -> tuple[str, ...]:
        outer = self.width * OUTER_SHARE[self.place]
        fill = drawing.fill(self.fill)
        if self.gap > 0 and self.width > 0:
            if side == "outside" and outer <= 0:
                return ()
            data = path_data(drawing.outline(self._dashes(drawing.shape, outer - self.width / 2, self.width)))
        elif side == "outside" and outer > 0:
            data = path_data(drawing.outline(drawing.shape.parallel(outer)))
        elif side == "inside" and self.width > outer:
            inner = drawing.outline(drawing.shape.parallel(outer - self.width))
            data = f"{drawing.field()} {path_data(inner)}".strip()
        else:
            return ()
        return (element("path", {"d": data, "fill-rule": "evenodd"} | fill),)

    def _dashes(self, shape: Shape, middle: float, width: float) -> Path:
        """The dashes as an outline of their own; ``middle`` is how far outside the shape's edge they run."""
        return stroked(shape.parallel(middle), width, "flat", "mitre", (self.dash, self.gap))

    def sentence(self) -> Sentence:
        colours: Sentence = (Slot("fill/colour"),) if isinstance(self.fill, Solid) else (Slot("fill/kind"),)
        if isinstance(self.fill, Gradient):
            colours = (Slot("fill/kind"), Words(" "), Slot("fill/stops"))
        return (
            Slot("place"), Words(", "), Slot("width"), Words(", "), *colours, Words(" "), Slot("opacity"),
        )  # fmt: skip
