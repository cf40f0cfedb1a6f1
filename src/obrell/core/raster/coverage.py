"""Exact area coverage of a path by accumulated signed areas.

Every edge adds its area to the pixels it crosses and its height to the pixel on the right of them;
a running sum along the row then gives the coverage. Sums are kept in fixed point, where addition is
associative, so a pixel's value does not depend on which rectangle was asked for.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from obrell.core.raster.chords import arc_pieces, cubic_pieces
from obrell.core.raster.jit import helper, kernel
from obrell.core.raster.layers import Coverage, PixelBox

TOLERANCE_PX = 0.001
"""Largest distance between a curve and its chords, device px: 0.2/255 of coverage on a circle."""
FIXED = float(1 << 30)
"""One whole pixel in fixed point."""
BLOCK = 32
"""Columns that are filled at once where no edge passes."""


def rasterise(rows: NDArray[np.float64], box: PixelBox) -> Coverage:
    """Coverage (0 to 1) of a path over ``box``.

    ``rows`` has shape (n, 8): operation (``geometry.paths``), then its numbers in device px. The
    path must not overlap itself; contours that wind the other way cut holes.
    """
    values = np.zeros((box.height, box.width), np.float32)
    if not box.empty and len(rows):
        edges = _flatten(rows, TOLERANCE_PX)
        _accumulate(edges, box.left, box.top, values)
    return Coverage(box, values)


def flattened(rows: NDArray[np.float64]) -> NDArray[np.float64]:
    """The chords (x0, y0, x1, y1) of the closed polygons that follow a path within ``TOLERANCE_PX``."""
    chords: NDArray[np.float64] = _flatten(rows, TOLERANCE_PX)
    return chords


@helper
def _put(edges, k, x0, y0, x1, y1):
    """Value by value: a tuple assigned to a row costs the compiler four seconds once and half a second each time."""
    edges[k, 0], edges[k, 1], edges[k, 2], edges[k, 3] = x0, y0, x1, y1
    return k + 1


@kernel("float64[:,::1](float64[:,::1], float64)")
def _flatten(rows, tolerance):
    """Edges (x0, y0, x1, y1) of the closed polygon that follows the path within ``tolerance``."""
    count = 0
    x, y = 0.0, 0.0
    for i in range(rows.shape[0]):
        n = rows[i, 1:]
        operation = int(rows[i, 0])
        if operation == 2:
            count += cubic_pieces(x, y, n, tolerance)
            x, y = n[4], n[5]
        elif operation == 3:
            count += arc_pieces(n, tolerance) + 1
        else:
            count += 1
            x, y = n[0], n[1]
    edges = np.empty((count + 1, 4))
    k = 0
    start_x, start_y = 0.0, 0.0
    for i in range(rows.shape[0]):
        n = rows[i, 1:]
        operation = int(rows[i, 0])
        if operation == 0:
            x, y = n[0], n[1]
            start_x, start_y = x, y
        elif operation == 1:
            k = _put(edges, k, x, y, n[0], n[1])
            x, y = n[0], n[1]
        elif operation == 2:
            pieces = cubic_pieces(x, y, n, tolerance)
            ax, ay, px, py = x, y, x, y
            for j in range(1, pieces + 1):
                t = j / pieces
                u = 1 - t
                a, b, c, d = u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t
                qx = a * ax + b * n[0] + c * n[2] + d * n[4]
                qy = a * ay + b * n[1] + c * n[3] + d * n[5]
                k = _put(edges, k, px, py, qx, qy)
                px, py = qx, qy
            x, y = px, py
        elif operation == 3:
            pieces = arc_pieces(n, tolerance)
            cos, sin = np.cos(n[4]), np.sin(n[4])
            for j in range(pieces + 1):
                angle = n[5] + n[6] * (j / pieces)
                ex, ey = n[2] * np.cos(angle), n[3] * np.sin(angle)
                qx, qy = n[0] + cos * ex - sin * ey, n[1] + sin * ex + cos * ey
                k = _put(edges, k, x, y, qx, qy)
                x, y = qx, qy
        else:
            k = _put(edges, k, x, y, start_x, start_y)
            x, y = start_x, start_y
    return edges[:k]


@helper
def _fixed(value):
    return np.int64(np.floor(value * FIXED + 0.5))


@helper
def _slice(sums, marks, row, left, right, y0, x0, y1, x1, sign):
    """Add one edge that stays within a pixel row and runs left to right.

    What lies left of ``left`` adds its whole height to the first column; heights are differences
    of fixed-point ends, so they telescope to the same sum wherever the box begins.
    """
    if x0 >= right:
        return
    slope = (y1 - y0) / (x1 - x0) if x1 > x0 else 0.0
    below = _fixed(y0)
    if x1 <= left:
        sums[row, 0] += sign * (_fixed(y1) - below)
        marks[row, 0] = True
        return
    column = int(np.floor(x0))
    if x0 < left:
        here = _fixed(y0 + slope * (left - x0))
        sums[row, 0] += sign * (here - below)
        marks[row, 0] = True
        below = here
        column = left
    last = int(np.floor(x1))
    while True:
        end_x = min(x1, column + 1.0)
        end_y = y1 if column >= last or end_x >= x1 else y0 + slope * (end_x - x0)
        height = _fixed(end_y) - below
        middle = 0.5 * (max(x0, float(column)) + end_x) - column
        area = np.int64(np.floor(height * (1.0 - middle) + 0.5))
        sums[row, column - left] += sign * area
        sums[row, column - left + 1] += sign * (height - area)
        marks[row, (column - left) // BLOCK] = True
        marks[row, (column - left + 1) // BLOCK] = True
        below += height
        column += 1
        if end_x >= x1 or column >= right:
            return


@kernel("void(float64[:,::1], int64, int64, float32[:,::1])")
def _accumulate(edges, left, top, out):
    height, width = out.shape
    sums = np.zeros((height, width + 2), np.int64)
    marks = np.zeros((height, (width + 1) // BLOCK + 1), np.bool_)
    for i in range(edges.shape[0]):
        x0, y0, x1, y1 = edges[i, 0], edges[i, 1], edges[i, 2], edges[i, 3]
        if y0 == y1:
            continue
        sign = 1
        if y1 < y0:
            x0, y0, x1, y1, sign = x1, y1, x0, y0, -1
        first = max(int(np.floor(y0)), top)
        last = min(int(np.ceil(y1)), top + height)
        slope = (x1 - x0) / (y1 - y0)
        for row in range(first, last):
            ya, yb = max(y0, float(row)), min(y1, row + 1.0)
            if yb <= ya:
                continue
            xa = x0 if ya == y0 else x0 + slope * (ya - y0)
            xb = x1 if yb == y1 else x0 + slope * (yb - y0)
            if xa <= xb:
                _slice(sums, marks, row - top, left, left + width, ya, xa, yb, xb, sign)
            else:
                _slice(sums, marks, row - top, left, left + width, ya, xb, yb, xa, sign)
    scale = 1.0 / FIXED
    for row in range(height):
        total = np.int64(0)
        for block in range((width + BLOCK - 1) // BLOCK):
            first, last = block * BLOCK, min(width, (block + 1) * BLOCK)
            if marks[row, block]:
                for column in range(first, last):
                    total += sums[row, column]
                    out[row, column] = min(1.0, abs(total * scale))
            else:
                level = np.float32(min(1.0, abs(total * scale)))
                for column in range(first, last):
                    out[row, column] = level
