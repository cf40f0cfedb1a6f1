"""One part at one density: its fitted shape, its way to device space, its masks."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field

import numpy as np

from obrell.core.document.measures import spans_of
from obrell.core.document.model import Part
from obrell.core.document.moving import place_of
from obrell.core.document.resolve import Resolved
from obrell.core.effects.base import Lamp, Rough, lying
from obrell.core.effects.pigments import picture_layer, pigment, texture_field, texture_layer
from obrell.core.geometry.paths import Path
from obrell.core.geometry.plane import Point, Rect, Similarity
from obrell.core.kept import remembered
from obrell.core.raster import blur as gaussian
from obrell.core.raster.along import across, along
from obrell.core.raster.coverage import cover
from obrell.core.raster.distance import distances
from obrell.core.raster.falloff import faded
from obrell.core.raster.layers import Box, Layer, Mask
from obrell.core.raster.noise import textured
from obrell.core.raster.ramps import Pigment
from obrell.core.raster.relief import Relief, Table, lit
from obrell.core.render.cache import PixelCache
from obrell.core.shapes import Shape
from obrell.core.shapes.base import fitted_at
from obrell.core.values.paints import Fill, Picture, Texture


@dataclass(slots=True)
class PartSite:
    """Implements ``effects.base.Site`` over ``region``, a box of device pixels."""

    shape: Shape
    place: Similarity
    lamp: Lamp
    density: float
    fit_strokes: bool
    region: Box
    cache: PixelCache
    spans: Mapping[str, Rect] = field(default_factory=dict)
    """Boxes on the canvas, logical px, that fills can be laid over instead of the part's own."""
    outline: Path = field(init=False)
    box: Rect = field(init=False)
    own_box: Box = field(init=False)
    """The device pixels the shape touches inside the region."""

    def __post_init__(self) -> None:
        self.box, self.outline = placed(self.shape, self.place)
        self.own_box = device_box(self.outline).meet(self.region)

    def faded(self, way: int, reach: float, curve: Table, outwards: float) -> tuple[Mask, Mask]:
        box = self._around(outwards)
        key = ("faded", self.outline, box, way, reach, curve.tobytes())

        def made() -> tuple[Mask, Mask]:
            return faded(distances(self.outline.rows, box, reach + 2)[1], box, way, reach, curve)

        return self._pair(key, made)

    def lit(
        self, relief: Relief, light: tuple[float, float, float], tone: Table, outwards: float, rough: Rough | None
    ) -> tuple[Mask, Mask]:  # fmt: skip
        box, measures = self._around(outwards), (relief.side, relief.width, relief.rise, relief.deviation)
        key = (
            "lit",
            self.outline,
            box,
            measures,
            relief.profile.tobytes(),
            light,
            tone.tobytes(),
            rough and (rough, self.place),
        )
        return self._pair(key, lambda: lit(self.outline.rows, box, relief, light, tone, self._bumps(rough, box)))

    def _bumps(self, rough: Rough | None, box: Box) -> Mask | None:
        """How far a texture rises above its middle at the corners of the pixels of ``box``, device px."""
        if rough is None:
            return None
        (a, b, c, d, e, f), size = texture_field(rough.texture, self.box, self.place)
        corners = Box(box.left, box.top, box.right + 1, box.bottom + 1)
        at_corners = (a, b, c - (a + b) / 2, d, e, f - (d + e) / 2)
        found = textured(rough.texture.pattern, at_corners, size, rough.texture.seed, corners)
        return Mask(corners, (found.values - np.float32(0.5)) * np.float32(rough.depth * self.density))

    def stroke(self, width: float) -> float:
        if not self.fit_strokes or width == 0:
            return width
        pixels = max(1.0, math.floor(abs(width) * self.density + 0.5))
        return math.copysign(pixels / self.density, width)

    def coverage(self) -> Mask:
        """Coverage of the part's own shape."""
        return self._covered(self.outline, self.own_box)

    def cover(self, path: Path) -> Mask:
        return self._covered(path, device_box(path).meet(self.region))

    def shadow(self, path: Path, deviation: float) -> Mask:
        reach = gaussian.reach_px(deviation)
        box = device_box(path).grown(reach).meet(self.region)
        return self._blurred(path, deviation, box)

    def shadow_inverse(self, path: Path, deviation: float) -> Mask:
        key = ("inverse", path, deviation, self.own_box)
        blurred = self._blurred(path, deviation, self.own_box)
        return self.cache.get(key, lambda: _inverse(blurred))

    def everywhere(self) -> Mask:
        box = self.own_box
        return self.cache.get(("everywhere", box), lambda: Mask(box, np.ones((box.height, box.width), np.float32)))

    def pigment(self, fill: Fill, over: Box, on: Rect | None = None) -> Pigment | Layer:
        box, place = lying(fill, self.spans, (on or self.box, self.place), Similarity(self.density))
        if isinstance(fill, Texture):
            return texture_layer(fill, self._textured(fill, over, box, place))
        if not isinstance(fill, Picture):
            return pigment(fill, box, place)
        key = ("picture", fill, box, place, over)
        return self.cache.get(key, lambda: picture_layer(fill, box, place, over))

    def across(self, start: float, end: float, over: Box) -> tuple[Mask, Mask]:
        start, end = start * self.density, end * self.density
        band = max(abs(start), abs(end)) + 2
        key = ("across", self.outline, over, start, end)
        return self._pair(key, lambda: across(distances(self.outline.rows, over, band)[1], over, start, end))

    def along(self, reach: float, over: Box) -> tuple[Mask, Mask]:
        reach = reach * self.density + 2
        return self._pair(("along", self.outline, over, reach), lambda: along(self.outline.rows, over, reach))

    def texture(self, fill: Texture, over: Box) -> Mask:
        return self._textured(fill, over, self.box, self.place)

    def within(self, path: Path, deviation: float) -> Mask:
        return self._blurred(path, deviation, self.own_box)

    def _textured(self, fill: Texture, over: Box, box: Rect, place: Similarity) -> Mask:
        field, size = texture_field(fill, box, place)
        key = ("texture", fill.pattern, field, size, fill.seed, over)
        return self.cache.get(key, lambda: textured(fill.pattern, field, size, fill.seed, over))

    def _around(self, outwards: float) -> Box:
        """The pixels of the region around the shape."""
        if outwards <= 0:
            return self.own_box
        return device_box(self.outline).grown(math.ceil(outwards * self.density) + 1).meet(self.region)

    def _pair(self, key: tuple[object, ...], make: Callable[[], tuple[Mask, Mask]]) -> tuple[Mask, Mask]:
        """Two masks that are made together, each kept by itself."""
        made: list[tuple[Mask, Mask]] = []

        def one(number: int) -> Mask:
            if not made:
                made.append(make())
            return made[0][number]

        return self.cache.get((*key, 0), lambda: one(0)), self.cache.get((*key, 1), lambda: one(1))

    def _covered(self, path: Path, box: Box) -> Mask:
        return self.cache.get(("cover", path, box), lambda: cover(path.rows, box))

    def _blurred(self, path: Path, deviation: float, box: Box) -> Mask:
        if deviation <= 0:
            return self._covered(path, box)
        return self.cache.get(("blur", path, deviation, box), lambda: blurred(path, deviation, box))


