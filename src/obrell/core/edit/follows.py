"""Letting lengths follow other parts."""

from __future__ import annotations

from typing import Annotated, Literal

from annotated_types import Gt
from pydantic import BaseModel, Field

from obrell.core.document.measures import measured
from obrell.core.document.model import Control, Follow, Measure, Part
from obrell.core.document.tree import arranged
from obrell.core.document.value_paths import field_of, value_at
from obrell.core.edit.base import Edit, Surroundings, each_part, names_of, part_of
from obrell.core.edit.nouns import noun_of
from obrell.core.errors import BadValue, NoSuchThing, Refused
from obrell.core.shapes import Box
from obrell.core.values.fields import LIMIT_PX, Id

CANVAS = "canvas"
OF_CANVAS = ("canvas/width", "canvas/height")
LEAST_PX = 0.5
"""What is left of a length that follows a part which got too small for it."""
Kept = tuple[str, Measure]
"""A number by its path below its part, and what of another part it follows."""
SIZE: tuple[Kept, ...] = (("shape/width", "width"), ("shape/height", "height"))
PLACE: tuple[Kept, ...] = (("x", "middle across"), ("y", "middle down"))
RADIUS: Kept = ("shape/radius", "radius")


class AddFollow(Edit):
    """A number of a part, or of the canvas, follows another part from now on, at the distance it has."""

    kind: Literal["add-follow"] = "add-follow"
    part: Id | Literal["canvas"]
    path: Annotated[str, Field(max_length=100)]
    source: Id
    measure: Measure = "width"

    def apply(self, control: Control, around: Surroundings) -> Control:
        if self.part == CANVAS and self.path not in OF_CANVAS:
            raise Refused("Of the canvas its width and its height can follow a part.")
        root = "" if self.part == CANVAS else f"parts/{self.part}/"
        try:
            now = value_at(control, root + self.path)
        except NoSuchThing as error:
            raise BadValue("There is no such length.", self.path) from error
        if not isinstance(now, int | float) or self.part == self.source:
            raise Refused("A length can follow another part, not itself.")
        source = arranged(control).all[part_of(control, self.source).id].part
        offset = round(float(now) - measured(source, self.measure), 6)
        owner, name = field_of(control, root + self.path)
        least = -LIMIT_PX if self.path in ("x", "y") else _least(owner, name, float(now))
        follow = Follow(path=self.path, source=self.source, measure=self.measure, offset=offset, least=least)
        if self.part == CANVAS:
            return control.evolve(follows=_with(control.follows, follow))
        return each_part(control, [self.part], lambda p: p.evolve(follows=_with(p.follows, follow)))

    def label(self, control: Control) -> str:
        what = "the canvas" if self.part == CANVAS else names_of(control, [self.part])
        owner, name = field_of(control, self.path if self.part == CANVAS else f"parts/{self.part}/{self.path}")
        length = noun_of(type(owner).model_fields[name].title or name)
        return f"Let the {length} of {what} follow {names_of(control, [self.source])}"


class RemoveFollow(Edit):
    """Stop the follows of some numbers, by path, or all that follow one source; they keep their values."""

    kind: Literal["remove-follow"] = "remove-follow"
    part: Id | Literal["canvas"]
    path: Annotated[str, Field(max_length=100)] = ""
    paths: Annotated[tuple[Annotated[str, Field(max_length=100)], ...], Field(max_length=40)] = ()
    source: Id | None = None

    def apply(self, control: Control, around: Surroundings) -> Control:
        if self.part == CANVAS:
            return control.evolve(follows=self._without(control.follows))
        return each_part(control, [self.part], lambda p: p.evolve(follows=self._without(p.follows)))

    def _without(self, follows: tuple[Follow, ...]) -> tuple[Follow, ...]:
        return tuple(one for one in follows if not self._ends(one))

    def _ends(self, follow: Follow) -> bool:
        paths = (*self.paths, *([self.path] if self.path else []))
        return follow.path in paths if paths else follow.source == self.source

    def removes(self) -> bool:
        return True

    def label(self, control: Control) -> str:
        return "Ended a follow"


def keep_to(control: Control, part: str, source: str, around: Surroundings, *more: Kept) -> Control:
    """A part whose place, and size where it has one, follow another part at the distance they have; ``more`` follows
    besides."""
    size = SIZE if has_size(part_of(control, part)) else ()
    for path, measure in (*size, *PLACE, *more):
        control = AddFollow(part=part, path=path, source=source, measure=measure).apply(control, around)
    return control


def has_size(part: Part) -> bool:
    """Whether it has a width and a height of its own."""
    return {"width", "height"} <= type(part.shape).model_fields.keys()


def is_rounded(part: Part) -> bool:
    """Whether it is a box with one radius."""
    return isinstance(part.shape, Box) and part.shape.corners == "one" and part.shape.radius > 0


def _least(owner: BaseModel, name: str, now: float) -> float:
    """The least that a length may become: something is left of one that has to be more than 0."""
    above = any(isinstance(item, Gt) for item in type(owner).model_fields[name].metadata)
    return min(LEAST_PX, now) if above else 0.0


def _with(follows: tuple[Follow, ...], follow: Follow) -> tuple[Follow, ...]:
    return (*(f for f in follows if f.path != follow.path), follow)
