"""Signed distance to a path's edge, exact but for the flattening of curves that are no circles.

The edge becomes lines and circular arcs. Every square of pixels first finds which of them can be nearest
to any of its points, by the distance from its centre; its points then look at those alone
(``kernels.md``, section 2). Edges far away are passed over by blocks.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from obrell.core.raster.chords import arc_pieces, cubic_pieces
from obrell.core.raster.coverage import flattened, rasterise
from obrell.core.raster.jit import helper, kernel
from obrell.core.raster.layers import Coverage, PixelBox

TOLERANCE_PX = 0.002
"""Largest distance between a curve and its chords: normals are then within 0.4° on a curve of radius 100 px."""
WIDE_TILE, FINE_TILE, FEW_EDGES = 16, 4, 64
"""Squares of device px are wide where there are few edges, and fine where there are many, as around letters."""
BLOCK = 16
"""Edges that are passed over together."""
EVEN = 0.9985
"""The square of the distance's slope over a pixel from which on it rises evenly there."""
TWIST = 0.012
"""By how much a pixel's two diagonals may differ in that."""
Numbers = NDArray[np.float64]


def distance(rows: Numbers, box: PixelBox, band: float) -> Coverage:
    """Signed distance in device px, positive inside, at the *corners* of the pixels of ``box``: the result's
    box reaches one farther to the right and down, and its value (i, j) stands at the point (i, j).

    ``rows`` as in ``coverage.rasterise``. Distances beyond ``band`` are given as ``band``. Error below 0.01 px.
    """
    return _at_corners(rows, box, band, *_prepared(rows))


def distances(rows: Numbers, box: PixelBox, band: float) -> tuple[Coverage, Coverage]:
    """``distance``, and the distance at the *middle* of every pixel of ``box``: the mean of its corners where the
    distance rises evenly, worked out anew where it does not, at ridges and around corners."""
    edges, blocks = _prepared(rows)
    corners = _at_corners(rows, box, band, edges, blocks)
    middles = np.empty((box.height, box.width), np.float32)
    inside = rasterise(rows, box).values if len(rows) else np.zeros_like(middles)
    _middles(edges, blocks, box.left, box.top, band, corners.values, inside, middles)
    return corners, Coverage(box, middles)


def _prepared(rows: Numbers) -> tuple[Numbers, Numbers]:
    edges = _edges(rows, TOLERANCE_PX)
    return edges, _blocks(edges)


def _at_corners(rows: Numbers, box: PixelBox, band: float, edges: Numbers, blocks: Numbers) -> Coverage:
    corners = PixelBox(box.left, box.top, box.right + 1, box.bottom + 1)
    values = np.full((corners.height, corners.width), np.float32(band))
    if len(edges) and not box.empty:
        _distances(edges, blocks, corners.left, corners.top, band, values)
        moved = rows.copy()
        _shift(moved, 0.5)
        _sign(values, corners.left, corners.top, rasterise(moved, corners).values, flattened(rows))
    else:
        values *= np.float32(-1)
    return Coverage(corners, values)


@kernel("void(float32[:,::1], int64, int64, float32[:,::1], float64[:,::1])")
def _sign(values, left, top, inside, chords):
    """A point whose pixel is mostly covered lies inside; near the edge, where a corner can mislead, it is
    asked how often a ray from it crosses the outline."""
    for y in range(values.shape[0]):
        for x in range(values.shape[1]):
            within = inside[y, x] >= np.float32(0.5)
            if values[y, x] < np.float32(0.4):
                within = False
                for i in range(chords.shape[0]):
                    above, below = chords[i, 1] > top + y, chords[i, 3] > top + y
                    if above != below:
                        share = (top + y - chords[i, 1]) / (chords[i, 3] - chords[i, 1])
                        if left + x < chords[i, 0] + share * (chords[i, 2] - chords[i, 0]):
                            within = not within
            if not within:
                values[y, x] = -values[y, x]


@kernel("void(float64[:,::1], float64)")
def _shift(rows, by):
    for i in range(rows.shape[0]):
        last = 3 if int(rows[i, 0]) == 3 else 7
        for k in range(1, last):
            rows[i, k] += by


