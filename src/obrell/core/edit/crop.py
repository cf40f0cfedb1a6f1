"""Cutting a picture part smaller by its handles, or letting more of it be seen again."""

from __future__ import annotations

from typing import Literal

from obrell.core.document.cropping import cropped, cut_of
from obrell.core.document.model import Control, Part
from obrell.core.document.moving import way_of
from obrell.core.document.tree import arranged
from obrell.core.edit.base import Edit, Surroundings, each_part, names_of, part_of
from obrell.core.errors import Refused
from obrell.core.shapes import Picture
from obrell.core.values.fields import Id, Place


class Crop(Edit):
    """A side or corner of a picture's frame, named as in ``Resize``, pulled by (dx, dy) logical px over the picture,
    which stays where it lies. No side leaves the picture."""

    kind: Literal["crop"] = "crop"
    part: Id
    handle: Literal["n", "ne", "e", "se", "s", "sw", "w", "nw"]
    dx: Place
    dy: Place

    def apply(self, control: Control, around: Surroundings) -> Control:
        part_of(control, self.part)
        cut = self._cropped(arranged(control).all[self.part].part)
        return each_part(control, [self.part], lambda _: cut)

    def label(self, control: Control) -> str:
        return f"Cropped {names_of(control, [self.part])}"

    def _cropped(self, part: Part) -> Part:
        if not isinstance(part.shape, Picture):
            raise Refused("Only a picture is cropped; a picture as a fill is cut by the numbers in its row.")
        across, down = way_of(part).undo(self.dx, self.dy)
        pulls = [across if "w" in self.handle else 0.0, down if "n" in self.handle else 0.0,
                 across if "e" in self.handle else 0.0, down if "s" in self.handle else 0.0]  # fmt: skip
        cut = cut_of(part.shape)
        after = cut.pulled(*pulls)
        if after == cut.pulled(0.0, 0.0, 0.0, 0.0):
            raise Refused("The picture ends there.")
        return cropped(part, part.shape, after)
