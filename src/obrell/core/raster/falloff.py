"""What fades with the distance from an edge: glows, and areas that begin at a distance from it."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from obrell.core.raster.jit import helper, kernel
from obrell.core.raster.layers import Coverage, Layer, PixelBox

FROM_OUTSIDE, FROM_EDGE, FROM_MIDDLE = range(3)


def faded(
    field: Coverage, box: PixelBox, way: int, reach: float, curve: NDArray[np.float32]
) -> tuple[Coverage, Coverage]:
    """(strength, u) over ``box``: u = t / reach clamped to [0, 1], t the distance outside the edge, inside it,
    or what is left of ``reach`` inside it; strength = curve(1 - u), the curve a table from 0 to 1.

    ``field`` as ``distance.distances`` gives it at the middles of the pixels of ``box``. Where the edge runs
    through a pixel, t is that of half a pixel away from it.
    """
    strength = np.zeros((box.height, box.width), np.float32)
    share = np.zeros((box.height, box.width), np.float32)
    _fade(field.values, way, reach, curve, strength, share)
    return Coverage(box, strength), Coverage(box, share)


@kernel("void(float32[:,::1], int64, float64, float32[::1], float32[:,::1], float32[:,::1])")
def _fade(middles, way, reach, curve, strength, share):
    last = curve.shape[0] - 1
    for y in range(strength.shape[0]):
        for x in range(strength.shape[1]):
            d = middles[y, x]
            if way == 0:
                t = max(0.5, -d)
            elif way == 1:
                t = max(0.5, d)
            else:
                t = reach - max(0.5, d)
            u = min(1.0, max(0.0, t / reach))
            share[y, x] = u
            at = (1 - u) * last
            i = min(int(at), last - 1)
            strength[y, x] = curve[i] + (at - i) * (curve[i + 1] - curve[i])


def toned(mask: Coverage, table: NDArray[np.float32]) -> Coverage:
    """A mask's values mapped by a table from 0 to 1."""
    values = np.interp(mask.values, np.linspace(0, 1, len(table)), table)
    return Coverage(mask.box, values.astype(np.float32))


def ramp_layer(share: Coverage, step: Coverage, colours: NDArray[np.float32], *, wraps: bool = False) -> Layer:
    """Colours along a ramp, over each pixel's own stretch of it: ``share`` is the middle of that and ``step`` its
    length, so that edges between colours are anti-aliased. ``colours`` has shape (n, 4), premultiplied, at even
    places from 0 to 1; beyond these lie the end's colours, or the ramp again when it ``wraps``."""
    layer = Layer.clear(share.box)
    sums = np.zeros((len(colours), 4))
    np.cumsum((colours[1:].astype(np.float64) + colours[:-1]) / 2, axis=0, out=sums[1:])
    sums /= len(colours) - 1
    _average(share.values, step.values, colours, sums, wraps, layer.planes)
    return layer


@helper
def _up_to(u, channel, colours, sums, wraps):
    """The integral of a channel from 0 to ``u``."""
    last = sums.shape[0] - 1
    turns = 0.0
    if wraps:
        turns = np.floor(u)
        u -= turns
    elif u <= 0:
        return u * colours[0, channel]
    elif u >= 1:
        return sums[last, channel] + (u - 1) * colours[last, channel]
    at = u * last
    i = min(int(at), last - 1)
    rest = at - i
    rise = colours[i, channel] + rest / 2 * (colours[i + 1, channel] - colours[i, channel])
    return turns * sums[last, channel] + sums[i, channel] + rest / last * rise


@kernel("void(float32[:,::1], float32[:,::1], float32[:,::1], float64[:,::1], boolean, float32[:,:,::1])")
def _average(share, step, colours, sums, wraps, out):
    for y in range(share.shape[0]):
        for x in range(share.shape[1]):
            long = max(float(step[y, x]), 1e-6)
            low, high = share[y, x] - long / 2, share[y, x] + long / 2
            for channel in range(4):
                whole = _up_to(high, channel, colours, sums, wraps) - _up_to(low, channel, colours, sums, wraps)
                out[channel, y, x] = np.float32(whole / long)
