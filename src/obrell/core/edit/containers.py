"""Putting parts into groups, combinations and repeats, and taking these apart."""

from __future__ import annotations

from typing import Literal

from obrell.core.document.measures import bounds_of, frame_on_canvas
from obrell.core.document.model import Control, Part
from obrell.core.document.numbering import next_number
from obrell.core.document.spans import unshared
from obrell.core.document.tree import arranged, descendants
from obrell.core.edit.base import Edit, Surroundings, added_roots, check_unlocked, names_of, part_of, roots
from obrell.core.edit.parts import Ids, copied, fresh_name
from obrell.core.effects import AnyEffect
from obrell.core.errors import Refused
from obrell.core.geometry.combine import Mode
from obrell.core.geometry.plane import Similarity
from obrell.core.shapes import Combination, Container, Group, Repeat
from obrell.core.values.fields import Id


class GroupParts(Edit):
    """Parts put into a new group where the front-most of them is."""

    kind: Literal["group"] = "group"
    parts: Ids

    def apply(self, control: Control, around: Surroundings) -> Control:
        return _held(control, self.parts, Group(), "Group")

    def label(self, control: Control) -> str:
        return f"Grouped {names_of(control, self.parts)}"


class CombineParts(Edit):
    """Parts made into one shape, which looks as the back-most of them did."""

    kind: Literal["combine"] = "combine"
    parts: Ids
    mode: Mode = "union"
    keep: bool = False
    """Whether the pieces stay, and the combination is made of copies in front of them."""

    def apply(self, control: Control, around: Surroundings) -> Control:
        outer = roots(control, self.parts)
        if len(outer) < 2:
            raise Refused("A combination needs at least two parts: select one more.")
        parts = outer
        if self.keep:
            before, control = control, copied(control, outer, [Similarity()])
            parts = added_roots(before, control)
        return _held(control, parts, Combination(mode=self.mode), "Combination", _look_of(control, parts))

    def label(self, control: Control) -> str:
        return f"Combined {names_of(control, self.parts)}: {self.mode}"


class RepeatParts(Edit):
    """Parts made the source of a repeat; around or mirrored at the canvas's centre, along a row, as rings."""

    kind: Literal["repeat"] = "repeat"
    parts: Ids
    way: Literal["row", "around", "rings", "mirrored"] = "row"

    def apply(self, control: Control, around: Surroundings) -> Control:
        box = bounds_of(control, self.parts)
        shape = Repeat(way=self.way, across=max(1.0, round(box.width + 8)), count=12 if self.way == "around" else 5)
        made = _held(control, self.parts, shape, "Repeat")
        if self.way not in ("around", "mirrored"):
            return made
        new = f"p{next_number(control)}"
        canvas = control.canvas
        parts = (p.evolve(x=canvas.width / 2, y=canvas.height / 2) if p.id == new else p for p in made.parts)
        return made.evolve(parts=tuple(parts))

    def label(self, control: Control) -> str:
        return f"Repeated {names_of(control, self.parts)}"


class TakeApart(Edit):
    """A container removed, what lies in it left where it is; fills laid over it look as they did."""

    kind: Literal["take-apart"] = "take-apart"
    part: Id

    def apply(self, control: Control, around: Surroundings) -> Control:
        part = part_of(control, self.part)
        if not isinstance(part.shape, Container):
            raise Refused(f"“{part.name}” holds no parts.")
        check_unlocked(control, [self.part, *(p.id for p in control.parts if p.within == self.part)])
        tree = arranged(control).all
        box = frame_on_canvas(tree[part.id].part)
        freed = (
            unshared(p, tree[p.id].part, box).evolve(within=part.within) if p.within == part.id else p
            for p in control.parts
        )
        return control.evolve(parts=tuple(p for p in freed if p.id != part.id))

    def label(self, control: Control) -> str:
        return f"Took {names_of(control, [self.part])} apart"


class PutInto(Edit):
    """Parts put in front of all that lies in a container, where they are on the canvas; with none, out of all that
    they lie in, right in front of that."""

    kind: Literal["put-into"] = "put-into"
    parts: Ids
    into: Id | None = None

    def apply(self, control: Control, around: Surroundings) -> Control:
        outer = roots(control, self.parts)
        check_unlocked(control, outer)
        for name in outer if self.into else reversed(outer):
            control = self._put(control, name)
        return control

    def _put(self, control: Control, name: str) -> Control:
        part, moved = part_of(control, name), descendants(control, (name,))
        if part.within == self.into:
            raise Refused(f"“{part.name}” lies {'in that' if self.into else 'in nothing'} already.")
        if self.into is not None and not isinstance(part_of(control, self.into).shape, Container):
            raise Refused(f"“{part_of(control, self.into).name}” cannot hold parts.")
        if self.into in moved:
            raise Refused(f"“{part.name}” cannot lie in itself.")
        others = [one for one in control.parts if one.id not in moved]
        at = 1 + max(place for place, one in enumerate(others) if one.id in self._behind(control, part))
        put = [one.evolve(within=self.into) if one.id == name else one for one in control.parts if one.id in moved]
        return control.evolve(parts=(*others[:at], *put, *others[at:]))

    def _behind(self, control: Control, part: Part) -> frozenset[str]:
        """What it comes to lie in front of: all in the container, or what it lay in with all in that."""
        if self.into is None:
            return descendants(control, (_outermost(control, part),)) - descendants(control, (part.id,))
        held = descendants(control, (self.into,)) - {self.into}
        return held or frozenset((self.into,))

    def label(self, control: Control) -> str:
        where = "out of what it lies in" if self.into is None else f"into {names_of(control, [self.into])}"
        return f"Put {names_of(control, self.parts)} {where}"


def holders_for(control: Control, part: Part) -> tuple[Part, ...]:
    """The containers that a part can be put into, back to front: it lies in none of them, and they not in it."""
    inner = descendants(control, (part.id,))
    return tuple(
        one for one in control.parts
        if isinstance(one.shape, Container) and one.id not in inner and one.id != part.within
    )  # fmt: skip


def _outermost(control: Control, part: Part) -> str:
    """The container that lies in no other, of those that a part lies in."""
    while part.within is not None:
        part = part_of(control, part.within)
    return part.id


def _look_of(control: Control, outer: tuple[str, ...]) -> tuple[AnyEffect, ...]:
    """The effects of the back-most of some parts that has any, by itself or in what it holds."""
    for name in outer:
        inner = descendants(control, (name,))
        for part in (part_of(control, name), *(p for p in control.parts if p.id in inner)):
            if part.effects:
                return part.effects
    return ()


def _held(
    control: Control, ids: tuple[str, ...], shape: Container, name: str,
    effects: tuple[AnyEffect, ...] = (),
) -> Control:  # fmt: skip
    """The parts in a new container, which lies where the front-most of them lay."""
    outer = roots(control, ids)
    check_unlocked(control, outer)
    inner = descendants(control, outer)
    front = part_of(control, outer[-1])
    centre = bounds_of(control, outer).centre
    number = next_number(control)
    new = f"p{number}"
    kept = [part for part in control.parts if part.id not in inner]
    moved = [p.evolve(within=new) if p.id in outer else p for p in control.parts if p.id in inner]
    at = sum(part.id not in inner for part in control.parts[: control.parts.index(front)])
    held = Part(
        id=new, name=fresh_name(control, name), shape=shape, within=front.within, effects=effects,
        x=centre.x, y=centre.y,
    )  # fmt: skip
    parts = (*kept[:at], *moved, held, *kept[at:])
    return control.evolve(parts=parts, next_number=number + 1)
