"""Closed polygons whose corners are rounded off."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Literal

from obrell.core.geometry.paths import Path, PathBuilder

Bend = Literal["round", "continuous"]
Vertex = tuple[float, float]

FLAT = 1e-9
"""Sine of the turn below which a corner is a straight passage."""


def rounded_polygon(points: Sequence[Vertex], radii: Sequence[float], bend: Bend = "round") -> Path:
    """The polygon with a radius at each corner; radii too large for a side are reduced there.

    ``continuous`` puts a cubic in place of the arc whose handles both lie on the corner, so its
    curvature is 0 where it meets the sides; it passes as near to the corner as the arc would.
    """
    pen = PathBuilder()
    count = len(points)
    cuts = [
        rounding(points[index - 1], points[index], points[(index + 1) % count], radii[index], bend)
        for index in range(count)
    ]
    shares = [_share(points, cuts, index) for index in range(count)]
    for index, corner in enumerate(points):
        cut = cuts[index] * min(shares[index - 1], shares[index])
        _corner(pen, points[index - 1], corner, points[(index + 1) % count], cut, bend, first=index == 0)
    pen.close()
    return pen.path()


def _half_angle(before: Vertex, corner: Vertex, after: Vertex) -> float:
    """Half of the angle between the two sides that meet in a corner, radians."""
    one = math.atan2(before[1] - corner[1], before[0] - corner[0])
    two = math.atan2(after[1] - corner[1], after[0] - corner[0])
    return abs((one - two + math.pi) % math.tau - math.pi) / 2


def rounding(before: Vertex, corner: Vertex, after: Vertex, radius: float, bend: Bend = "round") -> float:
    """How much of both sides the rounding of a corner takes away."""
    half = _half_angle(before, corner, after)
    if radius <= 0 or math.sin(half) < FLAT or math.cos(half) < FLAT:
        return 0.0
    if bend == "round":
        return radius / math.tan(half)
    depth = radius * (1 / math.sin(half) - 1)
    return 4 * depth / math.cos(half)


def _share(points: Sequence[Vertex], cuts: Sequence[float], index: int) -> float:
    """The factor by which the cuts at both ends of a side must shrink to fit on it."""
    length = math.dist(points[index], points[(index + 1) % len(points)])
    wanted = cuts[index] + cuts[(index + 1) % len(points)]
    return 1.0 if wanted <= length else length / wanted


def _corner(
    pen: PathBuilder, before: Vertex, corner: Vertex, after: Vertex, cut: float, bend: Bend, *, first: bool
) -> None:  # fmt: skip
    start, end = _towards(corner, before, cut), _towards(corner, after, cut)
    (pen.move if first else pen.line)(*start)
    if cut <= 0:
        return
    if bend == "continuous":
        pen.cubic(*corner, *corner, *end)
        return
    half = _half_angle(before, corner, after)
    radius = cut * math.tan(half)
    away = math.hypot(radius, cut)
    middle = ((start[0] + end[0]) / 2, (start[1] + end[1]) / 2)
    centre = _towards(corner, middle, away)
    first_angle = math.atan2(start[1] - centre[1], start[0] - centre[0])
    last_angle = math.atan2(end[1] - centre[1], end[0] - centre[0])
    sweep = (last_angle - first_angle + math.pi) % math.tau - math.pi
    pen.arc(*centre, radius, radius, 0.0, first_angle, sweep)


def _towards(start: Vertex, to: Vertex, distance: float) -> Vertex:
    length = math.dist(start, to)
    if length == 0 or distance == 0:
        return start
    share = distance / length
    return start[0] + (to[0] - start[0]) * share, start[1] + (to[1] - start[1]) * share
