"""What an area is filled with, as values: colours, gradients, textures and pictures laid on a box of a part."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Callable, Hashable
from dataclasses import dataclass
from typing import Protocol

from obrell.core.geometry.plane import Rect, Similarity
from obrell.core.paint.areas import Area, Made, Textured
from obrell.core.paint.fills import (
    Ends,
    along_way,
    colours_of,
    picture_layer,
    pigment,
    solid,
    texture_field,
    texture_layer,
)
from obrell.core.raster.falloff import ramp_layer
from obrell.core.raster.layers import Layer, PixelBox
from obrell.core.raster.ramps import Pigment
from obrell.core.values.paints import Fill, Gradient, Picture, Texture


class Kept(Made, Protocol):
    """What is made of areas, and layers of colour."""

    def get(self, key: Hashable, make: Callable[[], Layer]) -> Layer:
        """A layer that is made when it is not there."""
        ...


def textured_on(fill: Texture, box: Rect, place: Similarity) -> Textured:
    """A texture's values where it is laid on a box, which ``place`` puts on the device grid."""
    way, size = texture_field(fill, box, place)
    return Textured(fill.pattern, way, size, fill.seed)


class Source(ABC):
    """Base of the sources; all of them are frozen."""

    @abstractmethod
    def over(self, box: PixelBox, made: Kept) -> Pigment | Layer:
        """As the kernels take it, for the device px of a box."""


@dataclass(frozen=True, slots=True)
class Flat(Source):
    """One colour, ``#rrggbb``."""

    colour: str

    def over(self, box: PixelBox, made: Kept) -> Pigment | Layer:
        return solid(self.colour)


@dataclass(frozen=True, slots=True)
class Laid(Source):
    """A fill laid on a box, which ``place`` puts on the device grid; its colours are literals."""

    fill: Fill
    box: Rect
    place: Similarity

    def over(self, box: PixelBox, made: Kept) -> Pigment | Layer:
        if isinstance(self.fill, Texture):
            return texture_layer(self.fill, made.over(textured_on(self.fill, self.box, self.place), box))
        if isinstance(self.fill, Picture):
            fill = self.fill
            return made.get((self, box), lambda: picture_layer(fill, self.box, self.place, box))
        return pigment(self.fill, self.box, self.place)


@dataclass(frozen=True, slots=True)
class Fading(Source):
    """One colour whose opacity changes evenly between two places of a space that ``place`` puts on the grid."""

    colour: str
    ends: Ends
    opacities: tuple[float, float]
    place: Similarity

    def over(self, box: PixelBox, made: Kept) -> Pigment | Layer:
        return along_way(self.colour, self.ends, self.opacities, self.place)


@dataclass(frozen=True, slots=True)
class Ramped(Source):
    """A gradient's colours where ``share`` says how far along it a pixel lies, and ``step`` how much of it that
    spans."""

    gradient: Gradient
    share: Area
    step: Area
    wraps: bool = False

    def over(self, box: PixelBox, made: Kept) -> Pigment | Layer:
        share, step = made.over(self.share, box), made.over(self.step, box)
        return ramp_layer(share, step, colours_of(self.gradient), wraps=self.wraps)
