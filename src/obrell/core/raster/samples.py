"""Pictures as arrays of premultiplied colour, and what they look like on the device grid."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from io import BytesIO
from typing import Any

import numpy as np
from numpy.typing import NDArray
from PIL import Image

from obrell.core.files import content_of
from obrell.core.raster.jit import helper, kernel
from obrell.core.raster.layers import Layer, PixelBox, Planes
from obrell.core.workspace import Kept, remembered

PADDED, WRAPPED, EMPTY, FOLDED = range(4)
"""What lies beyond a picture: its edge drawn out, the picture again, nothing, or the picture mirrored."""
SEAM_TIMES, SEAM_LEVELS = 2.5, 6.0
"""A seam shows when colours change across it this many times as much as they do inside, and by so many levels."""
FINER = 3
"""How many times finer than needed a picture still is before the last step of making it smaller."""
ROWS_AT_ONCE = 128
Straight = NDArray[np.uint8]


def _bytes(array: NDArray[Any]) -> int:
    return array.nbytes


_DECODED = Kept[Straight](100_000_000, _bytes)
_SMALLER = Kept[Planes](48_000_000, _bytes)


@dataclass(frozen=True, slots=True)
class Stretch:
    """From device px to picture px, as (a, b, c, d, e, f): u = a·x + b·y + c, v = d·x + e·y + f; pixel
    (i, j) of the picture covers [i, i + 1) × [j, j + 1)."""

    field: tuple[float, float, float, float, float, float]
    beyond: int = PADDED


def pixels_of(file: str) -> Straight:
    """A kept picture as it is stored, shape (height, width, 4); raises ``NoSuchThing``."""

    def read() -> Straight:
        with Image.open(BytesIO(content_of(file))) as picture:
            return np.asarray(picture.convert("RGBA"))

    return _DECODED.get(file, read)


def planes_from(pixels: Straight) -> Planes:
    """Stored pixels as premultiplied planes."""
    planes = np.empty((4, *pixels.shape[:2]), np.float32)
    np.divide(np.moveaxis(pixels, 2, 0), np.float32(255), out=planes)
    planes[:3] *= planes[3]
    return planes


@remembered(256)
def size_of(file: str) -> tuple[int, int]:
    """Width and height of a kept picture, px."""
    with Image.open(BytesIO(content_of(file))) as picture:
        return picture.size


@remembered(256)
def mean_of(file: str) -> tuple[float, float, float, float]:
    """The mean of its premultiplied colours and of its opacity."""
    pixels = pixels_of(file)
    sums = sum(planes_from(some).sum(axis=(1, 2), dtype=np.float64) for some in _by_rows(pixels))
    red, green, blue, alpha = (float(v) for v in np.asarray(sums) / (pixels.shape[0] * pixels.shape[1]))
    return red, green, blue, alpha


def cropped(file: str, left: int, top: int, right: int, bottom: int, width: int, height: int) -> Planes:
    """A rectangle of the picture's px, made smaller to ``width`` × ``height`` px when that is fewer: every
    new pixel is the weighted mean of those it covers (Lanczos with 3 lobes, cut to what colours can be)."""
    size = (min(width, right - left), min(height, bottom - top))
    if size == (right - left, bottom - top):
        return planes_from(pixels_of(file)[top:bottom, left:right])
    key = (file, left, top, right, bottom, size)
    return _SMALLER.get(key, lambda: _smaller(pixels_of(file)[top:bottom, left:right], size))


def _smaller(pixels: Straight, size: tuple[int, int]) -> Planes:
    """Far too many px are first brought to their means in blocks, so that no more is held than that needs."""
    block = max(1, min(pixels.shape[1] // (size[0] * FINER), pixels.shape[0] // (size[1] * FINER)))
    planes = planes_from(pixels) if block == 1 else _block_means(pixels, block)
    box = (0.0, 0.0, pixels.shape[1] / block, pixels.shape[0] / block)
    small = [
        np.asarray(Image.fromarray(plane, "F").resize(size, Image.Resampling.LANCZOS, box), np.float32)
        for plane in planes
    ]
    result: Planes = np.clip(np.stack(small), 0, 1)
    np.minimum(result[:3], result[3], out=result[:3])
    return np.ascontiguousarray(result)


def _block_means(pixels: Straight, block: int) -> Planes:
    """Means of ``block`` × ``block`` px, premultiplied; what they round off is far below a level once they are
    averaged again."""
    small = np.asarray(Image.fromarray(pixels).convert("RGBa").reduce(block), np.float32) / np.float32(255)
    return np.ascontiguousarray(np.moveaxis(small, 2, 0))


def _by_rows(pixels: Straight) -> Iterator[Straight]:
    """The picture in runs of rows, so that little of it is held as floats."""
    for start in range(0, pixels.shape[0], ROWS_AT_ONCE):
        yield pixels[start : start + ROWS_AT_ONCE]


def sampled(planes: Planes, stretch: Stretch, box: PixelBox) -> Layer:
    """The picture over ``box`` of the device grid, bilinear between its pixels' centres."""
    layer = Layer.clear(box)
    _sample(layer.planes, box.left, box.top, planes, np.array(stretch.field), stretch.beyond)
    return layer


