"""Parts that lie off the canvas."""

from __future__ import annotations

import math
from typing import ClassVar

from obrell.core.document.model import Part
from obrell.core.document.resolve import Resolved
from obrell.core.edit.parts import MoveParts
from obrell.core.findings.base import Cure, Finding, Kind
from obrell.core.geometry.plane import Rect
from obrell.core.scene.stands import stand_of
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
        return tuple(
            self._of(node.part, bounds, canvas)
            for node in resolved.tree.all.values()
            if not _within(bounds := _bounds(resolved, node.part), canvas.grown(SLACK_PX))
        )

    def _of(self, part: Part, bounds: Rect, canvas: Rect) -> Finding:
        apart = bounds.right <= 0 or bounds.left >= canvas.right or bounds.bottom <= 0 or bounds.top >= canvas.bottom
        words = f"“{part.name}” lies {'' if apart else 'partly '}off the canvas and is not delivered there."
        fits = bounds.width <= canvas.width and bounds.height <= canvas.height
        cures = (Cure("Move it onto the canvas", _onto(part, bounds, canvas)),) if fits and not part.locked else ()
        return self.found(words, part.id, mark="off the canvas", cures=cures)


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
