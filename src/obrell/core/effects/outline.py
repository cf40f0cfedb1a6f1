"""Outline: a band along the shape's edge, in one colour or gradient."""

from __future__ import annotations

from typing import ClassVar, Literal

from pydantic import Field

from obrell.core.effects.base import Coat, Drawing, Effect, Side, Site, Zone
from obrell.core.effects.markup import element
from obrell.core.geometry.combine import MITRE_LIMIT
from obrell.core.geometry.svgdata import path_data
from obrell.core.shapes.base import Sentence, Slot, Words
from obrell.core.values.fields import Length
from obrell.core.values.paints import Fill, Gradient, Solid

OUTER_SHARE = {"inside": 0.0, "centre": 0.5, "outside": 1.0}


class Outline(Effect):
    """Joins are mitred with limit 4, as in SVG; a gradient spans the part's own box."""

    label: ClassVar[str] = "Outline"
    zone: ClassVar[Zone] = "edge"
    kind: Literal["outline"] = "outline"
    place: Literal["inside", "centre", "outside"] = Field("inside", title="lies")
    width: Length = Field(1.0, title="width")
    fill: Fill = Field(default_factory=lambda: Solid(colour="#ffffff"), title="fill")

    def reach(self, light: float) -> float:
        return self.width * OUTER_SHARE[self.place] * MITRE_LIMIT

    def coats(self, site: Site, side: Side) -> tuple[Coat, ...]:
        width = site.stroke(self.width)
        outer = width * OUTER_SHARE[self.place]
        if side == "outside" and outer > 0:
            mask = site.cover(site.shape.parallel(outer).transformed(site.place))
        elif side == "inside" and width > outer:
            mask = site.cover_inverse(site.shape.parallel(outer - width).transformed(site.place))
        else:
            return ()
        return (Coat(mask, site.pigment(self.fill, mask.box), self.opacity, self.blend),)

    def svg(self, drawing: Drawing, side: Side) -> tuple[str, ...]:
        outer = self.width * OUTER_SHARE[self.place]
        box = drawing.shape.box()
        fill = drawing.defs.fill(self.fill, box, drawing.place)
        if side == "outside" and outer > 0:
            data = path_data(drawing.outline(drawing.shape.parallel(outer)))
        elif side == "inside" and self.width > outer:
            inner = drawing.outline(drawing.shape.parallel(outer - self.width))
            data = f"{drawing.field()} {path_data(inner)}".strip()
        else:
            return ()
        return (element("path", {"d": data, "fill-rule": "evenodd"} | fill),)

    def sentence(self) -> Sentence:
        colours: Sentence = (Slot("fill/colour"),) if isinstance(self.fill, Solid) else (Slot("fill/kind"),)
        if isinstance(self.fill, Gradient):
            colours = (Slot("fill/kind"), Words(" "), Slot("fill/stops"))
        return (
            Slot("place"), Words(", "), Slot("width"), Words(", "), *colours, Words(" "), Slot("opacity"),
        )  # fmt: skip
