"""Rounded rectangles and ellipses: their paths, and the rules for growing their corners."""

from __future__ import annotations

import math

from obrell.core.geometry.paths import Path, PathBuilder

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
    right, bottom = width / 2, height / 2
    left, top = -right, -bottom
    tl, tr, br, bl = fitted_radii(width, height, radii)
    pen = PathBuilder()
    pen.move(left + tl, top)
    pen.line(right - tr, top)
    _corner(pen, right - tr, top + tr, tr, -QUARTER)
    pen.line(right, bottom - br)
    _corner(pen, right - br, bottom - br, br, 0.0)
    pen.line(left + bl, bottom)
    _corner(pen, left + bl, bottom - bl, bl, QUARTER)
    pen.line(left, top + tl)
    _corner(pen, left + tl, top + tl, tl, 2 * QUARTER)
    pen.close()
    return pen.path()


def _corner(pen: PathBuilder, cx: float, cy: float, radius: float, start: float) -> None:
    if radius > 0:
        pen.arc(cx, cy, radius, radius, 0.0, start, QUARTER)


def ellipse(width: float, height: float) -> Path:
    """An ellipse of that size centred on the origin; empty when a size is not positive."""
    if width <= 0 or height <= 0:
        return Path()
    pen = PathBuilder()
    pen.move(width / 2, 0.0)
    for quarter in range(4):
        pen.arc(0.0, 0.0, width / 2, height / 2, 0.0, quarter * QUARTER, QUARTER)
    pen.close()
    return pen.path()
