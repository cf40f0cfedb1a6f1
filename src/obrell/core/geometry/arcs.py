"""What an outline was made of, found again: its straight lines, and its arcs with as few knots as they take."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import groupby, pairwise

from obrell.core.geometry.combine import arc_cubics
from obrell.core.geometry.knots import Bend, straight
from obrell.core.geometry.simplify import Run

QUARTER = math.pi / 2
LEAST_TURN = math.radians(30)
"""An arc that turns less is left to be drawn as any curve is."""
Piece = tuple[Bend, Bend]
Point = tuple[float, float]


@dataclass(frozen=True, slots=True)
class _Arc:
    x: float
    y: float
    radius: float
    start: float
    turn: float


def with_arcs(runs: Iterable[Run], tolerance: float, rest: Callable[[Run], Run]) -> list[Run]:
    """Each contour with its straight pieces as lines, and those that follow a circle within ``tolerance`` px as arcs
    of a quarter turn at most; what lies between them as ``rest`` makes it of an open run."""
    return [(closed, _drawn(knots, closed, tolerance, rest)) for closed, knots in runs]


def _drawn(knots: Sequence[Bend], closed: bool, tolerance: float, rest: Callable[[Run], Run]) -> list[Bend]:
    ring = _from_corner(knots) if closed else list(knots)
    pieces = list(pairwise([*ring, ring[0]] if closed else ring))
    drawn: list[Bend] = []
    for bent, group in groupby(pieces, key=lambda piece: not straight(*piece)):
        run = list(group)
        for part in _curves(run, tolerance, rest) if bent else _lines(run):
            drawn = _joined(drawn, part)
    return [replace(drawn[0], in_x=drawn[-1].in_x, in_y=drawn[-1].in_y), *drawn[1:-1]] if closed else drawn


def _from_corner(knots: Sequence[Bend]) -> list[Bend]:
    """A ring that begins where a line meets a curve or another line, so that no arc is cut in two."""
    ends = list(pairwise([knots[-1], *knots, knots[0]]))
    for i in range(len(knots)):
        before, after = straight(*ends[i]), straight(*ends[i + 1])
        if before != after or (before and not _aligned(ends[i], ends[i + 1])):
            return [*knots[i:], *knots[:i]]
    return list(knots)


def _lines(pieces: Sequence[Piece]) -> Iterator[list[Bend]]:
    """Straight pieces, those that go on in one line as one."""
    start = pieces[0][0]
    for one, other in pairwise(pieces):
        if not _aligned(one, other):
            yield [Bend(start.x, start.y), Bend(one[1].x, one[1].y)]
            start = one[1]
    yield [Bend(start.x, start.y), Bend(pieces[-1][1].x, pieces[-1][1].y)]


def _aligned(one: Piece, other: Piece) -> bool:
    ax, ay = one[1].x - one[0].x, one[1].y - one[0].y
    bx, by = other[1].x - other[0].x, other[1].y - other[0].y
    lengths = math.hypot(ax, ay) * math.hypot(bx, by)
    return abs(ax * by - ay * bx) <= 1e-3 * lengths and ax * bx + ay * by > 0


def _curves(pieces: Sequence[Piece], tolerance: float, rest: Callable[[Run], Run]) -> Iterator[list[Bend]]:
    """Arcs as long as they go, and what is left between them."""
    left: list[Piece] = []
    at = 0
    while at < len(pieces):
        count, arc = _longest(pieces[at:], tolerance)
        if arc is None:
            left.append(pieces[at])
            at += 1
            continue
        if left:
            yield rest((False, _knots(left)))[1]
            left = []
        yield _arc_knots(arc, pieces[at][0], pieces[at + count - 1][1])
        at += count
    if left:
        yield rest((False, _knots(left)))[1]


def _longest(pieces: Sequence[Piece], tolerance: float) -> tuple[int, _Arc | None]:
    """How many pieces from the first on follow one circle, and the arc they are; none when that turns too little."""
    found: tuple[int, _Arc | None] = (0, None)
    points = [(pieces[0][0].x, pieces[0][0].y)]
    for count, (one, other) in enumerate(pieces, start=1):
        points += [_at(one, other, 0.25), _at(one, other, 0.5), _at(one, other, 0.75), (other.x, other.y)]
        arc = _through(points)
        if arc is None or any(abs(math.dist(p, (arc.x, arc.y)) - arc.radius) > tolerance for p in points):
            break
        found = count, arc
    count, arc = found
    return (count, arc) if arc and abs(arc.turn) >= LEAST_TURN else (0, None)


def _through(points: Sequence[Point]) -> _Arc | None:
    """The arc through the first, a middle and the last of points; through thirds of them when they close."""
    closes = math.dist(points[0], points[-1]) < 1e-3
    last = points[2 * len(points) // 3] if closes else points[-1]
    middle = points[len(points) // 3] if closes else points[len(points) // 2]
    centre = _centre(points[0], middle, last)
    if centre is None:
        return None
    x, y = centre
    angles = [math.atan2(py - y, px - x) for px, py in points]
    turns = [(other - one + math.pi) % math.tau - math.pi for one, other in pairwise(angles)]
    if not (all(turn >= 0 for turn in turns) or all(turn <= 0 for turn in turns)):
        return None
    return _Arc(x, y, math.dist(points[0], centre), angles[0], sum(turns))


def _centre(first: Point, middle: Point, last: Point) -> Point | None:
    """The middle of the circle through three points; None when they lie in a line."""
    ax, ay = first[0] - middle[0], first[1] - middle[1]
    bx, by = last[0] - middle[0], last[1] - middle[1]
    cross = 2 * (ax * by - ay * bx)
    if abs(cross) < 1e-9:
        return None
    a, b = ax * ax + ay * ay, bx * bx + by * by
    return middle[0] + (by * a - ay * b) / cross, middle[1] + (ax * b - bx * a) / cross


def _at(one: Bend, other: Bend, share: float) -> Point:
    """A place on a piece (Bernstein form)."""
    rest = 1 - share
    weights = rest**3, 3 * rest**2 * share, 3 * rest * share**2, share**3
    across = (one.x, one.x + one.out_x, other.x + other.in_x, other.x)
    down = (one.y, one.y + one.out_y, other.y + other.in_y, other.y)
    return (
        sum(w * v for w, v in zip(weights, across, strict=True)),
        sum(w * v for w, v in zip(weights, down, strict=True)),
    )


def _arc_knots(arc: _Arc, first: Bend, last: Bend) -> list[Bend]:
    knots = [Bend(first.x, first.y)]
    pieces = arc_cubics(arc.x, arc.y, arc.radius, arc.radius, 0.0, arc.start, arc.turn, QUARTER + 1e-3)
    for a, b, c, d, x, y in pieces:
        here = knots[-1]
        knots[-1] = replace(here, out_x=a - here.x, out_y=b - here.y)
        knots.append(Bend(x, y, c - x, d - y))
    return [*knots[:-1], replace(knots[-1], x=last.x, y=last.y)]


def _knots(pieces: Sequence[Piece]) -> list[Bend]:
    return [pieces[0][0], *(other for _, other in pieces)]


def _joined(before: list[Bend], after: list[Bend]) -> list[Bend]:
    """Two runs as one, the second beginning where the first ends."""
    if not before:
        return after
    corner = replace(after[0], in_x=before[-1].in_x, in_y=before[-1].in_y)
    return [*before[:-1], corner, *after[1:]]
