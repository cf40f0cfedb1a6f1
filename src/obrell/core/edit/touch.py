"""Where a control is touched."""

from __future__ import annotations

from typing import Literal

from obrell.core.document.model import Control
from obrell.core.document.moving import place_of
from obrell.core.document.touching import body_outline
from obrell.core.edit.base import Edit, Surroundings, part_of
from obrell.core.errors import Refused
from obrell.core.geometry.plane import Rect
from obrell.core.geometry.svgdata import path_data
from obrell.core.values.fields import PartId
from obrell.core.values.touches import MAX_OUTLINE_TEXT, TouchesBody, TouchesBox, TouchesOutline, TouchesRound

GROWN_PX = 8.0
"""How far beyond the body a touch area begins."""


class BeginTouch(Edit):
    """A touch area somewhat larger than the body, or than the canvas where there is none: grown from it, or a box or a
    round about it."""

    kind: Literal["begin-touch"] = "begin-touch"
    form: Literal["body", "box", "round"]

    def apply(self, control: Control, around: Surroundings) -> Control:
        return control.evolve(touch=self._begun(control))

    def _begun(self, control: Control) -> TouchesBody | TouchesBox | TouchesRound:
        if self.form == "body":
            return TouchesBody(by=GROWN_PX)
        box, canvas = body_outline(control).bounds(), control.canvas
        whole = Rect(0, 0, canvas.width, canvas.height) if box.empty else box.grown(GROWN_PX)
        place = {
            "x": round(whole.centre.x, 2), "y": round(whole.centre.y, 2),
            "width": round(whole.width, 2), "height": round(whole.height, 2),
        }  # fmt: skip
        return TouchesBox(**place) if self.form == "box" else TouchesRound(**place)

    def label(self, control: Control) -> str:
        return {"body": "Touched beyond its body", "box": "Touched in a box", "round": "Touched in a round"}[self.form]


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
