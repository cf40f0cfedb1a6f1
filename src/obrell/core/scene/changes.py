"""Where two versions of a control can differ."""

from __future__ import annotations

from dataclasses import dataclass

from obrell.core.document.nodes import Node
from obrell.core.document.resolve import Resolved
from obrell.core.raster.layers import NO_BOX, PixelBox
from obrell.core.scene.bounds import painted_box
from obrell.core.scene.scene import Nodes, Scene, scene_at


def changed_box(old: Resolved, new: Resolved, density: float, region: PixelBox) -> PixelBox:
    """Device pixels of a region outside of which both look the same; empty when all of it does."""
    if old.light != new.light or old.fit != new.fit or old.control.canvas != new.control.canvas:
        return region
    was, now = scene_at(old, density), scene_at(new, density)
    return _Comparison(was, now, region).between(was.nodes, now.nodes)


@dataclass(frozen=True, slots=True)
class _Comparison:
    old: Scene
    new: Scene
    region: PixelBox

    def between(self, before: Nodes, after: Nodes) -> PixelBox:
        was, now = ({node.part.id: node for node in nodes} for nodes in (before, after))
        if [i for i in was if i in now] != [i for i in now if i in was]:
            return self.region
        box = NO_BOX
        for part_id in was.keys() | now.keys():
            box = box.join(self._of(was.get(part_id), now.get(part_id)))
        return box

    def _of(self, before: Node | None, after: Node | None) -> PixelBox:
        """Of a group that only gathers, nothing changes but what changed in it."""
        if before == after:
            return NO_BOX
        if before and after and _gathers(before) and _gathers(after) and _same_but_shape(before, after):
            return self.between(before.children, after.children)
        was = NO_BOX if before is None else painted_box(self.old.item(before), self.region)
        return was if after is None else was.join(painted_box(self.new.item(after), self.region))


def _gathers(node: Node) -> bool:
    return bool(node.children) and node.plain and not _shared(node)


def _shared(node: Node) -> bool:
    """Whether a fill of something in it is laid over all of it."""
    return any(
        getattr(getattr(effect, "fill", None), "span", "part") == "group"
        for child in node.children
        for effect in child.part.effects
    )


def _same_but_shape(before: Node, after: Node) -> bool:
    return (
        before.part.visible == after.part.visible
        and before.part.shape.kind == after.part.shape.kind
        and before.through == after.through
        and not before.clips
        and not after.clips
    )
