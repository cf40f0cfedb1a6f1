"""Items of a scene as pixels: the composition rules of ``rendering.md``.

A part is painted on two layers over the pixels it can touch, both uncut: outside, the backdrop with
the behind effects and the outlines that reach outwards; inside, the backdrop with the effects that show
through and the surface over it. They are woven together once by the shape's coverage, so neither an
edge nor an outline along it lets a lower colour through.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

import numpy as np

from obrell.core.colour.contrast import LUMINANCE
from obrell.core.effects.base import Effect, Side
from obrell.core.raster import blend
from obrell.core.raster.blur import blur, reach_px, support_px
from obrell.core.raster.layers import Coverage, Layer, PixelBox, times
from obrell.core.raster.paint import paint
from obrell.core.render.cache import PixelCache
from obrell.core.render.site import Site
from obrell.core.scene.bounds import changed_by, painted_box, painted_by
from obrell.core.scene.items import Body, Group, Item, Mask, Treated
from obrell.core.values.blends import BLEND_CODES, Blend

NORMAL = BLEND_CODES["normal"]
WEIGHTS = np.array(LUMINANCE, np.float32)


@dataclass(frozen=True, slots=True)
class Painter:
    """Paints items on layers; what is made of their areas covers ``region``, device px, and is kept in ``cache``."""

    region: PixelBox
    cache: PixelCache

    def paint(self, target: Layer, item: Item) -> None:
        """Blend an item into ``target``."""
        match item:
            case Group(items, isolated):
                self._group(target, items, isolated=isolated)
            case Treated():
                self._treated(target, item)
            case Body():
                self._body(target, item)

    def _all(self, target: Layer, items: Iterable[Item]) -> None:
        for item in items:
            self.paint(target, item)

    def _group(self, target: Layer, items: tuple[Item, ...], *, isolated: bool) -> None:
        if not isolated:
            self._all(target, items)
            return
        layer = Layer.clear(painted_box(Group(items), self.region).meet(target.box))
        self._all(layer, items)
        _stack(target, layer, 1.0, "normal")

    def _treated(self, target: Layer, item: Treated) -> None:
        """What a mask or clip cuts is painted over what is there, and kept where it is shown."""
        if item.masks:
            self._masked(target, item)
        elif item.clips:
            outermost, *inner = item.clips
            kept = target.crop(outermost.extent.meet(self.region).meet(target.box))
            self._treated(kept, replace(item, clips=tuple(inner)))
            blend.mix(target, kept, self.cache.within(outermost, self.region))
        elif item.deviation > 0:
            self._out_of_focus(target, item.item, item.deviation)
        else:
            self.paint(target, item.item)

    def _masked(self, target: Layer, item: Treated) -> None:
        """Paint the item as far as its masks show it. What it casts is faded piece by piece, each then blended by
        itself; one that casts nothing is painted on what it can change, and kept where it is shown."""
        bare = replace(item, masks=())
        box = painted_box(bare, self.region).meet(target.box)
        shown = self._shown(item.masks[0], box)
        for mask in item.masks[1:]:
            shown = times(shown, self._shown(mask, box))
        if not isinstance(item.item, Body) or not item.casts:
            kept = target.crop(box)
            self._treated(kept, bare)
            blend.mix(target, kept, shown)
            return
        for clip in item.clips:
            shown = times(shown, self.cache.within(clip, self.region))
        if item.deviation > 0:
            self._out_of_focus(target, item.item, item.deviation, shown)
        else:
            self._body(target, item.item, shown)

    def _shown(self, mask: Mask, box: PixelBox) -> Coverage:
        """How much a mask shows, over a box. Lightness is that of premultiplied colours (CSS Masking 1, 7.10.1)."""
        layer = Layer.clear(box)
        if isinstance(mask.cover, tuple):
            self._all(layer, mask.cover)
        else:
            everywhere = Coverage(box, np.ones((box.height, box.width), np.float32))
            paint(layer, everywhere, mask.cover.over(box, self.cache), 1.0, NORMAL)
        values = layer.planes[3] if mask.measure == "opacity" else np.tensordot(WEIGHTS, layer.planes[:3], 1)
        if mask.inverted:
            values = 1 - values
        return Coverage(box, np.ascontiguousarray(1 - np.float32(mask.strength) * (1 - values), np.float32))

    def _out_of_focus(
        self, target: Layer, item: Body | Group, deviation: float, shown: Coverage | None = None
    ) -> None:  # fmt: skip
        """Paint what the item casts, piece by piece, and then itself, each by itself on more than is seen, blur that
        by a deviation in device px, and lay it over as the effect or the part asks, as far as it is shown."""
        inner = replace(self, region=self.region.grown(support_px(deviation)))
        if isinstance(item, Body):
            inner._cast_out_of_focus(target, item, deviation, shown)
            plain = replace(item, cast=(), opacity=1.0, blend="normal")
            _lay_blurred(target, inner._alone(plain), deviation, item.opacity, item.blend, shown)
        else:
            _lay_blurred(target, inner._alone(item), deviation, 1.0, "normal", shown)

    def _alone(self, item: Item) -> Layer:
        layer = Layer.clear(painted_box(item, self.region))
        self.paint(layer, item)
        return layer

    def _cast_out_of_focus(self, target: Layer, body: Body, deviation: float, shown: Coverage | None) -> None:
        site = self._site(body)
        for effect in body.cast:
            if effect.frosting is not None:
                soft = blur(site.coverage(), deviation, site.own_box.grown(reach_px(deviation)).meet(target.box))
                seen = soft if shown is None else times(soft, shown)
                _frost(target, target, effect.frosting * site.stand.scale, effect.opacity, seen)
            for operation in effect.operations(site.stand, "behind"):
                mask = site.mask(operation.area)
                layer = Layer.clear(mask.box)
                paint(layer, mask, site.source(operation, mask.box), operation.opacity, NORMAL)
                _lay_blurred(target, layer, deviation, body.opacity, operation.blend, shown)

    def _site(self, body: Body) -> Site:
        return Site(body.stand, self.region, self.cache)

    def _body(self, target: Layer, body: Body, shown: Coverage | None = None) -> None:
        """Blend a part into ``target``, which becomes the outside layer itself, as far as it is shown."""
        box = painted_by(body).meet(self.region).meet(target.box)
        if box.empty and not body.held:
            return
        site = self._site(body)
        held = self._held(body, site.own_box, target.box)
        if held is not None and not body.effects:
            _stack(target, held, body.opacity, body.blend, shown)
            return
        filling = None if held is None else blend.split(held, site.own_box.meet(target.box), site.coverage())
        inside = target.crop(site.own_box.meet(target.box))
        _cast(target, inside, body, site, shown)
        _lay_over(inside, (*body.surface, *body.edge), site, "inside", body, filling, shown)
        _lay_over(target, body.edge, site, "outside", body, held, shown)
        for effect in body.reaching:
            _paint_effect(inside, effect, site, "inside", body.opacity, shown)
            if effect.lies_in() == "edge":
                _paint_effect(target, effect, site, "outside", body.opacity, shown)
        blend.mix(target, inside, site.coverage())

    def _held(self, body: Body, shape: PixelBox, visible: PixelBox) -> Layer | None:
        """What lies in a body, painted by itself over the pixels it and the shape touch."""
        if not body.held:
            return None
        layer = Layer.clear(painted_box(body, self.region).join(shape).meet(visible))
        self._all(layer, body.held)
        return layer


def _cast(target: Layer, inside: Layer, body: Body, site: Site, shown: Coverage | None) -> None:
    for effect in body.cast:
        if effect.frosting is not None:
            seen = site.everywhere() if shown is None else shown
            _frost(inside, target, effect.frosting * site.stand.scale, effect.opacity, seen)
        _paint_effect(target, effect, site, "behind", body.opacity, shown)
        if effect.shows_through_body:
            _paint_effect(inside, effect, site, "behind", body.opacity, shown)


def _frost(inside: Layer, behind: Layer, deviation: float, opacity: float, shown: Coverage) -> None:
    """Blur what lies behind a part into what its inside shows of it; ``deviation`` is in device px."""
    box = shown.box.meet(inside.box)
    if not box.empty:
        frosted = blurred_layer(behind, deviation, box)
        blend.mix(inside, frosted, Coverage(shown.box, shown.values * np.float32(opacity)))


def _lay_over(
    layer: Layer, effects: Sequence[Effect], site: Site, side: Side, body: Body, held: Layer | None,
    shown: Coverage | None,
) -> None:  # fmt: skip
    """Lay effects over a layer as one isolated group, faded and blended as the part asks, as far as it is shown.

    The group is only made when it could look different from laying them on one by one.
    """
    if held is not None:
        for effect in effects:
            _paint_effect(held, effect, site, side, 1.0)
        _stack(layer, held, body.opacity, body.blend, shown)
        return
    if not effects:
        return
    covers = effects[0].opaque and side == "inside"
    alone = covers or not any(effect.mixes for effect in effects)
    if body.opacity >= 1 and body.blend == "normal" and alone and shown is None:
        group = layer
    else:
        box = layer.box.meet(changed_by(effects, site.stand).meet(site.region)) if side == "outside" else layer.box
        group = Layer.clear(box)
    for effect in effects:
        _paint_effect(group, effect, site, side, 1.0)
    if group is not layer:
        _stack(layer, group, body.opacity, body.blend, shown)


def _paint_effect(
    layer: Layer, effect: Effect, site: Site, side: Side, fade: float, shown: Coverage | None = None
) -> None:  # fmt: skip
    for operation in effect.operations(site.stand, side):
        own = site.mask(operation.area)
        mask = own if shown is None else times(own, shown)
        source = site.source(operation, own.box)
        paint(layer, mask, source, operation.opacity * fade, BLEND_CODES[operation.blend])


def _lay_blurred(
    target: Layer, layer: Layer, deviation: float, opacity: float, mode: Blend, shown: Coverage | None
) -> None:  # fmt: skip
    seen = layer.box.grown(reach_px(deviation)).meet(target.box)
    if not layer.box.empty and not seen.empty:
        _stack(target, blurred_layer(layer, deviation, seen), opacity, mode, shown)


def _stack(target: Layer, layer: Layer, opacity: float, mode: Blend, shown: Coverage | None = None) -> None:
    """Lay a layer over the target as far as it is shown."""
    if shown is None:
        blend.composite(target, layer, opacity, BLEND_CODES[mode])
    else:
        blend.cover(target, shown, layer, opacity, BLEND_CODES[mode])


def blurred_layer(layer: Layer, deviation: float, box: PixelBox) -> Layer:
    """A layer blurred over a box by a deviation in device px, its colours premultiplied."""
    if deviation <= 0:
        kept = Layer.clear(box)
        blend.composite(kept, layer, 1.0, NORMAL)
        return kept
    planes = [blur(Coverage(layer.box, plane), deviation, box).values for plane in layer.planes]
    return Layer(box, np.ascontiguousarray(np.stack(planes)))
