"""Areas of the device plane and how strongly each place of them is painted, as values.

Two areas that are equal look the same, so an area is the key of what was made of it. ``extent`` is where it is
anything at all; ``over`` makes its coverage over any box of device px, the same at each pixel whatever the box.
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from dataclasses import dataclass
from typing import ClassVar, Protocol

import numpy as np

from obrell.core.geometry.paths import Path
from obrell.core.geometry.plane import Similarity
from obrell.core.paint.lookup import Lookup
from obrell.core.raster import along as ways
from obrell.core.raster import blur as gaussian
from obrell.core.raster import shares
from obrell.core.raster.coverage import rasterise
from obrell.core.raster.distance import distances
from obrell.core.raster.falloff import faded, toned
from obrell.core.raster.layers import Coverage, PixelBox
from obrell.core.raster.noise import textured
from obrell.core.raster.relief import Relief, lit

Pair = tuple[Coverage, Coverage]
FAR = 1 << 31
EVERYWHERE = PixelBox(-FAR, -FAR, FAR, FAR)


class Made(Protocol):
    """What is made of areas, kept as long as there is room."""

    def over(self, area: Area, box: PixelBox) -> Coverage:
        """An area's coverage over a box."""
        ...

    def both(self, twins: Twins, box: PixelBox) -> Pair:
        """Two masks that are made together."""
        ...


class Area(ABC):
    """Base of the areas; all of them are frozen."""

    kept: ClassVar[bool] = True
    """Whether what is made of it is worth keeping beside what it is made of."""

    @property
    @abstractmethod
    def extent(self) -> PixelBox:
        """Device px outside of which it is nothing."""

    @abstractmethod
    def over(self, box: PixelBox, made: Made) -> Coverage:
        """Its coverage over a box."""


def touched(path: Path) -> PixelBox:
    """The device px that a path touches."""
    bounds = path.hull()
    return PixelBox.around(bounds.left, bounds.top, bounds.right, bounds.bottom)


@dataclass(frozen=True, slots=True)
class Filled(Area):
    """What a path covers."""

    path: Path

    @property
    def extent(self) -> PixelBox:
        return touched(self.path)

    def over(self, box: PixelBox, made: Made) -> Coverage:
        return rasterise(self.path.rows, box)


@dataclass(frozen=True, slots=True)
class Spilled(Area):
    """What a path covers, painted ``wide`` of it: past the pixels that the shape which cuts it partly covers."""

    path: Path
    wide: Path
    kept: ClassVar[bool] = False

    @property
    def extent(self) -> PixelBox:
        return touched(self.wide)

    def over(self, box: PixelBox, made: Made) -> Coverage:
        return made.over(Filled(self.wide), box)


@dataclass(frozen=True, slots=True)
class Whole(Area):
    """All of every pixel that a path touches."""

    path: Path

    @property
    def extent(self) -> PixelBox:
        return touched(self.path)

    def over(self, box: PixelBox, made: Made) -> Coverage:
        return Coverage(box, np.ones((box.height, box.width), np.float32))


@dataclass(frozen=True, slots=True)
class Blurred(Area):
    """What a path covers, blurred by a standard deviation in device px and moved by whole device px: of a shape that
    casts several shadows the coverage is made once."""

    path: Path
    deviation: float
    across: int = 0
    down: int = 0

    @property
    def moved(self) -> Path:
        """The path where it comes to lie."""
        if not (self.across or self.down):
            return self.path
        return self.path.transformed(Similarity(dx=self.across, dy=self.down))

    @property
    def extent(self) -> PixelBox:
        reach = gaussian.reach_px(self.deviation) if self.deviation > 0 else 0
        return touched(self.path).moved(self.across, self.down).grown(reach)

    def over(self, box: PixelBox, made: Made) -> Coverage:
        return Coverage(box, _blurred(self.path, self.deviation, box.moved(-self.across, -self.down), made).values)


