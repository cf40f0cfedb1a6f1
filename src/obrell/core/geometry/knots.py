"""Paths as people edit them: knots joined by straight lines and cubics.

A knot is a place with two handles, given from the knot; a handle of length 0 is none. A segment with
a handle at neither end is straight.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from obrell.core.geometry.affine import Affine
from obrell.core.geometry.combine import arc_cubics
from obrell.core.geometry.corners import draw_corner, fitted_cuts, rounding, towards
from obrell.core.geometry.paths import Path, PathBuilder

SAME_PX = 1e-6
"""Places nearer than this are one."""
IN_LINE = 1e-3
"""Sine of the angle between two handles below which they run through their knot smoothly."""
NEAREST_STEP = 0.02
ARC_KNOT = math.pi / 2 + 1e-9
"""An arc becomes cubics of at most a quarter turn: off by 0.03 % of the radius."""


@dataclass(frozen=True, slots=True)
class Bend:
    """A knot as numbers: place, handle in, handle out, corner radius."""

    x: float
    y: float
    in_x: float = 0.0
    in_y: float = 0.0
    out_x: float = 0.0
    out_y: float = 0.0
    radius: float = 0.0

    @property
    def smooth(self) -> bool:
        """Whether its two handles lie in one line."""
        before, after = math.hypot(self.in_x, self.in_y), math.hypot(self.out_x, self.out_y)
        if before < SAME_PX or after < SAME_PX:
            return False
        cross = self.in_x * self.out_y - self.in_y * self.out_x
        dot = self.in_x * self.out_x + self.in_y * self.out_y
        return dot < 0 and abs(cross) < IN_LINE * before * after

    def carried(self, by: Affine) -> Bend:
        """The knot transformed; its corner loses its radius."""
        x, y = by.apply(self.x, self.y)
        in_x, in_y = by.turn(self.in_x, self.in_y)
        out_x, out_y = by.turn(self.out_x, self.out_y)
        return Bend(x, y, in_x, in_y, out_x, out_y)

    def moved(self, dx: float, dy: float) -> Bend:
        return replace(self, x=self.x + dx, y=self.y + dy)


def straight(one: Bend, other: Bend) -> bool:
    """Whether the segment from one knot to the next is a line."""
    return not (one.out_x or one.out_y or other.in_x or other.in_y)


def draw_contour(pen: PathBuilder, knots: Sequence[Bend], *, closed: bool) -> None:
    """Add a contour; corners with a radius are rounded where both their segments are straight."""
    if len(knots) < 2:
        return
    count, places = len(knots), [(knot.x, knot.y) for knot in knots]
    cuts = fitted_cuts(places, [_cut(knots, index, closed) for index in range(count)])
    pen.move(*towards(places[0], places[1], cuts[0]))
    for index in range(count if closed else count - 1):
        one, to = knots[index], (index + 1) % count
        other = knots[to]
        if straight(one, other):
            draw_corner(pen, places[index], places[to], places[(to + 1) % count], cuts[to])
        else:
            handles = one.x + one.out_x, one.y + one.out_y, other.x + other.in_x, other.y + other.in_y
            pen.cubic(*handles, other.x, other.y)
    if closed:
        pen.close()


def _cut(knots: Sequence[Bend], index: int, closed: bool) -> float:
    """How much of its two segments a corner's rounding would take away."""
    before, knot, after = knots[index - 1], knots[index], knots[(index + 1) % len(knots)]
    inside = closed or 0 < index < len(knots) - 1
    if knot.radius <= 0 or not inside or not (straight(before, knot) and straight(knot, after)):
        return 0.0
    return rounding((before.x, before.y), (knot.x, knot.y), (after.x, after.y), knot.radius)


def room_of(knots: Sequence[Bend], *, closed: bool) -> list[float]:
    """The radius that each corner is drawn with: its own, or less where its sides are too short for that."""
    count, places = len(knots), [(knot.x, knot.y) for knot in knots]
    wanted = [_cut(knots, index, closed) for index in range(count)]
    cuts = fitted_cuts(places, wanted)
    return [
        knot.radius * (cut / want if want > 0 else 1.0)
        for knot, cut, want in zip(knots, cuts, wanted, strict=True)
    ]  # fmt: skip


