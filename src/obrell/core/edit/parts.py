"""Adding, placing, ordering and removing parts."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field

from obrell.core.document.model import Control, Part
from obrell.core.edit.base import Edit, Surroundings, add_parts, each_part, names_of, part_of
from obrell.core.effects import Paint
from obrell.core.errors import Refused
from obrell.core.geometry.plane import Similarity
from obrell.core.geometry.svgdata import number
from obrell.core.shapes import SHAPES, Shape, Text
from obrell.core.values.fields import Id, Name, Place, Signed
from obrell.core.values.paints import Solid

Ids = Annotated[tuple[Id, ...], Field(min_length=1, max_length=1000)]
NEW_SURFACE = "#1f8a92"
NEW_INK = "#1f2a30"
SMALLEST_PX = 1.0
"""What a drag on the stage makes at least."""
COMMON_SIDE_PX = 40.0
"""Size of a part that is clicked rather than dragged."""


class Draw(Edit):
    """A new part drawn from one corner to the other, in front of all.

    ``constrained`` makes both sides equal; ``centred`` draws from the centre outwards. Text is
    placed at the first point and takes its size from the height, if there is any.
    """

    kind: Literal["draw"] = "draw"
    shape: Literal["box", "round", "text"]
    x0: Place
    y0: Place
    x1: Place
    y1: Place
    constrained: bool = False
    centred: bool = False

    def apply(self, control: Control, around: Surroundings) -> Control:
        shape, x, y = self._placed()
        ink = NEW_INK if isinstance(shape, Text) else NEW_SURFACE
        part = Part(
            id="p0", name=fresh_name(control, shape.suggested_name()), shape=shape, x=x, y=y,
            effects=(Paint(id="e1", fill=Solid(colour=ink)),),
        )  # fmt: skip
        return add_parts(control, [part])

    def label(self, control: Control) -> str:
        return f"Added a {self.shape}"

    def _placed(self) -> tuple[Shape, float, float]:
        dx, dy = self.x1 - self.x0, self.y1 - self.y0
        clicked = abs(dx) < SMALLEST_PX and abs(dy) < SMALLEST_PX
        if self.shape == "text":
            size = {} if abs(dy) < 4 else {"size": min(400.0, abs(dy))}
            return Text(**size), (self.x0 + self.x1) / 2, (self.y0 + self.y1) / 2
        if clicked:
            return self._sized(COMMON_SIDE_PX, COMMON_SIDE_PX), self.x0, self.y0
        width, height = abs(dx), abs(dy)
        if self.constrained:
            width = height = max(width, height)
        across, down = (1 if dx >= 0 else -1), (1 if dy >= 0 else -1)
        if self.centred:
            return self._sized(2 * width, 2 * height), self.x0, self.y0
        return self._sized(width, height), self.x0 + across * width / 2, self.y0 + down * height / 2

    def _sized(self, width: float, height: float) -> Shape:
        kind: type[Any] = SHAPES[self.shape]
        shape: Shape = kind(width=max(SMALLEST_PX, width), height=max(SMALLEST_PX, height))
        return shape


class MoveParts(Edit):
    """Parts moved; ``constrained`` keeps to the longer of the two directions."""

    kind: Literal["move"] = "move"
    parts: Ids
    dx: Place
    dy: Place
    constrained: bool = False

    def apply(self, control: Control, around: Surroundings) -> Control:
        dx, dy = self.dx, self.dy
        if self.constrained:
            dx, dy = (dx, 0.0) if abs(dx) >= abs(dy) else (0.0, dy)
        return each_part(control, self.parts, lambda p: p.evolve(x=p.x + dx, y=p.y + dy))

    def label(self, control: Control) -> str:
        return f"Moved {names_of(control, self.parts)} by {number(self.dx)}, {number(self.dy)}"


class Resize(Edit):
    """A part pulled by one of its eight handles, named by side: ``n``, ``ne``, ``e`` …

    (dx, dy) is the pull in logical px. The opposite side stays, or the centre when ``centred``;
    ``constrained`` keeps the proportions.
    """

    kind: Literal["resize"] = "resize"
    part: Id
    handle: Literal["n", "ne", "e", "se", "s", "sw", "w", "nw"]
    dx: Place
    dy: Place
    constrained: bool = False
    centred: bool = False

    def apply(self, control: Control, around: Surroundings) -> Control:
        return each_part(control, [self.part], self._resized)

    def label(self, control: Control) -> str:
        return f"Resized {names_of(control, [self.part])}"

    def _resized(self, part: Part) -> Part:
        turn = Similarity(turn=part.rotation)
        pull_x, pull_y = turn.undo(self.dx, self.dy)
        side_x = ("e" in self.handle) - ("w" in self.handle)
        side_y = ("s" in self.handle) - ("n" in self.handle)
        frame = part.shape.frame()
        both = 2.0 if self.centred else 1.0
        width = max(SMALLEST_PX, frame.width + side_x * pull_x * both)
        height = max(SMALLEST_PX, frame.height + side_y * pull_y * both)
        if self.constrained or isinstance(part.shape, Text):
            width, height = _in_proportion(frame.width, frame.height, width, height, side_x, side_y)
        shape = part.shape.resized(width, height)
        if self.centred:
            return part.evolve(shape=shape)
        new = shape.frame()
        kept_x = (frame.left, (frame.left + frame.right) / 2, frame.right)[1 - side_x]
        kept_y = (frame.top, (frame.top + frame.bottom) / 2, frame.bottom)[1 - side_y]
        now_x = (new.left, (new.left + new.right) / 2, new.right)[1 - side_x]
        now_y = (new.top, (new.top + new.bottom) / 2, new.bottom)[1 - side_y]
        shift_x, shift_y = turn.apply(kept_x - now_x, kept_y - now_y)
        return part.evolve(shape=shape, x=part.x + shift_x, y=part.y + shift_y)


def _in_proportion(
    old_width: float, old_height: float, width: float, height: float, side_x: int, side_y: int
) -> tuple[float, float]:
    across, down = width / old_width, height / old_height
    if not side_x:
        factor = down
    elif not side_y:
        factor = across
    else:
        factor = max(across, down)
    return max(SMALLEST_PX, old_width * factor), max(SMALLEST_PX, old_height * factor)


class Turn(Edit):
    """A part turned to an angle; ``constrained`` goes in steps of 15°."""

    kind: Literal["turn"] = "turn"
    part: Id
    degrees: Annotated[float, Field(ge=-36000, le=36000)]
    constrained: bool = False

    def apply(self, control: Control, around: Surroundings) -> Control:
        angle = round(self.degrees / 15) * 15.0 if self.constrained else self.degrees
        return each_part(control, [self.part], lambda p: p.evolve(rotation=angle % 360))

    def label(self, control: Control) -> str:
        return f"Turned {names_of(control, [self.part])}"


class CentreParts(Edit):
    """Parts put on the canvas's centre, across, down or both; each by its own frame."""

    kind: Literal["centre"] = "centre"
    parts: Ids
    across: bool = True
    down: bool = True

    def apply(self, control: Control, around: Surroundings) -> Control:
        canvas = control.canvas

        def centred(part: Part) -> Part:
            frame = part.shape.frame()
            x = canvas.width / 2 - (frame.left + frame.right) / 2 if self.across else part.x
            y = canvas.height / 2 - (frame.top + frame.bottom) / 2 if self.down else part.y
            return part.evolve(x=x, y=y)

        return each_part(control, self.parts, centred)

    def label(self, control: Control) -> str:
        ways = [word for word, on in (("across", self.across), ("down", self.down)) if on]
        return f"Centred {names_of(control, self.parts)} {' and '.join(ways)}"


