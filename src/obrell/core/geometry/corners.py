"""Closed polygons whose corners are rounded off."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Literal

from obrell.core.geometry.paths import Path, PathBuilder

Rounding = Literal["round", "continuous"]
Vertex = tuple[float, float]

FLAT = 1e-9
"""Sine of the turn below which a corner is a straight passage."""


def rounded_polygon(points: Sequence[Vertex], radii: Sequence[float], bend: Rounding = "round") -> Path:
    """The polygon with a radius at each corner; radii too large for a side are reduced there.

    ``continuous`` puts a cubic in place of the arc whose handles both lie on the corner, so its
    curvature is 0 where it meets the sides; it passes as near to the corner as the arc would.
    """
    pen = PathBuilder()
    count = len(points)
    wanted = [
        rounding(points[index - 1], points[index], points[(index + 1) % count], radii[index], bend)
        for index in range(count)
    ]
    cuts = fitted_cuts(points, wanted)
    pen.move(*towards(points[0], points[1], cuts[0]))
    for index in range(1, count + 1):
        at = index % count
        draw_corner(pen, points[index - 1], points[at], points[(index + 1) % count], cuts[at], bend)
    pen.close()
    return pen.path()


def _half_angle(before: Vertex, corner: Vertex, after: Vertex) -> float:
    """Half of the angle between the two sides that meet in a corner, radians."""
    one = math.atan2(before[1] - corner[1], before[0] - corner[0])
    two = math.atan2(after[1] - corner[1], after[0] - corner[0])
    return abs((one - two + math.pi) % math.tau - math.pi) / 2


def rounding(before: Vertex, corner: Vertex, after: Vertex, radius: float, bend: Rounding = "round") -> float:
    """How much of both sides the rounding of a corner takes away."""
    half = _half_angle(before, corner, after)
    if radius <= 0 or math.sin(half) < FLAT or math.cos(half) < FLAT:
        return 0.0
    if bend == "round":
        return radius / math.tan(half)
    depth = radius * (1 / math.sin(half) - 1)
    return 4 * depth / math.cos(half)


def fitted_cuts(points: Sequence[Vertex], cuts: Sequence[float]) -> list[float]:
    """Cuts reduced until those at both ends of a side fit on it; the last point is next to the first."""
    shares = []
    for index, (point, cut) in enumerate(zip(points, cuts, strict=True)):
        other = (index + 1) % len(points)
        both = cut + cuts[other]
        shares.append(min(1.0, math.dist(point, points[other]) / both) if both else 1.0)
    return [cut * min(shares[index - 1], shares[index]) for index, cut in enumerate(cuts)]


def draw_corner(
    pen: PathBuilder, before: Vertex, corner: Vertex, after: Vertex, cut: float, bend: Rounding = "round"
) -> None:  # fmt: skip
    """A line to a corner and its rounding, as far as the corner's cut on the side after it."""
    start, end = towards(corner, before, cut), towards(corner, after, cut)
    pen.line(*start)
    if cut <= 0:
        return
    if bend == "continuous":
        pen.cubic(*corner, *corner, *end)
        return
    half = _half_angle(before, corner, after)
    radius = cut * math.tan(half)
    middle = ((start[0] + end[0]) / 2, (start[1] + end[1]) / 2)
    centre = towards(corner, middle, math.hypot(radius, cut))
    first_angle = math.atan2(start[1] - centre[1], start[0] - centre[0])
    last_angle = math.atan2(end[1] - centre[1], end[0] - centre[0])
    sweep = (last_angle - first_angle + math.pi) % math.tau - math.pi
    pen.arc(*centre, radius, radius, 0.0, first_angle, sweep)


def towards(start: Vertex, to: Vertex, distance: float) -> Vertex:
    """The place at a distance from ``start`` on the way to ``to``."""
    length = math.dist(start, to)
    if length == 0 or distance == 0:
        return start
    share = distance / length
    return start[0] + (to[0] - start[0]) * share, start[1] + (to[1] - start[1]) * share