def split(one: Bend, other: Bend, at: float) -> tuple[Bend, Bend, Bend]:
    """A segment cut at a share of its parameter: the two knots with shorter handles, and the new one
    between them; the shape stays (de Casteljau)."""
    if straight(one, other):
        return one, Bend(_mix(one.x, other.x, at), _mix(one.y, other.y, at)), other
    points = [
        (one.x, one.y), (one.x + one.out_x, one.y + one.out_y),
        (other.x + other.in_x, other.y + other.in_y), (other.x, other.y),
    ]  # fmt: skip
    a, b, c = (_between(p, q, at) for p, q in pairwise(points))
    d, e = _between(a, b, at), _between(b, c, at)
    x, y = _between(d, e, at)
    middle = Bend(x, y, d[0] - x, d[1] - y, e[0] - x, e[1] - y)
    return (
        replace(one, out_x=a[0] - one.x, out_y=a[1] - one.y), middle,
        replace(other, in_x=c[0] - other.x, in_y=c[1] - other.y),
    )  # fmt: skip


def nearest(one: Bend, other: Bend, x: float, y: float) -> float:
    """The parameter, within the middle of a segment, whose place is nearest to (x, y); off by at most
    half of ``NEAREST_STEP``."""
    one, other = with_handles(one, other)
    tries = [step * NEAREST_STEP for step in range(1, round(1 / NEAREST_STEP))]
    return min(tries, key=lambda at: math.dist(place_at(one, other, at), (x, y)))


def place_at(one: Bend, other: Bend, at: float) -> tuple[float, float]:
    """The place on a segment at a share of its parameter."""
    middle = split(*with_handles(one, other), at)[1]
    return middle.x, middle.y


def with_handles(one: Bend, other: Bend) -> tuple[Bend, Bend]:
    """The same segment with handles; those of a straight one a third of the way, so that its parameter
    is a share of its length."""
    if not straight(one, other):
        return one, other
    x, y = (other.x - one.x) / 3, (other.y - one.y) / 3
    return replace(one, out_x=x, out_y=y), replace(other, in_x=-x, in_y=-y)


def pulled(one: Bend, other: Bend, at: float, dx: float, dy: float) -> tuple[Bend, Bend]:
    """A segment dragged at a share of its parameter: both handles follow so that the curve goes
    through the new place and its ends stay. A straight segment is given handles first."""
    one, other = with_handles(one, other)
    at = min(0.9, max(0.1, at))
    first, second = 3 * at * (1 - at) ** 2, 3 * at * at * (1 - at)
    weight = (1 - at, at)
    total = first * weight[0] + second * weight[1]
    a, b = weight[0] / total, weight[1] / total
    return (
        replace(one, out_x=one.out_x + dx * a, out_y=one.out_y + dy * a),
        replace(other, in_x=other.in_x + dx * b, in_y=other.in_y + dy * b),
    )


def knots_of(path: Path) -> list[tuple[bool, list[Bend]]]:
    """Every contour of a path: whether it is closed, and its knots."""
    sink = _KnotSink()
    path.draw(sink)
    sink.end(closed=False)
    return sink.contours


class _KnotSink:
    """Collects knots; a knot at the end of a closed contour that equals the first is one with it."""

    def __init__(self) -> None:
        self.contours: list[tuple[bool, list[Bend]]] = []
        self._knots: list[Bend] = []

    def move(self, x: float, y: float) -> None:
        self.end(closed=False)
        self._knots = [Bend(x, y)]

    def line(self, x: float, y: float) -> None:
        last = self._knots[-1]
        if math.dist((last.x, last.y), (x, y)) > SAME_PX:
            self._knots.append(Bend(x, y))

    def cubic(self, a: float, b: float, c: float, d: float, x: float, y: float) -> None:
        last = self._knots[-1]
        self._knots[-1] = replace(last, out_x=a - last.x, out_y=b - last.y)
        self._knots.append(Bend(x, y, c - x, d - y))

    def arc(self, cx: float, cy: float, rx: float, ry: float, turn: float, start: float, sweep: float) -> None:
        for piece in arc_cubics(cx, cy, rx, ry, turn, start, sweep, ARC_KNOT):
            self.cubic(*piece)

    def close(self) -> None:
        self.end(closed=True)

    def end(self, *, closed: bool) -> None:
        knots, self._knots = self._knots, []
        if closed and len(knots) > 1 and math.dist((knots[0].x, knots[0].y), (knots[-1].x, knots[-1].y)) < 1e-4:
            last = knots.pop()
            knots[0] = replace(knots[0], in_x=last.in_x, in_y=last.in_y)
        if len(knots) > 1:
            self.contours.append((closed, knots))


def _mix(a: float, b: float, t: float) -> float:
    return a + (b - a) * t


def _between(p: tuple[float, float], q: tuple[float, float], t: float) -> tuple[float, float]:
    return _mix(p[0], q[0], t), _mix(p[1], q[1], t)
