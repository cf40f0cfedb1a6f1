"""Letting lengths follow other parts."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from obrell.core.document.measures import frame_on_canvas, measured
from obrell.core.document.model import Control, Follow, Measure, Part
from obrell.core.document.paths import field_of, value_at
from obrell.core.document.tree import arranged
from obrell.core.edit.base import Edit, Surroundings, each_part, names_of, part_of
from obrell.core.edit.nouns import noun_of
from obrell.core.errors import BadValue, NoSuchThing, Refused
from obrell.core.shapes import Box, Round
from obrell.core.values.fields import LIMIT_PX, Id, Signed

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
    """A number that stays what it is from now on; without a path, all that follow one source."""

    kind: Literal["remove-follow"] = "remove-follow"
    part: Id | Literal["canvas"]
    path: Annotated[str, Field(max_length=100)] = ""
    source: Id | None = None

    def apply(self, control: Control, around: Surroundings) -> Control:
        if self.part == CANVAS:
            return control.evolve(follows=self._without(control.follows))
        return each_part(control, [self.part], lambda p: p.evolve(follows=self._without(p.follows)))

    def _without(self, follows: tuple[Follow, ...]) -> tuple[Follow, ...]:
        return tuple(one for one in follows if not self._ends(one))

    def _ends(self, follow: Follow) -> bool:
        return follow.path == self.path if self.path else follow.source == self.source

    def removes(self) -> bool:
        return True

    def label(self, control: Control) -> str:
        return "Ended a follow"


class FitAround(Edit):
    """A body keeps to another part, and lies behind it: both sizes and the middle follow it, with so much room on each
    side, or with what there is now; its radius too when both are boxes with one radius. ``canvas`` lets the canvas
    follow the body."""

    kind: Literal["fit-around"] = "fit-around"
    body: Id
    inner: Id
    canvas: bool = False
    left: Signed | None = None
    top: Signed | None = None
    right: Signed | None = None
    bottom: Signed | None = None

    def apply(self, control: Control, around: Surroundings) -> Control:
        body, inner = part_of(control, self.body), part_of(control, self.inner)
        if not isinstance(body.shape, Box | Round):
            raise Refused(f"“{body.name}” has no width and height of its own to fit. A box or a round has.")
        if self.body == self.inner:
            raise Refused("A body is fitted around another part, not around itself.")
        control = _behind(self._with_room(control), self.body, self.inner)
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

    def _with_room(self, control: Control) -> Control:
        """The body with so much room around the other part; a side that is not given keeps what it has."""
        if {self.left, self.top, self.right, self.bottom} == {None}:
            return control
        tree = arranged(control).all
        box, within = (frame_on_canvas(tree[part].part) for part in (self.body, self.inner))
        left = box.left if self.left is None else within.left - self.left
        top = box.top if self.top is None else within.top - self.top
        right = box.right if self.right is None else within.right + self.right
        bottom = box.bottom if self.bottom is None else within.bottom + self.bottom
        if right <= left or bottom <= top:
            raise Refused("With so little room nothing is left of the body. Use larger numbers.")

        def fitted(part: Part) -> Part:
            shape = part.shape.evolve(width=right - left, height=bottom - top)
            return part.evolve(shape=shape, x=(left + right) / 2, y=(top + bottom) / 2)

        return each_part(control, [self.body], fitted)

    def label(self, control: Control) -> str:
        return f"Fitted {names_of(control, [self.body])} around {names_of(control, [self.inner])}"


def _behind(control: Control, body: str, inner: str) -> Control:
    """The parts with the body right behind what lies on it, when it lay in front of that."""
    order = [part.id for part in control.parts]
    if order.index(body) < order.index(inner) or part_of(control, body).within != part_of(control, inner).within:
        return control
    moved = part_of(control, body)
    rest = [part for part in control.parts if part.id != body]
    place = next(number for number, part in enumerate(rest) if part.id == inner)
    return control.evolve(parts=(*rest[:place], moved, *rest[place:]))


def _rounded(part: Part) -> bool:
    return isinstance(part.shape, Box) and part.shape.corners == "one" and part.shape.radius > 0


def _with(follows: tuple[Follow, ...], follow: Follow) -> tuple[Follow, ...]:
    return (*(f for f in follows if f.path != follow.path), follow)
