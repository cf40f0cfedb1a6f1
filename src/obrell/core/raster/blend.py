"""Layers laid over each other, and woven together by a shape's coverage: Compositing and Blending 1, on premultiplied
float32."""

from __future__ import annotations

import numpy as np

from obrell.core.raster.jit import kernel
from obrell.core.raster.layers import Coverage, Layer, PixelBox
from obrell.core.raster.modes import blend_row


def composite(target: Layer, source: Layer, opacity: float, mode: int) -> None:
    """Blend the layer ``source`` into ``target``."""
    box = source.box.meet(target.box)
    if box.empty or opacity <= 0:
        return
    _composite(
        target.planes, target.box.left, target.box.top,
        source.planes, source.box.left, source.box.top,
        box.left, box.top, box.right, box.bottom, opacity, mode,
    )  # fmt: skip


def cover(target: Layer, mask: Coverage, source: Layer, opacity: float, mode: int) -> None:
    """Blend the layer ``source``, covered by ``mask`` and faded by ``opacity``, into ``target``."""
    box = mask.box.meet(target.box).meet(source.box)
    if box.empty or opacity <= 0:
        return
    _cover(
        target.planes, target.box.left, target.box.top,
        mask.values, mask.box.left, mask.box.top,
        source.planes, source.box.left, source.box.top,
        box.left, box.top, box.right, box.bottom, opacity, mode,
    )  # fmt: skip


def mix(target: Layer, inside: Layer, shape: Coverage) -> None:
    """target ← (1 − c) · target + c · inside over the box of ``inside``, c the shape's coverage.

    The box of ``inside`` lies within those of ``shape`` and of the target.
    """
    box = inside.box
    if not box.empty:
        y, x = box.top - target.box.top, box.left - target.box.left
        down, along = box.top - shape.box.top, box.left - shape.box.left
        _mix(target.planes, y, x, inside.planes, shape.values, down, along)


def split(layer: Layer, box: PixelBox, shape: Coverage) -> Layer:
    """What ``layer`` shows inside a shape, over ``box``, taken out of it: afterwards ``layer`` is what
    it shows outside, and weaving both by the shape's coverage gives what it was.

    Where the shape covers a part c of a pixel, as much as possible of the pixel's alpha is taken to
    lie inside, up to 1: an edge that ``layer`` shares with the shape is inside alone.
    """
    inside = layer.crop(box)
    if not box.empty:
        y, x = box.top - layer.box.top, box.left - layer.box.left
        _split(layer.planes, y, x, inside.planes, shape.values, box.top - shape.box.top, box.left - shape.box.left)
    return inside


@kernel("void(float32[:,:,::1], int64, int64, float32[:,:,::1], float32[:,::1], int64, int64)")
def _split(outside, top, left, inside, shape, down, along):
    height, width = inside.shape[1], inside.shape[2]
    for y in range(height):
        for x in range(width):
            cover, alpha = shape[down + y, along + x], inside[3, y, x]
            factor = min(np.float32(1), alpha / cover) / alpha if cover > 0 and alpha > 0 else np.float32(0)
            for channel in range(4):
                whole = inside[channel, y, x]
                inside[channel, y, x] = whole * factor
                rest = (whole - cover * whole * factor) / (1 - cover) if cover < 1 else np.float32(0)
                outside[channel, top + y, left + x] = rest


@kernel("void(float32[:,:,::1], int64, int64, float32[:,:,::1], float32[:,::1], int64, int64)")
def _mix(target, top, left, inside, shape, down, along):
    height, width = inside.shape[1], inside.shape[2]
    for channel in range(4):
        for y in range(height):
            below = target[channel, top + y, left : left + width]
            above, cover = inside[channel, y], shape[down + y, along : along + width]
            for x in range(width):
                below[x] += cover[x] * (above[x] - below[x])


@kernel(
    "void(float32[:,:,::1], int64, int64, float32[:,:,::1], int64, int64, int64, int64, int64, int64, float64, int64)"
)
def _composite(
    target, target_left, target_top, layer, layer_left, layer_top,
    left, top, right, bottom, opacity, mode,
):  # fmt: skip
    count = right - left
    source = np.empty((4, count), np.float32)
    fade = np.float32(opacity)
    for y in range(top, bottom):
        for channel in range(4):
            row = layer[channel, y - layer_top, left - layer_left : right - layer_left]
            for x in range(count):
                source[channel, x] = row[x] * fade
        blend_row(target, y - target_top, left - target_left, source, count, mode)


@kernel(
    "void(float32[:,:,::1], int64, int64, float32[:,::1], int64, int64, float32[:,:,::1], int64, int64,"
    " int64, int64, int64, int64, float64, int64)"
)
def _cover(
    target, target_left, target_top, mask, mask_left, mask_top, layer, layer_left, layer_top,
    left, top, right, bottom, opacity, mode,
):  # fmt: skip
    count = right - left
    source = np.empty((4, count), np.float32)
    fade = np.float32(opacity)
    for y in range(top, bottom):
        cover = mask[y - mask_top, left - mask_left : right - mask_left]
        for channel in range(4):
            row = layer[channel, y - layer_top, left - layer_left : right - layer_left]
            for x in range(count):
                source[channel, x] = row[x] * cover[x] * fade
        blend_row(target, y - target_top, left - target_left, source, count, mode)
