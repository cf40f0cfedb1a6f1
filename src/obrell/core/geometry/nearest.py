"""The place on an outline that is nearest to another."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

from obrell.core.geometry.paths import Path, arc_point
from obrell.core.geometry.plane import Point

PIECES = 32
"""How many chords stand for a curve: none is farther from it than 1/500 of its length."""


def nearest_on(path: Path, x: float, y: float) -> Point | None:
    """The place; None on an outline without any."""
    rows = chords(path)
    if not len(rows):
        return None
    start, way = rows[:, :2], rows[:, 2:] - rows[:, :2]
    square = np.maximum((way**2).sum(axis=1), 1e-18)
    share = np.clip(((np.array((x, y)) - start) * way).sum(axis=1) / square, 0, 1)
    places = start + share[:, None] * way
    best = int(np.argmin(np.hypot(*(places - (x, y)).T)))
    return Point(float(places[best, 0]), float(places[best, 1]))


def chords(path: Path) -> NDArray[np.float64]:
    """The chords of every contour, closed where that is, as rows of both ends, (n, 4)."""
    sink = _Chords()
    path.draw(sink)
    return np.array(sink.rows).reshape(-1, 4)


class _Chords:
    """Collects chords of every contour."""

    def __init__(self) -> None:
        self.rows: list[tuple[float, float, float, float]] = []
        self._here = self._start = (0.0, 0.0)

    def move(self, x: float, y: float) -> None:
        self._here = self._start = (x, y)

    def line(self, x: float, y: float) -> None:
        self.rows.append((*self._here, x, y))
        self._here = (x, y)

    def cubic(self, a: float, b: float, c: float, d: float, x: float, y: float) -> None:
        x0, y0 = self._here
        for step in range(1, PIECES + 1):
            t, u = step / PIECES, 1 - step / PIECES
            first, second, third, last = u**3, 3 * u * u * t, 3 * u * t * t, t**3
            self.line(first * x0 + second * a + third * c + last * x, first * y0 + second * b + third * d + last * y)

    def arc(self, cx: float, cy: float, rx: float, ry: float, turn: float, start: float, sweep: float) -> None:
        for step in range(PIECES + 1):
            self.line(*arc_point(cx, cy, rx, ry, turn, start + sweep * step / PIECES))

    def close(self) -> None:
        if math.dist(self._here, self._start) > 0:
            self.line(*self._start)
