"""Sides: a regular polygon or a star, its corners sharp or rounded."""

from __future__ import annotations

import math
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from obrell.core.geometry.corners import Rounding, rounded_polygon
from obrell.core.geometry.paths import Path
from obrell.core.geometry.plane import Rect
from obrell.core.shapes.base import Sentence, Shape, Slot, Tool, Words
from obrell.core.values.fields import Angle, Length, Live, Size

Count = Annotated[int, Live("", 1, 3, 12), Field(ge=3, le=60)]
Depth = Annotated[float, Live("%", 0.01, 0.1, 1, 100), Field(ge=0.02, le=1)]


class Sides(Shape):
    """Corners on an ellipse around the part's place, stretched so that the sharp corners touch all
    four sides of width × height. Below 100 % a second ring of corners makes a star."""

    label: ClassVar[str] = "Sides"
    rank: ClassVar[int] = 40
    tool: ClassVar[Tool | None] = Tool("Sides", "s")
    kind: Literal["sides"] = "sides"
    count: Count = Field(6, title="sides")
    width: Size = Field(44.0, title="width")
    height: Size = Field(44.0, title="height")
    inner: Depth = Field(1.0, title="inner corners at")
    pointing: Angle = Field(0.0, title="pointing")
    radius: Length = Field(0.0, title="corners")
    bend: Rounding = Field("round", title="corners bend")

    def path(self) -> Path:
        points = self._corners()
        return rounded_polygon(points, [self.radius] * len(points), self.bend)

    def frame(self) -> Rect:
        return Rect(-self.width / 2, -self.height / 2, self.width / 2, self.height / 2)

    def resized(self, width: float, height: float) -> Sides:
        return self.evolve(width=width, height=height)

    def sentence(self) -> Sentence:
        star = (Words(", star "), Slot("inner")) if self.inner < 1 else ()
        size = (Slot("count"), Words(" sides, "), Slot("width"), Words(" × "), Slot("height"))
        return (*size, *star, Words(", corners "), Slot("radius"))

    def details(self) -> tuple[str, ...]:
        star = ("inner",) if self.inner == 1 else ()
        return (*star, "pointing", *(("bend",) if self.radius else ()))

    def _corners(self) -> list[tuple[float, float]]:
        star = self.inner < 1
        count = self.count * (2 if star else 1)
        first = math.radians(self.pointing - 90)
        points = []
        for index in range(count):
            radius = self.inner if star and index % 2 else 1.0
            angle = first + index * math.tau / count
            points.append((radius * math.cos(angle), radius * math.sin(angle)))
        return self._stretched(points)

    def _stretched(self, points: list[tuple[float, float]]) -> list[tuple[float, float]]:
        across, down = [p[0] for p in points], [p[1] for p in points]
        left, right, top, bottom = min(across), max(across), min(down), max(down)
        scale_x, scale_y = self.width / (right - left), self.height / (bottom - top)
        centre_x, centre_y = (left + right) / 2, (top + bottom) / 2
        return [((x - centre_x) * scale_x, (y - centre_y) * scale_y) for x, y in points]
