"""Light on a relief whose height follows from the distance to an edge (``rendering.md``, Bevel)."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from obrell.core.geometry.paths import Path
from obrell.core.geometry.plane import Similarity
from obrell.core.raster.blur import blur, coarse_box, coarsening, enlarged, support_px, without_returning
from obrell.core.raster.distance import distance, distances
from obrell.core.raster.jit import helper, kernel
from obrell.core.raster.layers import Coverage, PixelBox

Table = NDArray[np.float32]

INSIDE, OUTSIDE, STRADDLING = range(3)
STEEPEST = 20.0
"""The slope's length at most."""
TABLE_SIZE = 4097
"""Places at which a profile is tabled: off by at most 0.3 % of its rise where a bullnose begins."""


@dataclass(frozen=True, slots=True)
class Relief:
    """A bevel in device px: on which side of the edge, how wide, how high, blurred by a deviation; and its
    profile, the heights from 0 to 1 at evenly spaced places across the width."""

    side: int
    width: float
    rise: float
    deviation: float
    profile: Table


def lit(
    rows: NDArray[np.float64], box: PixelBox, relief: Relief, light: tuple[float, float, float], tone: Table,
    bumps: Coverage | None = None,
) -> tuple[Coverage, Coverage]:  # fmt: skip
    """How strongly highlight and shade lie on every pixel of ``box``. ``light`` is the unit vector to the
    light, x right, y down, z towards the eye; ``tone`` maps both, as a table from 0 to 1. ``bumps`` are
    heights in device px at the corners of the pixels, laid on the surface when the relief is inside, else
    on its band, where they end with it."""
    high = np.zeros((box.height, box.width), np.float32)
    low = np.zeros((box.height, box.width), np.float32)
    if not box.empty:
        corners = PixelBox(box.left, box.top, box.right + 1, box.bottom + 1)
        if relief.deviation > 0 or bumps is not None:
            heights = _soft_heights(rows, relief, corners)
            if bumps is not None:
                field = distance(rows, box, relief.width + 2)
                _roughen(_cropped(field, corners), relief.side, relief.width, bumps.values, heights.values)
            _light_heights(heights.values, *light, tone, high, low)
        else:
            field, middles = distances(rows, box, relief.width + 2)
            _light_distance(
                field.values, middles.values, relief.side, relief.width, relief.rise, relief.profile, *light, tone,
                high, low,
            )  # fmt: skip
    return Coverage(box, high), Coverage(box, low)


def _soft_heights(rows: NDArray[np.float64], relief: Relief, corners: PixelBox) -> Coverage:
    """The blurred surface at the corners of pixels. A very wide blur is made on a coarser grid, as a shadow's is: what
    it shows is smoother than that grid can tell."""
    factor = coarsening(relief.deviation)
    if factor == 1:
        field = _distance_near(rows, corners.grown(support_px(relief.deviation)), relief.width + 2)
        heights = Coverage(field.box, np.empty_like(field.values))
        _raise(field.values, relief.side, relief.width, relief.rise, relief.profile, heights.values)
        soft = relief.deviation > 0
        return blur(heights, relief.deviation, corners) if soft else Coverage(corners, _cropped(heights, corners))
    shift = -(factor - 1) / 2 / factor
    small = Path(rows).transformed(Similarity(scale=1 / factor, dx=shift, dy=shift))
    less = Relief(
        relief.side, relief.width / factor, relief.rise / factor, without_returning(relief.deviation, factor),
        relief.profile,
    )  # fmt: skip
    coarse = _soft_heights(small.rows, less, coarse_box(corners, factor))
    return enlarged(Coverage(coarse.box, coarse.values * np.float32(factor)), factor, corners)


def _distance_near(rows: NDArray[np.float64], box: PixelBox, band: float) -> Coverage:
    """``distance`` at the corners of the pixels of ``box`` less one to the right and down, worked out only where it
    can be less than ``band``."""
    hull = Path(rows).hull().grown(band + 1)
    within = PixelBox.around(hull.left, hull.top, hull.right, hull.bottom).meet(box)
    values = np.full((box.height, box.width), np.float32(-band))
    if not within.empty:
        y, x = within.top - box.top, within.left - box.left
        found = distance(rows, PixelBox(within.left, within.top, within.right - 1, within.bottom - 1), band)
        values[y : y + within.height, x : x + within.width] = found.values
    return Coverage(box, values)


def _cropped(field: Coverage, box: PixelBox) -> NDArray[np.float32]:
    y, x = box.top - field.box.top, box.left - field.box.left
    return np.ascontiguousarray(field.values[y : y + box.height, x : x + box.width])


