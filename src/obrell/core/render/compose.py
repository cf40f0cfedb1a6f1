"""The picture of a control over a region of the device grid, its parts painted back to front."""

from __future__ import annotations

from dataclasses import dataclass

from obrell.core.document.resolve import Resolved
from obrell.core.document.tree import walk
from obrell.core.raster.blur import support_px
from obrell.core.raster.layers import Layer, PixelBox
from obrell.core.raster.memory import keep_memory
from obrell.core.raster.quantise import Pixels, quantise
from obrell.core.render.cache import PixelCache
from obrell.core.render.limits import check_region
from obrell.core.render.painting import Painter
from obrell.core.scene.scene import scene_at

keep_memory()


@dataclass(frozen=True, slots=True)
class Frame:
    """What is drawn: ``region`` in device pixels of ``density``."""

    density: float
    region: PixelBox


def canvas_box(resolved: Resolved, density: float) -> PixelBox:
    """The canvas on the device grid of a density, device px per logical px: ceil(w·s) × ceil(h·s)."""
    canvas = resolved.control.canvas
    return PixelBox.around(0, 0, canvas.width * density, canvas.height * density)


def draw(
    resolved: Resolved, frame: Frame, cache: PixelCache | None = None, only: PixelBox | None = None
) -> Pixels:  # fmt: skip
    """Straight 8-bit pixels of the frame's region, or of ``only`` a box in it. Same input, same
    bytes, whatever the cache holds and however the region is cut; nothing is kept without one."""
    return quantise(compose(resolved, frame, cache, only))


def compose(
    resolved: Resolved, frame: Frame, cache: PixelCache | None = None, only: PixelBox | None = None
) -> Layer:  # fmt: skip
    """The frame's region as floats. When a part is changed again and again, the composite of those
    below it is kept, so that they are not drawn again."""
    check_region(frame.region)
    cache = PixelCache() if cache is None else cache
    margin = frosting_px(resolved, frame.density)
    if margin:
        wide = Frame(frame.density, frame.region.grown(margin))
        return _composed(resolved, wide, cache, None if only is None else only.grown(margin)).crop(
            frame.region if only is None else only.meet(frame.region)
        )
    return _composed(resolved, frame, cache, only)


def frosting_px(resolved: Resolved, density: float) -> int:
    """Device px around a region within which what lies behind frosted glass can still matter to it."""
    deviations = [
        effect.frosting for node in walk(resolved.tree.nodes) for effect in node.part.effects if effect.visible
    ]
    return sum(support_px(deviation * density) for deviation in deviations if deviation is not None)


def _composed(resolved: Resolved, frame: Frame, cache: PixelCache, only: PixelBox | None) -> Layer:
    region = frame.region if only is None else only.meet(frame.region)
    nodes = tuple(node for node in resolved.tree.nodes if node.part.visible)
    ground = (frame.region, frame.density, resolved.light, resolved.fit, resolved.control.canvas)
    settled = cache.settled(ground, nodes)
    snapshot = cache.find((*ground, nodes[:settled]))
    target = Layer.clear(frame.region if snapshot is None and settled else region)
    start = 0
    if snapshot is not None:
        target, start = snapshot.crop(region), settled
    scene, painter = scene_at(resolved, frame.density), Painter(frame.region, cache)
    for count in range(start, len(nodes)):
        if count == settled and settled and snapshot is None:
            cache.put((*ground, nodes[:settled]), target)
            target = target.crop(region)
        item = scene.item(nodes[count])
        if item is not None:
            painter.paint(target, item)
    return target if target.box == region else target.crop(region)