@helper
def _line(edges, k, x0, y0, x1, y1):
    if x0 == x1 and y0 == y1:
        return k
    edges[k, 0], edges[k, 1], edges[k, 2], edges[k, 3], edges[k, 4] = 0.0, x0, y0, x1, y1
    return k + 1


@kernel("float64[:,::1](float64[:,::1], float64)")
def _edges(rows, tolerance):
    """Rows of (0, x0, y0, x1, y1, …) for lines, (1, cx, cy, radius, mid x, mid y, cosine of the half sweep)
    for arcs of circles, which are at most half a turn each."""
    count, x, y = 1, 0.0, 0.0
    for i in range(rows.shape[0]):
        n, operation = rows[i, 1:], int(rows[i, 0])
        if operation == 2:
            count += cubic_pieces(x, y, n, tolerance)
            x, y = n[4], n[5]
        elif operation == 3:
            count += 4 + arc_pieces(n, tolerance)
        else:
            count += 1
            x, y = n[0], n[1]
    edges = np.zeros((count + 1, 7))
    k, sx, sy, x, y = 0, 0.0, 0.0, 0.0, 0.0
    for i in range(rows.shape[0]):
        n, operation = rows[i, 1:], int(rows[i, 0])
        if operation == 0:
            x, y = n[0], n[1]
            sx, sy = x, y
        elif operation == 1:
            k = _line(edges, k, x, y, n[0], n[1])
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
                k = _line(edges, k, px, py, qx, qy)
                px, py = qx, qy
            x, y = px, py
        elif operation == 3:
            cos, sin = np.cos(n[4]), np.sin(n[4])
            circle = abs(n[2] - n[3]) < 1e-9
            pieces = 3 if circle else arc_pieces(n, tolerance)
            for j in range(pieces + 1):
                angle = n[5] + n[6] * (j / pieces)
                ex, ey = n[2] * np.cos(angle), n[3] * np.sin(angle)
                qx, qy = n[0] + cos * ex - sin * ey, n[1] + sin * ex + cos * ey
                if j == 0 or not circle:
                    k = _line(edges, k, x, y, qx, qy)
                else:
                    middle = n[5] + n[6] * ((j - 0.5) / pieces) + n[4]
                    edges[k, 0], edges[k, 1], edges[k, 2], edges[k, 3] = 1.0, n[0], n[1], n[2]
                    edges[k, 4], edges[k, 5] = np.cos(middle), np.sin(middle)
                    edges[k, 6] = np.cos(abs(n[6]) / pieces / 2)
                    k += 1
                x, y = qx, qy
        else:
            k = _line(edges, k, x, y, sx, sy)
            x, y = sx, sy
    return edges[:k]


@helper
def _squared(edges, i, x, y):
    """The squared distance to a line, or to the whole circle of an arc where the arc is nearest; else a
    huge number, for then one of its ends is nearest, and those belong to its neighbours too."""
    px, py = x - edges[i, 1], y - edges[i, 2]
    if edges[i, 0] == 0.0:
        dx, dy = edges[i, 3] - edges[i, 1], edges[i, 4] - edges[i, 2]
        t = min(1.0, max(0.0, (px * dx + py * dy) / (dx * dx + dy * dy)))
        px -= t * dx
        py -= t * dy
        return px * px + py * py
    away = np.sqrt(px * px + py * py)
    if px * edges[i, 4] + py * edges[i, 5] < edges[i, 6] * away - 1e-12:
        return 1e30
    return (away - edges[i, 3]) * (away - edges[i, 3])


@helper
def _least(edges, i, x, y):
    """No more than the distance to the edge."""
    if edges[i, 0] == 0.0:
        return np.sqrt(_squared(edges, i, x, y))
    px, py = x - edges[i, 1], y - edges[i, 2]
    return abs(np.sqrt(px * px + py * py) - edges[i, 3])


@helper
def _reach_of(edges, i, x, y):
    """No less than the distance from a place to the farthest point of an edge, whole circles for arcs."""
    if edges[i, 0] == 0.0:
        return max(np.hypot(edges[i, 1] - x, edges[i, 2] - y), np.hypot(edges[i, 3] - x, edges[i, 4] - y))
    return np.hypot(edges[i, 1] - x, edges[i, 2] - y) + edges[i, 3]