@kernel("void(float32[:,::1], int64, float64, float32[:,::1], float32[:,::1])")
def _roughen(corners, side, width, bumps, heights):
    shift = (0.0, width, width / 2)[side]
    for y in range(heights.shape[0]):
        for x in range(heights.shape[1]):
            u = min(1.0, max(0.0, (float(corners[y, x]) + shift) / width))
            heights[y, x] += bumps[y, x] * np.float32(1.0 if side == 0 else 4 * u * (1 - u))


@helper
def _bright(sx, sy, lx, ly, lz):
    """Lambert's law for a surface of the slope (sx, sy), which is clamped."""
    steep = np.sqrt(sx * sx + sy * sy)
    if steep > STEEPEST:
        sx, sy, steep = sx * STEEPEST / steep, sy * STEEPEST / steep, STEEPEST
    return (lz - sx * lx - sy * ly) / np.sqrt(steep * steep + 1)


@kernel(
    "void(float32[:,::1], float32[:,::1], int64, float64, float64, float32[::1], float64, float64, float64,"
    " float32[::1], float32[:,::1], float32[:,::1])"
)
def _light_distance(corners, middles, side, width, rise, profile, lx, ly, lz, tone, high, low):
    """The slope is the profile's, taken over one pixel, in the direction of the distance's own slope. Where the
    band begins or ends within a pixel, it is only as strong as its share of it."""
    last, end = profile.shape[0] - 1, tone.shape[0] - 1
    shift = (0.0, width, width / 2)[side]
    brighter, darker = 1 / max(1 - lz, 1e-9), 1 / (lz + np.sqrt(max(0.0, 1 - lz * lz)))
    for y in range(high.shape[0]):
        for x in range(high.shape[1]):
            a, b, c, d = corners[y, x], corners[y, x + 1], corners[y + 1, x], corners[y + 1, x + 1]
            here = float(middles[y, x])
            if side == 0:
                here = max(here, 0.5)
            elif side == 1:
                here = min(here, -0.5)
            at = here + shift
            if at < -0.5 or at > width + 0.5:
                continue
            from_u = min(1.0, max(0.0, (at - 0.5) / width)) * last
            to_u = min(1.0, max(0.0, (at + 0.5) / width)) * last
            i, j = min(int(from_u), last - 1), min(int(to_u), last - 1)
            low_end = profile[i] + (from_u - i) * (profile[i + 1] - profile[i])
            high_end = profile[j] + (to_u - j) * (profile[j + 1] - profile[j])
            slope = rise * (high_end - low_end)
            if slope == 0:
                continue
            bright = _bright(slope * float(b + d - a - c) / 2, slope * float(c + d - a - b) / 2, lx, ly, lz)
            share = (bright - lz) * brighter if bright > lz else (lz - bright) * darker
            place = min(1.0, share) * end
            k = min(int(place), end - 1)
            covered = min(1.0, width + 0.5 - at, at + 0.5)
            value = np.float32(covered * (tone[k] + (place - k) * (tone[k + 1] - tone[k])))
            if bright > lz:
                high[y, x] = value
            else:
                low[y, x] = value


@kernel("void(float32[:,::1], int64, float64, float64, float32[::1], float32[:,::1])")
def _raise(corners, side, width, rise, profile, heights):
    last = profile.shape[0] - 1
    shift = (0.0, width, width / 2)[side]
    for y in range(corners.shape[0]):
        for x in range(corners.shape[1]):
            u = min(1.0, max(0.0, (float(corners[y, x]) + shift) / width)) * last
            i = min(int(u), last - 1)
            heights[y, x] = np.float32(rise * (profile[i] + (u - i) * (profile[i + 1] - profile[i])))


@kernel("void(float32[:,::1], float64, float64, float64, float32[::1], float32[:,::1], float32[:,::1])")
def _light_heights(heights, lx, ly, lz, tone, high, low):
    end = tone.shape[0] - 1
    brighter, darker = 1 / max(1 - lz, 1e-9), 1 / (lz + np.sqrt(max(0.0, 1 - lz * lz)))
    for y in range(high.shape[0]):
        for x in range(high.shape[1]):
            a, b, c, d = heights[y, x], heights[y, x + 1], heights[y + 1, x], heights[y + 1, x + 1]
            bright = _bright(float(b + d - a - c) / 2, float(c + d - a - b) / 2, lx, ly, lz)
            share = (bright - lz) * brighter if bright > lz else (lz - bright) * darker
            if abs(bright - lz) < 1e-7:
                continue
            place = min(1.0, share) * end
            k = min(int(place), end - 1)
            value = np.float32(tone[k] + (place - k) * (tone[k + 1] - tone[k]))
            if bright > lz:
                high[y, x] = value
            else:
                low[y, x] = value
