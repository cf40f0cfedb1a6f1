"""How far items reach with everything they paint."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace

from obrell.core.document.nodes import Node
from obrell.core.document.resolve import Resolved
from obrell.core.effects.base import Effect, Stand
from obrell.core.geometry.plane import NOWHERE, Rect
from obrell.core.paint.areas import touched
from obrell.core.raster.blur import reach_px
from obrell.core.raster.layers import NO_BOX, PixelBox
from obrell.core.scene.items import Body, Group, Item, Treated
from obrell.core.scene.scene import scene_at
from obrell.core.workspace import OfObject


def changed_by(effects: Sequence[Effect], stand: Stand) -> PixelBox:
    """The device px that effects can change around a part."""
    if not effects:
        return NO_BOX
    return touched(stand.outline).grown(math.ceil(reach_of(effects, stand)) + 1)


_EXTENTS = OfObject[PixelBox](8192)


def painted_by(body: Body) -> PixelBox:
    """The device px that what a body paints itself can change, without what lies in it."""
    return _EXTENTS.get(body, None, lambda: changed_by(body.effects, body.stand))


def painted_box(item: Item | None, region: PixelBox) -> PixelBox:
    """The device px of a region that an item can change."""
    match item:
        case Body():
            own = painted_by(item).meet(region)
            return _joined(item.held, region).join(own)
        case Group(items):
            return _joined(items, region)
        case Treated(inner, deviation):
            box = painted_box(inner, region)
            return box if box.empty or not deviation else box.grown(reach_px(deviation) + 1).meet(region)
    return NO_BOX


def painted_bounds(item: Item) -> Rect:
    """Around everything the item can paint, device px, and its outlines in any case."""
    match item:
        case Treated(inner, deviation):
            return painted_bounds(inner).grown(reach_px(deviation))
        case Group(items):
            return _united(items)
    reach = reach_of(item.effects, item.stand)
    return item.stand.outline.bounds().grown(reach + 1.0).union(_united(item.held))


def bounds_of(resolved: Resolved, node: Node) -> Rect:
    """Around everything that a node, hidden or not, can paint and around its outline, logical px at density 1."""
    shown = replace(node, part=node.part.evolve(visible=True, opacity=1.0))
    scene = scene_at(resolved, 1.0)
    item = scene.item(shown)
    outline = scene.stand(shown.part).outline.bounds().grown(1.0)
    return outline if item is None else outline.union(painted_bounds(item))


def reach_of(effects: Sequence[Effect], stand: Stand) -> float:
    """How far effects reach beyond the shape at most, device px."""
    reach = max((effect.reach(stand.lamp.direction) for effect in effects), default=0.0)
    return reach * stand.scale


def _joined(items: Sequence[Item], region: PixelBox) -> PixelBox:
    box = NO_BOX
    for item in items:
        box = box.join(painted_box(item, region))
    return box


def _united(items: Sequence[Item]) -> Rect:
    bounds = NOWHERE
    for item in items:
        bounds = bounds.union(painted_bounds(item))
    return bounds
