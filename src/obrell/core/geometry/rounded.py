"""Rounded rectangles and ellipses: their paths, and the rules for growing their corners."""

from __future__ import annotations

import math

import numpy as np

from obrell.core.geometry.paths import ARC, CLOSE, LINE, MOVE, Path
from obrell.core.geometry.plane import Rect

Radii = tuple[float, float, float, float]
"""Top left, top right, bottom right, bottom left."""

Insets = tuple[float, float, float, float]
"""Of the top, right, bottom and left side, as CSS orders them."""
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
    return _box(Rect(-x, -y, x, y), ((tl, tl), (tr, tr), (br, br), (bl, bl)))


def inset_box(box: Rect, radii: Radii, insets: Insets) -> Path:
    """A rounded box with every side moved inwards by a length of its own, its corners as those of a border's
    inner edge (CSS Backgrounds 3, section 4.2); outwards by negative lengths, where sharp corners stay
    sharp. Empty when nothing is left."""
    top, right, bottom, left = insets
    inner = Rect(box.left + left, box.top + top, box.right - right, box.bottom - bottom)
    if inner.empty:
        return Path()
    tl, tr, br, bl = radii
    moved = ((tl, left, top), (tr, right, top), (br, right, bottom), (bl, left, bottom))
    return _box(inner, tuple(_inset_corner(*corner) for corner in moved))


def _inset_corner(radius: float, across: float, down: float) -> tuple[float, float]:
    if radius <= 0 or radius <= across or radius <= down:
        return 0.0, 0.0
    return radius - across, radius - down


def _box(box: Rect, radii: tuple[tuple[float, float], ...]) -> Path:
    """``radii``: across and down for every corner, clockwise from the top left."""
    (tlx, tly), (trx, try_), (brx, bry), (blx, bly) = radii
    left, top, right, bottom = box.left, box.top, box.right, box.bottom
    rows = [_point(MOVE, left + tlx, top), _point(LINE, right - trx, top)]
    for cx, cy, rx, ry, start, to_x, to_y in (
        (right - trx, top + try_, trx, try_, -QUARTER, right, bottom - bry),
        (right - brx, bottom - bry, brx, bry, 0.0, left + blx, bottom),
        (left + blx, bottom - bly, blx, bly, QUARTER, left, top + tly),
        (left + tlx, top + tly, tlx, tly, 2 * QUARTER, 0.0, 0.0),
    ):
        if rx > 0:
            rows.append((ARC, cx, cy, rx, ry, 0.0, start, QUARTER))
        if start != 2 * QUARTER:
            rows.append(_point(LINE, to_x, to_y))
    rows.append(_point(CLOSE, left + tlx, top))
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
