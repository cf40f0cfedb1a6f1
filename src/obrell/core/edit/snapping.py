"""Snapping: where something that is moved comes to lie on what is there already.

Of all pairs of an own line (an edge, a middle, a point) and a candidate within reach, the nearest counts. The ink
of words ends anywhere between pixels: its edges count only where nothing else is near, whole pixels only after that.
When two on opposite sides are equally near, neither does: nothing jumps between them, and a mirrored drawing snaps as
its mirror image.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Annotated, Literal

from pydantic import Field

from obrell.core.document.guides import guide_places
from obrell.core.document.measures import frame_on_canvas, points_on_canvas
from obrell.core.document.model import Control
from obrell.core.document.nodes import Node
from obrell.core.document.tree import arranged, descendants
from obrell.core.geometry.plane import Point, Rect
from obrell.core.geometry.svgdata import number
from obrell.core.shapes.kinds.text import Text
from obrell.core.values.base import Value
from obrell.core.workspace import OfObject

Kind = Literal["guides", "canvas", "parts", "gaps", "points", "pixels"]
Found = Literal["guides", "canvas", "parts", "gaps", "points", "words", "pixels"]
RANKS: tuple[tuple[Found, ...], ...] = (("guides", "canvas", "parts", "gaps", "points"), ("words",), ("pixels",))
OWN_POINT = "in line with a point"
Axis = Literal["across", "down"]
PIXELS = "pixels"
SAME = 1e-6


class Snapping(Value):
    """Which kinds of things to snap to, from how far in logical px, and the density of the pixels."""

    kinds: tuple[Kind, ...] = ("guides", "canvas", "parts", "gaps", "points", "pixels")
    reach: Annotated[float, Field(gt=0, le=1000)] = 4.0
    density: Annotated[float, Field(gt=0, le=16)] = 1.0


@dataclass(frozen=True, slots=True)
class Line:
    """A line to snap to: its place, what it is in words, and whether only a start, a middle, an end or
    both sides may lie on it."""

    at: float
    words: str
    only: str = ""


@dataclass(frozen=True, slots=True)
class Snap:
    """What was snapped to: on which axis, where, and how far it drew."""

    axis: Axis
    at: float
    by: float
    words: str

    def said(self) -> str:
        return f"{self.words}, {number(abs(self.by))} px" if abs(self.by) > SAME else self.words


def snap_box(control: Control, moving: Iterable[str], box: Rect, snapping: Snapping) -> tuple[Snap, ...]:
    """What a box snaps to with its edges and middles, at most one on each axis."""
    moving = tuple(moving)
    return _SNAPS.get(control, (moving, box, snapping), lambda: _snap_box(control, moving, box, snapping))


_SNAPS = OfObject[tuple[Snap, ...]](64)
"""A preview asks what an edit snaps to when it is applied, and again to say so."""


def _snap_box(control: Control, moving: tuple[str, ...], box: Rect, snapping: Snapping) -> tuple[Snap, ...]:
    there = _Surroundings(control, moving, snapping)
    across = [("start", box.left), ("middle", box.centre.x), ("end", box.right)]
    down = [("start", box.top), ("middle", box.centre.y), ("end", box.bottom)]
    found = (there.nearest("across", across, box), there.nearest("down", down, box))
    return tuple(snap for snap in found if snap)


def snap_point(
    control: Control, moving: Iterable[str], x: float | None, y: float | None, snapping: Snapping,
    own: Iterable[Point] = (),
) -> tuple[Snap, ...]:  # fmt: skip
    """What a place snaps to; a coordinate that is None is left alone. ``own`` are places of what is moved that stay
    where they are; to come in line with them is welcome too."""
    moving, own = tuple(moving), tuple(own)
    asked = (moving, x, y, snapping, own)
    return _SNAPS.get(control, asked, lambda: _snap_point(control, moving, x, y, snapping, own))


def _snap_point(
    control: Control, moving: tuple[str, ...], x: float | None, y: float | None, snapping: Snapping,
    own: tuple[Point, ...],
) -> tuple[Snap, ...]:  # fmt: skip
    there = _Surroundings(control, moving, snapping, own)
    box = Rect(x or 0.0, y or 0.0, x or 0.0, y or 0.0)
    across = there.nearest("across", [("", x)], box) if x is not None else None
    down = there.nearest("down", [("", y)], box) if y is not None else None
    return tuple(snap for snap in (across, down) if snap)


def pulled_by(snaps: Iterable[Snap]) -> tuple[float, float]:
    """How far snapping moves things across and down."""
    by = {snap.axis: snap.by for snap in snaps}
    return by.get("across", 0.0), by.get("down", 0.0)


class _Surroundings:
    """Everything that lies still."""

    def __init__(
        self, control: Control, moving: Iterable[str], snapping: Snapping, own: Iterable[Point] = ()
    ) -> None:  # fmt: skip
        self._control = control
        self._snapping = snapping
        self._moving = descendants(control, moving)
        self._own = tuple(own)
        tree = arranged(control).all
        self._nodes = [n for name, n in tree.items() if name not in self._moving and _seen(n, tree)]
        self._boxes = [(n.part, frame_on_canvas(n.part)) for n in self._nodes]

    def nearest(self, axis: Axis, own: Sequence[tuple[str, float]], box: Rect) -> Snap | None:
        for kinds in RANKS:
            lines = [line for kind in kinds if self._asked(kind) for line in self._lines(kind, axis, own, box)]
            found = self._best(axis, own, lines)
            if found:
                return found
        return None

    def _asked(self, kind: Found) -> bool:
        return ("parts" if kind == "words" else kind) in self._snapping.kinds

    def _best(self, axis: Axis, own: Sequence[tuple[str, float]], lines: Sequence[Line]) -> Snap | None:
        reach = self._snapping.reach
        first, last = min(at for _, at in own) - reach, max(at for _, at in own) + reach
        near_by = [line for line in lines if first <= line.at <= last]
        pairs = [
            (line.at - at, line) for line in near_by for name, at in own
            if _fits(line, name) and abs(line.at - at) <= reach
        ]  # fmt: skip
        if not pairs:
            return None
        least = min(abs(by) for by, _ in pairs)
        near = [(by, line) for by, line in pairs if abs(by) <= least + SAME]
        if least > SAME and len({by > 0 for by, _ in near}) > 1:
            return None
        by, line = near[0]
        return Snap(axis, line.at, by, line.words)

    def _lines(self, kind: Found, axis: Axis, own: Sequence[tuple[str, float]], box: Rect) -> list[Line]:
        match kind:
            case "guides":
                places = guide_places(self._control)
                shown = (g for g in self._control.guides if g.axis == axis and g.visible and g.id not in self._moving)
                return [Line(places[g.id], "a guide") for g in shown]
            case "canvas":
                return _canvas(self._control, axis)
            case "parts":
                return [
                    line for part, other in self._boxes for line in _edges(other, axis, part.name)
                    if line.only == "middle" or not isinstance(part.shape, Text)
                ]  # fmt: skip
            case "words":
                texts = [(part, other) for part, other in self._boxes if isinstance(part.shape, Text)]
                return [line for part, other in texts for line in _edges(other, axis, part.name)]
            case "gaps":
                return _gaps([other for _, other in self._boxes], axis, box)
            case "points":
                own_points = [Line(at.x if axis == "across" else at.y, OWN_POINT) for at in self._own]
                return own_points + [line for node in self._nodes for line in _points(node, axis)]
            case _:
                density = self._snapping.density
                return [Line(round(at * density) / density, PIXELS, name) for name, at in own if name != "middle"][:1]


def _seen(node: Node, tree: Mapping[str, Node]) -> bool:
    """Whether a part is visible, and all that it lies in."""
    outer = tree.get(node.part.within or "")
    return node.part.visible and (outer is None or _seen(outer, tree))


def _fits(line: Line, name: str) -> bool:
    """Whether that line of a box may lie there; a lone point may lie anywhere."""
    return not name or not line.only or line.only == name or (line.only == "sides" and name != "middle")


def _ends(box: Rect, axis: str) -> tuple[float, float]:
    return (box.left, box.right) if axis == "across" else (box.top, box.bottom)


def _edges(box: Rect, axis: str, name: str) -> list[Line]:
    start, end = _ends(box, axis)
    words = ("left of", "right of") if axis == "across" else ("top of", "bottom of")
    return [
        Line((start + end) / 2, f"middle of {name}", "middle"), Line(start, f"{words[0]} {name}", "sides"),
        Line(end, f"{words[1]} {name}", "sides"),
    ]  # fmt: skip


def _canvas(control: Control, axis: str) -> list[Line]:
    canvas = control.canvas
    length, margin = canvas.width if axis == "across" else canvas.height, canvas.margin
    lines = [
        Line(length / 2, "middle of the canvas", "middle"),
        Line(0, "canvas edge", "sides"),
        Line(length, "canvas edge", "sides"),
    ]
    return lines + ([Line(margin, "margin", "sides"), Line(length - margin, "margin", "sides")] if margin else [])


def _gaps(boxes: Sequence[Rect], axis: str, box: Rect) -> list[Line]:
    """Places where the gap to a neighbour equals one that is there: between two, before or after."""
    other = "down" if axis == "across" else "across"
    low, high = _ends(box, other)
    beside = [b for b in boxes if _ends(b, other)[0] < high and _ends(b, other)[1] > low]
    row = sorted((_ends(b, axis) for b in beside), key=lambda ends: (ends[0], ends[1]))
    lines = []
    for (first, end), (start, last) in pairwise(row):
        gap = start - end
        if gap > 0:
            lines.append(Line((end + start) / 2, "equal gaps", "middle"))
            lines.append(Line(last + gap, "equal gaps", "start"))
            lines.append(Line(first - gap, "equal gaps", "end"))
    return lines


def _points(node: Node, axis: str) -> list[Line]:
    words = f"a point of {node.part.name}"
    return [Line(at.x if axis == "across" else at.y, words) for at in points_on_canvas(node.part).values()]
