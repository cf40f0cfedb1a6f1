"""A part where it is drawn: its stand, over a region of the device grid, with what is made of its areas there."""

from __future__ import annotations

from dataclasses import dataclass, field

from obrell.core.effects.base import Operation, Stand
from obrell.core.paint.areas import Area, touched
from obrell.core.raster.layers import Coverage, Layer, PixelBox
from obrell.core.raster.ramps import Pigment
from obrell.core.render.cache import PixelCache


@dataclass(slots=True)
class Site:
    """A stand over ``region``, a box of device px."""

    stand: Stand
    region: PixelBox
    cache: PixelCache
    own_box: PixelBox = field(init=False)
    """The device px the shape touches inside the region."""

    def __post_init__(self) -> None:
        self.own_box = touched(self.stand.outline).meet(self.region)

    def mask(self, area: Area) -> Coverage:
        """An area over as much of the region as it is anything in."""
        return self.cache.within(area, self.region)

    def coverage(self) -> Coverage:
        """Coverage of the part's own shape."""
        return self.mask(self.stand.own)

    def everywhere(self) -> Coverage:
        """1 over the pixels of the shape."""
        return self.mask(self.stand.whole)

    def source(self, operation: Operation, box: PixelBox) -> Pigment | Layer:
        """What an operation fills its area with, over a box."""
        return operation.source.over(box, self.cache)
