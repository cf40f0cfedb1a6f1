"""Where a control is touched."""

from __future__ import annotations

from typing import Literal

from obrell.core.document.model import Control
from obrell.core.document.moving import place_of
from obrell.core.edit.base import Edit, Surroundings, part_of
from obrell.core.errors import Refused
from obrell.core.geometry.svgdata import path_data
from obrell.core.values.fields import PartId
from obrell.core.values.touches import MAX_OUTLINE_TEXT, TouchesOutline


class TouchAs(Edit):
    """The control touched where a part lies now; it stays so when the part is moved or removed."""

    kind: Literal["touch-as"] = "touch-as"
    part: PartId

    def apply(self, control: Control, around: Surroundings) -> Control:
        part = part_of(control, self.part)
        data = path_data(part.shape.path().transformed(place_of(part)))
        if not data:
            raise Refused(f"“{part.name}” has no outline of its own.")
        if len(data) > MAX_OUTLINE_TEXT:
            raise Refused(f"The outline of “{part.name}” is too intricate for a touch area. Use a simpler one.")
        return control.evolve(touch=TouchesOutline(data=data))

    def label(self, control: Control) -> str:
        return f"Touched where {part_of(control, self.part).name} lies"
