"""Letting lengths follow other parts."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from obrell.core.document.measures import measured
from obrell.core.document.model import Control, Follow, Measure, Part
from obrell.core.document.paths import field_of, value_at
from obrell.core.document.tree import arranged
from obrell.core.edit.base import Edit, Surroundings, each_part, names_of, part_of
from obrell.core.edit.nouns import noun_of
from obrell.core.errors import BadValue, NoSuchThing, Refused
from obrell.core.shapes import Box, Round
from obrell.core.values.fields import LIMIT_PX, Id

CANVAS = "canvas"


class AddFollow(Edit):
    """A number of a part, or of the canvas, follows another part from now on, at the distance it has."""

    kind: Literal["add-follow"] = "add-follow"
    part: Id | Literal["canvas"]
    path: Annotated[str, Field(max_length=100)]
    source: Id
    measure: Measure = "width"

    def apply(self, control: Control, around: Surroundings) -> Control:
        root = "" if self.part == CANVAS else f"parts/{self.part}/"
        try:
            now = value_at(control, root + self.path)
        except NoSuchThing as error:
            raise BadValue("There is no such length.", self.path) from error
        if not isinstance(now, int | float) or self.part == self.source:
            raise Refused("A length can follow another part, not itself.")
        source = arranged(control).all[part_of(control, self.source).id].part
        offset = round(float(now) - measured(source, self.measure), 6)
        least = -LIMIT_PX if self.path in ("x", "y") else 0.0
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
    """A number that stays what it is from now on."""

    kind: Literal["remove-follow"] = "remove-follow"
    part: Id | Literal["canvas"]
    path: Annotated[str, Field(max_length=100)]

    def apply(self, control: Control, around: Surroundings) -> Control:
        def without(follows: tuple[Follow, ...]) -> tuple[Follow, ...]:
            return tuple(f for f in follows if f.path != self.path)

        if self.part == CANVAS:
            return control.evolve(follows=without(control.follows))
        return each_part(control, [self.part], lambda p: p.evolve(follows=without(p.follows)))

    def removes(self) -> bool:
        return True

    def label(self, control: Control) -> str:
        return "Ended a follow"


class FitAround(Edit):
    """A body keeps to another part: both sizes and the middle follow it at the distance they have, its
    radius too when both are boxes with one radius. ``canvas`` lets the canvas follow the body."""

    kind: Literal["fit-around"] = "fit-around"
    body: Id
    inner: Id
    canvas: bool = False

    def apply(self, control: Control, around: Surroundings) -> Control:
        body, inner = part_of(control, self.body), part_of(control, self.inner)
        if not isinstance(body.shape, Box | Round):
            raise Refused(f"“{body.name}” has no width and height of its own to fit. A box or a round has.")
        wanted: list[tuple[str, str, str, Measure]] = [
            (self.body, "shape/width", self.inner, "width"), (self.body, "shape/height", self.inner, "height"),
            (self.body, "x", self.inner, "middle across"), (self.body, "y", self.inner, "middle down"),
        ]  # fmt: skip
        if _rounded(body) and _rounded(inner):
            wanted.append((self.body, "shape/radius", self.inner, "radius"))
        if self.canvas:
            wanted += [(CANVAS, "canvas/width", self.body, "width"), (CANVAS, "canvas/height", self.body, "height")]
        for part, path, source, measure in wanted:
            edit = AddFollow(part=part, path=path, source=source, measure=measure)
            control = edit.apply(control, around)
        return control

    def label(self, control: Control) -> str:
        return f"Fitted {names_of(control, [self.body])} around {names_of(control, [self.inner])}"


def _rounded(part: Part) -> bool:
    return isinstance(part.shape, Box) and part.shape.corners == "one" and part.shape.radius > 0


def _with(follows: tuple[Follow, ...], follow: Follow) -> tuple[Follow, ...]:
    return (*(f for f in follows if f.path != follow.path), follow)
