"""Straight sides that are soft on the pixels of a screen."""

from __future__ import annotations

from typing import ClassVar

from obrell.core.document.model import Part
from obrell.core.document.resolve import Resolved
from obrell.core.document.tree import Tree, walk
from obrell.core.findings.base import Finding, Kind
from obrell.core.findings.sides import counted, cure, sides_of
from obrell.core.scene.stands import is_blurred
from obrell.core.workspace import OfObject

DENSITY = 1.0
"""Where a soft side is seen most."""
_FOUND = OfObject[Finding | None](8192)


def is_softened(tree: Tree, part: Part) -> bool:
    """Return whether a part or a container of it is blurred, so that its edges are meant to be soft."""
    outer = tree.all.get(part.within or "")
    return is_blurred(part) or (outer is not None and is_softened(tree, outer.part))


class SoftSides(Kind):
    """A side between two rows of pixels is spread over both. What cannot be mended is only shown where edges are
    looked at."""

    kind: ClassVar[str] = "soft-sides"
    looks_for: ClassVar[str] = "soft edges"
    rank: ClassVar[int] = 30

    def look(self, resolved: Resolved) -> tuple[Finding, ...]:
        tree = resolved.tree
        found = (self._known(resolved, node.part) for node in walk(tree.nodes) if not is_softened(tree, node.part))
        return tuple(one for one in found if one is not None)

    def _known(self, resolved: Resolved, part: Part) -> Finding | None:
        return _FOUND.get(part, resolved.fit, lambda: self._of(resolved, part))

    def _of(self, resolved: Resolved, part: Part) -> Finding | None:
        soft = sides_of(resolved, part, DENSITY).soft
        mends = cure(resolved, part, DENSITY) if soft else None
        if mends is None:
            return None
        many = "sides are" if len(soft) > 1 else "side is"
        return self.found(f"{len(soft)} {many} soft at 1× on “{part.name}”: {counted(soft)}.", part.id, cures=(mends,))
