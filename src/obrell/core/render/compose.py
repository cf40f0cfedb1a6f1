"""How parts become one picture: the composition rules of ``rendering.md``.

A part is painted on two layers over the pixels it can touch, both uncut: outside, the backdrop with
the behind effects and the outlines that reach outwards; inside, the backdrop with the effects that show
through and the surface over it. They are woven together once by the shape's coverage, so neither an
edge nor an outline along it lets a lower colour through.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from obrell.core.document.looks import before_blur, deviation_of, painted_of, shown_of
from obrell.core.document.model import Part
from obrell.core.document.nodes import Node
from obrell.core.document.resolve import Resolved
from obrell.core.document.tree import walk
from obrell.core.effects import BackdropBlur
from obrell.core.effects.base import Effect, Side
from obrell.core.effects.kinds.mask import Mask
from obrell.core.raster import blend
from obrell.core.raster.blur import blur, reach_px, support_px
from obrell.core.raster.layers import Coverage, Layer, PixelBox, times
from obrell.core.raster.memory import keep_memory
from obrell.core.raster.quantise import Pixels, quantise
from obrell.core.render.cache import PixelCache
from obrell.core.render.covers import mask_over
from obrell.core.render.limits import check_region
from obrell.core.render.site import Site, site_of
from obrell.core.scene.reach import changed_by, painted_box
from obrell.core.values.blends import BLEND_CODES, Blend

keep_memory()
NORMAL = BLEND_CODES["normal"]


@dataclass(frozen=True, slots=True)
class Frame:
    """What is drawn: ``region`` in device pixels of ``density``."""

    density: float
    region: PixelBox


def canvas_box(resolved: Resolved, density: float) -> PixelBox:
    """The canvas on the device grid: ceil(w·s) × ceil(h·s)."""
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
    """How far around a region what lies behind frosted glass can still matter to it."""
    radii = [
        effect.radius
        for node in walk(resolved.tree.nodes)
        for effect in node.part.effects
        if isinstance(effect, BackdropBlur) and effect.visible
    ]
    return sum(support_px(radius / 2 * density) for radius in radii)


def _composed(resolved: Resolved, frame: Frame, cache: PixelCache, only: PixelBox | None) -> Layer:
    region = frame.region if only is None else only.meet(frame.region)
    parts = tuple(node for node in resolved.tree.nodes if node.part.visible)
    ground = (frame.region, frame.density, resolved.light, resolved.fit, resolved.control.canvas)
    settled = cache.settled(ground, parts)
    snapshot = cache.find((*ground, parts[:settled]))
    target = Layer.clear(frame.region if snapshot is None and settled else region)
    start = 0
    if snapshot is not None:
        target, start = snapshot.crop(region), settled
    for count in range(start, len(parts)):
        if count == settled and settled and snapshot is None:
            cache.put((*ground, parts[:settled]), target)
            target = target.crop(region)
        paint(target, parts[count], _Sites(resolved, frame, cache))
    return target if target.box == region else target.crop(region)


@dataclass(frozen=True, slots=True)
class _Sites:
    """Makes the site of any part of the frame."""

    resolved: Resolved
    frame: Frame
    cache: PixelCache

    def of(self, part: Part) -> Site:
        return site_of(self.resolved, part, self.frame.density, self.frame.region, self.cache)


def paint(target: Layer, node: Node, sites: _Sites) -> None:
    """Blend a part, and what is in it, into ``target``."""
    if not node.part.visible or node.part.opacity <= 0:
        return
    masks, deviation = shown_of(node.part, Mask), deviation_of(node.part) * sites.frame.density
    if masks:
        _masked(target, node, masks, sites)
    elif node.clips:
        _clipped(target, node, sites)
    elif deviation > 0:
        _out_of_focus(target, node, deviation, sites)
    elif node.children and node.plain and (node.through or not mixes(node)):
        for child in node.children:
            paint(target, child, sites)
    else:
        _paint_one(target, node, sites)


def mixes(node: Node) -> bool:
    """Whether anything in the node is blended with what lies below it, other than laid over it."""
    part = node.part
    own = part.blend != "normal" or any(effect.mixes for effect in part.effects)
    return own or any(mixes(child) for child in node.children)


def _out_of_focus(target: Layer, node: Node, deviation: float, sites: _Sites, shown: Coverage | None = None) -> None:
    """Paint what the node casts, piece by piece, and then itself, each by itself on more than is seen, blur that by a
    deviation in device px, and lay it over as the effect or the part asks, as far as it is shown."""
    bare, part = before_blur(node), node.part
    inner = replace(sites, frame=replace(sites.frame, region=sites.frame.region.grown(support_px(deviation))))
    site = inner.of(bare.part)
    for effect in (e for e in painted_of(bare.part) if e.lies_in() == "behind"):
        if isinstance(effect, BackdropBlur):
            soft = blur(site.coverage(), deviation, site.own_box.grown(reach_px(deviation)).meet(target.box))
            _frost(target, target, effect, site.stand.scale, soft if shown is None else times(soft, shown))
        for operation in effect.operations(site.stand, "behind"):
            mask = site.mask(operation.area)
            layer = Layer.clear(mask.box)
            blend.paint(layer, mask, site.source(operation, mask.box), operation.opacity, NORMAL)
            _lay_blurred(target, layer, deviation, part.opacity, operation.blend, shown)
    effects = tuple(e for e in bare.part.effects if e.lies_in() != "behind")
    plain = bare.evolved(bare.part.evolve(opacity=1.0, blend="normal", effects=effects), bare.children)
    layer = Layer.clear(painted_box(sites.resolved, plain, inner.frame.density, inner.frame.region))
    paint(layer, plain, inner)
    _lay_blurred(target, layer, deviation, part.opacity, part.blend, shown)


def _lay_blurred(
    target: Layer, layer: Layer, deviation: float, opacity: float, mode: Blend, shown: Coverage | None
) -> None:  # fmt: skip
    seen = layer.box.grown(reach_px(deviation)).meet(target.box)
    if not layer.box.empty and not seen.empty:
        _stack(target, blurred_layer(layer, deviation, seen), opacity, mode, shown)


def _stack(target: Layer, layer: Layer, opacity: float, mode: Blend, shown: Coverage | None) -> None:
    """Lay a layer over the target as far as it is shown."""
    if shown is None:
        blend.composite(target, layer, opacity, BLEND_CODES[mode])
    else:
        blend.paint(target, shown, layer, opacity, BLEND_CODES[mode])


def _masked(target: Layer, node: Node, masks: Sequence[Mask], sites: _Sites) -> None:
    """Paint the node as far as its masks show it. What it casts is faded piece by piece, each then blended by itself;
    a node that casts nothing is painted on what it can change, and kept where it is shown."""
    bare, site = node.without(Mask), sites.of(node.part)
    box = painted_box(sites.resolved, bare, sites.frame.density, sites.frame.region).meet(target.box)
    shown = mask_over(masks[0], node, site, box, lambda layer, cover: paint(layer, cover, sites))
    for effect in masks[1:]:
        shown = times(shown, mask_over(effect, node, site, box, lambda layer, cover: paint(layer, cover, sites)))
    if not any(effect.lies_in() == "behind" for effect in painted_of(bare.part)):
        kept = target.crop(box)
        paint(kept, bare, sites)
        blend.mix(target, kept, shown)
        return
    for clip in bare.clips:
        shown = times(shown, sites.of(clip).coverage())
    deviation = deviation_of(bare.part) * sites.frame.density
    if deviation > 0:
        _out_of_focus(target, replace(bare, clips=()), deviation, sites, shown)
    else:
        _paint_one(target, replace(bare, clips=()), sites, shown)


def _clipped(target: Layer, node: Node, sites: _Sites) -> None:
    """Paint the node on what its clips can cover, and keep that only where all of them do."""
    site = sites.of(node.clips[0])
    kept = target.crop(site.own_box.meet(target.box))
    paint(kept, replace(node, clips=node.clips[1:]), sites)
    blend.mix(target, kept, site.coverage())


def _paint_one(target: Layer, node: Node, sites: _Sites, shown: Coverage | None = None) -> None:
    """Blend a part into ``target``, which becomes the outside layer itself, as far as it is shown."""
    part, site = node.part, sites.of(node.part)
    effects = painted_of(part)
    box = changed_by(effects, site.stand).meet(site.region).meet(target.box)
    if box.empty and not node.children:
        return
    held = _held(node, site.own_box, target.box, sites)
    if held is not None and not effects:
        _stack(target, held, part.opacity, part.blend, shown)
        return
    body = None if held is None else blend.split(held, site.own_box.meet(target.box), site.coverage())
    behind = [effect for effect in effects if effect.lies_in() == "behind"]
    reaching = [effect for effect in effects if effect.reaches]
    surface = [effect for effect in effects if effect.lies_in() == "surface" and not effect.reaches]
    edge = [effect for effect in effects if effect.lies_in() == "edge" and not effect.reaches]
    inside = target.crop(site.own_box.meet(target.box))
    for effect in behind:
        if isinstance(effect, BackdropBlur):
            _frost(inside, target, effect, site.stand.scale, site.everywhere() if shown is None else shown)
        _paint_effect(target, effect, site, "behind", part.opacity, shown)
        if effect.shows_through_body:
            _paint_effect(inside, effect, site, "behind", part.opacity, shown)
    _over(inside, (*surface, *edge), site, "inside", part, body, shown)
    _over(target, edge, site, "outside", part, held, shown)
    for effect in reaching:
        _paint_effect(inside, effect, site, "inside", part.opacity, shown)
        if effect.lies_in() == "edge":
            _paint_effect(target, effect, site, "outside", part.opacity, shown)
    blend.mix(target, inside, site.coverage())


def _frost(inside: Layer, behind: Layer, effect: BackdropBlur, density: float, shown: Coverage) -> None:
    """Blur what lies behind the part into what its inside shows of it."""
    box = shown.box.meet(inside.box)
    if box.empty:
        return
    frosted = blurred_layer(behind, effect.radius / 2 * density, box)
    blend.mix(inside, frosted, Coverage(shown.box, shown.values * np.float32(effect.opacity)))


def blurred_layer(layer: Layer, deviation: float, box: PixelBox) -> Layer:
    """A layer blurred over a box, its colours premultiplied."""
    if deviation <= 0:
        kept = Layer.clear(box)
        blend.composite(kept, layer, 1.0, 0)
        return kept
    planes = [blur(Coverage(layer.box, plane), deviation, box).values for plane in layer.planes]
    return Layer(box, np.ascontiguousarray(np.stack(planes)))


def _held(node: Node, shape: PixelBox, seen: PixelBox, sites: _Sites) -> Layer | None:
    """What lies in the node, painted by itself over the pixels it and the node's shape touch."""
    if not node.children:
        return None
    painted = painted_box(sites.resolved, node, sites.frame.density, sites.frame.region)
    layer = Layer.clear(painted.join(shape).meet(seen))
    for child in node.children:
        paint(layer, child, sites)
    return layer