def _blurred(path: Path, deviation: float, box: PixelBox, made: Made) -> Coverage:
    """A very wide blur, as on an enlarged stage, is made on a coarser grid: what it shows is smoother than that grid
    can tell."""
    if deviation <= 0:
        return made.over(Filled(path), box)
    factor = gaussian.coarsening(deviation)
    if factor == 1:
        source = touched(path).meet(box.grown(gaussian.support_px(deviation)))
        return gaussian.blur(made.over(Filled(path), source), deviation, box)
    small = path.transformed(Similarity(scale=1 / factor))
    rest = gaussian.rest_after(deviation, factor)
    return gaussian.enlarged(_blurred(small, rest, gaussian.coarse_box(box, factor), made), factor, box)


@dataclass(frozen=True, slots=True)
class Changed(Area):
    """Base of what another area becomes, no farther out than that."""

    area: Area

    @property
    def extent(self) -> PixelBox:
        return self.area.extent


@dataclass(frozen=True, slots=True)
class Within(Area):
    """An area over the pixels that a path touches, and no others."""

    area: Area
    path: Path
    kept: ClassVar[bool] = False

    @property
    def extent(self) -> PixelBox:
        return touched(self.path)

    def over(self, box: PixelBox, made: Made) -> Coverage:
        return made.over(self.area, box)


@dataclass(frozen=True, slots=True)
class Inverse(Area):
    """1 less another."""

    area: Area
    kept: ClassVar[bool] = False

    @property
    def extent(self) -> PixelBox:
        return EVERYWHERE

    def over(self, box: PixelBox, made: Made) -> Coverage:
        return Coverage(box, np.float32(1) - made.over(self.area, box).values)


@dataclass(frozen=True, slots=True)
class Toned(Changed):
    """An area whose values are mapped by a table."""

    table: Lookup

    def over(self, box: PixelBox, made: Made) -> Coverage:
        return toned(made.over(self.area, box), self.table.values)


@dataclass(frozen=True, slots=True)
class Stretched(Changed):
    """An area whose values are multiplied and moved, and cut to 0 to 1."""

    gain: float
    offset: float
    kept: ClassVar[bool] = False

    def over(self, box: PixelBox, made: Made) -> Coverage:
        values = made.over(self.area, box).values * np.float32(self.gain) + np.float32(self.offset)
        return Coverage(box, values.clip(0, 1))


@dataclass(frozen=True, slots=True)
class Constant(Area):
    """One value over all that is asked for."""

    value: float
    kept: ClassVar[bool] = False

    @property
    def extent(self) -> PixelBox:
        return EVERYWHERE

    def over(self, box: PixelBox, made: Made) -> Coverage:
        return Coverage(box, np.full((box.height, box.width), self.value, np.float32))


@dataclass(frozen=True, slots=True)
class Folds(Area):
    """The square of what two areas differ by."""

    one: Area
    other: Area
    kept: ClassVar[bool] = False

    @property
    def extent(self) -> PixelBox:
        return self.one.extent.join(self.other.extent)

    def over(self, box: PixelBox, made: Made) -> Coverage:
        return Coverage(box, np.square(made.over(self.one, box).values - made.over(self.other, box).values))


@dataclass(frozen=True, slots=True)
class Inside(Area):
    """``shares.inside``: an area's share of what a shape covers of each pixel; with ``rest`` what it leaves free."""

    area: Area
    shape: Filled
    rest: bool = False
    kept: ClassVar[bool] = False

    @property
    def extent(self) -> PixelBox:
        return self.shape.extent

    def over(self, box: PixelBox, made: Made) -> Coverage:
        return shares.inside(made.over(self.area, box), made.over(self.shape, box), rest=self.rest)


@dataclass(frozen=True, slots=True)
class Outside(Changed):
    """``shares.outside``: what an area covers of the share of each pixel that a shape leaves free."""

    shape: Filled
    kept: ClassVar[bool] = False

    def over(self, box: PixelBox, made: Made) -> Coverage:
        own = made.over(self.shape, self.shape.extent.meet(box))
        return shares.outside(made.over(self.area, box), own)


