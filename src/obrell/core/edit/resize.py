"""Pulling parts larger and smaller."""

from __future__ import annotations

from collections.abc import Callable
from typing import Annotated, Literal

from pydantic import Field

from obrell.core.document.lengths import scale_lengths
from obrell.core.document.materials import extent_of
from obrell.core.document.model import Control, Part
from obrell.core.document.moving import place_of, way_of
from obrell.core.document.tree import arranged
from obrell.core.edit.base import Edit, Surroundings, each_part, names_of, part_of
from obrell.core.edit.snapping import Snap, Snapping, pulled_by, snap_point
from obrell.core.errors import Refused
from obrell.core.geometry.plane import Point, Rect
from obrell.core.shapes import Container
from obrell.core.shapes.base import SMALLEST_PX
from obrell.core.values.fields import Id, Place


class Resize(Edit):
    """A part pulled by one of its eight handles, named by side: ``n``, ``ne``, ``e`` …

    (dx, dy) is the pull in logical px. The opposite side stays, or the centre when ``centred``;
    ``constrained`` keeps the proportions. All that lies in a container is pulled along. ``effects`` scales the
    lengths of effects as the shorter side.
    """

    kind: Literal["resize"] = "resize"
    part: Id
    handle: Literal["n", "ne", "e", "se", "s", "sw", "w", "nw"]
    dx: Place
    dy: Place
    constrained: bool = False
    centred: bool = False
    effects: bool = False
    snap: Snapping | None = None

    def apply(self, control: Control, around: Surroundings) -> Control:
        part_of(control, self.part)
        part = arranged(control).all[self.part].part
        width, height = self._size(part, pulled_by(self.snaps(control)))
        held = isinstance(part_of(control, self.part).shape, Container)
        change = _stretching(part, width, height, self._kept()) if held else self._pulled(width, height)
        changed = each_part(control, [self.part], change, held=held)
        if not self.effects:
            return changed
        factor = extent_of(arranged(changed).all[self.part].part) / extent_of(part)
        return each_part(changed, [self.part], lambda one: _with_effects_scaled(one, factor), held=held)

    def snaps(self, control: Control) -> tuple[Snap, ...]:
        part = arranged(control).all[self.part].part
        if self.snap is None or part.rotation or part.mirrored:
            return ()
        (side_x, side_y), frame = self._sides(), part.shape.frame()
        x = part.x + (frame.right if side_x > 0 else frame.left) + self.dx if side_x else None
        y = part.y + (frame.bottom if side_y > 0 else frame.top) + self.dy if side_y else None
        return snap_point(control, (self.part,), x, y, self.snap)

    def label(self, control: Control) -> str:
        return f"Resized {names_of(control, [self.part])}{' with its effects' if self.effects else ''}"

    def _sides(self) -> tuple[int, int]:
        """Which way the handle pulls: -1, 0 or 1 across and down."""
        return ("e" in self.handle) - ("w" in self.handle), ("s" in self.handle) - ("n" in self.handle)

    def _kept(self) -> tuple[float, float]:
        """The place of the frame that stays, as shares across and down."""
        side_x, side_y = self._sides()
        return (0.5, 0.5) if self.centred else ((1 - side_x) / 2, (1 - side_y) / 2)

    def _size(self, part: Part, more: tuple[float, float]) -> tuple[float, float]:
        frame, (side_x, side_y) = part.shape.frame(), self._sides()
        pull_x, pull_y = way_of(part).undo(self.dx + more[0], self.dy + more[1])
        both = 2.0 if self.centred else 1.0
        width = max(SMALLEST_PX, frame.width + side_x * pull_x * both)
        height = max(SMALLEST_PX, frame.height + side_y * pull_y * both)
        if not self.constrained and not part.shape.keeps_proportions:
            return width, height
        across, down = width / (frame.width or 1), height / (frame.height or 1)
        factor = down if not side_x else across if not side_y else max(across, down)
        return max(SMALLEST_PX, frame.width * factor), max(SMALLEST_PX, frame.height * factor)

    def _pulled(self, width: float, height: float) -> Callable[[Part], Part]:
        def pulled(part: Part) -> Part:
            shape = part.shape.resized(width, height)
            if self.centred:
                return part.evolve(shape=shape)
            old, new = (_point(s.frame(), self._kept()) for s in (part.shape, shape))
            dx, dy = way_of(part).apply(old[0] - new[0], old[1] - new[1])
            return part.evolve(shape=shape, x=part.x + dx, y=part.y + dy)

        return pulled


class PullGrip(Edit):
    """A grip of a part's own kind (``Shape.grips``) taken to a place on the canvas."""

    kind: Literal["pull-grip"] = "pull-grip"
    part: Id
    grip: Annotated[str, Field(max_length=20)]
    x: Place
    y: Place
    constrained: bool = False
    centred: bool = False

    def apply(self, control: Control, around: Surroundings) -> Control:
        return each_part(control, [self.part], self._pulled)

    def label(self, control: Control) -> str:
        part = part_of(control, self.part)
        words = next((grip.words for grip in part.shape.grips() if grip.name == self.grip), "a grip")
        return f"Pulled {words} of {part.name}"

    def _pulled(self, part: Part) -> Part:
        at = Point(*place_of(part).undo(self.x, self.y))
        shape = part.shape.gripped(self.grip, at, constrained=self.constrained, centred=self.centred)
        if shape is None:
            raise Refused(f"“{part.name}” has no such grip.")
        if shape.problem():
            raise Refused(shape.problem())
        return part.evolve(shape=shape)


def _with_effects_scaled(part: Part, factor: float) -> Part:
    return part.evolve(effects=scale_lengths(part.effects, factor, round_off=True))


def _point(frame: Rect, shares: tuple[float, float]) -> tuple[float, float]:
    return frame.left + frame.width * shares[0], frame.top + frame.height * shares[1]


def _stretching(whole: Part, width: float, height: float, kept: tuple[float, float]) -> Callable[[Part], Part]:
    """How a container and everything in it follow its frame's new size."""
    frame, place = whole.shape.frame(), place_of(whole)
    across, down = width / (frame.width or 1), height / (frame.height or 1)
    fixed_x, fixed_y = _point(frame, kept)

    def stretched(part: Part) -> Part:
        x, y = place.undo(part.x, part.y)
        x, y = place.apply(fixed_x + (x - fixed_x) * across, fixed_y + (y - fixed_y) * down)
        quarter = (part.rotation - whole.rotation) % 180 == 90
        factors = (down, across) if quarter else (across, down)
        return part.evolve(shape=part.shape.stretched(*factors), x=x, y=y)

    return stretched
