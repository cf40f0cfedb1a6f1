"""What is too large to draw."""

from __future__ import annotations

from obrell.core.errors import TooLarge
from obrell.core.raster.layers import PixelBox

MAX_SIDE_PX = 8192
MAX_AREA_PX = 4096 * 4096
"""Largest picture in device pixels: 256 MB of floats."""


def fits(box: PixelBox) -> bool:
    """Whether a picture of that size can be drawn."""
    return box.width <= MAX_SIDE_PX and box.height <= MAX_SIDE_PX and box.area <= MAX_AREA_PX


def check_region(box: PixelBox) -> None:
    """Raise ``TooLarge`` when a picture of that size cannot be drawn."""
    if not fits(box):
        raise TooLarge(
            f"{box.width} × {box.height} device pixels are too many: a picture can have "
            f"{MAX_SIDE_PX} on a side and {MAX_AREA_PX // 1_000_000} million in all. "
            "A smaller canvas or density will do."
        )
