"""A shape swept along a straight way."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray
from pathops import PathOpsError

from obrell.core.geometry.combine import combined, union
from obrell.core.geometry.paths import Path, PathBuilder, PathSink
from obrell.core.geometry.plane import Similarity
from obrell.core.kept import remembered

TOLERANCE_PX = 0.02
"""Largest distance between a curve and its chords, logical px."""
LEAST_AREA = 1e-6
"""What a chord sweeps over at least, px²."""


@remembered(256)
def swept(path: Path, dx: float, dy: float) -> Path:
    """The union of the path moved by every share of (dx, dy): both its ends, and between them what every
    piece of the outline sweeps over."""
    if dx == 0 and dy == 0:
        return path
    quads = []
    for x0, y0, x1, y1 in _chords(path):
        turn = (x1 - x0) * dy - (y1 - y0) * dx
        corners = [(x0, y0), (x1, y1), (x1 + dx, y1 + dy), (x0 + dx, y0 + dy)]
        if abs(turn) > LEAST_AREA:
            quads.append(corners if turn > 0 else corners[::-1])
    sweep = _united(quads)
    return combined("union", (sweep, path, path.transformed(Similarity(dx=dx, dy=dy))))


def _united(quads: list[list[tuple[float, float]]]) -> Path:
    """All quadrilaterals as one outline. The native library gives up on some heaps of edges that it takes
    in two halves."""
    pen = PathBuilder()
    for corners in quads:
        _polygon(pen, corners)
    try:
        return union(pen.path())
    except PathOpsError:
        if len(quads) < 2:
            return pen.path()
        half = len(quads) // 2
        return combined("union", (_united(quads[:half]), _united(quads[half:])))


def _polygon(pen: PathSink, corners: list[tuple[float, float]]) -> None:
    pen.move(*corners[0])
    for corner in corners[1:]:
        pen.line(*corner)
    pen.close()


def _chords(path: Path) -> NDArray[np.float64]:
    sink = _ChordSink()
    path.draw(sink)
    return np.array(sink.chords or np.zeros((0, 4)))


class _ChordSink:
    """Collects the chords of an outline."""

    def __init__(self) -> None:
        self.chords: list[tuple[float, float, float, float]] = []
        self._here = self._start = (0.0, 0.0)

    def move(self, x: float, y: float) -> None:
        self._here = self._start = (x, y)

    def line(self, x: float, y: float) -> None:
        self.chords.append((*self._here, x, y))
        self._here = (x, y)

    def cubic(self, a: float, b: float, c: float, d: float, x: float, y: float) -> None:
        x0, y0 = self._here
        bend = 6 * max(math.hypot(x0 - 2 * a + c, y0 - 2 * b + d), math.hypot(a - 2 * c + x, b - 2 * d + y))
        count = max(1, math.ceil(math.sqrt(bend / (8 * TOLERANCE_PX))))
        for step in range(1, count + 1):
            t, u = step / count, 1 - step / count
            self.line(
                u**3 * x0 + 3 * u * u * t * a + 3 * u * t * t * c + t**3 * x,
                u**3 * y0 + 3 * u * u * t * b + 3 * u * t * t * d + t**3 * y,
            )

    def arc(self, cx: float, cy: float, rx: float, ry: float, turn: float, start: float, sweep: float) -> None:
        cos, sin = math.cos(turn), math.sin(turn)
        count = max(2, math.ceil(abs(sweep) * math.sqrt(max(rx, ry) / (8 * TOLERANCE_PX))))
        for step in range(count + 1):
            angle = start + sweep * step / count
            x, y = rx * math.cos(angle), ry * math.sin(angle)
            self.line(cx + cos * x - sin * y, cy + sin * x + cos * y)

    def close(self) -> None:
        self.line(*self._start)
