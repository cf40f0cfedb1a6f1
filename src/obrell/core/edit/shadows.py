"""Where a shadow falls, set on the art."""

from __future__ import annotations

from typing import Literal

from obrell.core.document.measures import frame_on_canvas
from obrell.core.document.model import Control
from obrell.core.document.tree import arranged
from obrell.core.edit.base import Edit, Surroundings, effect_of, part_of
from obrell.core.edit.values import Change, SetValues
from obrell.core.effects.shadow import Shadow
from obrell.core.errors import Refused
from obrell.core.values.fields import Id, Place


class MoveShadow(Edit):
    """A shadow falls so that the middle of its part would lie at a place on the canvas; ``steps`` keeps it to steps of
    15°, or to one axis. One that follows the light stays on its line."""

    kind: Literal["move-shadow"] = "move-shadow"
    part: Id
    effect: Id
    x: Place
    y: Place
    steps: bool = False

    def apply(self, control: Control, around: Surroundings) -> Control:
        shadow = effect_of(part_of(control, self.part), self.effect)
        if not isinstance(shadow, Shadow):
            raise Refused(f"“{shadow.heading}” does not fall anywhere: only a shadow does.")
        middle = frame_on_canvas(arranged(control).all[self.part].part).centre
        across, down = self.x - middle.x, self.y - middle.y
        falls = shadow.offset.falling(across, down, around.light_of(control), steps=self.steps)
        base = f"parts/{self.part}/effects/{self.effect}/offset"
        values = {name: value for name, value in falls if value != getattr(shadow.offset, name)}
        changes = tuple(Change(path=f"{base}/{name}", value=value) for name, value in values.items())
        return SetValues(changes=changes).apply(control, around) if changes else control

    def label(self, control: Control) -> str:
        part = part_of(control, self.part)
        return f"Moved the {effect_of(part, self.effect).said} of {part.name}"
