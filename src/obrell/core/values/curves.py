"""Curves from [0, 1] to [0, 1]: drawn through points, or known by a name."""

from __future__ import annotations

from typing import Annotated

import numpy as np
from numpy.typing import NDArray
from pydantic import Field, field_validator

from obrell.core.values.base import Value
from obrell.core.values.fields import Share
from obrell.core.workspace import remembered

Table = NDArray[np.float32]
"""Values at evenly spaced places from 0 to 1."""
TABLE_SIZE = 1025
FEWEST_POINTS, MAX_POINTS = 2, 256


class CurvePoint(Value):
    """A place the curve goes through."""

    x: Share = Field(title="at")
    y: Share = Field(title="to")


class Curve(Value):
    """A monotone cubic through its points (F. N. Fritsch, R. E. Carlson, "Monotone piecewise cubic
    interpolation", SIAM J. Numer. Anal. 17, 1980): it never overshoots. Level beyond its ends."""

    points: Annotated[tuple[CurvePoint, ...], Field(min_length=FEWEST_POINTS, max_length=MAX_POINTS)] = (
        CurvePoint(x=0, y=0), CurvePoint(x=1, y=1),
    )  # fmt: skip

    @field_validator("points")
    @classmethod
    def _in_order(cls, points: tuple[CurvePoint, ...]) -> tuple[CurvePoint, ...]:
        return tuple(sorted(points, key=lambda point: point.x))

    def table(self) -> Table:
        """The curve's values, ready for kernels."""
        return _table(self)

    def at(self, x: float) -> float:
        """The value at one place."""
        return float(np.interp(x, np.linspace(0, 1, TABLE_SIZE), self.table()))


def curve(*places: tuple[float, float]) -> Curve:
    """A curve through places."""
    return Curve(points=tuple(CurvePoint(x=x, y=y) for x, y in places))


TONES: dict[str, Curve] = {
    "straight": curve((0, 0), (1, 1)),
    "soft": curve((0, 0), (0.25, 0.156), (0.5, 0.5), (0.75, 0.844), (1, 1)),
    "hard": curve((0, 0), (0.42, 0.04), (0.58, 0.96), (1, 1)),
    "two bands": curve((0, 0), (0.22, 0.75), (0.45, 0.15), (0.7, 1), (1, 0.55)),
    "three bands": curve((0, 0), (0.16, 0.7), (0.32, 0.1), (0.5, 0.85), (0.66, 0.2), (0.84, 1), (1, 0.5)),
    "polished": curve((0, 0), (0.3, 0.9), (0.42, 0.2), (0.6, 0.3), (0.72, 1), (1, 0.8)),
    "late": curve((0, 0), (0.6, 0.05), (1, 1)),
    "early": curve((0, 0), (0.2, 0.8), (1, 1)),
}
"""Tonal curves by name."""


@remembered(256)
def _table(of: Curve) -> Table:
    x = np.array([point.x for point in of.points])
    y = np.array([point.y for point in of.points])
    keep = np.concatenate([[True], np.diff(x) > 1e-9])
    x, y = x[keep], y[keep]
    at = np.linspace(0.0, 1.0, TABLE_SIZE)
    if len(x) < 2:
        return np.full(TABLE_SIZE, y[0], np.float32)
    steps, slopes = np.diff(x), np.diff(y) / np.diff(x)
    tangents = _tangents(steps, slopes)
    i = np.clip(np.searchsorted(x, at, side="right") - 1, 0, len(steps) - 1)
    t = np.clip((at - x[i]) / steps[i], 0.0, 1.0)
    value = (
        y[i] * (1 + 2 * t) * (1 - t) ** 2 + y[i + 1] * t * t * (3 - 2 * t)
        + steps[i] * (tangents[i] * t * (1 - t) ** 2 + tangents[i + 1] * t * t * (t - 1))
    )  # fmt: skip
    table: Table = np.clip(value, 0.0, 1.0).astype(np.float32)
    return table


def _tangents(steps: NDArray[np.float64], slopes: NDArray[np.float64]) -> NDArray[np.float64]:
    """0 at turning points, else the weighted harmonic mean of both slopes; the slope itself at the ends."""
    inner = np.zeros(len(slopes) - 1)
    same = slopes[:-1] * slopes[1:] > 0
    before, after = 2 * steps[1:] + steps[:-1], steps[1:] + 2 * steps[:-1]
    with np.errstate(divide="ignore", invalid="ignore"):
        mean = (before + after) / (before / slopes[:-1] + after / slopes[1:])
    inner[same] = mean[same]
    return np.concatenate([[slopes[0]], inner, [slopes[-1]]])
