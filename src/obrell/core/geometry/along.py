"""Places along a path, by the share of its length that leads there."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from obrell.core.geometry.nearest import chords
from obrell.core.geometry.paths import Path
from obrell.core.geometry.plane import Point


class Course:
    """The first contour of a path as a way from its first point to its last; curves stand as chords (``nearest``).
    Raises ``ValueError`` for a path without any length."""

    def __init__(self, path: Path) -> None:
        rows = chords(path)
        joined = np.flatnonzero(np.any(rows[1:, :2] != rows[:-1, 2:], axis=1)) if len(rows) else rows
        rows = rows[: joined[0] + 1] if len(joined) else rows
        lengths = np.hypot(rows[:, 2] - rows[:, 0], rows[:, 3] - rows[:, 1]) if len(rows) else np.zeros(0)
        if not lengths.sum() > 0:
            raise ValueError("a course needs a length.")
        self._places: NDArray[np.float64] = np.concatenate((rows[:1, :2], rows[:, 2:]))
        self._shares = np.concatenate(([0.0], np.cumsum(lengths))) / lengths.sum()
        self.closed = bool(np.allclose(self._places[0], self._places[-1], atol=1e-9))

    def at(self, share: float) -> Point:
        """The place so far along, 0 to 1; on a closed way it goes round again beyond, on an open one it ends."""
        share = share % 1.0 if self.closed and not 0 <= share <= 1 else min(1.0, max(0.0, share))
        x, y = (float(np.interp(share, self._shares, self._places[:, axis])) for axis in (0, 1))
        return Point(x, y)

    def share_of(self, x: float, y: float) -> float:
        """How far along the place is that is nearest to another, 0 to 1."""
        start, way = self._places[:-1], np.diff(self._places, axis=0)
        square = np.maximum((way**2).sum(axis=1), 1e-18)
        within = np.clip(((np.array((x, y)) - start) * way).sum(axis=1) / square, 0, 1)
        away = np.hypot(*(start + within[:, None] * way - (x, y)).T)
        best = int(np.argmin(away))
        first, last = self._shares[best], self._shares[best + 1]
        return float(first + (last - first) * within[best])
