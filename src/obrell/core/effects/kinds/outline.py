"""Outline: a band along the shape's edge, in one colour or gradient."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import ClassVar, Literal

from pydantic import Field

from obrell.core.effects.base import Effect, Operation, Side, Stand, Zone
from obrell.core.geometry.combine import stroked
from obrell.core.geometry.paths import Path
from obrell.core.geometry.pens import MITRE_LIMIT, Cap, Join, Pen, dashes_of
from obrell.core.geometry.plane import Rect, Similarity
from obrell.core.geometry.rounded import Insets
from obrell.core.paint.areas import Across, Along, Filled, Inside, Outside
from obrell.core.paint.sources import Ramped, Source
from obrell.core.shapes.base import Sentence, Shape, Slot, Words
from obrell.core.values.fields import Length, Lengths, Mitre, Signed, Thin
from obrell.core.values.paints import Fill, Gradient, Solid

SIDES = ("top", "right", "bottom", "left")
OUTER_SHARE = {"inside": 0.0, "centre": 0.5, "outside": 1.0}


Run = Literal["along the box", "along the path", "across its width"]


class Outline(Effect):
    """It lies along the shape's edge, or is drawn by a pen along the path that the shape was made with, open where
    that is. A gradient spans the part's own box, or runs along the outline from
    where that begins, or across the band from its outer edge inwards. With a gap it is dashed along the middle
    of its band, from where the shape begins. A box can have a width for each of its sides, as a CSS border."""

    label: ClassVar[str] = "Outline"
    rank: ClassVar[int] = 80
    zone: ClassVar[Zone] = "edge"
    kind: Literal["outline"] = "outline"
    place: Literal["inside", "centre", "outside"] = Field("inside", title="lies")
    width: Length = Field(1.0, title="width")
    thin: Thin = Field("as typed", title="width is")
    sides: Literal["alike", "each its own"] = Field("alike", title="sides of a box")
    top: Length = Field(1.0, title="top width")
    right: Length = Field(1.0, title="right width")
    bottom: Length = Field(1.0, title="bottom width")
    left: Length = Field(1.0, title="left width")
    line: Literal["the edge", "the path as drawn"] = Field("the edge", title="along")
    joins: Join = Field("mitre", title="corners")
    mitre: Mitre = Field(MITRE_LIMIT, title="mitres up to")
    dash: Length = Field(4.0, title="dash")
    gap: Length = Field(0.0, title="gap")
    further: Lengths = Field((), title="further dashes and gaps")
    phase: Signed = Field(0.0, title="dashes begin at")
    caps: Cap = Field("flat", title="ends")
    run: Run = Field("along the box", title="gradient runs")
    fill: Fill = Field(default_factory=lambda: Solid(colour="#ffffff"), title="fill")

    def hidden_fields(self) -> tuple[str, ...]:
        run = () if isinstance(self.fill, Gradient) else ("run",)
        if self.sides == "alike":
            width = ("width",) if self.hairline else ()
            dashed = () if self.dashes else ("dash", "further", "phase")
            ends = () if self.drawn or self.dashes else ("caps",)
            mitre = () if self.joins == "mitre" else ("mitre",)
            return (*SIDES, *run, *dashed, *ends, *mitre, *width, *(("place",) if self.drawn else ()))
        return ("width", "line", "joins", "mitre", "dash", "gap", "further", "phase", "caps", *run)

    @property
    def dashes(self) -> tuple[float, ...]:
        """Its pattern of dashes and gaps; empty for a whole line."""
        return dashes_of(self.dash, self.gap, self.further) if self.sides == "alike" else ()

    @property
    def drawn(self) -> bool:
        """Whether a pen follows the path that the shape was drawn along, open where that is."""
        return self.line != "the edge" and self.sides == "alike"

    @property
    def hairline(self) -> bool:
        """Whether every side that has a width is one device px wide at every density, beside the edge."""
        return self.thin != "as typed"

    @property
    def outer_share(self) -> float:
        """How much of its width lies outside of the edge, where that is straight."""
        if self.drawn:
            return 0.5
        return float(self.place == "outside") if self.hairline else OUTER_SHARE[self.place]

    def unfit(self, shape: Shape) -> tuple[str, ...]:
        sided = shape.inset((0.0, 0.0, 0.0, 0.0)) is not None
        return () if sided or self.sides != "alike" else ("sides",)

    def fill_box(self, shape: Shape, place: Similarity) -> Rect | None:
        return None if self._on_its_way else shape.box()

    @property
    def _on_its_way(self) -> bool:
        """Whether its gradient is laid on no box."""
        return self.run != "along the box" and isinstance(self.fill, Gradient)

    def reach(self, light: float) -> float:
        longest = max(self.mitre if self.joins == "mitre" else 1.0, math.sqrt(2))
        return max(self.widths()) * self.outer_share * longest

    def operations(self, stand: Stand, side: Side) -> tuple[Operation, ...]:
        band = self._band(stand.shape, self._fitted(stand), side)
        if band is None:
            return ()
        filled = Filled(band.path.transformed(stand.place))
        outside = side == "outside"
        area = Outside(filled, stand.own) if outside else Inside(filled, stand.own, rest=band.hollow)
        return (Operation(area, self._source(stand), self.opacity, self.blend),)

    def _source(self, stand: Stand) -> Source:
        if not self._on_its_way:
            return stand.laid(self.fill)
        assert isinstance(self.fill, Gradient)
        width = max(self.widths(self._fitted(stand)))
        outer = width * self.outer_share
        if self.run == "along the path":
            reach = max(outer, width - outer) * self.mitre
            along = Along(stand.outline, reach * stand.scale + 2)
            return Ramped(self.fill, along.first, along.second, wraps=True)
        across = Across(stand.outline, outer * stand.scale, (outer - width) * stand.scale)
        return Ramped(self.fill, across.first, across.second)

    def widths(self, fitted: Callable[[float], float] = float) -> Insets:
        """Of the top, right, bottom and left side, fitted to pixels as asked."""
        if self.sides == "alike":
            return (fitted(1.0 if self.hairline else self.width),) * 4
        top, right, bottom, left = (
            fitted(w) if w > 0 else 0.0 for w in (self.top, self.right, self.bottom, self.left)
        )
        return top, right, bottom, left

    def _fitted(self, stand: Stand) -> Callable[[float], float]:
        """From widths as they are typed to widths as they are drawn, logical px."""
        device_px = 1 / stand.scale
        return (lambda _: device_px) if self.hairline else stand.stroke

    def _band(self, shape: Shape, fitted: Callable[[float], float], side: Side) -> Band | None:
        """What is covered on one side of the part, in its own space; None when nothing is."""
        share, widths = self.outer_share, self.widths(fitted)
        most = max(widths)
        if most <= 0 or side == "behind":
            return None
        if self.drawn or self.dashes:
            if side == "outside" and share <= 0:
                return None
            return Band(self._stroked(shape, most * (share - 0.5), most), hollow=False)
        if side == "outside":
            return Band(self._moved_out(shape, widths, share), hollow=False) if share > 0 else None
        return Band(self._moved_out(shape, widths, share - 1), hollow=True) if share < 1 else None

    def _stroked(self, shape: Shape, middle: float, width: float) -> Path:
        """What a pen leaves that runs ``middle`` outside the shape's edge, or along the path as drawn."""
        line = shape.centre_line() if self.drawn else shape.parallel(middle, self.joins, self.mitre)
        return stroked(line, Pen(width, self.caps, self.joins, self.mitre, self.dashes, self.phase))

    def _moved_out(self, shape: Shape, widths: Insets, share: float) -> Path:
        """The outline moved outwards by a share of every side's width."""
        if len(set(widths)) > 1:
            top, right, bottom, left = (-share * width for width in widths)
            uneven = shape.inset((top, right, bottom, left))
            if uneven is not None:
                return uneven
        return shape.parallel(share * max(widths), self.joins, self.mitre)

    def sentence(self) -> Sentence:
        colours: Sentence = (Slot("fill/colour"),) if isinstance(self.fill, Solid) else (Slot("fill/kind"),)
        if isinstance(self.fill, Gradient):
            colours = (Slot("fill/kind"), Words(" "), Slot("fill/stops"))
        widths: Sentence = (Slot("thin" if self.hairline else "width"),)
        if self.sides != "alike":
            widths = (*(part for side in SIDES for part in (Slot(side), Words(" "))),)[:-1]
            widths = (*widths, Words(", each "), Slot("thin")) if self.hairline else widths
        lies = Slot("line" if self.drawn else "place")
        return (
            lies, Words(", "), *widths, Words(", "), *colours, Words(" "), Slot("opacity"),
        )  # fmt: skip


@dataclass(frozen=True, slots=True)
class Band:
    """What a path covers, or, when it is ``hollow``, what it leaves free of the shape."""

    path: Path
    hollow: bool
