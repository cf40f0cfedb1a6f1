"""How parts become one picture: the composition rules of ``rendering.md``.

A part is painted on three layers over the pixels it can touch: ``outside`` is the backdrop with the
behind effects and outlines that reach outwards, ``inside`` is the backdrop with the effects that show
through and the surface over it, both uncut. They are woven together once by the shape's coverage, so
neither an edge nor an outline along it lets a lower colour through.
"""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass

from obrell.core.document.model import Part
from obrell.core.document.resolve import Resolved
from obrell.core.effects.base import Effect, Side
from obrell.core.geometry.plane import Rect
from obrell.core.raster import blend
from obrell.core.raster.layers import NO_BOX, Box, Layer
from obrell.core.raster.quantise import Pixels, quantise
from obrell.core.render.cache import PixelCache
from obrell.core.render.limits import check_region
from obrell.core.render.site import PartSite, device_box, site_of
from obrell.core.values.blends import BLEND_CODES

SHARED = PixelCache()


@dataclass(frozen=True, slots=True)
class Frame:
    """What is drawn: ``region`` in device pixels of ``density``."""

    density: float
    region: Box


def canvas_box(resolved: Resolved, density: float) -> Box:
    """The canvas on the device grid: ceil(w·s) × ceil(h·s)."""
    canvas = resolved.control.canvas
    return Box.around(0, 0, canvas.width * density, canvas.height * density)


def draw(resolved: Resolved, frame: Frame, cache: PixelCache = SHARED) -> Pixels:
    """Straight 8-bit pixels of the frame's region. Same input, same bytes."""
    return quantise(compose(resolved, frame, cache))


def compose(resolved: Resolved, frame: Frame, cache: PixelCache = SHARED) -> Layer:
    """The frame's region as floats. The composite below every part is kept while it stays as it is,
    so that changing one part does not draw the others below it again."""
    check_region(frame.region)
    parts = [part for part in resolved.control.parts if part.visible]
    ground = (frame.region, frame.density, resolved.light, resolved.fit)
    keys = [(*ground, *parts[:count]) for count in range(len(parts) + 1)]
    done, layer = 0, None
    for count in range(len(parts), 0, -1):
        layer = cache.find(keys[count])
        if layer is not None:
            done = count
            break
    target = layer.crop(frame.region) if layer is not None else Layer.clear(frame.region)
    for count in range(done, len(parts)):
        site = site_of(resolved, parts[count], frame.density, frame.region, cache)
        paint_part(target, parts[count], site)
        cache.put(keys[count + 1], target.crop(frame.region))
    return target


def paint_part(target: Layer, part: Part, site: PartSite) -> None:
    """Blend one part into ``target``."""
    effects = [effect for effect in part.effects if effect.visible and effect.opacity > 0]
    box = _touched(effects, site)
    if box.empty or part.opacity <= 0:
        return
    behind = [effect for effect in effects if effect.zone == "behind"]
    surface = [effect for effect in effects if effect.zone == "surface"]
    edge = [effect for effect in effects if effect.zone == "edge"]
    inside = target.crop(site.own_box)
    outside = target.crop(box)
    for effect in behind:
        _coat(outside, effect, site, "behind", part.opacity)
        if effect.shows_through_body:
            _coat(inside, effect, site, "behind", part.opacity)
    mode = BLEND_CODES[part.blend]
    blend.stack(inside, _group((*surface, *edge), site, "inside", site.own_box), part.opacity, mode)
    if edge:
        blend.stack(outside, _group(edge, site, "outside", box), part.opacity, mode)
    blend.weave(target, outside, inside, site.coverage())


def _group(effects: Iterable[Effect], site: PartSite, side: Side, box: Box) -> Layer:
    """An isolated group of effects, uncut."""
    group = Layer.clear(box)
    for effect in effects:
        _coat(group, effect, site, side, 1.0)
    return group


def _coat(layer: Layer, effect: Effect, site: PartSite, side: Side, fade: float) -> None:
    for coat in effect.coats(site, side):
        blend.paint(layer, coat.mask, coat.pigment, coat.opacity * fade, BLEND_CODES[coat.blend])


def _touched(effects: list[Effect], site: PartSite) -> Box:
    """The device pixels the part can change inside the region."""
    if not effects:
        return NO_BOX
    reach = max(effect.reach(site.light) for effect in effects)
    margin = math.ceil(reach * site.density) + 1
    return device_box(site.outline).grown(margin).meet(site.region)


def painted_bounds(resolved: Resolved, part: Part) -> Rect:
    """Around everything the part can paint, logical px, pixel fit included."""
    site = site_of(resolved, part, 1.0, NO_BOX, SHARED)
    effects = [effect for effect in part.effects if effect.visible]
    reach = max((effect.reach(site.light) for effect in effects), default=0.0)
    return site.outline.bounds().grown(reach + 1.0)
