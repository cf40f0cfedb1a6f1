"""The picture of a control on the way from one state to another."""

from __future__ import annotations

import numpy as np

from obrell.core.document.transitions import Between
from obrell.core.raster.layers import PixelBox
from obrell.core.raster.quantise import Pixels, quantise
from obrell.core.render.cache import PixelCache
from obrell.core.render.compose import Frame, compose, draw
from obrell.core.scene.changes import changed_box


def draw_between(
    moment: Between, frame: Frame, cache: PixelCache | None = None, only: PixelBox | None = None
) -> Pixels:  # fmt: skip
    """Straight 8-bit pixels of the frame's region, or of ``only`` a box in it. Where both looks differ the second
    covers the first by its weight, as ``cross-fade()`` does: premultiplied, (1 - w)·a + w·b (CSS Images 4,
    section 3.4)."""
    if moment.only is not None:
        return draw(moment.only, frame, cache, only)
    cache = PixelCache() if cache is None else cache
    first = compose(moment.first, frame, cache, only)
    changed = changed_box(moment.first, moment.second, frame.density, first.box)
    if not changed.empty:
        y, x = changed.top - first.box.top, changed.left - first.box.left
        there = first.planes[:, y : y + changed.height, x : x + changed.width]
        other = compose(moment.second, frame, cache, changed).planes
        there += (other - there) * np.float32(moment.weight)
    return quantise(first)