@remembered(256)
def seams(file: str, left: int, top: int, right: int, bottom: int) -> tuple[bool, bool]:
    """Whether a seam shows where a rectangle of the picture's px meets itself: left with right, top with
    bottom."""
    pixels = pixels_of(file)[top:bottom, left:right]
    return _seam(pixels), _seam(pixels.transpose(1, 0, 2))


def _seam(pixels: Straight) -> bool:
    height, width = pixels.shape[:2]
    inside = across = 0.0
    for some in _by_rows(pixels):
        planes = planes_from(some)
        across += float(np.abs(planes[:, :, 0] - planes[:, :, -1]).sum(dtype=np.float64))
        inside += float(np.abs(np.diff(planes, axis=2)).sum(dtype=np.float64))
    inside /= max(1, 4 * height * (width - 1))
    across /= 4 * height
    return bool(across > SEAM_TIMES * inside and across * 255 > SEAM_LEVELS)


@helper
def _folded(index, count):
    place = index % (2 * count)
    return place if place < count else 2 * count - 1 - place


@kernel("void(float32[:,:,::1], int64, int64, float32[:,:,::1], float64[::1], int64)")
def _sample(out, left, top, planes, field, beyond):
    high, wide = planes.shape[1], planes.shape[2]
    for y in range(out.shape[1]):
        for x in range(out.shape[2]):
            across, down = left + x + 0.5, top + y + 0.5
            u = field[0] * across + field[1] * down + field[2] - 0.5
            v = field[3] * across + field[4] * down + field[5] - 0.5
            if beyond == 2 and (u < -0.5 or v < -0.5 or u > wide - 0.5 or v > high - 0.5):
                continue
            i, j = int(np.floor(u)), int(np.floor(v))
            right, below = np.float32(u - i), np.float32(v - j)
            if beyond == 1:
                i0, i1, j0, j1 = i % wide, (i + 1) % wide, j % high, (j + 1) % high
            elif beyond == 3:
                i0, i1, j0, j1 = _folded(i, wide), _folded(i + 1, wide), _folded(j, high), _folded(j + 1, high)
            else:
                i0, i1 = min(max(i, 0), wide - 1), min(max(i + 1, 0), wide - 1)
                j0, j1 = min(max(j, 0), high - 1), min(max(j + 1, 0), high - 1)
            for channel in range(4):
                plane = planes[channel]
                upper = plane[j0, i0] + right * (plane[j0, i1] - plane[j0, i0])
                lower = plane[j1, i0] + right * (plane[j1, i1] - plane[j1, i0])
                out[channel, y, x] = upper + below * (lower - upper)
