"""Paths: closed contours of lines, cubics and elliptical arcs, and the sinks that consume them.

Arcs are kept as arcs: four cubics miss a circle by 0.03 % of its radius, which a careful eye and
the coverage contract both notice on large shapes.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Protocol

import numpy as np
from numpy.typing import NDArray

from obrell.core.geometry.plane import NOWHERE, Rect, Similarity
from obrell.core.workspace import remembered

STRAIGHT_PX = 1e-4
"""How far a stretch along an axis may lean."""
MOVE, LINE, CUBIC, ARC, CLOSE = range(5)

Row = tuple[float, ...]
Rows = NDArray[np.float64]
Numbers = NDArray[np.float64]
Indices = NDArray[np.intp]


class PathSink(Protocol):
    """Anything a path can be drawn to. Angles of arcs are radians, clockwise on the screen."""

    def move(self, x: float, y: float) -> None: ...
    def line(self, x: float, y: float) -> None: ...
    def cubic(self, a: float, b: float, c: float, d: float, x: float, y: float) -> None: ...
    def arc(self, cx: float, cy: float, rx: float, ry: float, turn: float, start: float, sweep: float) -> None: ...
    def close(self) -> None: ...


class Path:
    """An immutable path. ``rows`` has shape (n, 8), never written to: operation, then its numbers,
    in drawing order; places that an operation has no use for repeat its first point, so that all
    three pairs of every row but an arc's are points. Equal rows make equal paths."""

    __slots__ = ("_arcs", "_hash", "_hull", "rows")

    def __init__(self, rows: Rows | None = None, arcs: Indices | None = None) -> None:
        self.rows: Rows = np.zeros((0, 8)) if rows is None else rows
        self._arcs: Indices = np.flatnonzero(self.rows[:, 0] == ARC) if arcs is None else arcs
        self._hash: int | None = None
        self._hull: Rect | None = None

    def __hash__(self) -> int:
        if self._hash is None:
            self._hash = hash(self.rows.tobytes())
        return self._hash

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Path) and np.array_equal(self.rows, other.rows)

    def __reduce__(self) -> tuple[type[Path], tuple[Rows, Indices]]:
        """Without the hash, which is another one in every process."""
        return Path, (self.rows, self._arcs)

    def __bool__(self) -> bool:
        return len(self.rows) > 0

    def draw(self, sink: PathSink) -> None:
        """Play the path to ``sink``."""
        for row in self.rows.tolist():
            match int(row[0]):
                case 0:
                    sink.move(row[1], row[2])
                case 1:
                    sink.line(row[1], row[2])
                case 2:
                    sink.cubic(row[1], row[2], row[3], row[4], row[5], row[6])
                case 3:
                    sink.arc(row[1], row[2], row[3], row[4], row[5], row[6], row[7])
                case _:
                    sink.close()

    def transformed(self, by: Similarity) -> Path:
        """The path moved, turned, scaled and mirrored."""
        a, b, c, d = by.linear()
        rows = self.rows * np.array((1.0, a, d, a, d, a, d, 1.0))
        if b:
            rows[:, 1:7:2] += c * self.rows[:, 2:7:2]
            rows[:, 2:7:2] += b * self.rows[:, 1:7:2]
        rows[:, 1:7] += np.array((by.dx, by.dy) * 3)
        if len(self._arcs):
            rows[self._arcs, 3:8] = _arcs_transformed(self.rows[self._arcs, 3:8], by)
        return Path(rows, self._arcs)

    def hull(self) -> Rect:
        """A box that surely holds the path, quick to make; ``NOWHERE`` for an empty path."""
        if self._hull is None:
            self._hull = self._surely()
        return self._hull

    def _surely(self) -> Rect:
        if not self:
            return NOWHERE
        rows = self.rows
        if len(self._arcs):
            rows = rows.copy()
            arcs = rows[self._arcs]
            reach = np.where(arcs[:, 5:6] == 0, arcs[:, 3:5], arcs[:, 3:5].max(axis=1, keepdims=True))
            rows[self._arcs, 3:5] = arcs[:, 1:3] + reach
            rows[self._arcs, 5:7] = arcs[:, 1:3] - reach
        least, most = rows[:, 1:7].min(axis=0).tolist(), rows[:, 1:7].max(axis=0).tolist()
        return Rect(min(least[0::2]), min(least[1::2]), max(most[0::2]), max(most[1::2]))

    def bounds(self) -> Rect:
        """The exact bounding box; ``NOWHERE`` for an empty path."""
        return _exact_bounds(self)


def _arcs_transformed(arcs: Rows, by: Similarity) -> Rows:
    """Radii, turn, start and sweep of arcs. A mirror turns an ellipse the other way: (−x, y) of angle θ on one that is
    turned by t is the point of angle π − θ on one turned by −t."""
    radii, turn, start, sweep = arcs[:, :2] * by.scale, arcs[:, 2:3], arcs[:, 3:4], arcs[:, 4:5]
    if by.mirror:
        turn, start, sweep = -turn, np.pi - start, -sweep
    return np.hstack((radii, turn + math.radians(by.turn), start, sweep))


def joined(paths: Sequence[Path]) -> Path:
    """All contours of several paths, one after the other."""
    return paths[0] if len(paths) == 1 else Path(np.concatenate([path.rows for path in paths]))


