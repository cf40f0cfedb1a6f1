"""A tint laid over a whole control, which pictures and textures take too."""

from __future__ import annotations

from typing import Literal

from obrell.core.document.model import Control, Part
from obrell.core.document.numbering import next_number
from obrell.core.edit.base import Edit, Surroundings
from obrell.core.edit.containers import GroupParts
from obrell.core.effects import Paint
from obrell.core.errors import Refused
from obrell.core.shapes import Box
from obrell.core.values.colours import Colour
from obrell.core.values.fields import Share
from obrell.core.values.paints import Solid

NAME, ART = "Tint from above", "Art"


class TintFromAbove(Edit):
    """A part over all others, of the canvas's size and cut by their shapes, that gives what is below its colour;
    shadows and glows beyond those stay as they are, because more paint would make them denser. It is laid in the
    ``hue`` or the ``color`` blend mode (W3C Compositing and Blending 1, section 10.2), so ``strong``."""

    kind: Literal["tint-from-above"] = "tint-from-above"
    colour: Colour
    mode: Literal["hue", "color"] = "color"
    strong: Share = 0.8

    def apply(self, control: Control, around: Surroundings) -> Control:
        outer = [part for part in control.parts if part.within is None and part.name != NAME]
        if not outer:
            raise Refused("There is nothing to tint yet.")
        kept = control.evolve(parts=tuple(part for part in control.parts if part.name != NAME))
        art = outer[0].id
        if len(outer) > 1:
            kept = GroupParts(parts=tuple(part.id for part in outer)).apply(kept, around)
            group = next(part for part in kept.parts if part.id not in {one.id for one in control.parts})
            art = group.id
            named = group.evolve(name=ART)
            kept = kept.evolve(parts=tuple(named if part is group else part for part in kept.parts))
        return self._with_tint(kept, art)

    def _with_tint(self, control: Control, art: str) -> Control:
        number, canvas = next_number(control), control.canvas
        tint = Part(
            id=f"p{number}", name=NAME, shape=Box(width=canvas.width, height=canvas.height), x=canvas.width / 2,
            y=canvas.height / 2, opacity=self.strong, blend=self.mode,
            clip=art, effects=(Paint(id=f"e{number + 1}", fill=Solid(colour=self.colour)),),
        )  # fmt: skip
        return control.evolve(parts=(*control.parts, tint), next_number=number + 2)

    def label(self, control: Control) -> str:
        return "Tinted from above"
