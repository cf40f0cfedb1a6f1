"""Drawings put into a control."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from obrell.core.document.measures import bounds_of
from obrell.core.document.model import Control, Part
from obrell.core.document.moving import carried_together
from obrell.core.edit.base import Edit, Surroundings, add_parts
from obrell.core.geometry.plane import Similarity
from obrell.core.shapes import Group


class InsertParts(Edit):
    """Parts of another drawing put in as a group in the middle of the canvas, in front of all."""

    kind: Literal["insert"] = "insert"
    parts: Annotated[tuple[Part, ...], Field(min_length=1, max_length=1000)]
    name: Annotated[str, Field(min_length=1, max_length=80)] = "Drawing"

    def apply(self, control: Control, around: Surroundings) -> Control:
        loose = control.evolve(parts=self.parts, guides=())
        seen = bounds_of(loose, [part.id for part in self.parts if part.visible] or [self.parts[0].id])
        canvas = control.canvas
        by = Similarity(dx=canvas.width / 2 - seen.centre.x, dy=canvas.height / 2 - seen.centre.y)
        moved = list(carried_together(self.parts, {part.id: by for part in self.parts}))
        if len([part for part in moved if part.within is None]) > 1:
            group = Part(id="whole", name=self.name, shape=Group(), x=canvas.width / 2, y=canvas.height / 2)
            moved = [*(p if p.within else p.evolve(within="whole") for p in moved), group]
        return add_parts(control, moved)

    def label(self, control: Control) -> str:
        return f"Put in {self.name}"
