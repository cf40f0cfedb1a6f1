"""Putting parts in line, spacing them, scaling them, and making rows of copies."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Mapping
from itertools import accumulate
from typing import Annotated, Any, Literal

from pydantic import BeforeValidator, Field

from obrell.core.document.lengths import scale_lengths
from obrell.core.document.measures import around, bounds_of, frame_on_canvas, ink_on_canvas
from obrell.core.document.model import Control, Part
from obrell.core.document.tree import arranged, descendants
from obrell.core.edit.base import Edit, Surroundings, each_part, moved, names_of, part_of, roots
from obrell.core.edit.parts import Ids, copied
from obrell.core.edit.typed import summed, summed_or_none
from obrell.core.effects import AnyEffect, Outline
from obrell.core.errors import Refused
from obrell.core.geometry.plane import Rect, Similarity, about
from obrell.core.shapes import Container, Line, Path
from obrell.core.values.fields import Id, Place, Signed

Measure = Literal["box", "ink"]
Typed = BeforeValidator(summed)
Times = Annotated[int, Typed, Field(ge=1, le=200)]
SHARES = {"start": 0.0, "middle": 0.5, "end": 1.0}
WORDS = {
    ("across", "start"): "left", ("across", "middle"): "centre", ("across", "end"): "right",
    ("down", "start"): "top", ("down", "middle"): "middle", ("down", "end"): "bottom",
}  # fmt: skip


class AlignParts(Edit):
    """Parts put in line by a side or their middle: with one another, with the canvas, or with a lead
    part, which stays. ``by`` measures frames, or what is inked."""

    kind: Literal["align"] = "align"
    parts: Ids
    axis: Literal["across", "down"]
    edge: Literal["start", "middle", "end"]
    to: Literal["selection", "canvas"] | Id = "selection"
    by: Measure = "box"

    def apply(self, control: Control, around: Surroundings) -> Control:
        outer = roots(control, self.parts)
        boxes = _boxes(control, outer, self.by)
        wanted = side_at(self._target(control, boxes), self.axis, SHARES[self.edge])
        away = {i: wanted - side_at(boxes[i], self.axis, SHARES[self.edge]) for i in outer if i != self.to}
        return moved(control, _along(self.axis, away))

    def label(self, control: Control) -> str:
        return f"Aligned {names_of(control, self.parts)}: {WORDS[self.axis, self.edge]}"

    def _target(self, control: Control, boxes: dict[str, Rect]) -> Rect:
        if self.to == "canvas":
            return Rect(0, 0, control.canvas.width, control.canvas.height)
        if self.to == "selection":
            return around(boxes.values())
        return _boxes(control, (self.to,), self.by)[self.to]


class DistributeParts(Edit):
    """Parts spaced evenly between the outermost two, or by a typed gap from the first on."""

    kind: Literal["distribute"] = "distribute"
    parts: Ids
    axis: Literal["across", "down"]
    gap: Annotated[Signed | None, Typed] = None
    by: Measure = "box"

    def apply(self, control: Control, around: Surroundings) -> Control:
        outer = roots(control, self.parts)
        if len(outer) < (2 if self.gap is not None else 3):
            raise Refused("Equal gaps need three parts, a typed gap needs two: select one more.")
        boxes = _boxes(control, outer, self.by)
        away = spaced(boxes, self.axis, self.gap)
        return moved(control, _along(self.axis, away))

    def label(self, control: Control) -> str:
        return f"Spaced {names_of(control, self.parts)} {self.axis}"


class ScaleParts(Edit):
    """Parts scaled by a share about their common middle, or the whole control with its canvas when no
    part is named; by what makes them ``wide`` px wide or ``high`` px high when that is given. Lengths of
    effects, and the widths of outlines and lines, scale along when asked."""

    kind: Literal["scale"] = "scale"
    parts: Annotated[tuple[Id, ...], Field(max_length=1000)] = ()
    percent: Annotated[float, Typed, Field(gt=0, le=10_000)] = 100.0
    wide: Annotated[Annotated[float, Field(gt=0, le=4096)] | None, BeforeValidator(summed_or_none)] = None
    high: Annotated[Annotated[float, Field(gt=0, le=4096)] | None, BeforeValidator(summed_or_none)] = None
    effects: bool = True
    strokes: bool = True

    def apply(self, control: Control, around: Surroundings) -> Control:
        if self.wide is not None and self.high is not None:
            raise Refused("Say how wide or how high it becomes, not both: proportions are kept.")
        factor = self._factor(control)
        if not self.parts:
            canvas, all_parts = control.canvas, frozenset(part.id for part in control.parts)
            control = control.evolve(canvas=canvas.evolve(
                width=max(1.0, float(round(canvas.width * factor))),
                height=max(1.0, float(round(canvas.height * factor))),
                margin=canvas.margin * factor,
            ))  # fmt: skip
            return control.evolve(
                parts=tuple(self._scaled(p, Similarity(factor), all_parts) for p in control.parts),
                guides=scale_lengths(control.guides, factor), follows=scale_lengths(control.follows, factor),
            )  # fmt: skip
        box = bounds_of(control, self.parts)
        by = about(box.centre.x, box.centre.y, scale=factor)
        scaled = descendants(control, self.parts)
        return each_part(control, self.parts, lambda part: self._scaled(part, by, scaled), held=True)

    def label(self, control: Control) -> str:
        what = names_of(control, self.parts) if self.parts else "the control"
        return f"Scaled {what} to {round(self._factor(control) * 100, 2):g} %"

    def _factor(self, control: Control) -> float:
        wanted = self.wide if self.wide is not None else self.high
        if wanted is None:
            return self.percent / 100
        canvas = Rect(0, 0, control.canvas.width, control.canvas.height)
        box = bounds_of(control, self.parts) if self.parts else canvas
        now, name = (box.width, "width") if self.wide is not None else (box.height, "height")
        if now <= 0:
            raise Refused(f"What has no {name} cannot be scaled to one.")
        return wanted / now

    def _scaled(self, part: Part, by: Similarity, scaled: Collection[str]) -> Part:
        x, y = by.apply(part.x, part.y)
        shape = scale_lengths(part.shape, by.scale) if isinstance(part.shape, Container) else _whole(part, by.scale)
        if isinstance(part.shape, Line | Path) and not self.strokes:
            shape = shape.evolve(width=part.shape.width)
        effects = tuple(self._scaled_effect(effect, by.scale) for effect in part.effects)
        # Distances grow between parts that are scaled together; from others, they become what is left.
        follows = tuple(
            scale_lengths(follow, by.scale) if follow.source in scaled else follow for follow in part.follows
        )
        return part.evolve(x=x, y=y, shape=shape, effects=effects, follows=follows)

    def _scaled_effect(self, effect: AnyEffect, factor: float) -> AnyEffect:
        wanted = self.strokes if isinstance(effect, Outline) else self.effects
        scaled: AnyEffect = scale_lengths(effect, factor) if wanted else effect
        return scaled


class CopyAround(Edit):
    """Copies turned round a typed centre, each by the same angle on from the one before."""

    kind: Literal["copy-around"] = "copy-around"
    parts: Ids
    x: Annotated[Place, Typed]
    y: Annotated[Place, Typed]
    degrees: Annotated[float, Typed, Field(ge=-360, le=360)] = 30.0
    times: Times = 1

    def apply(self, control: Control, around: Surroundings) -> Control:
        steps = [about(self.x, self.y, turn=self.degrees * count) for count in range(1, self.times + 1)]
        return copied(control, self.parts, steps)

    def label(self, control: Control) -> str:
        return f"Copied {names_of(control, self.parts)} round {self.x:g}, {self.y:g}"


class CopyAlong(Edit):
    """Copies with an offset, each as far on from the one before."""

    kind: Literal["copy-along"] = "copy-along"
    parts: Ids
    dx: Annotated[Signed, Typed] = 0.0
    dy: Annotated[Signed, Typed] = 0.0
    times: Times = 1

    def apply(self, control: Control, around: Surroundings) -> Control:
        steps = [Similarity(dx=self.dx * count, dy=self.dy * count) for count in range(1, self.times + 1)]
        return copied(control, self.parts, steps)

    def label(self, control: Control) -> str:
        return f"Copied {names_of(control, self.parts)} every {self.dx:g}, {self.dy:g}"


def _whole(part: Part, factor: float) -> Any:
    """A shape with all its lengths scaled, corners and line widths too."""
    shape = scale_lengths(part.shape, factor)
    return shape if not shape.problem() else part.shape.stretched(factor, factor)


def _boxes(control: Control, ids: Iterable[str], by: Measure) -> dict[str, Rect]:
    tree = arranged(control).all
    for part_id in ids:
        part_of(control, part_id)
    return {i: ink_on_canvas(tree[i].part) if by == "ink" else frame_on_canvas(tree[i].part) for i in ids}


def spaced(boxes: Mapping[str, Rect], axis: str, gap: float | None = None) -> dict[str, float]:
    """How far each box has to go along an axis for equal gaps between the outermost two, or for a ``gap`` from the
    first on."""
    order = sorted(boxes, key=lambda name: (side_at(boxes[name], axis, 0.5), name))
    sizes = [side_at(boxes[name], axis, 1) - side_at(boxes[name], axis, 0) for name in order]
    start, end = side_at(boxes[order[0]], axis, 0), side_at(boxes[order[-1]], axis, 1)
    between = gap if gap is not None else (end - start - sum(sizes)) / (len(order) - 1)
    starts = accumulate(sizes, lambda at, size: at + size + between, initial=start)
    return {name: at - side_at(boxes[name], axis, 0) for name, at in zip(order, starts, strict=False)}


def side_at(box: Rect, axis: str, share: float) -> float:
    """A share of the way from a box's beginning to its end along an axis, px."""
    start, end = (box.left, box.right) if axis == "across" else (box.top, box.bottom)
    return start + (end - start) * share


def _along(axis: str, away: Mapping[str, float]) -> dict[str, Similarity]:
    """Distances on one axis as moves."""
    return {i: Similarity(dx=by) if axis == "across" else Similarity(dy=by) for i, by in away.items()}
