"""Points, rectangles and the transforms that keep shapes similar."""

from __future__ import annotations

import math
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Point:
    """A place: x to the right, y down."""

    x: float
    y: float


@dataclass(frozen=True, slots=True)
class Rect:
    """An axis-aligned rectangle; empty when a side is not before its opposite."""

    left: float
    top: float
    right: float
    bottom: float

    @property
    def width(self) -> float:
        return self.right - self.left

    @property
    def height(self) -> float:
        return self.bottom - self.top

    @property
    def empty(self) -> bool:
        return self.right <= self.left or self.bottom <= self.top

    @property
    def centre(self) -> Point:
        return Point((self.left + self.right) / 2, (self.top + self.bottom) / 2)

    def meets(self, other: Rect) -> bool:
        """Whether they share a point, be it one of an edge."""
        across = self.left <= other.right and other.left <= self.right
        return across and self.top <= other.bottom and other.top <= self.bottom

    def meet(self, other: Rect) -> Rect:
        """What lies in both; empty where nothing does."""
        return Rect(
            max(self.left, other.left), max(self.top, other.top),
            min(self.right, other.right), min(self.bottom, other.bottom),
        )  # fmt: skip

    def shifted(self, dx: float, dy: float) -> Rect:
        return Rect(self.left + dx, self.top + dy, self.right + dx, self.bottom + dy)

    def grown(self, by: float) -> Rect:
        """Every side moved outwards by ``by``."""
        return Rect(self.left - by, self.top - by, self.right + by, self.bottom + by)

    def union(self, other: Rect) -> Rect:
        """The smallest rectangle around both; an empty one adds nothing."""
        if self.empty or other.empty:
            return other if self.empty else self
        return Rect(
            min(self.left, other.left), min(self.top, other.top),
            max(self.right, other.right), max(self.bottom, other.bottom),
        )  # fmt: skip


NOWHERE = Rect(0.0, 0.0, 0.0, 0.0)


@dataclass(frozen=True, slots=True)
class Similarity:
    """Mirror left to right or not, scale and turn about the origin, then move:
    (x, y) → scale · R(turn) · (±x, y) + (dx, dy).

    ``turn`` is in degrees, clockwise on the screen. ``scale`` is positive.
    """

    scale: float = 1.0
    turn: float = 0.0
    dx: float = 0.0
    dy: float = 0.0
    mirror: bool = False

    def linear(self) -> tuple[float, float, float, float]:
        """(a, b, c, d) of (x, y) → (a·x + c·y, b·x + d·y); quarter turns are exact, so straight sides stay on the
        grid."""
        quarters, rest = divmod(self.turn, 90.0)
        if rest == 0:
            cos, sin = ((1.0, 0.0), (0.0, 1.0), (-1.0, 0.0), (0.0, -1.0))[int(quarters) % 4]
        else:
            angle = math.radians(self.turn)
            cos, sin = math.cos(angle), math.sin(angle)
        across, down = self.scale * cos, self.scale * sin
        return (-across, -down, -down, across) if self.mirror else (across, down, -down, across)

    def apply(self, x: float, y: float) -> tuple[float, float]:
        a, b, c, d = self.linear()
        return a * x + c * y + self.dx, b * x + d * y + self.dy

    def inverse(self) -> Similarity:
        """The transform that undoes this one."""
        back = Similarity(1 / self.scale, self.turn if self.mirror else -self.turn, mirror=self.mirror)
        dx, dy = back.apply(self.dx, self.dy)
        return Similarity(back.scale, back.turn, -dx, -dy, self.mirror)

    def after(self, first: Similarity) -> Similarity:
        """``first``, then this one."""
        dx, dy = self.apply(first.dx, first.dy)
        turn = self.turn - first.turn if self.mirror else self.turn + first.turn
        return Similarity(self.scale * first.scale, turn, dx, dy, self.mirror != first.mirror)

    def undo(self, x: float, y: float) -> tuple[float, float]:
        """The place that ``apply`` takes to (x, y)."""
        a, b, c, d = self.linear()
        square = self.scale * self.scale
        x, y = x - self.dx, y - self.dy
        return (a * x + b * y) / square, (c * x + d * y) / square

    def own(self, degrees: float) -> float:
        """A direction of the space this leads to as one of the space it begins in."""
        return self.turn - degrees if self.mirror else degrees - self.turn


def mirror_at(twice: float, *, across: bool) -> Similarity:
    """Left to right at x = ``twice`` / 2, or top to bottom at y = ``twice`` / 2."""
    if across:
        return Similarity(dx=twice, mirror=True)
    return Similarity(turn=180.0, dy=twice, mirror=True)


def about(x: float, y: float, turn: float = 0.0, scale: float = 1.0) -> Similarity:
    """A turn and a scale that leave (x, y) where it is."""
    dx, dy = Similarity(scale, turn).apply(x, y)
    return Similarity(scale, turn, x - dx, y - dy)


def along_axis(dx: float, dy: float) -> tuple[float, float]:
    """The vector kept to the longer of its two directions."""
    return (dx, 0.0) if abs(dx) >= abs(dy) else (0.0, dy)


def along_eighths(dx: float, dy: float) -> tuple[float, float]:
    """The vector turned to the nearest multiple of 45°, as long as its shadow on that direction."""
    angle = round(math.atan2(dy, dx) / (math.pi / 4)) * math.pi / 4
    length = dx * math.cos(angle) + dy * math.sin(angle)
    return round(length * math.cos(angle), 9), round(length * math.sin(angle), 9)


def direction(degrees: float) -> tuple[float, float]:
    """The unit vector pointing ``degrees`` clockwise from straight up, y down.

    >>> [round(v) for v in direction(90)]
    [1, 0]
    """
    cos, sin, _, _ = Similarity(turn=degrees).linear()
    return sin, -cos


def opposite(degrees: float) -> float:
    """The direction half a turn on."""
    return (degrees + 180) % 360


def flipped_direction(degrees: float, *, across: bool) -> float:
    """The direction mirrored left to right, or top to bottom, in [0, 360)."""
    return (-degrees if across else 180 - degrees) % 360


def degrees_of(dx: float, dy: float) -> float:
    """The direction of a vector in degrees clockwise from straight up, in [0, 360)."""
    return math.degrees(math.atan2(dx, -dy)) % 360.0
