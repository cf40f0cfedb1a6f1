"""What an area covers of the part of a pixel that a shape covers, or leaves free.

Inside and outside layers are cut by the shape's coverage at the end (``rendering.md``, How a part is composed), so an
area that ends where the shape does has to fill its share of a pixel, not cover as much of it once more.
"""

from __future__ import annotations

import numpy as np

from obrell.core.raster.jit import kernel
from obrell.core.raster.layers import Coverage


def inside(area: Coverage, own: Coverage, *, rest: bool = False) -> Coverage:
    """The area's share of what the shape, whose coverage is ``own`` over the same box, covers of each pixel; 0 where
    that is nothing. With ``rest`` the share that the area leaves free."""
    values = np.empty_like(area.values)
    _inside(area.values, own.values, rest, values)
    return Coverage(area.box, values)


def outside(area: Coverage, own: Coverage) -> Coverage:
    """What the area covers of the share of each pixel that the shape leaves free: where both have an edge in
    common, nothing."""
    both = own.box.meet(area.box)
    if both.empty:
        return area
    values = area.values.copy()
    _outside(
        values, both.top - area.box.top, both.left - area.box.left, own.values, both.top - own.box.top,
        both.left - own.box.left, both.height, both.width,
    )  # fmt: skip
    return Coverage(area.box, values)


@kernel("void(float32[:,::1], float32[:,::1], boolean, float32[:,::1])")
def _inside(area, own, rest, out):
    one, none = np.float32(1), np.float32(0)
    for y in range(out.shape[0]):
        for x in range(out.shape[1]):
            share = min(one, area[y, x] / own[y, x]) if own[y, x] > none else none
            out[y, x] = one - share if rest else share


@kernel("void(float32[:,::1], int64, int64, float32[:,::1], int64, int64, int64, int64)")
def _outside(area, top, left, own, down, along, height, width):
    one, none = np.float32(1), np.float32(0)
    for y in range(height):
        for x in range(width):
            covered, values = own[down + y, along + x], area[top + y, left + x]
            free = one - covered
            area[top + y, left + x] = min(one, max(none, (values - covered) / free)) if free > none else none
