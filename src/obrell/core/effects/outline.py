"""Outline: a band along the shape's edge, in one colour or gradient."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import ClassVar, Literal

from pydantic import Field

from obrell.core.effects.base import Coat, Drawing, Effect, Side, Site, Zone
from obrell.core.effects.markup import element
from obrell.core.effects.pigments import colours_of
from obrell.core.geometry.combine import MITRE_LIMIT, stroked
from obrell.core.geometry.paths import Path
from obrell.core.geometry.plane import Rect
from obrell.core.geometry.rounded import Insets
from obrell.core.geometry.svgdata import path_data
from obrell.core.raster import shares
from obrell.core.raster.falloff import ramp_layer
from obrell.core.raster.layers import Layer, Mask
from obrell.core.raster.ramps import Pigment
from obrell.core.shapes.base import Sentence, Shape, Slot, Words
from obrell.core.values.fields import Length
from obrell.core.values.paints import Fill, Gradient, Solid

SIDES = ("top", "right", "bottom", "left")
OUTER_SHARE = {"inside": 0.0, "centre": 0.5, "outside": 1.0}


Run = Literal["along the box", "along the path", "across its width"]


class Outline(Effect):
    """Joins are mitred with limit 4, as in SVG. A gradient spans the part's own box, or runs along the outline from
    where that begins, or across the band from its outer edge inwards. With a gap it is dashed along the middle
    of its band, from where the shape begins. A box can have a width for each of its sides, as a CSS border."""

    label: ClassVar[str] = "Outline"
    zone: ClassVar[Zone] = "edge"
    kind: Literal["outline"] = "outline"
    place: Literal["inside", "centre", "outside"] = Field("inside", title="lies")
    width: Length = Field(1.0, title="width")
    sides: Literal["alike", "each its own"] = Field("alike", title="sides of a box")
    top: Length = Field(1.0, title="top width")
    right: Length = Field(0.0, title="right width")
    bottom: Length = Field(0.0, title="bottom width")
    left: Length = Field(0.0, title="left width")
    dash: Length = Field(4.0, title="dash")
    gap: Length = Field(0.0, title="gap")
    run: Run = Field("along the box", title="gradient runs")
    fill: Fill = Field(default_factory=lambda: Solid(colour="#ffffff"), title="fill")

    def hidden_fields(self) -> tuple[str, ...]:
        run = () if isinstance(self.fill, Gradient) else ("run",)
        if self.sides == "alike":
            return (*SIDES, *run)
        return ("dash", "gap", *run)

    def fill_box(self, shape: Shape, turn: float) -> Rect | None:
        return None if self._on_its_way else shape.box()

    @property
    def pictured(self) -> bool:
        return super().pictured or self._on_its_way

    @property
    def _on_its_way(self) -> bool:
        """Whether its gradient is laid on no box."""
        return self.run != "along the box" and isinstance(self.fill, Gradient)

    def reach(self, light: float) -> float:
        return max(self.widths()) * OUTER_SHARE[self.place] * MITRE_LIMIT

    def coats(self, site: Site, side: Side) -> tuple[Coat, ...]:
        band = self._band(site.shape, site.stroke, side)
        if band is None:
            return ()
        path = band.path.transformed(site.place)
        if side == "outside":
            mask = shares.outside(site.cover(path), site.coverage())
        else:
            mask = shares.inside(site.within(path, 0.0), site.coverage(), rest=band.hollow)
        return (Coat(mask, self._pigment(site, mask), self.opacity, self.blend),)

    def svg(self, drawing: Drawing, side: Side) -> tuple[str, ...]:
        band = self._band(drawing.shape, float, side)
        if band is None:
            return ()
        data = path_data(drawing.outline(band.path))
        if band.hollow:
            data = f"{drawing.field()} {data}".strip()
        return (element("path", {"d": data, "fill-rule": "evenodd"} | drawing.fill(self.fill)),)

    def _pigment(self, site: Site, mask: Mask) -> Pigment | Layer:
        if not self._on_its_way:
            return site.pigment(self.fill, mask.box)
        width = site.stroke(self.width)
        outer = width * OUTER_SHARE[self.place]
        if self.run == "along the path":
            share, step = site.along(max(outer, width - outer) * MITRE_LIMIT, mask.box)
        else:
            share, step = site.across(outer, outer - width, mask.box)
        assert isinstance(self.fill, Gradient)
        return ramp_layer(share, step, colours_of(self.fill), wraps=self.run == "along the path")

    def widths(self, fitted: Callable[[float], float] = float) -> Insets:
        """Of the top, right, bottom and left side, fitted to pixels as asked."""
        if self.sides == "alike":
            return (fitted(self.width),) * 4
        return fitted(self.top), fitted(self.right), fitted(self.bottom), fitted(self.left)

    def _band(self, shape: Shape, fitted: Callable[[float], float], side: Side) -> Band | None:
        """What is covered on one side of the part, in its own space; None when nothing is."""
        share, widths = OUTER_SHARE[self.place], self.widths(fitted)
        most = max(widths)
        if most <= 0 or side == "behind":
            return None
        if self.gap > 0 and self.sides == "alike":
            if side == "outside" and share <= 0:
                return None
            return Band(self._dashes(shape, most * (share - 0.5), most), hollow=False)
        if side == "outside":
            return Band(_moved_out(shape, widths, share), hollow=False) if share > 0 else None
        return Band(_moved_out(shape, widths, share - 1), hollow=True) if share < 1 else None

    def _dashes(self, shape: Shape, middle: float, width: float) -> Path:
        """The dashes as an outline of their own; ``middle`` is how far outside the shape's edge they run."""
        return stroked(shape.parallel(middle), width, "flat", "mitre", (self.dash, self.gap))

    def sentence(self) -> Sentence:
        colours: Sentence = (Slot("fill/colour"),) if isinstance(self.fill, Solid) else (Slot("fill/kind"),)
        if isinstance(self.fill, Gradient):
            colours = (Slot("fill/kind"), Words(" "), Slot("fill/stops"))
        widths: Sentence = (Slot("width"),)
        if self.sides != "alike":
            widths = (*(part for side in SIDES for part in (Slot(side), Words(" "))),)[:-1]
        return (
            Slot("place"), Words(", "), *widths, Words(", "), *colours, Words(" "), Slot("opacity"),
        )  # fmt: skip


@dataclass(frozen=True, slots=True)
class Band:
    """What a path covers, or, when it is ``hollow``, what it leaves free of the shape."""

    path: Path
    hollow: bool


def _moved_out(shape: Shape, widths: Insets, share: float) -> Path:
    """The outline moved outwards by a share of every side's width."""
    if len(set(widths)) > 1:
        top, right, bottom, left = (-share * width for width in widths)
        uneven = shape.inset((top, right, bottom, left))
        if uneven is not None:
            return uneven
    return shape.parallel(share * max(widths))
