"""Floats to bytes, once, at the very end."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from obrell.core.raster.jit import kernel
from obrell.core.raster.layers import Layer

Pixels = NDArray[np.uint8]
"""Shape (height, width, 4): straight red, green, blue, alpha; sRGB-encoded."""


def quantise(layer: Layer) -> Pixels:
    """Straight 8-bit RGBA of a premultiplied layer, rounded half up; alpha 0 is black."""
    out = np.empty((layer.box.height, layer.box.width, 4), np.uint8)
    _quantise(layer.planes, out)
    return out


@kernel("void(float32[:,:,::1], uint8[:,:,::1])")
def _quantise(planes, out):
    height, width = out.shape[0], out.shape[1]
    for y in range(height):
        for x in range(width):
            alpha = planes[3, y, x]
            level = np.floor(min(np.float32(1), alpha) * np.float32(255) + np.float32(0.5))
            if level <= 0:
                out[y, x, :] = 0
                continue
            scale = np.float32(255) / alpha
            for channel in range(3):
                value = np.floor(planes[channel, y, x] * scale + np.float32(0.5))
                out[y, x, channel] = np.uint8(min(np.float32(255), max(np.float32(0), value)))
            out[y, x, 3] = np.uint8(level)


def filtered_up(pixels: Pixels) -> bytes:
    """Scanlines with PNG's filter 2 (Up), PNG 3rd edition, section 9.2: a byte 2, then differences."""
    lines: NDArray[np.uint8] = _filter_up(pixels)
    return lines.tobytes()


@kernel("uint8[:,::1](uint8[:,:,::1])")
def _filter_up(pixels):
    height, width = pixels.shape[0], pixels.shape[1]
    out = np.empty((height, 1 + 4 * width), np.uint8)
    for y in range(height):
        out[y, 0] = 2
        for x in range(width):
            for channel in range(4):
                above = pixels[y - 1, x, channel] if y > 0 else np.uint8(0)
                out[y, 1 + 4 * x + channel] = np.uint8((int(pixels[y, x, channel]) - int(above)) & 255)
    return out
