"""Rectangles of pixels on the device grid, and the layers that hold them."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Plane = NDArray[np.float32]
"""Shape (height, width), values 0 to 1."""
Planes = NDArray[np.float32]
"""Shape (4, height, width): red, green, blue premultiplied by alpha, alpha; sRGB-encoded, 0 to 1."""


@dataclass(frozen=True, slots=True)
class PixelBox:
    """Whole device pixels: left and top are inside, right and bottom just outside."""

    left: int
    top: int
    right: int
    bottom: int

    @property
    def width(self) -> int:
        return max(0, self.right - self.left)

    @property
    def height(self) -> int:
        return max(0, self.bottom - self.top)

    @property
    def empty(self) -> bool:
        return self.right <= self.left or self.bottom <= self.top

    @property
    def area(self) -> int:
        return self.width * self.height

    @classmethod
    def around(cls, left: float, top: float, right: float, bottom: float) -> PixelBox:
        """The smallest box that holds the rectangle; an edge within 1e-6 px of the grid is on it."""
        slack = 1e-6
        return cls(
            math.floor(left + slack), math.floor(top + slack),
            math.ceil(right - slack), math.ceil(bottom - slack),
        )  # fmt: skip

    def grown(self, by: int) -> PixelBox:
        return PixelBox(self.left - by, self.top - by, self.right + by, self.bottom + by)

    def moved(self, across: int, down: int) -> PixelBox:
        return PixelBox(self.left + across, self.top + down, self.right + across, self.bottom + down)

    def meet(self, other: PixelBox) -> PixelBox:
        """What both hold."""
        return PixelBox(
            max(self.left, other.left), max(self.top, other.top),
            min(self.right, other.right), min(self.bottom, other.bottom),
        )  # fmt: skip

    def join(self, other: PixelBox) -> PixelBox:
        """The smallest box around both; an empty one adds nothing."""
        if self.empty or other.empty:
            return other if self.empty else self
        return PixelBox(
            min(self.left, other.left), min(self.top, other.top),
            max(self.right, other.right), max(self.bottom, other.bottom),
        )  # fmt: skip


NO_BOX = PixelBox(0, 0, 0, 0)


@dataclass(frozen=True, slots=True)
class Coverage:
    """Coverage over a box; outside the box it is 0."""

    box: PixelBox
    values: Plane


def times(one: Coverage, other: Coverage) -> Coverage:
    """The product of two masks, over what both hold."""
    box = one.box.meet(other.box)
    if box.empty:
        return Coverage(NO_BOX, np.zeros((0, 0), np.float32))
    return Coverage(box, np.ascontiguousarray(_cut(one, box) * _cut(other, box)))


def _cut(mask: Coverage, box: PixelBox) -> Plane:
    y, x = box.top - mask.box.top, box.left - mask.box.left
    return mask.values[y : y + box.height, x : x + box.width]


@dataclass(frozen=True, slots=True)
class Layer:
    """Premultiplied colour over a box; outside the box it is transparent."""

    box: PixelBox
    planes: Planes

    @classmethod
    def clear(cls, box: PixelBox) -> Layer:
        """A transparent layer."""
        return cls(box, np.zeros((4, box.height, box.width), np.float32))

    def crop(self, box: PixelBox) -> Layer:
        """A copy of the part inside ``box``, which must lie inside this layer's own box."""
        y, x = box.top - self.box.top, box.left - self.box.left
        planes = self.planes[:, y : y + box.height, x : x + box.width]
        return Layer(box, np.array(planes, order="C", copy=True))
