"""What boxes, rounds and pictures share: a frame of their own width and height around their place."""

from __future__ import annotations

from typing import Self

from obrell.core.geometry.plane import Point, Rect
from obrell.core.shapes.base import Shape, on_grid
from obrell.core.values.fields import Size


class Framed(Shape):
    """Base of the kinds that fill a frame centred on the part's place."""

    width: Size
    height: Size

    def box(self) -> Rect:
        return Rect(-self.width / 2, -self.height / 2, self.width / 2, self.height / 2)

    def fitted(self, density: float, place: Point) -> tuple[Self, Point]:
        width, x = on_grid(self.width, place.x, density)
        height, y = on_grid(self.height, place.y, density)
        return self.evolve(width=width, height=height), Point(x, y)

    def resized(self, width: float, height: float) -> Self:
        return self.evolve(width=width, height=height)


class Sided(Framed):
    """Base of those whose frame's sides are their own, straight ones."""

    def straight_sides(self) -> tuple[float, float, float, float]:
        frame = self.box()
        return frame.left, frame.top, frame.right, frame.bottom