def _over(
    layer: Layer, effects: Sequence[Effect], site: Site, side: Side, part: Part, held: Layer | None,
    shown: Coverage | None,
) -> None:  # fmt: skip
    """Lay effects over a layer as one isolated group, faded and blended as the part asks, as far as it is shown.

    The group is only made when it could look different from laying them on one by one.
    """
    if held is not None:
        for effect in effects:
            _paint_effect(held, effect, site, side, 1.0)
        _stack(layer, held, part.opacity, part.blend, shown)
        return
    if not effects:
        return
    covers = effects[0].opaque and side == "inside"
    alone = covers or not any(effect.mixes for effect in effects)
    if part.opacity >= 1 and part.blend == "normal" and alone and shown is None:
        group = layer
    else:
        box = layer.box.meet(changed_by(effects, site.stand).meet(site.region)) if side == "outside" else layer.box
        group = Layer.clear(box)
    for effect in effects:
        _paint_effect(group, effect, site, side, 1.0)
    if group is not layer:
        _stack(layer, group, part.opacity, part.blend, shown)


def _paint_effect(
    layer: Layer, effect: Effect, site: Site, side: Side, fade: float, shown: Coverage | None = None
) -> None:  # fmt: skip
    for operation in effect.operations(site.stand, side):
        own = site.mask(operation.area)
        mask = own if shown is None else times(own, shown)
        source = site.source(operation, own.box)
        blend.paint(layer, mask, source, operation.opacity * fade, BLEND_CODES[operation.blend])
