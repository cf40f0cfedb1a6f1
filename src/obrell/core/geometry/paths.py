"""Paths: closed contours of lines, cubics and elliptical arcs, and the sinks that consume them.

Arcs are kept as arcs: four cubics miss a circle by 0.03 % of its radius, which a careful eye and
the coverage contract both notice on large shapes.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from functools import lru_cache
from typing import Protocol

import numpy as np
from numpy.typing import NDArray

from obrell.core.geometry.plane import NOWHERE, Rect, Similarity

MOVE, LINE, CUBIC, ARC, CLOSE = range(5)

Row = tuple[float, ...]
Rows = NDArray[np.float64]
_POINTS = np.array([[1, 0, 0], [1, 0, 0], [1, 1, 1], [1, 0, 0], [0, 0, 0]], bool)
"""Which of a row's three pairs are points, by operation; an arc's first is its centre."""


class PathSink(Protocol):
    """Anything a path can be drawn to. Angles of arcs are radians, clockwise on the screen."""

    def move(self, x: float, y: float) -> None: ...
    def line(self, x: float, y: float) -> None: ...
    def cubic(self, a: float, b: float, c: float, d: float, x: float, y: float) -> None: ...
    def arc(self, cx: float, cy: float, rx: float, ry: float, turn: float, start: float, sweep: float) -> None: ...
    def close(self) -> None: ...


class Path:
    """An immutable path. ``rows`` has shape (n, 8), never written to: operation, then its numbers, in
    drawing order. Paths with equal rows are equal, and hash by content."""

    __slots__ = ("_hash", "rows")

    def __init__(self, rows: Rows | None = None) -> None:
        self.rows: Rows = np.zeros((0, 8)) if rows is None else rows
        self._hash = hash(self.rows.tobytes())

    def __hash__(self) -> int:
        return self._hash

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Path) and np.array_equal(self.rows, other.rows)

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
        """The path moved, turned and scaled."""
        cos, sin = by.linear()
        rows = np.zeros_like(self.rows)
        rows[:, 0] = self.rows[:, 0]
        used = _POINTS[self.rows[:, 0].astype(np.int64)]
        x, y = self.rows[:, 1:7:2], self.rows[:, 2:7:2]
        rows[:, 1:7:2] = np.where(used, cos * x - sin * y + by.dx, 0.0)
        rows[:, 2:7:2] = np.where(used, sin * x + cos * y + by.dy, 0.0)
        arcs = self.rows[:, 0] == ARC
        rows[arcs, 3:5] = self.rows[arcs, 3:5] * by.scale
        rows[arcs, 5] = self.rows[arcs, 5] + math.radians(by.turn)
        rows[arcs, 6:8] = self.rows[arcs, 6:8]
        return Path(rows)

    def hull(self) -> Rect:
        """A box that surely holds the path, quick to make; ``NOWHERE`` for an empty path."""
        if not self:
            return NOWHERE
        operations = self.rows[:, 0].astype(np.int64)
        used = _POINTS[operations]
        x, y = self.rows[:, 1:7:2][used], self.rows[:, 2:7:2][used]
        arcs = self.rows[operations == ARC]
        upright = arcs[:, 5] == 0
        largest = arcs[:, 3:5].max(axis=1) if len(arcs) else np.zeros(0)
        rx, ry = np.where(upright, arcs[:, 3], largest), np.where(upright, arcs[:, 4], largest)
        xs = np.concatenate([x, arcs[:, 1] - rx, arcs[:, 1] + rx])
        ys = np.concatenate([y, arcs[:, 2] - ry, arcs[:, 2] + ry])
        return Rect(float(xs.min()), float(ys.min()), float(xs.max()), float(ys.max()))

    def bounds(self) -> Rect:
        """The exact bounding box; ``NOWHERE`` for an empty path."""
        return _exact_bounds(self)


@lru_cache(maxsize=1024)
def _exact_bounds(path: Path) -> Rect:
    sink = _Bounds()
    path.draw(sink)
    if not sink.xs:
        return NOWHERE
    return Rect(min(sink.xs), min(sink.ys), max(sink.xs), max(sink.ys))


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
        rows = np.zeros((len(self.rows), 8))
        for index, row in enumerate(self.rows):
            rows[index, : len(row)] = row
        return Path(rows)


@dataclass(slots=True)
class _Bounds:
    """Collects points that span the exact box: ends, and where a curve turns back."""

    xs: list[float] = field(default_factory=list)
    ys: list[float] = field(default_factory=list)

    def move(self, x: float, y: float) -> None:
        self.xs.append(x)
        self.ys.append(y)

    line = move

    def cubic(self, a: float, b: float, c: float, d: float, x: float, y: float) -> None:
        for values, p0, p1, p2, p3 in ((self.xs, self.xs[-1], a, c, x), (self.ys, self.ys[-1], b, d, y)):
            values.extend(_bezier(t, p0, p1, p2, p3) for t in _turns(p0, p1, p2, p3))
        self.move(x, y)

    def arc(self, cx: float, cy: float, rx: float, ry: float, turn: float, start: float, sweep: float) -> None:
        cos, sin = math.cos(turn), math.sin(turn)
        across, down = math.atan2(-ry * sin, rx * cos), math.atan2(ry * cos, rx * sin)
        angles = [start, start + sweep]
        for base in (across, across + math.pi, down, down + math.pi):
            if (base - start) * math.copysign(1, sweep) % math.tau <= abs(sweep):
                angles.append(base)
        for angle in (*angles[2:], angles[0], angles[1]):
            self.move(*arc_point(cx, cy, rx, ry, turn, angle))

    def close(self) -> None:
        """Closing lines join points that are already counted."""


def arc_point(cx: float, cy: float, rx: float, ry: float, turn: float, angle: float) -> tuple[float, float]:
    """The point of an ellipse at ``angle`` radians, measured before it is turned."""
    x, y = rx * math.cos(angle), ry * math.sin(angle)
    cos, sin = math.cos(turn), math.sin(turn)
    return cx + cos * x - sin * y, cy + sin * x + cos * y


def _bezier(t: float, p0: float, p1: float, p2: float, p3: float) -> float:
    u = 1 - t
    return u * u * u * p0 + 3 * u * u * t * p1 + 3 * u * t * t * p2 + t * t * t * p3


def _turns(p0: float, p1: float, p2: float, p3: float) -> list[float]:
    """Parameters inside (0, 1) where one coordinate of a cubic stands still."""
    a, b, c = p3 - 3 * p2 + 3 * p1 - p0, 2 * (p2 - 2 * p1 + p0), p1 - p0
    if abs(a) < 1e-12:
        roots = [-c / b] if abs(b) > 1e-12 else []
    else:
        square = b * b - 4 * a * c
        root = math.sqrt(square) if square >= 0 else math.nan
        roots = [(-b + root) / (2 * a), (-b - root) / (2 * a)]
    return [t for t in roots if 0 < t < 1]
