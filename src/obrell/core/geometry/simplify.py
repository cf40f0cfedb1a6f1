"""Paths drawn again with fewer knots: cubics fitted to a run of points.

After P. J. Schneider, "An algorithm for automatically fitting digitized curves", Graphics Gems, 1990.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import replace
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from obrell.core.geometry.knots import Bend, straight

Run = tuple[bool, list[Bend]]
Points = NDArray[np.float64]
SAMPLES = 16
"""Points a curved segment is sampled at."""
STRAIGHT_SAMPLES = 8
"""And a straight one, so that a curve through its ends cannot leave it between them."""
CORNER_DEGREES = 25.0
ROUNDS = 6
"""How often the parameters of a fit are improved."""


def simplified(runs: Iterable[Run], tolerance: float, smooth: float = CORNER_DEGREES) -> list[Run]:
    """Each contour with fewer knots; nowhere farther than about ``tolerance`` px from what it was. A knot whose
    segments turn by more than ``smooth`` degrees stays a corner."""
    turn = math.radians(smooth)
    return [
        (closed, _run(_from_corner(knots, turn) if closed else knots, closed, tolerance, turn))
        for closed, knots in runs
    ]


def _from_corner(knots: Sequence[Bend], turn: float) -> Sequence[Bend]:
    """A ring that begins at a corner, when it has one, so that no fit has to end elsewhere."""
    for i in range(len(knots)):
        if _corner(knots[i - 1], knots[i], knots[(i + 1) % len(knots)], turn):
            return [*knots[i:], *knots[:i]]
    return knots


def _run(knots: Sequence[Bend], closed: bool, tolerance: float, turn: float) -> list[Bend]:
    ring = [*knots, knots[0]] if closed else list(knots)
    inner = range(1, len(ring) - 1)
    stops = [0, *(i for i in inner if _corner(ring[i - 1], ring[i], ring[i + 1], turn)), len(ring) - 1]
    result: list[Bend] = []
    for start, end in pairwise(stops):
        piece = _fitted(_sampled(ring[start : end + 1]), tolerance)
        if result:
            piece[0] = replace(piece[0], in_x=result[-1].in_x, in_y=result[-1].in_y)
            result.pop()
        result.extend(piece)
    if closed:
        last = result.pop()
        result[0] = replace(result[0], in_x=last.in_x, in_y=last.in_y)
    return result if len(result) > 1 else list(knots)


def _corner(before: Bend, knot: Bend, after: Bend, least: float) -> bool:
    if knot.smooth:
        return False
    into = _direction(knot.in_x, knot.in_y, before.x - knot.x, before.y - knot.y)
    out = _direction(knot.out_x, knot.out_y, after.x - knot.x, after.y - knot.y)
    turn = abs((out - into) % math.tau - math.pi)
    return turn > least


def _direction(handle_x: float, handle_y: float, x: float, y: float) -> float:
    return math.atan2(handle_y, handle_x) if handle_x or handle_y else math.atan2(y, x)


def _sampled(knots: Sequence[Bend]) -> Points:
    points = [(knots[0].x, knots[0].y)]
    for one, other in pairwise(knots):
        if straight(one, other):
            shares = np.linspace(0, 1, STRAIGHT_SAMPLES + 1)[1:, None]
            points.extend(map(tuple, (one.x, one.y) + shares * (other.x - one.x, other.y - one.y)))
            continue
        cubic = np.array([
            (one.x, one.y), (one.x + one.out_x, one.y + one.out_y),
            (other.x + other.in_x, other.y + other.in_y), (other.x, other.y),
        ])  # fmt: skip
        points.extend(map(tuple, _at(cubic, np.linspace(0, 1, SAMPLES + 1)[1:])))
    return np.array(points)


def _fitted(points: Points, tolerance: float) -> list[Bend]:
    ends = _unit(points[1] - points[0]), _unit(points[-2] - points[-1])
    cubics = _cubics(points, ends[0], ends[1], tolerance)
    knots = [Bend(*cubics[0][0])]
    for cubic in cubics:
        p, q, r, s = (tuple(map(float, row)) for row in cubic)
        if not _is_line(cubic):
            knots[-1] = replace(knots[-1], out_x=q[0] - p[0], out_y=q[1] - p[1])
            knots.append(Bend(s[0], s[1], r[0] - s[0], r[1] - s[1]))
        else:
            knots.append(Bend(s[0], s[1]))
    return knots


def _is_line(cubic: Points) -> bool:
    along = _unit(cubic[3] - cubic[0])
    away = np.abs((cubic[1:3] - cubic[0]) @ np.array([-along[1], along[0]]))
    return bool(away.max() < 1e-3)


def _cubics(points: Points, left: Points, right: Points, tolerance: float) -> list[Points]:
    if len(points) == 2:
        reach = float(np.hypot(*(points[1] - points[0]))) / 3
        return [np.array([points[0], points[0] + left * reach, points[1] + right * reach, points[1]])]
    steps = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(points, axis=0).T))])
    at = steps / steps[-1]
    cubic, worst, where = _best(points, at, left, right)
    for _ in range(ROUNDS):
        if worst <= tolerance:
            return [cubic]
        at = _improved(cubic, points, at)
        cubic, worst, where = _best(points, at, left, right)
    if worst <= tolerance:
        return [cubic]
    where = min(max(where, 1), len(points) - 2)
    middle = _unit(points[where - 1] - points[where + 1])
    return [
        *_cubics(points[: where + 1], left, middle, tolerance), *_cubics(points[where:], -middle, right, tolerance)
    ]  # fmt: skip


def _best(points: Points, at: Points, left: Points, right: Points) -> tuple[Points, float, int]:
    """The cubic with given end directions nearest to the points, its largest error and where."""
    u = 1 - at
    one, two = 3 * u * u * at, 3 * u * at * at
    base = np.outer(u**3 + one, points[0]) + np.outer(two + at**3, points[-1])
    first, second = np.outer(one, left), np.outer(two, right)
    rest = points - base
    c11, c12, c22 = (first * first).sum(), (first * second).sum(), (second * second).sum()
    x1, x2 = (first * rest).sum(), (second * rest).sum()
    down = c11 * c22 - c12 * c12
    length = float(np.hypot(*(points[-1] - points[0])))
    a = (x1 * c22 - x2 * c12) / down if abs(down) > 1e-12 else 0.0
    b = (x2 * c11 - x1 * c12) / down if abs(down) > 1e-12 else 0.0
    if a < 1e-6 * length or b < 1e-6 * length:
        a = b = length / 3
    cubic = np.array([points[0], points[0] + left * a, points[-1] + right * b, points[-1]])
    errors = np.hypot(*(_at(cubic, at) - points).T)
    return cubic, float(errors.max()), int(errors.argmax())


def _improved(cubic: Points, points: Points, at: Points) -> Points:
    """One Newton step towards each point's nearest parameter."""
    first, second = 3 * np.diff(cubic, axis=0), 6 * np.diff(cubic, n=2, axis=0)
    u = 1 - at
    d = _at(cubic, at) - points
    d1 = np.outer(u * u, first[0]) + np.outer(2 * u * at, first[1]) + np.outer(at * at, first[2])
    d2 = np.outer(u, second[0]) + np.outer(at, second[1])
    down = (d1 * d1).sum(1) + (d * d2).sum(1)
    step = np.where(np.abs(down) > 1e-12, (d * d1).sum(1) / np.where(down == 0, 1, down), 0.0)
    return np.maximum.accumulate(np.clip(at - step, 0, 1))


def _at(cubic: Points, at: Points) -> Points:
    u = 1 - at
    weights = np.stack([u**3, 3 * u * u * at, 3 * u * at * at, at**3], axis=1)
    result: Points = weights @ cubic
    return result


def _unit(vector: Points) -> Points:
    length = float(np.hypot(*vector))
    return vector / length if length else vector
