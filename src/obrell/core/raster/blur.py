"""Gaussian blur of a mask: the sampled, normalised Gaussian on the device grid.

Below ``COARSE_FROM`` the taps are applied directly. Above it the mask is first thinned out with a
small Gaussian, blurred on the coarse grid, and brought back with the small Gaussian again; the
variances add up to the one asked for (``kernels.md``, section 1). The coarse grid is tied to the
origin of the device grid, so a result does not depend on which rectangle was asked for.
"""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

from obrell.core.raster.jit import helper, kernel
from obrell.core.raster.layers import Coverage, PixelBox, Plane
from obrell.core.workspace import remembered

REACH = 3.6
"""Standard deviations after which a Gaussian is cut off: 0.04/255 of a step edge."""
TAIL = REACH / 2
"""The same as a share of a CSS blur radius, which is two standard deviations."""
SMALL = 0.7
"""Standard deviation of the thinning and the returning Gaussian, in coarse pixels."""
LEAST = 1.4
"""Least standard deviation in coarse pixels; keeps the error below 0.15/255 on every mask tried."""
COARSE_FROM = 2 * LEAST
"""Standard deviation in device px from which the coarse grid is faster."""

WIDEST = 64.0
"""Standard deviation in device px above which the whole mask is made on a coarser grid."""

Starts = NDArray[np.int64]
Taps = NDArray[np.float32]


def reach_px(sigma: float) -> int:
    """How many device pixels a blur reaches beyond its mask."""
    return math.ceil(REACH * sigma)


def support_px(sigma: float) -> int:
    """Device px from a box within which the mask can still matter to a ``blur`` of ``sigma`` device px over it."""
    if sigma < COARSE_FROM:
        return reach_px(sigma)
    factor = int(sigma / LEAST)
    coarse = math.ceil(REACH * math.sqrt(sigma * sigma / factor**2 - 2 * SMALL * SMALL))
    return (coarse + 2 * math.ceil(REACH * SMALL) + 4) * factor


def blur(mask: Coverage, sigma: float, box: PixelBox) -> Coverage:
    """The mask blurred by a standard deviation of ``sigma`` device px, given over ``box``.

    ``mask`` must hold every pixel that is not 0 within ``support_px(sigma)`` of ``box``. Error below
    0.3/255 for sigma up to 60.
    """
    if box.empty or mask.box.empty:
        return Coverage(box, np.zeros((box.height, box.width), np.float32))
    if sigma < COARSE_FROM:
        return Coverage(box, _direct(mask, sigma, box))
    return Coverage(box, _coarse(mask, sigma, box))


def coarsening(sigma: float) -> int:
    """By how much the grid may be coarser for a blur that wide; 1 for none."""
    return 1 if sigma <= WIDEST else 2 ** math.ceil(math.log2(sigma / WIDEST))


def rest_after(sigma: float, factor: int) -> float:
    """What is left to blur, in coarse px, beside a pixel's own area and the returning Gaussian."""
    return math.sqrt((sigma / factor) ** 2 - SMALL * SMALL - 1 / 12)


def without_returning(sigma: float, factor: int) -> float:
    """What is left to blur of values that are sampled at points, in coarse px, beside the returning Gaussian."""
    return math.sqrt((sigma / factor) ** 2 - SMALL * SMALL)


def coarse_box(box: PixelBox, factor: int) -> PixelBox:
    """The coarse pixels that ``enlarged`` needs for ``box``."""
    margin = math.ceil(REACH * SMALL) + 1
    left, right = _coarse_range(box.left, box.right, factor, margin)
    top, bottom = _coarse_range(box.top, box.bottom, factor, margin)
    return PixelBox(left, top, right, bottom)


def enlarged(mask: Coverage, factor: int, box: PixelBox) -> Coverage:
    """A coarse mask brought to the device grid with the small Gaussian."""
    columns = _returning(factor, box.left, box.right, mask.box.left)
    rows = _returning(factor, box.top, box.bottom, mask.box.top)
    wide = _turned(_banded(_turned(mask.values), *columns))
    return Coverage(box, _banded(wide, *rows))


