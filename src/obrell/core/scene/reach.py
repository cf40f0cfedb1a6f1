"""How far parts reach with everything they paint."""

from __future__ import annotations

import math
from collections.abc import Sequence

from obrell.core.document.looks import painted_of, shown_of
from obrell.core.document.model import Part
from obrell.core.document.nodes import Node
from obrell.core.document.resolve import Resolved
from obrell.core.effects import Blur
from obrell.core.effects.base import Effect, Stand
from obrell.core.geometry.plane import Rect
from obrell.core.paint.areas import touched
from obrell.core.raster.layers import NO_BOX, PixelBox
from obrell.core.scene.stands import stand_of


def changed_by(effects: Sequence[Effect], stand: Stand) -> PixelBox:
    """The device px that effects can change around a part."""
    if not effects:
        return NO_BOX
    reach = max(effect.reach(stand.lamp.direction) for effect in effects)
    return touched(stand.outline).grown(math.ceil(reach * stand.scale) + 1)


def painted_box(resolved: Resolved, node: Node, density: float, region: PixelBox) -> PixelBox:
    """The device px of a region that a node can change."""
    part = node.part
    if not part.visible:
        return NO_BOX
    effects = painted_of(part)
    own = changed_by(effects, stand_of(resolved, part, density)).meet(region) if effects else NO_BOX
    for child in node.children:
        own = own.join(painted_box(resolved, child, density, region))
    soft = _soft_reach(part)
    return own if own.empty or not soft else own.grown(math.ceil(soft * density) + 1).meet(region)


def painted_bounds(resolved: Resolved, node: Node) -> Rect:
    """Around everything the node can paint, logical px, pixel fit included."""
    bounds = _painted_bounds(resolved, node.part)
    for child in node.children:
        bounds = bounds.union(painted_bounds(resolved, child))
    return bounds


def _painted_bounds(resolved: Resolved, part: Part) -> Rect:
    reach = max((effect.reach(resolved.lamp.direction) for effect in painted_of(part)), default=0.0)
    return stand_of(resolved, part, 1.0).outline.bounds().grown(reach + _soft_reach(part) + 1.0)


def _soft_reach(part: Part) -> float:
    """How far its blurs can spread it, logical px."""
    return sum(effect.reach(0.0) for effect in shown_of(part, Blur))
