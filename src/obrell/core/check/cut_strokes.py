"""Outlines and lines that the edge of the canvas cuts."""

from __future__ import annotations

import math
from dataclasses import dataclass

from obrell.core.document.moving import place_of
from obrell.core.document.resolve import Resolved
from obrell.core.document.tree import walk
from obrell.core.edit.base import Edit
from obrell.core.edit.parts import CanvasEdges
from obrell.core.edit.values import Change, SetValues
from obrell.core.effects.outline import OUTER_SHARE, Outline
from obrell.core.geometry.plane import Rect

LEAST_PX = 0.01
"""What may lie off the canvas unnoticed."""


@dataclass(frozen=True, slots=True)
class CutStroke:
    """An outline that the canvas cuts although its part lies on it: by how much on each side."""

    part: str
    name: str
    effect: str
    left: float
    top: float
    right: float
    bottom: float

    def inside(self) -> Edit:
        """The outline moved inside its part."""
        path = f"parts/{self.part}/effects/{self.effect}/place"
        return SetValues(changes=(Change(path=path, value="inside"),))

    def grown(self) -> Edit:
        """The canvas grown by whole px until it holds the outline."""
        left, top, right, bottom = (math.ceil(side) for side in (self.left, self.top, self.right, self.bottom))
        return CanvasEdges(left=left, top=top, right=right, bottom=bottom)


def cut_strokes(resolved: Resolved) -> list[CutStroke]:
    """Every visible outline of a part that lies on the canvas whose own band does not."""
    canvas = Rect(0, 0, resolved.control.canvas.width, resolved.control.canvas.height)
    found = []
    for node in walk(resolved.tree.nodes):
        part = node.part
        bounds = part.shape.path().transformed(place_of(part)).bounds()
        if bounds.empty or any(_over(bounds, canvas)):
            continue
        for effect in part.effects:
            if isinstance(effect, Outline) and effect.visible and OUTER_SHARE[effect.place] > 0:
                over = _over(bounds.grown(max(effect.widths()) * OUTER_SHARE[effect.place]), canvas)
                if any(over):
                    found.append(CutStroke(part.id, part.name, effect.id, *over))
    return found


def _over(box: Rect, canvas: Rect) -> tuple[float, float, float, float]:
    """How far a box reaches over each edge of the canvas."""
    sides = (canvas.left - box.left, canvas.top - box.top, box.right - canvas.right, box.bottom - canvas.bottom)
    left, top, right, bottom = (side if side > LEAST_PX else 0.0 for side in sides)
    return left, top, right, bottom
