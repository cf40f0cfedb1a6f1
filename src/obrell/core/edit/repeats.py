"""Single copies of a repeat: left out, or with something of their own; all of them made into parts."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Literal

from obrell.core.document.model import Control, Part
from obrell.core.document.nodes import Node
from obrell.core.document.tree import arranged, descendants
from obrell.core.edit.base import Edit, Surroundings, add_parts, check_unlocked, each_part, names_of, part_of
from obrell.core.errors import Refused
from obrell.core.shapes import Combination, Container, Group, Repeat
from obrell.core.shapes.kinds.path import path_from
from obrell.core.shapes.kinds.repeat import Index, Own
from obrell.core.values.fields import Id


class ShowCopy(Edit):
    """One copy left out, or shown again."""

    kind: Literal["show-copy"] = "show-copy"
    part: Id
    copy_number: Index
    shown: bool

    def apply(self, control: Control, around: Surroundings) -> Control:
        def changed(repeat: Repeat) -> Repeat:
            rest = set(repeat.left_out) - {self.copy_number}
            return repeat.evolve(left_out=tuple(sorted(rest if self.shown else rest | {self.copy_number})))

        return _each_repeat(control, self.part, changed)

    def label(self, control: Control) -> str:
        done = "Showed" if self.shown else "Left out"
        return f"{done} copy {self.copy_number + 1} of {names_of(control, [self.part])}"


class OwnCopy(Edit):
    """One copy with a look of its own, at first the one it has; or, when not, as the others again."""

    kind: Literal["own-copy"] = "own-copy"
    part: Id
    copy_number: Index
    own: bool = True

    def apply(self, control: Control, around: Surroundings) -> Control:
        def changed(repeat: Repeat) -> Repeat:
            rest = tuple(item for item in repeat.own if item.copy_number != self.copy_number)
            return repeat.evolve(own=(*rest, Own(copy_number=self.copy_number)) if self.own else rest)

        return _each_repeat(control, self.part, changed)

    def label(self, control: Control) -> str:
        look = "a look of its own" if self.own else "the look of the others"
        return f"Gave copy {self.copy_number + 1} of {names_of(control, [self.part])} {look}"


class SpreadCopies(Edit):
    """A repeat taken apart into its copies, each a part that looks as it did. Combinations among them
    become paths, repeats groups."""

    kind: Literal["spread"] = "spread"
    part: Id

    def apply(self, control: Control, around: Surroundings) -> Control:
        part = part_of(control, self.part)
        if not isinstance(part.shape, Repeat):
            raise Refused(f"“{part.name}” is not a repeat.")
        check_unlocked(control, descendants(control, (self.part,)))
        node = arranged(control).all[self.part]
        copies = [made for child in node.children for made in _parts_of(child, self.part)]
        gone = descendants(control, (self.part,))
        at = next(place for place, p in enumerate(control.parts) if p.id in gone)
        rest = control.evolve(parts=tuple(p for p in control.parts if p.id not in gone))
        group = part.evolve(shape=Group(), follows=())
        return add_parts(rest, [*copies, group], at)

    def label(self, control: Control) -> str:
        return f"Made the copies of {names_of(control, [self.part])} parts of their own"


def _parts_of(node: Node, within: str) -> Iterator[Part]:
    """A node and all in it as parts of the document, those inside before what holds them."""
    for child in node.children:
        yield from _parts_of(child, node.part.id)
    fields = {name: getattr(node.part, name) for name in Part.model_fields}
    kind = node.part.shape.kind
    if kind == Combination.model_fields["kind"].default:
        fields["shape"] = path_from(node.part.shape.path())
    elif not node.children and not isinstance(node.part.shape, Container):
        fields["shape"] = node.part.shape
    else:
        fields["shape"] = Group(through=node.through)
    yield Part(**(fields | {"within": within, "follows": ()}))


def _each_repeat(control: Control, part_id: str, change: Callable[[Repeat], Repeat]) -> Control:
    def changed(part: Part) -> Part:
        if not isinstance(part.shape, Repeat):
            raise Refused(f"“{part.name}” is not a repeat.")
        return part.evolve(shape=change(part.shape))

    return each_part(control, [part_id], changed)
