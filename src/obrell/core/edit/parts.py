"""Adding, placing, ordering and removing parts."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from obrell.core.document.canvas import with_edges
from obrell.core.document.measures import bounds_of
from obrell.core.document.model import Control, Part
from obrell.core.document.moving import carried_together
from obrell.core.document.tree import descendants
from obrell.core.edit.base import Edit, Surroundings, add_parts, check_unlocked, moved, names_of, part_of, roots
from obrell.core.edit.binding import Origins, bound, unbound_words
from obrell.core.edit.snapping import Snap, Snapping, pulled_by, snap_box
from obrell.core.errors import Refused
from obrell.core.geometry.plane import Point, Similarity, about, along_axis
from obrell.core.geometry.svgdata import number
from obrell.core.values.fields import Id, Name, Place, Signed, Way

Ids = Annotated[tuple[Id, ...], Field(min_length=1, max_length=1000)]


class MoveParts(Edit):
    """Parts moved; ``constrained`` keeps to the longer of the two directions."""

    kind: Literal["move"] = "move"
    parts: Ids
    dx: Way
    dy: Way
    constrained: bool = False
    snap: Snapping | None = None

    def apply(self, control: Control, around: Surroundings) -> Control:
        (dx, dy), (to_x, to_y) = _way(self), pulled_by(self.snaps(control))
        return moved(control, dict.fromkeys(roots(control, self.parts), Similarity(dx=dx + to_x, dy=dy + to_y)))

    def snaps(self, control: Control) -> tuple[Snap, ...]:
        return _box_snaps(control, self, self.parts)

    def label(self, control: Control) -> str:
        return f"Moved {names_of(control, self.parts)} by {number(self.dx)}, {number(self.dy)}"


def _way(edit: MoveParts | DuplicateParts) -> tuple[float, float]:
    return along_axis(edit.dx, edit.dy) if edit.constrained else (edit.dx, edit.dy)


def _box_snaps(control: Control, edit: MoveParts | DuplicateParts, moving: Iterable[str]) -> tuple[Snap, ...]:
    """What the box around the parts snaps to where it is taken."""
    if edit.snap is None:
        return ()
    (dx, dy), box = _way(edit), bounds_of(control, edit.parts)
    found = snap_box(control, moving, box.shifted(dx, dy), edit.snap)
    return tuple(s for s in found if not edit.constrained or (s.axis == "across") == (dx != 0))


class Turn(Edit):
    """A part turned to an angle; ``constrained`` goes in steps of 15°."""

    kind: Literal["turn"] = "turn"
    part: Id
    degrees: Annotated[float, Field(ge=-36000, le=36000)]
    constrained: bool = False

    def apply(self, control: Control, around: Surroundings) -> Control:
        angle = round(self.degrees / 15) * 15.0 if self.constrained else self.degrees
        part = part_of(control, self.part)
        return moved(control, {self.part: about(part.x, part.y, turn=angle - part.rotation)})

    def label(self, control: Control) -> str:
        return f"Turned {names_of(control, [self.part])}"


class CentreParts(Edit):
    """Parts put on the canvas's centre, across, down or both; each by its own frame."""

    kind: Literal["centre"] = "centre"
    parts: Ids
    across: bool = True
    down: bool = True

    def apply(self, control: Control, around: Surroundings) -> Control:
        middle = Point(control.canvas.width / 2, control.canvas.height / 2)
        moves = {}
        for part_id in roots(control, self.parts):
            centre = bounds_of(control, (part_id,)).centre
            dx, dy = (middle.x - centre.x) * self.across, (middle.y - centre.y) * self.down
            moves[part_id] = Similarity(dx=dx, dy=dy)
        return moved(control, moves)

    def label(self, control: Control) -> str:
        ways = [word for word, on in (("across", self.across), ("down", self.down)) if on]
        return f"Centred {names_of(control, self.parts)} {' and '.join(ways)}"


class RemoveParts(Edit):
    """Parts taken out."""

    kind: Literal["remove"] = "remove"
    parts: Ids

    def apply(self, control: Control, around: Surroundings) -> Control:
        check_unlocked(control, self.parts)
        gone = descendants(control, self.parts)
        check_unlocked(control, gone)
        return control.evolve(parts=tuple(p for p in control.parts if p.id not in gone))

    def removes(self) -> bool:
        return True

    def label(self, control: Control) -> str:
        return f"Removed {names_of(control, self.parts)}"


class DuplicateParts(Edit):
    """Copies put right in front of their originals, moved by (dx, dy); they snap to these too."""

    kind: Literal["duplicate"] = "duplicate"
    parts: Ids
    dx: Signed = 0.0
    dy: Signed = 0.0
    constrained: bool = False
    snap: Snapping | None = None

    def apply(self, control: Control, around: Surroundings) -> Control:
        (dx, dy), (to_x, to_y) = _way(self), pulled_by(self.snaps(control))
        return copied(control, self.parts, [Similarity(dx=dx + to_x, dy=dy + to_y)])

    def snaps(self, control: Control) -> tuple[Snap, ...]:
        return _box_snaps(control, self, ())

    def label(self, control: Control) -> str:
        return f"Duplicated {names_of(control, self.parts)}"