@kernel("float64[:,::1](float64[:,::1])")
def _blocks(edges):
    """Circles around every ``BLOCK`` edges in a row, which lie close together: (x, y, radius)."""
    blocks = np.zeros(((edges.shape[0] + BLOCK - 1) // BLOCK, 3))
    for b in range(blocks.shape[0]):
        first, last = b * BLOCK, min((b + 1) * BLOCK, edges.shape[0])
        x, y = 0.0, 0.0
        for i in range(first, last):
            x += edges[i, 1] / (last - first)
            y += edges[i, 2] / (last - first)
        radius = 0.0
        for i in range(first, last):
            radius = max(radius, _reach_of(edges, i, x, y))
        blocks[b, 0], blocks[b, 1], blocks[b, 2] = x, y, radius
    return blocks


@kernel("void(float64[:,::1], float64[:,::1], int64, int64, float64, float32[:,::1])")
def _distances(edges, blocks, left, top, band, out):
    near = np.empty(edges.shape[0], np.int64)
    tile = WIDE_TILE if edges.shape[0] <= FEW_EDGES else FINE_TILE
    reach, nearest = tile * 0.75, 0
    for tile_y in range(0, out.shape[0], tile):
        for tile_x in range(0, out.shape[1], tile):
            cx, cy = left + tile_x + tile / 2, top + tile_y + tile / 2
            best = _squared(edges, nearest, cx, cy)
            for b in range(blocks.shape[0]):
                away = np.hypot(blocks[b, 0] - cx, blocks[b, 1] - cy) - blocks[b, 2]
                if away > 0 and away * away >= best:
                    continue
                for i in range(b * BLOCK, min((b + 1) * BLOCK, edges.shape[0])):
                    square = _squared(edges, i, cx, cy)
                    if square < best:
                        best, nearest = square, i
            best = np.sqrt(best)
            if best - reach > band:
                continue
            count = 0
            for b in range(blocks.shape[0]):
                if np.hypot(blocks[b, 0] - cx, blocks[b, 1] - cy) - blocks[b, 2] > best + 2 * reach:
                    continue
                for i in range(b * BLOCK, min((b + 1) * BLOCK, edges.shape[0])):
                    if _least(edges, i, cx, cy) <= best + 2 * reach:
                        near[count] = i
                        count += 1
            for y in range(tile_y, min(tile_y + tile, out.shape[0])):
                for x in range(tile_x, min(tile_x + tile, out.shape[1])):
                    found = 1e30
                    for k in range(count):
                        found = min(found, _squared(edges, near[k], float(left + x), float(top + y)))
                    out[y, x] = np.float32(min(band, np.sqrt(found)))


@helper
def _nearest(edges, blocks, x, y, most):
    """The distance to the edge, or ``most`` when that is less."""
    best = most * most
    for b in range(blocks.shape[0]):
        away = np.hypot(blocks[b, 0] - x, blocks[b, 1] - y) - blocks[b, 2]
        if away > 0 and away * away >= best:
            continue
        for i in range(b * BLOCK, min((b + 1) * BLOCK, edges.shape[0])):
            best = min(best, _squared(edges, i, x, y))
    return np.sqrt(best)


@kernel("void(float64[:,::1], float64[:,::1], int64, int64, float64, float32[:,::1], float32[:,::1], float32[:,::1])")
def _middles(edges, blocks, left, top, band, corners, inside, out):
    for y in range(out.shape[0]):
        for x in range(out.shape[1]):
            a, b = float(corners[y, x]), float(corners[y, x + 1])
            c, d = float(corners[y + 1, x]), float(corners[y + 1, x + 1])
            mean = (a + b + c + d) / 4
            across, down = (b + d - a - c) / 2, (c + d - a - b) / 2
            out[y, x] = np.float32(mean)
            even = across * across + down * down >= EVEN and abs(a + d - b - c) < TWIST
            if abs(mean) > band - 1 or even:
                continue
            found = _nearest(edges, blocks, left + x + 0.5, top + y + 0.5, band)
            out[y, x] = np.float32(found if inside[y, x] >= np.float32(0.5) else -found)
