"""Parts with their edges on the pixels of density 1, as SVG is drawn when it is shown at its own size."""

from __future__ import annotations

import math
from dataclasses import replace

from obrell.core.document.model import Part
from obrell.core.document.moving import place_of
from obrell.core.document.nodes import Node, drawn
from obrell.core.document.resolve import Resolved
from obrell.core.effects import AnyEffect, Outline
from obrell.core.shapes.base import fitted_at

DENSITY = 1.0
WIDTHS = ("width", "top", "right", "bottom", "left")


def fitted(resolved: Resolved) -> Resolved:
    """The same with every part fitted as it, or the kit, asks; nothing is fitted again after that."""
    nodes = tuple(_node(node, resolved.fit) for node in resolved.tree.nodes)
    return replace(resolved, fit="off", tree=replace(resolved.tree, nodes=nodes))


def _node(node: Node, usual: str) -> Node:
    return replace(
        node, part=_part(node.part, usual), children=tuple(_node(child, usual) for child in node.children),
        clips=tuple(_part(clip, usual) for clip in node.clips),
        covers=tuple((name, _node(cover, usual)) for name, cover in node.covers),
    )  # fmt: skip


def _part(part: Part, usual: str) -> Part:
    fit, shape = part.fit or usual, part.shape.at_density(DENSITY)
    if fit == "off":
        return drawn(part, shape)
    shape, place = fitted_at(shape, place_of(part), DENSITY)
    effects = tuple(_stroke(effect) for effect in part.effects) if fit == "strokes" else part.effects
    return drawn(part.evolve(x=place.x, y=place.y, effects=effects, fit="off"), shape)


def _stroke(effect: AnyEffect) -> AnyEffect:
    """Outlines and sharp spreads of whole px, at least one where there is any."""
    if isinstance(effect, Outline):
        return effect.evolve(**{name: _whole(getattr(effect, name)) for name in WIDTHS})
    spread = getattr(effect, "spread", 0.0)
    if spread and getattr(effect, "blur", 1.0) == 0:
        changed: AnyEffect = effect.evolve(spread=math.copysign(_whole(abs(spread)), spread))
        return changed
    return effect


def _whole(width: float) -> float:
    return max(1.0, math.floor(width + 0.5)) if width > 0 else 0.0