class PasteParts(Edit):
    """Parts from this or another control put in at the place they had, in front of all; or ``instead`` of
    parts that are there, with their middle, order and container. ``origins`` are the swatches of the kit that they
    come from."""

    kind: Literal["paste"] = "paste"
    parts: Annotated[tuple[Part, ...], Field(min_length=1, max_length=1000)]
    instead: Annotated[tuple[Id, ...], Field(max_length=1000)] = ()
    origins: Origins = ()

    def apply(self, control: Control, around: Surroundings) -> Control:
        inside = {part.id for part in self.parts}
        here = [bound(part, self.origins, around) for part in self.parts]
        named = [
            part if part.within in inside else part.evolve(name=fresh_name(control, part.name), within=None)
            for part in here
        ]
        return self._put_instead(control, named) if self.instead else add_parts(control, named)

    def remark(self, around: Surroundings) -> str:
        return unbound_words(self.parts, self.origins, around)

    def _put_instead(self, control: Control, named: list[Part]) -> Control:
        outer = roots(control, self.instead)
        check_unlocked(control, outer)
        front, gone = part_of(control, outer[-1]), descendants(control, outer)
        check_unlocked(control, gone)
        at = sum(part.id not in gone for part in control.parts[: control.parts.index(front)])
        new = bounds_of(control.evolve(parts=tuple(named)), [part.id for part in named])
        there = bounds_of(control, outer)
        by = Similarity(dx=there.centre.x - new.centre.x, dy=there.centre.y - new.centre.y)
        placed = list(carried_together(named, {part.id: by for part in named}))
        placed = [part if part.within else part.evolve(within=front.within) for part in placed]
        rest = control.evolve(parts=tuple(part for part in control.parts if part.id not in gone))
        return add_parts(rest, placed, at)

    def label(self, control: Control) -> str:
        return f"Pasted {self.parts[0].name if len(self.parts) == 1 else f'{len(self.parts)} parts'}"


class ReorderPart(Edit):
    """A part with all that lies in it moved to where another is in paint order, and into the
    container that one lies in."""

    kind: Literal["reorder"] = "reorder"
    part: Id
    to: Id

    def apply(self, control: Control, around: Surroundings) -> Control:
        part, target = part_of(control, self.part), part_of(control, self.to)
        check_unlocked(control, (self.part,))
        held = descendants(control, (self.part,))
        if self.to in held:
            raise Refused(f"“{part.name}” cannot lie in itself.")
        forward = control.parts.index(target) > control.parts.index(part)
        moved = [p.evolve(within=target.within) if p.id == part.id else p for p in control.parts if p.id in held]
        others = [p for p in control.parts if p.id not in held]
        below = descendants(control, (self.to,))
        at = [p.id in below for p in others].index(True) if not forward else others.index(target) + 1
        return control.evolve(parts=(*others[:at], *moved, *others[at:]))

    def label(self, control: Control) -> str:
        return f"Moved {names_of(control, [self.part])} to another place in the order"


class MoveToEnd(Edit):
    """Move parts to the front or back of their container in one step, with their own order kept."""

    kind: Literal["to-end"] = "to-end"
    parts: Ids
    way: Literal["front", "back"]

    def apply(self, control: Control, around: Surroundings) -> Control:
        before, ids = control, roots(control, self.parts)
        for name in ids if self.way == "front" else reversed(ids):
            beside = [one for one in control.parts if one.within == part_of(control, name).within]
            end = beside[-1 if self.way == "front" else 0]
            if end.id != name:
                control = ReorderPart(part=name, to=end.id).apply(control, around)
        if control.parts == before.parts:
            where = "in front of" if self.way == "front" else "behind"
            raise Refused(f"{names_of(control, self.parts)} lies {where} all others already.")
        return control

    def label(self, control: Control) -> str:
        return f"Moved {names_of(control, self.parts)} to the {self.way}"


class CanvasEdges(Edit):
    """Canvas edges moved outwards by px; the art stays where it is on the stage."""

    of_control: ClassVar[bool] = True
    with_states: ClassVar[bool] = True
    kind: Literal["canvas-edges"] = "canvas-edges"
    left: Place = 0.0
    top: Place = 0.0
    right: Place = 0.0
    bottom: Place = 0.0
    centred: bool = False

    def apply(self, control: Control, around: Surroundings) -> Control:
        left, right, top, bottom = self.left, self.right, self.top, self.bottom
        if self.centred:
            left = right = left + right
            top = bottom = top + bottom
        if round(control.canvas.width + left + right) < 1 or round(control.canvas.height + top + bottom) < 1:
            raise Refused("A canvas is at least 1 px wide and high.")
        return with_edges(control, left, top, right, bottom)

    def label(self, control: Control) -> str:
        return "Moved the canvas edges"


class RenamePart(Edit):
    """A part given another name."""

    kind: Literal["rename"] = "rename"
    part: Id
    name: Name

    def apply(self, control: Control, around: Surroundings) -> Control:
        part_of(control, self.part)
        parts = tuple(p.evolve(name=self.name) if p.id == self.part else p for p in control.parts)
        return control.evolve(parts=parts)

    def label(self, control: Control) -> str:
        return f"Renamed {names_of(control, [self.part])} to “{self.name}”"


def copied(control: Control, ids: tuple[str, ...], ways: Iterable[Similarity]) -> Control:
    """Copies of parts with all that lies in them right in front of the originals, one for every way."""
    ways = tuple(ways)
    for part_id in roots(control, ids):
        part, held = part_of(control, part_id), descendants(control, (part_id,))
        originals = [p for p in control.parts if p.id in held]
        for by in ways:
            copy = part.evolve(name=fresh_name(control, part.name), locked=False)
            made = carried_together([copy if p is part else p for p in originals], {p.id: by for p in originals})
            control = add_parts(control, made, control.parts.index(part) + 1)
    return control


def fresh_name(control: Control, wanted: str) -> str:
    """The name itself, or with the next free number behind it."""
    taken = {part.name for part in control.parts}
    if wanted not in taken:
        return wanted
    stem = wanted.rstrip("0123456789").rstrip() or wanted
    count = 2
    while f"{stem} {count}" in taken:
        count += 1
    return f"{stem[:70]} {count}"
