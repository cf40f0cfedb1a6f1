"""Parts that lie off the canvas."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import ClassVar

from obrell.core.document.model import Part
from obrell.core.document.resolve import Resolved
from obrell.core.edit.parts import MoveParts
from obrell.core.findings.base import Cure, Finding, Kind
from obrell.core.geometry.plane import Rect
from obrell.core.scene.stands import stand_of
from obrell.core.shapes import Combination
from obrell.core.workspace import OfObject

SLACK_PX = 0.01
"""How far an edge may lie off the canvas unnoticed."""
_BOUNDS = OfObject[Rect](8192)


class OffCanvas(Kind):
    """What lies off the canvas is drawn dimmed and not delivered."""

    kind: ClassVar[str] = "off-canvas"
    looks_for: ClassVar[str] = "parts off the canvas"
    rank: ClassVar[int] = 20

    def look(self, resolved: Resolved) -> tuple[Finding, ...]:
        canvas = Rect(0, 0, resolved.control.canvas.width, resolved.control.canvas.height)
        parts = {name: node.part for name, node in resolved.tree.all.items()}
        own = {part.id: part for part in resolved.control.parts}
        return tuple(
            self._of(part, bounds, canvas)
            for part in parts.values()
            if not _is_piece(part, own) and not _within(bounds := _seen(resolved, part, parts), canvas.grown(SLACK_PX))
        )

    def _of(self, part: Part, bounds: Rect, canvas: Rect) -> Finding:
        apart = bounds.right <= 0 or bounds.left >= canvas.right or bounds.bottom <= 0 or bounds.top >= canvas.bottom
        words = f"“{part.name}” lies {'' if apart else 'partly '}off the canvas and is not delivered there."
        fits = bounds.width <= canvas.width and bounds.height <= canvas.height
        cures = (Cure("Move it onto the canvas", _onto(part, bounds, canvas)),) if fits and not part.locked else ()
        return self.found(words, part.id, mark="off the canvas", cures=cures)


def _is_piece(part: Part, parts: Mapping[str, Part]) -> bool:
    """Return whether a part lies in a combination, which is examined instead of its pieces."""
    outer = parts.get(part.within or "")
    return outer is not None and (isinstance(outer.shape, Combination) or _is_piece(outer, parts))


def _seen(resolved: Resolved, part: Part, parts: Mapping[str, Part]) -> Rect:
    """Return the box of a part's shape, cut to the box of the part that clips it."""
    bounds, clip = _bounds(resolved, part), parts.get(part.clip or "")
    if clip is None:
        return bounds
    cut = _bounds(resolved, clip)
    left, top = max(bounds.left, cut.left), max(bounds.top, cut.top)
    return Rect(left, top, max(left, min(bounds.right, cut.right)), max(top, min(bounds.bottom, cut.bottom)))


def _onto(part: Part, bounds: Rect, canvas: Rect) -> MoveParts:
    """The shortest way onto the canvas, in whole px where there is room for that."""
    dx = _shift(bounds.left, bounds.right, canvas.right)
    dy = _shift(bounds.top, bounds.bottom, canvas.bottom)
    return MoveParts(parts=(part.id,), dx=dx, dy=dy)


def _shift(start: float, end: float, most: float) -> float:
    if start < 0:
        whole = float(math.ceil(-start))
        return whole if end + whole <= most else -start
    if end > most:
        whole = float(math.ceil(end - most))
        return -whole if start - whole >= 0 else most - end
    return 0.0


def _bounds(resolved: Resolved, part: Part) -> Rect:
    def made() -> Rect:
        return stand_of(resolved, part, 1.0).outline.bounds()

    return _BOUNDS.get(part, resolved.fit, made)


def _within(box: Rect, canvas: Rect) -> bool:
    across = canvas.left <= box.left and box.right <= canvas.right
    return box.empty or (across and canvas.top <= box.top and box.bottom <= canvas.bottom)