@remembered(4096)
def placed(shape: Shape, place: Similarity) -> tuple[Rect, Path]:
    """A shape's own box and its outline in device space; kept, because most parts stay as they are."""
    return shape.box(), shape.path().transformed(place)


def blurred(path: Path, deviation: float, box: Box) -> Mask:
    """Blurred coverage of a path over ``box``. A very wide blur, as on an enlarged stage, is made on
    a coarser grid: what it shows is smoother than that grid can tell."""
    factor = gaussian.coarsening(deviation)
    if factor == 1:
        source = device_box(path).meet(box.grown(gaussian.support_px(deviation)))
        return gaussian.blur(cover(path.rows, source), deviation, box)
    small = path.transformed(Similarity(scale=1 / factor))
    rest = gaussian.rest_after(deviation, factor)
    coarse = gaussian.coarse_box(box, factor)
    return gaussian.enlarged(blurred(small, rest, coarse), factor, box)


def site_of(resolved: Resolved, part: Part, density: float, region: Box, cache: PixelCache) -> PartSite:
    """The part as it stands on the device grid of ``density``, fitted as the part or kit asks."""
    fit = part.fit or resolved.fit
    shape: Shape = part.shape.at_density(density)
    place = Point(part.x, part.y)
    if fit != "off":
        shape, place = fitted_at(shape, place_of(part), density)
    to_device = Similarity(density, part.rotation, place.x * density, place.y * density, part.mirrored)
    spans = spans_of(resolved.control, resolved.tree, part)
    return PartSite(shape, to_device, resolved.lamp, density, fit == "strokes", region, cache, spans)


def device_box(path: Path) -> Box:
    """The device pixels a path touches."""
    bounds = path.hull()
    return Box.around(bounds.left, bounds.top, bounds.right, bounds.bottom)


def _inverse(mask: Mask) -> Mask:
    return Mask(mask.box, np.float32(1) - mask.values)
