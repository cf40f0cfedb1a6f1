"""Floats to bytes, once, at the very end."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from obrell.core.raster.jit import helper, kernel
from obrell.core.raster.layers import Layer

Pixels = NDArray[np.uint8]
"""Shape (height, width, 4): straight red, green, blue, alpha; sRGB-encoded."""


def premultiplied(pixels: Pixels) -> NDArray[np.float32]:
    """Return the same shape with colours weighed by their alpha, all from 0 to 255."""
    values = pixels.astype(np.float32)
    return np.concatenate([values[..., :3] * (values[..., 3:] / 255), values[..., 3:]], axis=2)


def quantise(layer: Layer) -> Pixels:
    """Straight 8-bit RGBA of a premultiplied layer, rounded half up; alpha 0 is black."""
    words = np.empty((layer.box.height, layer.box.width), "<u4")
    _quantise(layer.planes, words)
    return words.view(np.uint8).reshape(*words.shape, 4)


@helper
def _quantise_alpha(alpha, levels, scales):
    """Levels of a row, and what its colours are multiplied by; nothing where the level is 0."""
    for x in range(len(alpha)):
        level = np.int32(min(np.float32(1), max(np.float32(0), alpha[x])) * np.float32(255) + np.float32(0.5))
        scale = np.float32(255) / max(alpha[x], np.float32(1e-9))
        levels[x] = level
        scales[x] = scale if level > 0 else np.float32(0)


@helper
def _quantise_colour(colour, scales, levels):
    for x in range(len(colour)):
        level = colour[x] * scales[x] + np.float32(0.5)
        levels[x] = np.int32(min(np.float32(255), max(np.float32(0), level)))


@helper
def _pack(red, green, blue, alpha, words):
    for x in range(len(words)):
        low, high = red[x] | green[x] << np.int32(8), blue[x] << np.int32(16) | alpha[x] << np.int32(24)
        words[x] = np.uint32(low | high)


@kernel("void(float32[:,:,::1], uint32[:,::1])")
def _quantise(planes, words):
    """Plane by plane, a row at a time, which the compiler turns into vector code."""
    width = words.shape[1]
    scales, levels = np.empty(width, np.float32), np.empty((4, width), np.int32)
    for y in range(words.shape[0]):
        _quantise_alpha(planes[3, y], levels[3], scales)
        for channel in range(3):
            _quantise_colour(planes[channel, y], scales, levels[channel])
        _pack(levels[0], levels[1], levels[2], levels[3], words[y])


def filtered_up(pixels: Pixels) -> bytes:
    """Scanlines with PNG's filter 2 (Up), PNG 3rd edition, section 9.2: a byte 2, then differences."""
    lines: NDArray[np.uint8] = _filter_up(pixels.reshape(pixels.shape[0], -1))
    return lines.tobytes()


@helper
def _less(out, row, above):
    for x in range(len(out)):
        out[x] = row[x] - above[x]


@kernel("uint8[:,::1](uint8[:,::1])")
def _filter_up(pixels):
    height, width = pixels.shape
    out = np.empty((height, 1 + width), np.uint8)
    above = np.zeros(width, np.uint8)
    for y in range(height):
        out[y, 0] = 2
        _less(out[y, 1:], pixels[y], above)
        above = pixels[y]
    return out
