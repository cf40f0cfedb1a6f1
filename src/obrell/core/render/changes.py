"""Where two versions of a control can differ."""

from __future__ import annotations

from obrell.core.document.nodes import Node
from obrell.core.document.resolve import Resolved
from obrell.core.raster.layers import NO_BOX, PixelBox
from obrell.core.render.compose import Frame
from obrell.core.scene.reach import painted_box

Nodes = tuple[Node, ...]


def changed_box(old: Resolved, new: Resolved, frame: Frame) -> PixelBox:
    """Device pixels of the frame outside of which both look the same; empty when all of it does."""
    if old.light != new.light or old.fit != new.fit or old.control.canvas != new.control.canvas:
        return frame.region
    return _between(old, new, old.tree.nodes, new.tree.nodes, frame)


def _between(old: Resolved, new: Resolved, before: Nodes, after: Nodes, frame: Frame) -> PixelBox:
    was = {node.part.id: (place, node) for place, node in enumerate(before)}
    now = {node.part.id: (place, node) for place, node in enumerate(after)}
    common = [i for i in was if i in now]
    if sorted(common, key=lambda i: now[i][0]) != common:
        return frame.region
    box = NO_BOX
    for part_id in was.keys() | now.keys():
        nodes = [found[part_id][1] for found in (was, now) if part_id in found]
        if len(nodes) == 1:
            box = box.join(painted_box(old if part_id in was else new, nodes[0], frame.density, frame.region))
        elif nodes[0] != nodes[1]:
            box = box.join(_changed(old, new, nodes[0], nodes[1], frame))
    return box


def _changed(old: Resolved, new: Resolved, before: Node, after: Node, frame: Frame) -> PixelBox:
    """Of a group that only gathers, nothing changes but what changed in it."""
    gathers = before.children and after.children and before.plain and after.plain
    if gathers and _same_but_shape(before, after) and not _shared(before) and not _shared(after):
        return _between(old, new, before.children, after.children, frame)
    return painted_box(old, before, frame.density, frame.region).join(
        painted_box(new, after, frame.density, frame.region)
    )


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
