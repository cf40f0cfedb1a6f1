"""Parts that lie off the canvas."""

from __future__ import annotations

from obrell.core.document.model import Part
from obrell.core.document.resolve import Resolved
from obrell.core.geometry.plane import Rect
from obrell.core.kept import OfObject
from obrell.core.scene.stands import stand_of

SLACK_PX = 0.01
"""How far an edge may lie off the canvas unnoticed."""
_BOUNDS = OfObject[Rect](8192)


def off_canvas(resolved: Resolved) -> frozenset[str]:
    """The parts whose shape lies wholly or partly off the canvas, as it is drawn at density 1."""
    canvas = Rect(0, 0, resolved.control.canvas.width, resolved.control.canvas.height).grown(SLACK_PX)
    return frozenset(
        name for name, node in resolved.tree.all.items() if not _within(_bounds(resolved, node.part), canvas)
    )  # fmt: skip


def _bounds(resolved: Resolved, part: Part) -> Rect:
    def made() -> Rect:
        return stand_of(resolved, part, 1.0).outline.bounds()

    return _BOUNDS.get(part, resolved.fit, made)


def _within(box: Rect, canvas: Rect) -> bool:
    across = canvas.left <= box.left and box.right <= canvas.right
    return box.empty or (across and canvas.top <= box.top and box.bottom <= canvas.bottom)
