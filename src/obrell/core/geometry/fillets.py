"""Corners between curves rounded off by an arc."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

import numpy as np

from obrell.core.geometry.knots import Bend, split, with_handles

ROUNDS = 40
SMALL = 1e-9
LEAST_TURN = 1e-3
"""Radians below which two segments run on smoothly."""
NEAREST, FARTHEST = 0.02, 0.98
"""Between which shares of a segment the arc must touch it."""


@dataclass(frozen=True, slots=True)
class Fillet:
    """The four knots that stand in for the three of a corner: the ends with shorter handles, and between
    them the two where the arc touches."""

    before: Bend
    first: Bend
    second: Bend
    after: Bend


def fillet(before: Bend, corner: Bend, after: Bend, radius: float) -> Fillet | None:
    """The corner rounded by an arc that touches both segments; None when there is no room for it.

    The arc's centre lies on both segments moved sideways by the radius: Newton's method on their two
    parameters, from where straight sides would be touched.
    """
    one, other = with_handles(before, corner), with_handles(corner, after)
    turn = _turn(*_direction(*one, 1.0), *_direction(*other, 0.0))
    if radius <= 0 or abs(turn) < LEAST_TURN:
        return None
    side = math.copysign(radius, turn)
    cut = radius * math.tan(min(abs(turn), 3.0) / 2)
    at = np.array([1 - cut / _chord(*one), cut / _chord(*other)])
    at = np.clip(at, NEAREST, FARTHEST)
    for _ in range(ROUNDS):
        away = _apart(one, other, side, at)
        if float(np.hypot(*away)) < SMALL:
            break
        slopes = np.column_stack([(_apart(one, other, side, at + step) - away) / 1e-6 for step in np.eye(2) * 1e-6])
        if abs(np.linalg.det(slopes)) < SMALL:
            return None
        at = np.clip(at - np.linalg.solve(slopes, away), 0.0, 1.0)
    if float(np.hypot(*_apart(one, other, side, at))) > 1e-6 or at[0] < NEAREST or at[1] > FARTHEST:
        return None
    return _joined(one, other, float(at[0]), float(at[1]), radius)


def _joined(one: tuple[Bend, Bend], other: tuple[Bend, Bend], t: float, u: float, radius: float) -> Fillet:
    start, first, _ = split(*one, t)
    _, second, end = split(*other, u)
    along, away = _direction(*one, t), _direction(*other, u)
    handle = 4 / 3 * math.tan(abs(_turn(*along, *away)) / 4) * radius
    return Fillet(
        start, replace(first, out_x=along[0] * handle, out_y=along[1] * handle),
        replace(second, in_x=-away[0] * handle, in_y=-away[1] * handle), end,
    )  # fmt: skip


def _apart(one: tuple[Bend, Bend], other: tuple[Bend, Bend], side: float, at: np.ndarray) -> np.ndarray:
    """From the centre that touches the second segment to that which touches the first."""
    away: np.ndarray = _centre(*one, float(at[0]), side) - _centre(*other, float(at[1]), side)
    return away


def _centre(one: Bend, other: Bend, at: float, side: float) -> np.ndarray:
    x, y = _direction(one, other, at)
    middle = split(one, other, at)[1]
    return np.array([middle.x - side * y, middle.y + side * x])


def _direction(one: Bend, other: Bend, at: float) -> tuple[float, float]:
    """The unit tangent of a cubic segment."""
    points = np.array([
        (one.x, one.y), (one.x + one.out_x, one.y + one.out_y),
        (other.x + other.in_x, other.y + other.in_y), (other.x, other.y),
    ])  # fmt: skip
    at = min(max(at, 1e-6), 1 - 1e-6)
    slopes = np.diff(points, axis=0)
    tangent = (1 - at) ** 2 * slopes[0] + 2 * at * (1 - at) * slopes[1] + at * at * slopes[2]
    length = float(np.hypot(*tangent)) or 1.0
    return float(tangent[0]) / length, float(tangent[1]) / length


def _turn(ax: float, ay: float, bx: float, by: float) -> float:
    """From one direction to another, radians, positive clockwise on the screen."""
    return math.atan2(ax * by - ay * bx, ax * bx + ay * by)


def _chord(one: Bend, other: Bend) -> float:
    return math.dist((one.x, one.y), (other.x, other.y)) or 1.0
