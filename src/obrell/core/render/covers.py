"""Masks of whole parts as values from 0 to 1 over a box of the device grid."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from obrell.core.document.copies import moved_node
from obrell.core.document.nodes import Node
from obrell.core.effects.base import lying
from obrell.core.effects.kinds.mask import GradientCover, Mask
from obrell.core.geometry.plane import Similarity
from obrell.core.paint.fills import pigment
from obrell.core.raster import blend
from obrell.core.raster.layers import Coverage, Layer, PixelBox
from obrell.core.render.site import Site

LUMINANCE = np.array([0.2126, 0.7152, 0.0722], np.float32)
Painter = Callable[[Layer, Node], None]


def mask_over(effect: Mask, node: Node, site: Site, box: PixelBox, paint: Painter) -> Coverage:
    """How much of the node is seen over ``box``; ``site`` is the node's own."""
    part, stand = node.part, site.stand
    dx, dy = effect.shift(part.x, part.y)
    cover = dict(node.covers).get(effect.id)
    layer = Layer.clear(box)
    if isinstance(effect.cover, GradientCover):
        fill = effect.cover.fill
        to_device = Similarity(dx=dx * stand.scale, dy=dy * stand.scale).after(stand.place)
        laid = lying(fill, stand.spans, (stand.box, to_device), Similarity(stand.scale))
        everywhere = Coverage(box, np.ones((box.height, box.width), np.float32))
        blend.paint(layer, everywhere, pigment(fill, *laid), 1.0, 0)
    elif cover is not None:
        paint(layer, moved_node(cover, Similarity(dx=dx, dy=dy)))
    else:
        return Coverage(box, np.ones((box.height, box.width), np.float32))
    values = layer.planes[3] if effect.measure == "opacity" else np.tensordot(LUMINANCE, layer.planes[:3], 1)
    if effect.inverted:
        values = 1 - values
    strength = np.float32(effect.opacity)
    return Coverage(box, np.ascontiguousarray(1 - strength * (1 - values), np.float32))
