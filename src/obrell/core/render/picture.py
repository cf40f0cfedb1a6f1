"""The picture of a control: its canvas, or a box of it, and nothing from outside the canvas."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from obrell.core.document.resolve import Resolved
from obrell.core.geometry.plane import Rect
from obrell.core.raster.layers import PixelBox
from obrell.core.raster.quantise import Pixels
from obrell.core.render.cache import PixelCache
from obrell.core.render.compose import Frame, canvas_box, draw
from obrell.core.render.limits import check_region


def picture(
    resolved: Resolved, density: float, box: PixelBox | None = None, cache: PixelCache | None = None
) -> Pixels:
    """Pixels of the whole canvas, or of ``box`` in device pixels; transparent beyond the canvas."""
    canvas = canvas_box(resolved, density)
    wanted = box or canvas
    check_region(wanted)
    seen = wanted.meet(canvas)
    if seen == wanted:
        return draw(resolved, Frame(density, wanted), cache)
    pixels = np.zeros((wanted.height, wanted.width, 4), np.uint8)
    if not seen.empty:
        y, x = seen.top - wanted.top, seen.left - wanted.left
        drawn = draw(resolved, Frame(density, seen), cache)
        pixels[y : y + seen.height, x : x + seen.width] = drawn
    return pixels


def ink(pixels: Pixels) -> PixelBox | None:
    """Around every pixel that is not fully transparent; None when there is none."""
    return box_around(pixels[:, :, 3] > 0)


def box_around(found: NDArray[np.bool_]) -> PixelBox | None:
    """Around every pixel of a picture, height × width, that something holds of; None when there is none."""
    rows, columns = np.flatnonzero(found.any(axis=1)), np.flatnonzero(found.any(axis=0))
    if not len(rows):
        return None
    return PixelBox(int(columns[0]), int(rows[0]), int(columns[-1]) + 1, int(rows[-1]) + 1)


def device(box: Rect, density: float) -> PixelBox:
    """A logical box on the device grid, grown to whole pixels."""
    return PixelBox.around(box.left * density, box.top * density, box.right * density, box.bottom * density)
