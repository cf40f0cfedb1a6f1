"""Painting a pigment through a mask.

A source is painted row by row into a scratch row and blended from there, so that every pairing of
source and mode costs one compilation.
"""

from __future__ import annotations

import numpy as np

from obrell.core.raster import blend
from obrell.core.raster.colouring import colour_row, edges_of, plain_row
from obrell.core.raster.jit import helper, kernel
from obrell.core.raster.layers import Coverage, Layer, PixelBox
from obrell.core.raster.modes import PLAIN, blend_plainly
from obrell.core.raster.ramps import Pigment

NORMAL = 0


def paint(target: Layer, mask: Coverage, pigment: Pigment | Layer, opacity: float, mode: int) -> None:
    """Blend ``pigment``, covered by ``mask`` and faded by ``opacity``, into ``target``."""
    if isinstance(pigment, Layer):
        blend.cover(target, mask, pigment, opacity, mode)
        return
    box = mask.box.meet(target.box)
    if box.empty or opacity <= 0:
        return
    if mode in PLAIN:
        _painted(target, mask, pigment, opacity, mode, box)
    else:
        source = Layer.clear(box)
        _painted(source, mask, pigment, opacity, NORMAL, box)
        blend.composite(target, source, 1.0, mode)


def _painted(target: Layer, mask: Coverage, pigment: Pigment, opacity: float, mode: int, box: PixelBox) -> None:
    _paint(
        target.planes, target.box.left, target.box.top,
        mask.values, mask.box.left, mask.box.top,
        box.left, box.top, box.right, box.bottom,
        pigment.shape, pigment.field, pigment.stops, pigment.oklab, pigment.spread, opacity, mode,
    )  # fmt: skip


@helper
def _lay_through(under, colours, mask, alpha):
    """Source-over of the product of colours and mask, which is not written down."""
    for x in range(len(under)):
        under[x] = colours[x] * mask[x] + under[x] * (np.float32(1) - alpha[x])


@helper
def _lay_evenly(under, colour, mask, alpha):
    """The same of one colour for the whole row."""
    for x in range(len(under)):
        under[x] = colour * mask[x] + under[x] * (np.float32(1) - alpha[x])


@helper
def _times(out, colours, mask):
    for x in range(len(out)):
        out[x] = colours[x] * mask[x]


@helper
def _times_evenly(out, colour, mask):
    for x in range(len(out)):
        out[x] = colour * mask[x]


@kernel(
    "void(float32[:,:,::1], int64, int64, float32[:,::1], int64, int64, int64, int64, int64, int64,"
    " int64, float64[::1], float64[:,::1], boolean, int64, float64, int64)"
)
def _paint(
    target, target_left, target_top, mask, mask_left, mask_top,
    left, top, right, bottom, shape, field, stops, oklab, spread, opacity, mode,
):  # fmt: skip
    """Rows of constant colour are evaluated once, columns of constant colour once for all rows."""
    count = right - left
    source = np.empty((4, count), np.float32)
    colours = np.empty((4, count), np.float32)
    by_row = shape == 1 and abs(field[0]) < 1e-15
    by_column = shape == 1 and abs(field[1]) < 1e-15
    evenly = shape == 0 or by_row
    along = np.empty(count, np.float32)
    edges, plain = edges_of(stops, 1 if shape == 3 else spread), not oklab
    for k in range(stops.shape[0] - 1):
        plain &= stops[k, 5] == 1.0
    plain &= edges.shape[0] == 0 and shape < 3 and spread == 0
    for y in range(top, bottom):
        if shape == 0:
            for channel in range(4):
                colours[channel, 0] = np.float32(stops[0, channel + 1] * opacity)
        elif by_row:
            colour_row(shape, field, stops, oklab, spread, edges, left, y, 0, 1, opacity, colours)
        elif by_column and y > top:
            pass
        elif plain:
            plain_row(shape, field, stops, left, y, count, opacity, along, colours)
        else:
            colour_row(shape, field, stops, oklab, spread, edges, left, y, 0, count, opacity, colours)
        row = mask[y - mask_top, left - mask_left : right - mask_left]
        if mode == 0 and evenly:
            _times_evenly(source[3], colours[3, 0], row)
        elif mode == 0:
            _times(source[3], colours[3], row)
        for channel in range(4 if mode == 0 else 0):
            under = target[channel, y - target_top, left - target_left : right - target_left]
            if evenly:
                _lay_evenly(under, colours[channel, 0], row, source[3])
            else:
                _lay_through(under, colours[channel], row, source[3])
        if mode == 0:
            continue
        for channel in range(4):
            if evenly:
                _times_evenly(source[channel], colours[channel, 0], row)
            else:
                _times(source[channel], colours[channel], row)
        blend_plainly(target, y - target_top, left - target_left, source, count, mode)
