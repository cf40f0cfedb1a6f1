"""Where pixels lie along an outline and across a band on it, as shares from 0 to 1."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from obrell.core.raster.coverage import flattened
from obrell.core.raster.jit import kernel
from obrell.core.raster.layers import Coverage, PixelBox


def across(field: Coverage, box: PixelBox, start: float, end: float) -> tuple[Coverage, Coverage]:
    """The share of the way from a distance ``start`` outside the edge to ``end``, device px, negative inside, and how
    much of it a pixel spans; ``field`` as ``distance.distances`` gives it at the middles of the pixels of ``box``."""
    share = (-field.values - np.float32(start)) / np.float32(end - start)
    step = np.full(share.shape, 1 / max(abs(end - start), 1e-6), np.float32)
    return Coverage(box, share.astype(np.float32)), Coverage(box, step)


def along(rows: NDArray[np.float64], box: PixelBox, reach: float) -> tuple[Coverage, Coverage]:
    """For every pixel of ``box`` within ``reach`` device px of a path, the place on it that is nearest to the
    pixel's centre, as its way from where that contour begins, and how much of that a pixel spans; both as shares of
    the contour's length. 0 elsewhere. ``rows`` as in ``coverage.rasterise``; contours are taken as closed."""
    chords = flattened(rows)
    share, step = (np.zeros((box.height, box.width), np.float32) for _ in range(2))
    if len(chords):
        nearest = np.full(share.shape, np.float32(reach * reach))
        _along(chords, *_ways(chords), box.left, box.top, reach, nearest, share, step)
    return Coverage(box, share), Coverage(box, step)


def _ways(chords: NDArray[np.float64]) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """Where each chord begins and ends along its contour, as shares."""
    lengths = np.hypot(chords[:, 2] - chords[:, 0], chords[:, 3] - chords[:, 1])
    fresh = np.concatenate([[True], np.any(chords[1:, :2] != chords[:-1, 2:], axis=1)])
    first = np.flatnonzero(fresh)
    contour = np.cumsum(fresh) - 1
    whole = np.add.reduceat(lengths, first)
    before = np.cumsum(lengths) - lengths
    start = (before - before[first][contour]) / np.maximum(whole[contour], 1e-12)
    return start, start + lengths / np.maximum(whole[contour], 1e-12)


@kernel(
    "void(float64[:,::1], float64[::1], float64[::1], int64, int64, float64, float32[:,::1], float32[:,::1],"
    " float32[:,::1])"
)
def _along(chords, starts, ends, left, top, reach, nearest, share, step):
    height, width = share.shape
    for i in range(chords.shape[0]):
        x0, y0 = chords[i, 0] - left - 0.5, chords[i, 1] - top - 0.5
        x1, y1 = chords[i, 2] - left - 0.5, chords[i, 3] - top - 0.5
        dx, dy = x1 - x0, y1 - y0
        square = dx * dx + dy * dy
        if square == 0:
            continue
        for y in range(max(0, int(min(y0, y1) - reach)), min(height, int(max(y0, y1) + reach) + 2)):
            for x in range(max(0, int(min(x0, x1) - reach)), min(width, int(max(x0, x1) + reach) + 2)):
                t = min(1.0, max(0.0, ((x - x0) * dx + (y - y0) * dy) / square))
                px, py = x - x0 - t * dx, y - y0 - t * dy
                away = np.float32(px * px + py * py)
                if away < nearest[y, x]:
                    nearest[y, x] = away
                    share[y, x] = np.float32(starts[i] + t * (ends[i] - starts[i]))
                    step[y, x] = np.float32((ends[i] - starts[i]) / np.sqrt(square))