@dataclass(frozen=True, slots=True)
class Textured(Area):
    """The values of a pattern: the way to it from device space, and the size of its unit in device px."""

    pattern: str
    way: tuple[float, ...]
    size: float
    seed: int

    @property
    def extent(self) -> PixelBox:
        return EVERYWHERE

    def over(self, box: PixelBox, made: Made) -> Coverage:
        return textured(self.pattern, self.way, self.size, self.seed, box)


class Twins(ABC):
    """Two areas that are made together."""

    path: Path
    margin: int
    """Device px around what the path touches in which they are anything."""

    @property
    def first(self) -> Twin:
        return Twin(self, 0)

    @property
    def second(self) -> Twin:
        return Twin(self, 1)

    @abstractmethod
    def over(self, box: PixelBox, made: Made) -> Pair:
        """Both over a box."""


@dataclass(frozen=True, slots=True)
class Twin(Area):
    """One of two areas that are made together."""

    of: Twins
    number: int
    kept: ClassVar[bool] = False

    @property
    def extent(self) -> PixelBox:
        return touched(self.of.path).grown(self.of.margin)

    def over(self, box: PixelBox, made: Made) -> Coverage:
        return made.both(self.of, box)[self.number]


@dataclass(frozen=True, slots=True)
class Faded(Twins):
    """``falloff.faded``: strength, and how far of the reach, device px."""

    path: Path
    margin: int
    way: int
    reach: float
    curve: Lookup

    def over(self, box: PixelBox, made: Made) -> Pair:
        field = distances(self.path.rows, box, self.reach + 2)[1]
        return faded(field, box, self.way, self.reach, self.curve.values)


@dataclass(frozen=True, slots=True)
class Rough:
    """A pattern as relief: how far its brightest places rise above its darkest, device px."""

    texture: Textured
    depth: float

    def heights(self, box: PixelBox) -> Coverage:
        """How far it rises above its middle at the corners of the pixels of ``box``, device px."""
        a, b, c, d, e, f = self.texture.way
        corners = PixelBox(box.left, box.top, box.right + 1, box.bottom + 1)
        way = (a, b, c - (a + b) / 2, d, e, f - (d + e) / 2)
        found = textured(self.texture.pattern, way, self.texture.size, self.texture.seed, corners)
        return Coverage(corners, (found.values - np.float32(0.5)) * np.float32(self.depth))


@dataclass(frozen=True, slots=True)
class Embossed(Twins):
    """``relief.lit``: highlight and shade of a bevel whose measures are in device px."""

    path: Path
    margin: int
    side: int
    width: float
    rise: float
    deviation: float
    profile: Lookup
    light: tuple[float, float, float]
    tone: Lookup
    rough: Rough | None

    def over(self, box: PixelBox, made: Made) -> Pair:
        relief = Relief(self.side, self.width, self.rise, self.deviation, self.profile.values)
        bumps = None if self.rough is None else self.rough.heights(box)
        return lit(self.path.rows, box, relief, self.light, self.tone.values, bumps)


@dataclass(frozen=True, slots=True)
class Across(Twins):
    """``along.across``: how far across a band from ``start`` to ``end``, device px outside the edge."""

    path: Path
    start: float
    end: float
    margin: ClassVar[int] = 0  # type: ignore[misc]

    def over(self, box: PixelBox, made: Made) -> Pair:
        band = max(abs(self.start), abs(self.end)) + 2
        return ways.across(distances(self.path.rows, box, band)[1], box, self.start, self.end)


@dataclass(frozen=True, slots=True)
class Along(Twins):
    """``along.along``: how far along an outline, as far from it as ``reach`` device px."""

    path: Path
    reach: float
    margin: ClassVar[int] = 0  # type: ignore[misc]

    def over(self, box: PixelBox, made: Made) -> Pair:
        return ways.along(self.path.rows, box, self.reach)
