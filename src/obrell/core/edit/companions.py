"""Parts that go with another one: linked copies, rims, and what keeps a distance from the edges of another part."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from obrell.core.colour.refills import refilled
from obrell.core.colour.spaces import mixed
from obrell.core.document.model import Control, Follow, Measure, Part
from obrell.core.edit.base import Edit, Surroundings, add_parts, each_part, names_of, part_of, refuse_locked
from obrell.core.edit.parts import fresh_name
from obrell.core.effects import Paint
from obrell.core.errors import Refused
from obrell.core.shapes import Box
from obrell.core.values.fields import LIMIT_PX, Id, Length, Signed
from obrell.core.values.paints import Solid

SIZES = ("width", "height")
LEAST_PX = 0.5
"""What is left of a part that follows one which got too small for it."""
PLAIN = "#6b6f70"
"""The colour of a rim around a part whose paint has no colour of its own."""
SHADE = 0.35
"""How far a rim's colour is from its part's to black."""


class LinkedCopy(Edit):
    """Copies right in front of parts, or behind them, each of which keeps to its original: the same middle and turn,
    every side ``by`` px farther out."""

    kind: Literal["linked-copy"] = "linked-copy"
    parts: Annotated[tuple[Id, ...], Field(min_length=1, max_length=1000)]
    by: Signed = 0.0
    behind: bool = False

    def apply(self, control: Control, around: Surroundings) -> Control:
        for part_id in self.parts:
            part = part_of(control, part_id)
            name = fresh_name(control, part.name)
            control = put_beside(control, keeping_to(part, self.by).evolve(name=name), part, behind=self.behind)
        return control

    def label(self, control: Control) -> str:
        return f"Made a linked copy of {names_of(control, self.parts)}"


class AddRim(Edit):
    """A body around a part, behind it, or inside it, in front: as wide on every side, its corners round about the
    same places, from now on."""

    kind: Literal["add-rim"] = "add-rim"
    part: Id
    width: Annotated[Length, Field(gt=0, title="width")] = 2.0
    place: Literal["around", "inside"] = "around"

    def apply(self, control: Control, around: Surroundings) -> Control:
        part, outside = part_of(control, self.part), self.place == "around"
        paint = Paint(id="e1", fill=Solid(colour=_rim_colour(part)))
        name = fresh_name(control, f"{part.name[:70]} rim")
        bare = part.evolve(effects=(paint,), material=None, versions=(), opacity=1.0, blend="normal")
        made = keeping_to(bare, self.width if outside else -self.width)
        return put_beside(control, made.evolve(name=name), part, behind=outside)

    def label(self, control: Control) -> str:
        where = "around" if self.place == "around" else "inside"
        return f"Put a rim {where} {names_of(control, [self.part])}"


class StayInside(Edit):
    """A part fills another one but for margins, from now on; a margin that is not given is the one it has."""

    kind: Literal["stay-inside"] = "stay-inside"
    part: Id
    source: Id
    left: Signed | None = None
    top: Signed | None = None
    right: Signed | None = None
    bottom: Signed | None = None

    def apply(self, control: Control, around: Surroundings) -> Control:
        part, source = part_of(control, self.part), part_of(control, self.source)
        refuse_locked(part)
        if part.id == source.id:
            raise Refused("A part cannot stay inside of itself.")
        check_sized(part)
        left, top, right, bottom = self._margins(part, source)
        follows = (
            Follow(path="shape/width", source=source.id, measure="width", offset=-left - right, least=LEAST_PX),
            Follow(path="shape/height", source=source.id, measure="height", offset=-top - bottom, least=LEAST_PX),
            Follow(path="x", source=source.id, measure="middle across", offset=(left - right) / 2),
            Follow(path="y", source=source.id, measure="middle down", offset=(top - bottom) / 2),
        )
        return each_part(control, [part.id], lambda one: following(one, *follows))

    def _margins(self, part: Part, source: Part) -> tuple[float, float, float, float]:
        inner, outer = part.shape.frame(), source.shape.frame()
        dx, dy = part.x - source.x, part.y - source.y
        across, down = (outer.width - inner.width) / 2, (outer.height - inner.height) / 2
        had = (across + dx, down + dy, across - dx, down - dy)
        wanted = (self.left, self.top, self.right, self.bottom)
        left, top, right, bottom = (
            round(now, 3) if asked is None else asked for now, asked in zip(had, wanted, strict=True)
        )
        return left, top, right, bottom

    def label(self, control: Control) -> str:
        return f"Let {names_of(control, [self.part])} stay inside {names_of(control, [self.source])}"


def keeping_to(part: Part, by: float) -> Part:
    """A copy of a part that follows it, every side ``by`` logical px farther out."""
    wanted: list[tuple[str, Measure, float]] = [("x", "middle across", 0.0), ("y", "middle down", 0.0)]
    if has_size(part):
        wanted += [("shape/width", "width", 2 * by), ("shape/height", "height", 2 * by)]
    elif by:
        check_sized(part)
    if isinstance(part.shape, Box) and part.shape.corners == "one" and part.shape.radius > 0:
        wanted.append(("shape/radius", "radius", by))
    follows = (
        Follow(path=path, source=part.id, measure=measure, offset=offset, least=_least(path))
        for path, measure, offset in wanted
    )
    return following(part.evolve(locked=False), *follows)


def _least(path: str) -> float:
    if not path.startswith("shape"):
        return -LIMIT_PX
    return LEAST_PX if path.removeprefix("shape/") in SIZES else 0.0


def following(part: Part, *follows: Follow) -> Part:
    """The part with more that follows; what followed something else before follows this."""
    paths = {follow.path for follow in follows}
    return part.evolve(follows=(*(one for one in part.follows if one.path not in paths), *follows))


def put_beside(control: Control, made: Part, part: Part, *, behind: bool) -> Control:
    """A part put in right behind, or right in front of, another one, in the same container."""
    place = next(number for number, one in enumerate(control.parts) if one.id == part.id)
    return add_parts(control, [made.evolve(id="new")], place if behind else place + 1)


def has_size(part: Part) -> bool:
    """Whether it has a width and a height of its own."""
    return all(name in type(part.shape).model_fields for name in SIZES)


def check_sized(part: Part) -> None:
    """Raise ``Refused`` for a part without a width and a height of its own."""
    if not has_size(part):
        raise Refused(f"“{part.name}” has no width and height of its own that could follow. A box or a round has.")


def _rim_colour(part: Part) -> str:
    """A shade of the colour of the part's uppermost paint."""
    paints = [effect.fill for effect in part.effects if isinstance(effect, Paint) and effect.visible]
    plain = refilled(paints[-1], "solid") if paints else None
    found = plain.colour if isinstance(plain, Solid) else PLAIN
    return mixed(found, "#000000", SHADE) if isinstance(found, str) else PLAIN
