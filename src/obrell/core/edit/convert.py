"""Turning parts into paths, mirroring them, growing them."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BeforeValidator, Field

from obrell.core.document.measures import bounds_of
from obrell.core.document.model import Control, Part
from obrell.core.document.nodes import Node
from obrell.core.document.tree import arranged, descendants
from obrell.core.edit.base import Edit, Surroundings, check_unlocked, each_part, names_of, part_of, roots
from obrell.core.edit.parts import Ids
from obrell.core.edit.typed import summed
from obrell.core.errors import Refused
from obrell.core.geometry.combine import grown
from obrell.core.geometry.simplify import simplified
from obrell.core.shapes import Container, Text
from obrell.core.shapes.path import Path, contours_from, path_from
from obrell.core.values.fields import Id, Signed


class ConvertToPath(Edit):
    """Parts made into paths that look the same; what lay in a container becomes one with it."""

    kind: Literal["to-path"] = "to-path"
    parts: Ids

    def apply(self, control: Control, around: Surroundings) -> Control:
        tree = arranged(control).all
        for part_id in roots(control, self.parts):
            control = _converted(control, tree[part_id])
        return control

    def label(self, control: Control) -> str:
        return f"Converted {names_of(control, self.parts)} to a path"


class SimplifyPath(Edit):
    """A path drawn again with as few points as a tolerance in px allows."""

    kind: Literal["simplify"] = "simplify"
    part: Id
    tolerance: Annotated[float, Field(gt=0, le=100)] = 0.5

    def apply(self, control: Control, around: Surroundings) -> Control:
        def changed(part: Part) -> Part:
            if not isinstance(part.shape, Path):
                raise Refused(f"“{part.name}” has no points of its own. Convert it to a path first.")
            runs = [(run.closed, [knot.bend() for knot in run.knots]) for run in part.shape.contours]
            return part.evolve(shape=part.shape.evolve(contours=contours_from(simplified(runs, self.tolerance))))

        return each_part(control, [self.part], changed)

    def label(self, control: Control) -> str:
        return f"Simplified {names_of(control, [self.part])}"


class FlipParts(Edit):
    """Parts mirrored left to right or top to bottom, together, where they are."""

    kind: Literal["flip"] = "flip"
    parts: Ids
    across: bool = True

    def apply(self, control: Control, around: Surroundings) -> Control:
        box = bounds_of(control, self.parts)
        axis = box.left + box.right if self.across else box.top + box.bottom
        return each_part(control, self.parts, lambda part: flipped(part, axis, across=self.across), held=True)

    def label(self, control: Control) -> str:
        return f"Flipped {names_of(control, self.parts)}"


class GrowParts(Edit):
    """Parts made larger on all sides, or smaller when negative, keeping their middle. Boxes, rounds and
    rings stay what they are, other kinds become paths."""

    kind: Literal["grow"] = "grow"
    parts: Ids
    by: Annotated[Signed, BeforeValidator(summed)]
    round_corners: bool = True

    def apply(self, control: Control, around: Surroundings) -> Control:
        tree = arranged(control).all
        for part_id in roots(control, self.parts):
            control = self._grown(control, tree[part_id])
        return control

    def label(self, control: Control) -> str:
        way = "Grew" if self.by > 0 else "Shrank"
        return f"{way} {names_of(control, self.parts)} by {abs(self.by):g} px"

    def _grown(self, control: Control, node: Node) -> Control:
        shape = node.part.shape.grown_by(self.by)
        if shape is None:
            outline = grown(node.part.shape.path(), self.by, round_joins=self.round_corners)
            if not outline:
                raise Refused(f"Nothing would be left of “{node.part.name}”.")
            return _replaced(control, node.part.id, path_from(outline))
        return each_part(control, [node.part.id], lambda part: part.evolve(shape=shape))


def flipped(part: Part, axis: float, *, across: bool) -> Part:
    """The part mirrored; ``axis`` is twice the place of the mirror."""
    if isinstance(part.shape, Text):
        raise Refused(f"“{part.name}” is a text and stays readable. Convert it to a path to flip it.")
    shape = part.shape.flipped(across=across)
    place = {"x": axis - part.x} if across else {"y": axis - part.y}
    return part.evolve(shape=shape, rotation=-part.rotation % 360, **place)


def _converted(control: Control, node: Node) -> Control:
    outline = node.part.shape.path()
    if not outline:
        raise Refused(f"“{node.part.name}” has no outline to convert.")
    shape = part_of(control, node.part.id).shape
    if isinstance(shape, Path) and shape.form == "filled":
        return control
    return _replaced(control, node.part.id, path_from(outline))


def _replaced(control: Control, part_id: str, path: Path) -> Control:
    """The part with a path in place of its shape and of all that lay in it."""
    part = part_of(control, part_id)
    inner = descendants(control, (part_id,)) - {part_id}
    effects = part.effects
    if isinstance(part.shape, Container) and not effects:
        effects = next((p.effects for p in control.parts if p.id in inner and p.effects), ())
    check_unlocked(control, (part_id, *inner))
    made = part.evolve(shape=path, effects=effects)
    return control.evolve(parts=tuple(made if p is part else p for p in control.parts if p.id not in inner))
