"""Rounded rectangles and ellipses: their paths, and the rules for growing their corners."""

from __future__ import annotations

import math

import numpy as np

from obrell.core.geometry.paths import ARC, CLOSE, LINE, MOVE, Path

Radii = tuple[float, float, float, float]
"""Top left, top right, bottom right, bottom left."""

QUARTER = math.pi / 2


def fitted_radii(width: float, height: float, radii: Radii) -> Radii:
    """Radii reduced by one factor until no side is overfull (CSS Backgrounds 3, section 4.5)."""
    tl, tr, br, bl = radii
    sides = ((width, tl + tr), (width, bl + br), (height, tl + bl), (height, tr + br))
    factor = min([1.0, *(side / total for side, total in sides if total > side)])
    return tl * factor, tr * factor, br * factor, bl * factor


def spread_radius(radius: float, spread: float) -> float:
    """A shadow's corner radius (CSS Backgrounds 3, section 6.1.1): a sharp corner stays sharp, and
    a radius smaller than the spread grows by less than it."""
    if spread <= 0:
        return max(0.0, radius + spread)
    if radius >= spread:
        return radius + spread
    return radius + spread * (1 + (radius / spread - 1) ** 3)


def parallel_radius(radius: float, distance: float) -> float:
    """The corner radius of a parallel outline with mitre joins: a sharp corner stays sharp."""
    return max(0.0, radius + distance) if radius > 0 else 0.0


def rounded_box(width: float, height: float, radii: Radii) -> Path:
    """A box of that size centred on the origin; empty when a size is not positive."""
    if width <= 0 or height <= 0:
        return Path()
    x, y = width / 2, height / 2
    tl, tr, br, bl = fitted_radii(width, height, radii)
    rows = [_point(MOVE, tl - x, -y), _point(LINE, x - tr, -y)]
    for cx, cy, radius, start, to_x, to_y in (
        (x - tr, tr - y, tr, -QUARTER, x, y - br),
        (x - br, y - br, br, 0.0, bl - x, y),
        (bl - x, y - bl, bl, QUARTER, -x, tl - y),
        (tl - x, tl - y, tl, 2 * QUARTER, 0.0, 0.0),
    ):
        if radius > 0:
            rows.append((ARC, cx, cy, radius, radius, 0.0, start, QUARTER))
        if start != 2 * QUARTER:
            rows.append(_point(LINE, to_x, to_y))
    rows.append(_point(CLOSE, tl - x, -y))
    return Path(np.array(rows))


def ellipse(width: float, height: float) -> Path:
    """An ellipse of that size centred on the origin; empty when a size is not positive."""
    if width <= 0 or height <= 0:
        return Path()
    x, y = width / 2, height / 2
    arcs = [(ARC, 0.0, 0.0, x, y, 0.0, quarter * QUARTER, QUARTER) for quarter in range(4)]
    return Path(np.array([_point(MOVE, x, 0.0), *arcs, _point(CLOSE, x, 0.0)]))


def _point(operation: int, x: float, y: float) -> tuple[float, ...]:
    """A row whose places are all the one point (``Path``)."""
    return (operation, x, y, x, y, x, y, 0.0)
