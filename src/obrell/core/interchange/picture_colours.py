"""The main colours of a picture, as candidates for swatches."""

from __future__ import annotations

from io import BytesIO

import numpy as np
from PIL import Image

from obrell.core.colour.difference import ciede2000
from obrell.core.colour.spaces import Triple, to_hex
from obrell.core.door import reads
from obrell.core.interchange.limits import MAX_PICTURE_BYTES
from obrell.core.interchange.pictures import TOO_LARGE, read_picture

LOOKED_AT_PX = 200
"""The longer side that colours are counted on."""
SORTED_INTO = 32
OFFERED = 12
APART = 7.0
"""CIEDE2000 below which two of them count as one."""
SEEN = 128
"""Pixels with less alpha, of 255, are not counted."""


@reads("picture-colours", "Reading this picture", most=MAX_PICTURE_BYTES, words=TOO_LARGE)
def main_colours(content: bytes) -> tuple[str, ...]:
    """The colours that most of a picture has, as ``#rrggbb``, the most frequent first, no two alike; raises
    ``BadDocument`` or ``TooLarge`` in words."""
    with Image.open(BytesIO(read_picture.function(content))) as picture:
        small = picture.convert("RGBA")
    small.thumbnail((LOOKED_AT_PX, LOOKED_AT_PX))
    pixels = np.asarray(small).reshape(-1, 4)
    seen = pixels[pixels[:, 3] >= SEEN][:, :3]
    if not len(seen):
        return ()
    row = Image.fromarray(np.ascontiguousarray(seen[None, :, :]), "RGB")
    sorted_in = row.quantize(SORTED_INTO, Image.Quantize.MEDIANCUT)
    palette = np.asarray(sorted_in.getpalette() or [], np.float64).reshape(-1, 3) / 255
    counted = sorted(sorted_in.getcolors(SORTED_INTO) or [], reverse=True)
    return _apart([to_hex(_triple(palette[place])) for _, place in counted if isinstance(place, int)])


def _triple(values: np.ndarray[tuple[int], np.dtype[np.float64]]) -> Triple:
    red, green, blue = (float(value) for value in values)
    return red, green, blue


def _apart(colours: list[str]) -> tuple[str, ...]:
    kept: list[str] = []
    for colour in colours:
        if all(ciede2000(colour, other) >= APART for other in kept):
            kept.append(colour)
    return tuple(kept[:OFFERED])
