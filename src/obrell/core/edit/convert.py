"""Turning parts into paths, mirroring them, growing them."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Annotated, Literal

from pydantic import BeforeValidator, Field

from obrell.core.document.measures import bounds_of, frame_on_canvas
from obrell.core.document.model import Control, Part
from obrell.core.document.moving import carried_together, covering
from obrell.core.document.nodes import Node
from obrell.core.document.spans import unshared
from obrell.core.document.tree import arranged, descendants
from obrell.core.edit.base import Edit, Surroundings, check_unlocked, each_part, names_of, part_of, roots
from obrell.core.edit.parts import Ids
from obrell.core.edit.typed import summed
from obrell.core.errors import Refused
from obrell.core.geometry.arcs import with_arcs
from obrell.core.geometry.combine import grown
from obrell.core.geometry.knots import knots_of
from obrell.core.geometry.plane import Rect, mirror_at
from obrell.core.geometry.simplify import Run, simplified
from obrell.core.shapes import Container, Repeat
from obrell.core.shapes.kinds.path import Path, path_from, path_of
from obrell.core.shapes.outlined import contours_from
from obrell.core.values.fields import Id, Signed

OUTLINE_PX = 0.01
"""How far the points of an outlined line may be from what the pen leaves."""
AXIS_DECIMALS = 3
"""Of the axis that parts are flipped about, in px."""


class ConvertToPath(Edit):
    """Parts made into paths that look the same; what lay in a container becomes one with it. Lines and icons stay
    lines with a width along few points."""

    kind: Literal["to-path"] = "to-path"
    parts: Ids

    def apply(self, control: Control, around: Surroundings) -> Control:
        tree = arranged(control).all
        for part_id in roots(control, self.parts):
            control = _converted(control, tree[part_id])
        return control

    def label(self, control: Control) -> str:
        return f"Converted {names_of(control, self.parts)} to a path"


class OutlineLines(Edit):
    """Lines and icons made into filled paths: the outlines of what a pen leaves, with as few points as it takes."""

    kind: Literal["outline-lines"] = "outline-lines"
    parts: Ids

    def apply(self, control: Control, around: Surroundings) -> Control:
        for part_id in self.parts:
            part = part_of(control, part_id)
            if part.shape.as_line() is None:
                raise Refused(f"“{part.name}” is an area already; only lines and icons have an outline to be made.")
            outline = part.shape.path()
            if not outline:
                raise Refused(f"“{part.name}” has no outline to convert.")
            runs = with_arcs(knots_of(outline), OUTLINE_PX, _fewer)
            control = _replaced(control, part_id, Path(contours=contours_from(runs)))
        return control

    def label(self, control: Control) -> str:
        return f"Outlined the lines of {names_of(control, self.parts)}"


class SimplifyPath(Edit):
    """A path drawn again with as few points as a tolerance in px allows. Corners that turn by fewer degrees than
    ``smooth`` become smooth."""

    kind: Literal["simplify"] = "simplify"
    part: Id
    tolerance: Annotated[Annotated[float, Field(gt=0, le=100)], BeforeValidator(summed)] = 0.1
    smooth: Annotated[Annotated[float, Field(ge=0, le=180)], BeforeValidator(summed)] = 25.0

    def apply(self, control: Control, around: Surroundings) -> Control:
        def changed(part: Part) -> Part:
            if not isinstance(part.shape, Path):
                raise Refused(f"“{part.name}” has no points of its own. Convert it to a path first.")
            runs = [(run.closed, [knot.bend() for knot in run.knots]) for run in part.shape.contours]
            fewer = [self._fewer(run) for run in runs]
            if fewer == runs:
                raise Refused("That leaves every point where it is. With a larger tolerance fewer are enough.")
            return part.evolve(shape=part.shape.evolve(contours=contours_from(fewer)))

        return each_part(control, [self.part], changed)

    def label(self, control: Control) -> str:
        part = part_of(control, self.part)
        points = sum(len(run.knots) for run in part.shape.contours) if isinstance(part.shape, Path) else 0
        return f"Simplified {part.name} from {points} points"

    def _fewer(self, run: Run) -> Run:
        """The contour drawn again, or as it is where that takes no point away."""
        fitted = simplified([run], self.tolerance, self.smooth)[0]
        return fitted if len(fitted[1]) < len(run[1]) else run


class FlipParts(Edit):
    """Parts mirrored left to right or top to bottom, together, where they are: their outlines, words, pictures and
    paints, the light on them, and the ways of repeats. What is hidden and clips or masks them is flipped too."""

    kind: Literal["flip"] = "flip"
    parts: Ids
    across: bool = True

    def apply(self, control: Control, around: Surroundings) -> Control:
        box, tree = bounds_of(control, self.parts), arranged(control).all
        both = box.left + box.right if self.across else box.top + box.bottom
        # The box of a combination is some 1e-5 px another when it is flipped; the axis is to be the same.
        by = mirror_at(round(both, AXIS_DECIMALS), across=self.across)
        check_unlocked(control, self.parts)
        held = descendants(control, self.parts)
        flipping = held | descendants(control, _hidden_cuts(control, held))
        check_unlocked(control, flipping)
        canvas = Rect(0, 0, control.canvas.width, control.canvas.height)
        own = tuple(_own_fills(part, tree, canvas) if part.id in flipping else part for part in control.parts)
        moved = carried_together(own, dict.fromkeys(flipping, by))
        return control.evolve(parts=tuple(self._flipped(part) if part.id in flipping else part for part in moved))

    def label(self, control: Control) -> str:
        return f"Flipped {names_of(control, self.parts)}"

    def _flipped(self, part: Part) -> Part:
        shape = part.shape.flipped(across=self.across) if isinstance(part.shape, Repeat) else part.shape
        return part.evolve(
            shape=shape, effects=tuple(effect.flipped(across=self.across) for effect in part.effects)
        )  # fmt: skip


def _hidden_cuts(control: Control, ids: Iterable[str]) -> frozenset[str]:
    """The hidden parts that clip or mask some parts."""
    wanted = frozenset(ids)
    used = {
        name
        for part in control.parts
        if part.id in wanted
        for name in (part.clip, *(covering(effect) for effect in part.effects))
    }
    return frozenset(part.id for part in control.parts if part.id in used and not part.visible)


def _own_fills(part: Part, tree: Mapping[str, Node], canvas: Rect) -> Part:
    """The part with fills that lie over more than itself laid over itself, so that they can be flipped with it."""
    seen, outer = tree[part.id].part, tree.get(part.within or "")
    whole = {"canvas": canvas} | ({"group": frame_on_canvas(outer.part)} if outer is not None else {})
    for span, box in whole.items():
        part = unshared(part, seen, box, span)
    return part


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
            outline = grown(node.part.shape.path(), self.by, "round" if self.round_corners else "mitre")
            if not outline:
                raise Refused(f"Nothing would be left of “{node.part.name}”.")
            return _replaced(control, node.part.id, path_from(outline))
        return each_part(control, [node.part.id], lambda part: part.evolve(shape=shape))


def _converted(control: Control, node: Node) -> Control:
    shape = part_of(control, node.part.id).shape
    if isinstance(shape, Path):
        raise Refused(f"“{node.part.name}” is a path already.")
    line = shape.as_line()
    if line is not None:
        return _replaced(control, node.part.id, path_of(line))
    outline = node.part.shape.path()
    if not outline:
        raise Refused(f"“{node.part.name}” has no outline to convert.")
    return _replaced(control, node.part.id, path_from(outline))


def _fewer(run: Run) -> Run:
    return simplified([run], OUTLINE_PX)[0]


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
