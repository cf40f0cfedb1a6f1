"""Paths: closed contours of lines, cubics and elliptical arcs, and the sinks that consume them.

Arcs are kept as arcs: four cubics miss a circle by 0.03 % of its radius, which a careful eye and
the coverage contract both notice on large shapes.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from typing import Protocol

from obrell.core.geometry.plane import NOWHERE, Rect, Similarity

MOVE, LINE, CUBIC, ARC, CLOSE = range(5)

Row = tuple[float, ...]


class PathSink(Protocol):
    """Anything a path can be drawn to. Angles of arcs are radians, clockwise on the screen."""

    def move(self, x: float, y: float) -> None: ...
    def line(self, x: float, y: float) -> None: ...
    def cubic(self, a: float, b: float, c: float, d: float, x: float, y: float) -> None: ...
    def arc(
        self, cx: float, cy: float, rx: float, ry: float, turn: float, start: float, sweep: float
    ) -> None: ...
    def close(self) -> None: ...


@dataclass(frozen=True, slots=True)
class Path:
    """An immutable path; ``rows`` are (operation, its numbers …) in drawing order."""

    rows: tuple[Row, ...] = ()

    def __bool__(self) -> bool:
        return bool(self.rows)

    def __add__(self, other: Path) -> Path:
        return Path(self.rows + other.rows)

    def draw(self, sink: PathSink) -> None:
        """Play the path to ``sink``."""
        for operation, *numbers in self.rows:
            match operation:
                case 0:
                    sink.move(*numbers)
                case 1:
                    sink.line(*numbers)
                case 2:
                    sink.cubic(*numbers)
                case 3:
                    sink.arc(*numbers)
                case _:
                    sink.close()

    def transformed(self, by: Similarity) -> Path:
        """The path moved, turned and scaled."""
        turned = math.radians(by.turn)
        rows: list[Row] = []
        for operation, *n in self.rows:
            if operation == ARC:
                centre = by.apply(n[0], n[1])
                rows.append(
                    (ARC, *centre, n[2] * by.scale, n[3] * by.scale, n[4] + turned, n[5], n[6])
                )
            else:
                points = (by.apply(n[i], n[i + 1]) for i in range(0, len(n), 2))
                rows.append((operation, *(value for point in points for value in point)))
        return Path(tuple(rows))

    def bounds(self) -> Rect:
        """The exact bounding box; ``NOWHERE`` for an empty path."""
        sink = _Bounds()
        self.draw(sink)
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

    def arc(
        self, cx: float, cy: float, rx: float, ry: float, turn: float, start: float, sweep: float
    ) -> None:
        self.rows.append((ARC, cx, cy, rx, ry, turn, start, sweep))

    def close(self) -> None:
        self.rows.append((CLOSE,))

    def path(self) -> Path:
        return Path(tuple(self.rows))


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

    def arc(
        self, cx: float, cy: float, rx: float, ry: float, turn: float, start: float, sweep: float
    ) -> None:
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


def arc_point(
    cx: float, cy: float, rx: float, ry: float, turn: float, angle: float
) -> tuple[float, float]:
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
