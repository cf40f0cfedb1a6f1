"""Textures from a counter-based hash: the same value at the same logical place at every density.

Octaves finer than the device pixel are left out (``rendering.md``, Grain and textures).
"""

from __future__ import annotations

import numpy as np

from obrell.core.raster.jit import helper, kernel
from obrell.core.raster.layers import Coverage, PixelBox

PATTERNS = (
    "brush", "lathe", "grain", "weave", "dots", "lines", "hide", "hammered", "stone", "wood", "carbon",
)  # fmt: skip
OCTAVES = 5


def textured(pattern: str, field: tuple[float, ...], size: float, seed: int, box: PixelBox) -> Coverage:
    """A pattern's values, from 0 to 1 with a mean of about a half, over ``box``.

    ``field`` is (a, b, c, d, e, f): the place of device point (x, y) in units of the pattern's scale is
    (a·x + b·y + c, d·x + e·y + f), around the pattern's middle. ``size`` is that unit in device px.
    """
    values = np.empty((box.height, box.width), np.float32)
    _fill(PATTERNS.index(pattern), np.array(field, np.float64), size, seed, box.left, box.top, values)
    return Coverage(box, values)


@helper
def _hash(x, y, seed):
    """An integer lattice place to [0, 1) (B. Jenkins' and R. Wang's integer mixing, 32 bits)."""
    h = np.uint32(np.uint32(x) * np.uint32(0x9E3779B1))
    h = np.uint32(h ^ np.uint32(np.uint32(y) * np.uint32(0x85EBCA77)))
    h = np.uint32(h ^ np.uint32(np.uint32(seed) * np.uint32(0xC2B2AE3D)))
    h = np.uint32(h ^ np.uint32(h >> np.uint32(15)))
    h = np.uint32(h * np.uint32(0x2C1B3C6D))
    h = np.uint32(h ^ np.uint32(h >> np.uint32(12)))
    h = np.uint32(h * np.uint32(0x297A2D39))
    h = np.uint32(h ^ np.uint32(h >> np.uint32(15)))
    return h / 4294967296.0


@helper
def _noise(u, v, seed, period):
    """Value noise, smooth between the whole numbers; ``period`` closes it across u, 0 does not."""
    i, j = int(np.floor(u)), int(np.floor(v))
    s, t = u - i, v - j
    s, t = s * s * (3 - 2 * s), t * t * (3 - 2 * t)
    i0, i1 = i, i + 1
    if period > 0:
        i0, i1 = i % period, (i + 1) % period
    a, b = _hash(i0, j, seed), _hash(i1, j, seed)
    c, d = _hash(i0, j + 1, seed), _hash(i1, j + 1, seed)
    upper, lower = a + s * (b - a), c + s * (d - c)
    return upper + t * (lower - upper)


@helper
def _octaves(u, v, seed, size, count, period):
    """Octaves of noise with falling weight, those of less than two device px left out; mean a half."""
    total, weight, sum_of, scale = 0.0, 1.0, 0.0, 1
    for octave in range(count):
        sum_of += weight
        if size / scale >= 2 or octave == 0:
            total += weight * (_noise(u * scale, v * scale, seed + octave * 101, period * scale) - 0.5)
        weight *= 0.6
        scale *= 2
    return 0.5 + total / sum_of * 1.6


@helper
def _cells(u, v, seed):
    """Distances to the nearest and second nearest of one random place in every unit square."""
    i, j = int(np.floor(u)), int(np.floor(v))
    first, second = 9.0, 9.0
    for dj in range(-1, 2):
        for di in range(-1, 2):
            x = i + di + 0.15 + 0.7 * _hash(i + di, j + dj, seed)
            y = j + dj + 0.15 + 0.7 * _hash(i + di, j + dj, seed + 7)
            away = np.sqrt((x - u) * (x - u) + (y - v) * (y - v))
            if away < first:
                first, second = away, first
            elif away < second:
                second = away
    return first, second


@helper
def _step(x, soft):
    """0 to 1 across x = 0, over ``soft`` on both sides."""
    t = min(1.0, max(0.0, x / (2 * soft) + 0.5))
    return t * t * (3 - 2 * t)


@helper
def _frac(x):
    return x - np.floor(x)


@kernel("void(int64, float64[::1], float64, int64, int64, int64, float32[:,::1])")
def _fill(pattern, field, size, seed, left, top, out):
    soft = 0.5 / max(size, 1e-6)
    for y in range(out.shape[0]):
        for x in range(out.shape[1]):
            px, py = left + x + 0.5, top + y + 0.5
            u = field[0] * px + field[1] * py + field[2]
            v = field[3] * px + field[4] * py + field[5]
            value = 0.5
            if pattern == 0:
                value = _octaves(u / 24, v, seed, size, 4, 0)
            elif pattern == 1:
                away = np.sqrt(u * u + v * v)
                around = (np.arctan2(v, u) / (2 * np.pi) + 0.5) * 9
                value = _octaves(around, away, seed, size, 4, 9)
            elif pattern == 2:
                value = _octaves(u, v, seed, size, 2, 0)
            elif pattern == 3:
                over = (int(np.floor(u)) + int(np.floor(v))) % 2 == 0
                across, along = (_frac(v), _frac(u)) if over else (_frac(u), _frac(v))
                round_thread = 1 - (2 * across - 1) ** 2
                value = 0.15 + 0.6 * round_thread * (0.55 + 0.45 * (1 - (2 * along - 1) ** 2))
                value += 0.15 * (_noise(u * 5, v * 5, seed, 0) - 0.5)
            elif pattern == 4:
                a, b = _frac(u) - 0.5, _frac(v) - 0.5
                value = _step(0.3 - np.sqrt(a * a + b * b), soft)
            elif pattern == 5:
                value = _step(0.25 - abs(_frac(v) - 0.5), soft)
            elif pattern == 6:
                first, second = _cells(u, v, seed)
                edge = min(1.0, (second - first) * 2.2)
                value = (
                    0.12
                    + 0.62 * edge * (1.05 - 0.4 * first)
                    + 0.2 * (_octaves(u * 2, v * 2, seed, size / 2, 3, 0) - 0.5)
                )
            elif pattern == 7:
                first, second = _cells(u, v, seed)
                value = 0.25 + 0.6 * first + 0.12 * min(1.0, (second - first) * 3)
            elif pattern == 8:
                bend = _octaves(u / 3, v / 3, seed + 31, size * 3, 4, 0)
                value = _octaves(u + 2 * bend, v + 2 * bend, seed, size, 5, 0)
            elif pattern == 9:
                bend = _octaves(u / 22, v / 3, seed, size * 3, 3, 0)
                rings = _frac(v / 3 + bend * 3.2)
                value = 0.25 + 0.5 * min(rings / 0.75, (1 - rings) / 0.25)
                value += 0.25 * (_octaves(u / 8, v * 2.5, seed + 5, size / 2.5, 3, 0) - 0.5)
            else:
                i, j = int(np.floor(u)), int(np.floor(v))
                over = (i + j) % 4 < 2
                across = _frac(u) if over else _frac(v)
                lit = 0.62 if over else 0.3
                value = lit * (0.55 + 0.6 * (1 - (2 * across - 1) ** 2)) + 0.1 * (_noise(u * 6, v * 6, seed, 0) - 0.5)
            out[y, x] = np.float32(min(1.0, max(0.0, value)))
