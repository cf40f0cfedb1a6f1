"""What fades with the distance from an edge: glows, and areas that begin at a distance from it."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from obrell.core.raster.jit import kernel
from obrell.core.raster.layers import Box, Layer, Mask

FROM_OUTSIDE, FROM_EDGE, FROM_MIDDLE = range(3)


def faded(field: Mask, box: Box, way: int, reach: float, curve: NDArray[np.float32]) -> tuple[Mask, Mask]:
    """(strength, u) over ``box``: u = t / reach clamped to [0, 1], t the distance outside the edge, inside it,
    or what is left of ``reach`` inside it; strength = curve(1 - u), the curve a table from 0 to 1.

    ``field`` as ``distance.distance`` gives it for ``box``. Where the edge runs through a pixel, t is that of
    half a pixel away from it.
    """
    strength = np.zeros((box.height, box.width), np.float32)
    share = np.zeros((box.height, box.width), np.float32)
    _fade(field.values, way, reach, curve, strength, share)
    return Mask(box, strength), Mask(box, share)


@kernel("void(float32[:,::1], int64, float64, float32[::1], float32[:,::1], float32[:,::1])")
def _fade(corners, way, reach, curve, strength, share):
    last = curve.shape[0] - 1
    for y in range(strength.shape[0]):
        for x in range(strength.shape[1]):
            d = (corners[y, x] + corners[y, x + 1] + corners[y + 1, x] + corners[y + 1, x + 1]) / 4
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


def ramp_layer(share: Mask, colours: NDArray[np.float32]) -> Layer:
    """Colours looked up by a mask's values: ``colours`` has shape (n, 4), premultiplied, evenly spaced."""
    layer = Layer.clear(share.box)
    _look_up(share.values, colours, layer.planes)
    return layer


@kernel("void(float32[:,::1], float32[:,::1], float32[:,:,::1])")
def _look_up(share, colours, out):
    last = colours.shape[0] - 1
    for y in range(share.shape[0]):
        for x in range(share.shape[1]):
            at = share[y, x] * last
            i = min(int(at), last - 1)
            for channel in range(4):
                low, high = colours[i, channel], colours[i + 1, channel]
                out[channel, y, x] = low + np.float32(at - i) * (high - low)
