"""Where two versions of a control can differ."""

from __future__ import annotations

from obrell.core.document.model import Part
from obrell.core.document.resolve import Resolved
from obrell.core.raster.layers import NO_BOX, Box
from obrell.core.render.compose import SHARED, Frame, touched
from obrell.core.render.site import site_of


def changed_box(old: Resolved, new: Resolved, frame: Frame) -> Box:
    """Device pixels of the frame outside of which both look the same; empty when all of it does."""
    if old.light != new.light or old.fit != new.fit:
        return frame.region
    before = {part.id: (place, part) for place, part in enumerate(old.control.parts)}
    after = {part.id: (place, part) for place, part in enumerate(new.control.parts)}
    common = [i for i in before if i in after]
    if sorted(common, key=lambda i: after[i][0]) != common:
        return frame.region
    box = NO_BOX
    for part_id in before.keys() | after.keys():
        parts = [found[part_id][1] for found in (before, after) if part_id in found]
        if len(parts) == 1 or (parts[0] is not parts[1] and parts[0] != parts[1]):
            for part, resolved in zip(parts, (old, new), strict=False):
                box = box.join(_painted(resolved, part, frame))
    return box


def _painted(resolved: Resolved, part: Part, frame: Frame) -> Box:
    if not part.visible:
        return NO_BOX
    site = site_of(resolved, part, frame.density, frame.region, SHARED)
    return touched([effect for effect in part.effects if effect.visible], site)
