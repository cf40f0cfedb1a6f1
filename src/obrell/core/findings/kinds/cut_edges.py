"""What the edge of the canvas cuts of the parts that lie on it: outlines, shadows, glows, all that they paint."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import partial
from typing import ClassVar

import numpy as np

from obrell.core.document.effect_stacks import painted_of
from obrell.core.document.model import Canvas, Part
from obrell.core.document.moving import place_of
from obrell.core.document.resolve import Resolved
from obrell.core.document.tree import walk
from obrell.core.edit.base import Edit
from obrell.core.edit.parts import CanvasEdges
from obrell.core.edit.values import Change, SetValues
from obrell.core.effects.base import Effect, Side
from obrell.core.effects.kinds.outline import Outline
from obrell.core.findings.base import Cure, Finding, Kind, Severity
from obrell.core.geometry.plane import Rect
from obrell.core.raster.layers import PixelBox
from obrell.core.render.cache import PixelCache
from obrell.core.render.site import Site
from obrell.core.scene.stands import stand_of
from obrell.core.workspace import OfObject

LEAST_PX = 0.01
"""What may lie off the canvas unnoticed."""
LEAST_LEVELS = 1.5
"""How many levels of opacity are seen at least, so that the last of a blur is not spoken of."""
FARTHEST_PX = 400.0
"""How far outside of the canvas is looked at most."""
SIDES: tuple[Side, ...] = ("behind", "outside")
Over = tuple[float, float, float, float]
_OVER = OfObject[tuple[tuple[str, Over], ...]](4096)


class CutEdges(Kind):
    """What the canvas cuts is missing in every file."""

    kind: ClassVar[str] = "cut-edges"
    looks_for: ClassVar[str] = "effects that the canvas cuts"
    rank: ClassVar[int] = 10
    severity: ClassVar[Severity] = "wrong"

    def look(self, resolved: Resolved) -> tuple[Finding, ...]:
        cuts = cut_edges(resolved)
        if not cuts:
            return ()
        inside, more = cuts[0].inside(), f" and {len(cuts) - 1} more" if len(cuts) > 1 else ""
        cures = (Cure("Move it inside", inside),) if inside else ()
        return (
            self.found(
                f"The canvas cuts the {cuts[0].label} of {cuts[0].name}{more}.",
                *dict.fromkeys(cut.part for cut in cuts),
                cures=(*cures, Cure("Grow the canvas", grown(cuts, resolved.control.canvas))),
            ),
        )


@dataclass(frozen=True, slots=True)
class CutEdge:
    """An effect that the canvas cuts although its part lies on it: by how much on each side."""

    part: str
    name: str
    effect: str
    label: str
    left: float
    top: float
    right: float
    bottom: float

    def inside(self) -> Edit | None:
        """An outline moved inside its part; None for other effects."""
        if self.label != Outline.label.lower():
            return None
        path = f"parts/{self.part}/effects/{self.effect}/place"
        return SetValues(changes=(Change(path=path, value="inside"),))

    @property
    def sides(self) -> Over:
        return self.left, self.top, self.right, self.bottom


def grown(cuts: Sequence[CutEdge], canvas: Canvas) -> Edit:
    """Return an edit that grows the canvas until nothing is cut: alike on opposite sides, to an even number of px,
    which is whole at density 1.5 too."""
    left, top, right, bottom = (math.ceil(max(sides)) for sides in zip(*(cut.sides for cut in cuts), strict=True))
    across, down = max(left, right), max(top, bottom)
    odd_across, odd_down = (across and canvas.width % 2 == 1, down and canvas.height % 2 == 1)
    return CanvasEdges(left=across, top=down, right=across + int(odd_across), bottom=down + int(odd_down))


def cut_edges(resolved: Resolved) -> list[CutEdge]:
    """Every visible effect of a part that lies on the canvas which paints beyond it."""
    canvas = Rect(0, 0, resolved.control.canvas.width, resolved.control.canvas.height)
    found, ground = [], f"{canvas} {resolved.lamp} {resolved.fit}"
    for node in walk(resolved.tree.nodes):
        part = node.part
        over = _OVER.get(part, ground, partial(_cut, resolved, part, canvas))
        labels = {effect.id: effect.said for effect in part.effects} if over else {}
        found += [CutEdge(part.id, part.name, name, labels.get(name, ""), *sides) for name, sides in over]
    return found


def _cut(resolved: Resolved, part: Part, canvas: Rect) -> tuple[tuple[str, Over], ...]:
    bounds = part.shape.path().transformed(place_of(part)).bounds()
    if bounds.empty or any(_over(bounds, canvas)):
        return ()
    found = []
    for effect in painted_of(part):
        reach = min(effect.reach(resolved.lamp.direction), FARTHEST_PX)
        if reach > 0 and any(_over(bounds.grown(reach), canvas)):
            sides = _over(_ink(resolved, part, effect, canvas.grown(reach + 2)), canvas)
            if any(sides):
                found.append((effect.id, sides))
    return tuple(found)


def _ink(resolved: Resolved, part: Part, effect: Effect, around: Rect) -> Rect:
    """Around what an effect paints at density 1, where it can be seen."""
    region = PixelBox.around(around.left, around.top, around.right, around.bottom)
    site = Site(stand_of(resolved, part, 1.0), region, PixelCache(0))
    ink = Rect(0, 0, 0, 0)
    for side in SIDES:
        for operation in effect.operations(site.stand, side):
            mask = site.mask(operation.area)
            seen = np.asarray(mask.values * operation.opacity * part.opacity * 255 >= LEAST_LEVELS)
            if not seen.any():
                continue
            rows, columns = np.flatnonzero(seen.any(axis=1)), np.flatnonzero(seen.any(axis=0))
            left, top = mask.box.left, mask.box.top
            ink = ink.union(
                Rect(left + int(columns[0]), top + int(rows[0]), left + int(columns[-1]) + 1, top + int(rows[-1]) + 1)
            )
    return ink


def _over(box: Rect, canvas: Rect) -> Over:
    """How far a box reaches over each edge of the canvas."""
    sides = (canvas.left - box.left, canvas.top - box.top, box.right - canvas.right, box.bottom - canvas.bottom)
    left, top, right, bottom = (side if side > LEAST_PX else 0.0 for side in sides)
    return left, top, right, bottom