def _direct(mask: Coverage, sigma: float, box: PixelBox) -> Plane:
    taps = gaussian_taps(sigma)
    rows = _banded(mask.values, *_sliding(sigma, box.top - mask.box.top, box.height))
    result: Plane = _sliding_columns(rows, taps, box.left - mask.box.left - len(taps) // 2, box.width)
    return result


def _coarse(mask: Coverage, sigma: float, box: PixelBox) -> Plane:
    factor = int(sigma / LEAST)
    rest = math.sqrt(sigma * sigma / factor**2 - 2 * SMALL * SMALL)
    margin = math.ceil(REACH * SMALL) + 1
    inner_y = _coarse_range(box.top, box.bottom, factor, margin)
    inner_x = _coarse_range(box.left, box.right, factor, margin)
    outer_y = _coarse_range(mask.box.top, mask.box.bottom, factor, margin)
    outer_x = _coarse_range(mask.box.left, mask.box.right, factor, margin)
    values = _banded(mask.values, *_thinning(factor, outer_y, mask.box.top))
    values = _banded(values, *_sliding(rest, inner_y[0] - outer_y[0], inner_y[1] - inner_y[0]))
    values = _banded(_turned(values), *_thinning(factor, outer_x, mask.box.left))
    values = _banded(values, *_sliding(rest, inner_x[0] - outer_x[0], inner_x[1] - inner_x[0]))
    values = _turned(_banded(values, *_returning(factor, box.left, box.right, inner_x[0])))
    result: Plane = _banded(values, *_returning(factor, box.top, box.bottom, inner_y[0]))
    return result


@remembered(256)
def gaussian_taps(sigma: float) -> Taps:
    """Sampled Gaussian of ``sigma`` px, 0 or more, at whole px, cut at ``REACH``, summing to 1; odd length."""
    radius = math.ceil(REACH * sigma)
    x = np.arange(-radius, radius + 1, dtype=np.float64)
    taps = np.exp(-0.5 * (x / sigma) ** 2) if sigma > 1e-3 else (x == 0).astype(np.float64)
    result: Taps = (taps / taps.sum()).astype(np.float32)
    return result


def _coarse_range(start: int, end: int, factor: int, margin: int) -> tuple[int, int]:
    """Coarse pixels whose centres matter for device pixels [start, end)."""
    return math.floor(start / factor) - margin, math.ceil(end / factor) + margin


def _centre(index: NDArray[np.int64], factor: int) -> NDArray[np.float64]:
    """Device position of coarse pixels' centres, in units where pixel i has its centre at i."""
    return np.asarray(index * factor + (factor - 1) / 2)


@remembered(64)
def _sliding(sigma: float, offset: int, count: int) -> tuple[Starts, Taps]:
    taps = gaussian_taps(sigma)
    starts = np.arange(offset, offset + count, dtype=np.int64) - len(taps) // 2
    return starts, np.repeat(taps[None], count, axis=0)


@remembered(512)
def _thinning(factor: int, coarse: tuple[int, int], start: int) -> tuple[Starts, Taps]:
    """Device rows to coarse rows."""
    centres = _centre(np.arange(*coarse, dtype=np.int64), factor)
    radius = REACH * SMALL * factor
    first = np.floor(centres[0] - radius)
    width = math.ceil(2 * radius) + 2
    starts = np.arange(*coarse, dtype=np.int64) * factor + int(first) - coarse[0] * factor
    return starts - start, _weights(starts, width, centres, SMALL * factor)


@remembered(512)
def _returning(factor: int, start: int, end: int, coarse_start: int) -> tuple[Starts, Taps]:
    """Coarse rows to device rows."""
    places = (np.arange(start, end, dtype=np.int64) - (factor - 1) / 2) / factor
    radius = REACH * SMALL
    starts = np.floor(places - radius).astype(np.int64)
    width = math.ceil(2 * radius) + 2
    return starts - coarse_start, _weights(starts, width, places, SMALL)


def _weights(starts: Starts, width: int, centres: NDArray[np.float64], sigma: float) -> Taps:
    distance = starts[:, None] + np.arange(width)[None, :] - centres[:, None]
    taps = np.exp(-0.5 * (distance / sigma) ** 2)
    result: Taps = (taps / taps.sum(axis=1, keepdims=True)).astype(np.float32)
    return result


def _turned(values: Plane) -> Plane:
    """The transpose, laid out anew: passes along the rows are then passes down the columns."""
    return np.ascontiguousarray(values.T)


@helper
def _add_weighted(row, source, weight):
    """Rows are passed as contiguous views, which the compiler turns into vector code."""
    for x in range(len(row)):
        row[x] += weight * source[x]


@kernel("float32[:,::1](float32[:,::1], int64[::1], float32[:,::1])")
def _banded(source, starts, taps):
    """Every output row is a weighted sum of ``taps.shape[1]`` source rows from its start on."""
    height, width = source.shape
    out = np.zeros((len(starts), width), np.float32)
    for y in range(len(starts)):
        row = out[y]
        for k in range(max(0, -starts[y]), min(taps.shape[1], height - starts[y])):
            _add_weighted(row, source[starts[y] + k], taps[y, k])
    return out


@kernel("float32[:,::1](float32[:,::1], float32[::1], int64, int64)")
def _sliding_columns(source, taps, offset, count):
    """One set of taps slid along the rows; output x begins at source x + offset."""
    height, width = source.shape
    out = np.zeros((height, count), np.float32)
    for y in range(height):
        for k in range(len(taps)):
            shift = offset + k
            first, last = max(0, -shift), min(count, width - shift)
            if last > first:
                _add_weighted(out[y, first:last], source[y, first + shift : last + shift], taps[k])
    return out