class RemoveParts(Edit):
    """Parts taken out."""

    kind: Literal["remove"] = "remove"
    parts: Ids

    def apply(self, control: Control, around: Surroundings) -> Control:
        each_part(control, self.parts, lambda part: part)
        return control.evolve(parts=tuple(p for p in control.parts if p.id not in self.parts))

    def label(self, control: Control) -> str:
        return f"Removed {names_of(control, self.parts)}"


class DuplicateParts(Edit):
    """Copies put right in front of their originals, moved by (dx, dy)."""

    kind: Literal["duplicate"] = "duplicate"
    parts: Ids
    dx: Signed = 0.0
    dy: Signed = 0.0
    constrained: bool = False

    def apply(self, control: Control, around: Surroundings) -> Control:
        dx, dy = self.dx, self.dy
        if self.constrained:
            dx, dy = (dx, 0.0) if abs(dx) >= abs(dy) else (0.0, dy)
        for part_id in self.parts:
            part = part_of(control, part_id)
            copy = part.evolve(name=fresh_name(control, part.name), x=part.x + dx, y=part.y + dy, locked=False)
            control = add_parts(control, [copy], control.parts.index(part) + 1)
        return control

    def label(self, control: Control) -> str:
        return f"Duplicated {names_of(control, self.parts)}"


class PasteParts(Edit):
    """Parts from this or another control put in at the place they had, in front of all."""

    kind: Literal["paste"] = "paste"
    parts: Annotated[tuple[Part, ...], Field(min_length=1, max_length=1000)]

    def apply(self, control: Control, around: Surroundings) -> Control:
        for part in self.parts:
            control = add_parts(control, [part.evolve(name=fresh_name(control, part.name))])
        return control

    def label(self, control: Control) -> str:
        return f"Pasted {self.parts[0].name if len(self.parts) == 1 else f'{len(self.parts)} parts'}"


class ReorderPart(Edit):
    """A part moved to a place in paint order, 0 at the back."""

    kind: Literal["reorder"] = "reorder"
    part: Id
    to: Annotated[int, Field(ge=0)]

    def apply(self, control: Control, around: Surroundings) -> Control:
        part = part_of(control, self.part)
        others = [p for p in control.parts if p.id != self.part]
        to = min(self.to, len(others))
        return control.evolve(parts=(*others[:to], part, *others[to:]))

    def label(self, control: Control) -> str:
        return f"Moved {names_of(control, [self.part])} to another place in the order"


class CanvasEdges(Edit):
    """Canvas edges moved outwards by px; the art stays where it is on the stage."""

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
        width = round(control.canvas.width + left + right)
        height = round(control.canvas.height + top + bottom)
        if width < 1 or height < 1:
            raise Refused("A canvas is at least 1 px wide and high.")
        canvas = control.canvas.evolve(width=float(width), height=float(height))
        dx, dy = round(left), round(top)
        parts = tuple(p.evolve(x=p.x + dx, y=p.y + dy) if dx or dy else p for p in control.parts)
        return control.evolve(canvas=canvas, parts=parts)

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
