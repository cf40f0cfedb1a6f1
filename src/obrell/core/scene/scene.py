"""From a resolved control to what is drawn of it."""

from __future__ import annotations

import math
from collections.abc import Callable, Hashable, Iterable, Iterator
from dataclasses import dataclass

from obrell.core.document.copies import moved_node
from obrell.core.document.effect_stacks import painted_of, shown_of
from obrell.core.document.measures import spans_group
from obrell.core.document.model import Part
from obrell.core.document.nodes import Node
from obrell.core.document.resolve import Resolved
from obrell.core.effects import Mask as MaskEffect
from obrell.core.effects.base import Effect, Stand, Zone, lying
from obrell.core.effects.kinds.mask import GradientCover
from obrell.core.geometry.plane import Similarity
from obrell.core.paint.sources import Laid
from obrell.core.scene.items import Body, Group, Item, Mask, Treated
from obrell.core.scene.stands import stand_of, stand_unfitted
from obrell.core.workspace import OfObject

Nodes = tuple[Node, ...]
_ALONE = OfObject[Item](8192)
"""Of hundreds of parts an edit changes one."""


@dataclass(frozen=True, slots=True)
class Scene:
    """Makes items of a control's parts, each when it is asked for; ``stand`` says how a part stands."""

    nodes: Nodes
    """The outermost parts, back to front."""
    scale: float
    """Device px of a logical px."""
    stand: Callable[[Part], Stand]
    around: Hashable
    """What the item of a part depends on that neither holds anything nor is cut, besides the part itself."""

    def items(self) -> Iterator[Item]:
        """All that is to be seen, back to front."""
        return self._items(self.nodes)

    def item(self, node: Node) -> Item | None:
        """A part with what lies in it; None when there is nothing to see."""
        part = node.part
        if not part.visible or part.opacity <= 0:
            return None
        if node.alone and not spans_group(part):
            return _ALONE.get(part, self.around, lambda: self._made(node))
        return self._made(node)

    def _made(self, node: Node) -> Item:
        part = node.part
        masks = tuple(self._masks(node))
        deviation = math.hypot(*(effect.deviation for effect in part.effects if effect.seen)) * self.scale
        item = self._bare(node, uncut=deviation > 0)
        if not masks and not node.clips and not deviation:
            return item
        return Treated(item, deviation, tuple(self.stand(clip).own for clip in node.clips), masks)

    def _items(self, nodes: Iterable[Node]) -> Iterator[Item]:
        return (item for node in nodes if (item := self.item(node)) is not None)

    def _bare(self, node: Node, *, uncut: bool) -> Body | Group:
        """The node without what is done to the whole of it; what it casts is ``uncut`` when it is blurred after that
        (``rendering.md``, Zones)."""
        part, held = node.part, tuple(self._items(node.children))
        effects = painted_of(part)
        if node.children and not effects and part.opacity >= 1 and part.blend == "normal":
            return Group(held, isolated=not node.through and mixes(node))
        own = [effect for effect in effects if not effect.reaches]
        return Body(
            self.stand(part), lying_in("behind", own), lying_in("surface", own), lying_in("edge", own),
            tuple(effect for effect in effects if effect.reaches), held, part.opacity, part.blend, uncut,
        )  # fmt: skip

    def _masks(self, node: Node) -> Iterator[Mask]:
        """What masks the node; a mask by a part that is gone is none."""
        part, covers = node.part, dict(node.covers)
        for effect in shown_of(part, MaskEffect):
            dx, dy = effect.shift(part.x, part.y)
            cover: Laid | tuple[Item, ...]
            if isinstance(effect.cover, GradientCover):
                cover = self._laid(effect.cover, self.stand(part), dx, dy)
            elif effect.id in covers:
                cover = tuple(self._items((moved_node(covers[effect.id], Similarity(dx=dx, dy=dy)),)))
            else:
                continue
            yield Mask(cover, effect.measure, effect.inverted, effect.opacity)

    def _laid(self, cover: GradientCover, stand: Stand, dx: float, dy: float) -> Laid:
        moved = Similarity(dx=dx * stand.scale, dy=dy * stand.scale).after(stand.place)
        return Laid(cover.fill, *lying(cover.fill, stand.spans, (stand.box, moved), Similarity(stand.scale)))


def scene_at(resolved: Resolved, density: float) -> Scene:
    """The control on the device grid of a density, its parts fitted as they or the kit ask."""
    around = (density, resolved.fit, *_light_and_canvas(resolved))
    return Scene(resolved.tree.nodes, density, lambda part: stand_of(resolved, part, density), around)


def scene_unfitted(resolved: Resolved) -> Scene:
    """The control in its own space, logical px, on no grid."""
    around = ("unfitted", *_light_and_canvas(resolved))
    return Scene(resolved.tree.nodes, 1.0, lambda part: stand_unfitted(resolved, part), around)


def _light_and_canvas(resolved: Resolved) -> tuple[Hashable, ...]:
    lamp, canvas = resolved.lamp, resolved.control.canvas
    return lamp.direction, lamp.height, canvas.width, canvas.height


def lying_in(zone: Zone, effects: Iterable[Effect]) -> tuple[Effect, ...]:
    """Those of one zone, in their order."""
    return tuple(effect for effect in effects if effect.lies_in() == zone)


def mixes(node: Node) -> bool:
    """Whether anything in the node is blended with what lies below it, other than laid over it."""
    part = node.part
    own = part.blend != "normal" or any(effect.mixes for effect in part.effects)
    return own or any(mixes(child) for child in node.children)
