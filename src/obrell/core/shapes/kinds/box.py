"""Box: a rectangle with one radius, four radii, or fully round ends."""

from __future__ import annotations

from typing import ClassVar, Literal

from pydantic import Field

from obrell.core.geometry.corners import Rounding, rounded_polygon
from obrell.core.geometry.paths import Path
from obrell.core.geometry.pens import MITRE_LIMIT, Join
from obrell.core.geometry.rounded import (
    Insets,
    Radii,
    fitted_radii,
    inset_box,
    parallel_radius,
    rounded_box,
    spread_radius,
)
from obrell.core.shapes.base import Sentence, Slot, Tool, Words
from obrell.core.shapes.framed import Sided
from obrell.core.values.fields import Length, Size


class Box(Sided):
    """Centred on the part's place. Radii too large for the box are reduced by one factor."""

    label: ClassVar[str] = "Box"
    rank: ClassVar[int] = 10
    tool: ClassVar[Tool | None] = Tool("Box", "b")
    kind: Literal["box"] = "box"
    width: Size = Field(120.0, title="width")
    height: Size = Field(40.0, title="height")
    corners: Literal["one", "four", "round"] = Field("one", title="corners")
    radius: Length = Field(0.0, title="radius")
    top_left: Length = Field(0.0, title="top left")
    top_right: Length = Field(0.0, title="top right")
    bottom_right: Length = Field(0.0, title="bottom right")
    bottom_left: Length = Field(0.0, title="bottom left")
    bend: Rounding = Field("round", title="corners bend")

    def radii(self) -> Radii:
        """The four corner radii as drawn."""
        if self.corners == "round":
            wanted: Radii = (min(self.width, self.height) / 2,) * 4
        elif self.corners == "one":
            wanted = (self.radius,) * 4
        else:
            wanted = (self.top_left, self.top_right, self.bottom_right, self.bottom_left)
        return fitted_radii(self.width, self.height, wanted)

    def path(self) -> Path:
        if self.bend == "round":
            return rounded_box(self.width, self.height, self.radii())
        x, y = self.width / 2, self.height / 2
        return rounded_polygon(((-x, -y), (x, -y), (x, y), (-x, y)), self.radii(), self.bend)

    def spread(self, distance: float) -> Path:
        if self.bend != "round":
            return super().spread(distance)
        tl, tr, br, bl = (spread_radius(radius, distance) for radius in self.radii())
        return rounded_box(self.width + 2 * distance, self.height + 2 * distance, (tl, tr, br, bl))

    def parallel(self, distance: float, join: Join = "mitre", mitre: float = MITRE_LIMIT) -> Path:
        if self.bend != "round" or (join != "mitre" and distance > 0):
            return super().parallel(distance, join, mitre)
        tl, tr, br, bl = (parallel_radius(radius, distance) for radius in self.radii())
        return rounded_box(self.width + 2 * distance, self.height + 2 * distance, (tl, tr, br, bl))

    def inset(self, insets: Insets) -> Path | None:
        return inset_box(self.box(), self.radii(), insets) if self.bend == "round" else None

    def grown_by(self, distance: float) -> Box | None:
        width, height = self.width + 2 * distance, self.height + 2 * distance
        if width <= 0 or height <= 0:
            return None
        names = ("radius", "top_left", "top_right", "bottom_right", "bottom_left")
        radii = {name: parallel_radius(getattr(self, name), distance) for name in names}
        return self.evolve(width=width, height=height, **radii)

    def sentence(self) -> Sentence:
        size = (Words("box "), Slot("width"), Words(" × "), Slot("height"))
        if self.corners == "round":
            return (*size, Words(", "), Slot("corners"), Words(" ends"))
        if self.corners == "one":
            return (*size, Words(", corners "), Slot("radius"))
        corners = (Slot("top_left"), Slot("top_right"), Slot("bottom_right"), Slot("bottom_left"))
        return (*size, Words(", corners "), *(t for c in corners for t in (c, Words(" "))))

    def details(self) -> tuple[str, ...]:
        rounded = self.corners == "four" or self.radius > 0
        return () if self.corners == "round" else ("corners", "bend") if rounded else ("corners",)