@remembered(1024)
def _exact_bounds(path: Path) -> Rect:
    """Around the ends of all segments, and wherever a curve turns back."""
    if not path:
        return NOWHERE
    rows = path.rows
    ends = rows[:, 1:3].copy()
    cubics = rows[:, 0] == CUBIC
    ends[cubics] = rows[cubics, 5:7]
    points = [ends[rows[:, 0] != ARC]]
    for index in np.flatnonzero(rows[:, 0] == ARC):
        turns = _arc_turns(*rows[index, 1:].tolist())
        ends[index] = turns[-1]
        points.append(np.array(turns))
    for axis in (0, 1):
        start = np.roll(ends[:, axis], 1)[cubics]
        handles = rows[cubics, 1 + axis], rows[cubics, 3 + axis], rows[cubics, 5 + axis]
        points.append(_on_axis(_cubic_turns(start, *handles), ends, axis))
    joined = np.concatenate(points)
    least, most = joined.min(axis=0).tolist(), joined.max(axis=0).tolist()
    return Rect(least[0], least[1], most[0], most[1])


def _on_axis(places: Numbers, ends: Rows, axis: int) -> Rows:
    """Values of one axis as points that add nothing on the other."""
    points = np.repeat(ends[:1], len(places), axis=0)
    points[:, axis] = places
    return points


def _cubic_turns(p0: Numbers, p1: Numbers, p2: Numbers, p3: Numbers) -> Numbers:
    """Values of cubics where they turn back inside; those that do not give their ends."""
    a, b, c = p3 - 3 * p2 + 3 * p1 - p0, 2 * (p2 - 2 * p1 + p0), p1 - p0
    with np.errstate(divide="ignore", invalid="ignore"):
        root = np.sqrt(b * b - 4 * a * c)
        straight = np.abs(a) < 1e-12
        first = np.where(straight, -c / b, (-b + root) / (2 * a))
        second = (-b - root) / (2 * a)
    found = []
    for t in (first, second):
        inside = np.isfinite(t) & (t > 0) & (t < 1)
        at = np.where(inside, t, 1.0)
        u = 1 - at
        found.append(u * u * u * p0 + 3 * u * u * at * p1 + 3 * u * at * at * p2 + at * at * at * p3)
    return np.concatenate(found)


def _arc_turns(
    cx: float, cy: float, rx: float, ry: float, turn: float, start: float, sweep: float
) -> list[tuple[float, float]]:
    """Points of an arc where it turns back, then its two ends."""
    cos, sin = math.cos(turn), math.sin(turn)
    across, down = math.atan2(-ry * sin, rx * cos), math.atan2(ry * cos, rx * sin)
    angles = [
        base
        for base in (across, across + math.pi, down, down + math.pi)
        if (base - start) * math.copysign(1, sweep) % math.tau <= abs(sweep)
    ]
    return [arc_point(cx, cy, rx, ry, turn, angle) for angle in (*angles, start, start + sweep)]


@dataclass(slots=True)
class PathBuilder:
    """A sink that records a path."""

    rows: list[Row] = field(default_factory=list)

    def move(self, x: float, y: float) -> None:
        self.rows.append((MOVE, x, y))

    def line(self, x: float, y: float) -> None:
        self.rows.append((LINE, x, y))

    def cubic(self, a: float, b: float, c: float, d: float, x: float, y: float) -> None:
        self.rows.append((CUBIC, a, b, c, d, x, y))

    def arc(self, cx: float, cy: float, rx: float, ry: float, turn: float, start: float, sweep: float) -> None:
        self.rows.append((ARC, cx, cy, rx, ry, turn, start, sweep))

    def close(self) -> None:
        self.rows.append((CLOSE,))

    def path(self) -> Path:
        filled = []
        start: Row = (0.0, 0.0)
        for row in self.rows:
            start = row[1:3] if row[0] == MOVE else start
            point = row[1:3] or start
            last = row[7] if row[0] == ARC else 0.0
            filled.append((*(*row, *point, *point, *point)[:7], last))
        return Path(np.array(filled, np.float64).reshape(-1, 8))


def arc_point(cx: float, cy: float, rx: float, ry: float, turn: float, angle: float) -> tuple[float, float]:
    """The point of an ellipse at ``angle`` radians, measured before it is turned."""
    x, y = rx * math.cos(angle), ry * math.sin(angle)
    cos, sin = math.cos(turn), math.sin(turn)
    return cx + cos * x - sin * y, cy + sin * x + cos * y


def straight_lines(path: Path, least: float) -> set[tuple[str, float]]:
    """Straight, axis-aligned stretches of a path at least that long: which way each runs, ``across`` or
    ``down``, and where; those in one line are one."""
    sink = _LineSink(least)
    path.draw(sink)
    return sink.found


class _LineSink:
    """Collects straight stretches along an axis."""

    def __init__(self, least: float) -> None:
        self.found: set[tuple[str, float]] = set()
        self._least, self._here, self._start = least, (0.0, 0.0), (0.0, 0.0)

    def move(self, x: float, y: float) -> None:
        self._here = self._start = (x, y)

    def line(self, x: float, y: float) -> None:
        across, down = abs(x - self._here[0]), abs(y - self._here[1])
        if across < STRAIGHT_PX and down >= self._least:
            self.found.add(("down", round(x, 4)))
        elif down < STRAIGHT_PX and across >= self._least:
            self.found.add(("across", round(y, 4)))
        self._here = (x, y)

    def cubic(self, a: float, b: float, c: float, d: float, x: float, y: float) -> None:
        self._here = (x, y)

    def arc(self, cx: float, cy: float, rx: float, ry: float, turn: float, start: float, sweep: float) -> None:
        end = start + sweep
        x, y = rx * math.cos(end), ry * math.sin(end)
        self._here = (cx + x * math.cos(turn) - y * math.sin(turn), cy + x * math.sin(turn) + y * math.cos(turn))

    def close(self) -> None:
        self.line(*self._start)
