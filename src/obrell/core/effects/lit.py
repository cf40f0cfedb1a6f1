"""The light an effect stands in: the key light, or one of its own."""

from __future__ import annotations

import math
from typing import Self

from pydantic import Field

from obrell.core.effects.base import Effect, Lamp
from obrell.core.effects.mirrors import Mirrored, flipped_once, seen_from
from obrell.core.geometry.plane import direction, flipped_direction, opposite
from obrell.core.shapes.base import Sentence, Slot, Words
from obrell.core.values.fields import Angle, Elevation


class Lit(Effect):
    """Base of the effects that light falls on."""

    follow: bool = Field(True, title="follow light")
    direction: Angle = Field(0.0, title="light from")
    elevation: Elevation = Field(40.0, title="light's height")
    mirrored: Mirrored = Field("no", title="light mirrored")
    """How the light it follows reaches it, after it was flipped."""

    def lamp(self, key: Lamp) -> Lamp:
        """The light that falls on it."""
        if not self.follow:
            return Lamp(self.direction, self.elevation)
        return Lamp(seen_from(key.direction, self.mirrored), key.height)

    def flipped(self, *, across: bool) -> Self:
        if self.follow:
            return self.evolve(mirrored=flipped_once(self.mirrored, across=across))
        return self.evolve(direction=flipped_direction(self.direction, across=across))

    def light_path(self) -> str:
        return "follow"

    def hidden_fields(self) -> tuple[str, ...]:
        if not self.follow:
            return ("mirrored",)
        return ("direction", "elevation", *(("mirrored",) if self.mirrored == "no" else ()))

    def pressed(self, light: float) -> Self:
        seen = seen_from(light, self.mirrored) if self.follow else self.direction
        return self.evolve(follow=False, direction=opposite(seen))

    def light_said(self) -> Sentence:
        """Where the light comes from, when it is not the key light."""
        return () if self.follow else (Words(", light from "), Slot("direction"))


def towards(lamp: Lamp) -> tuple[float, float, float]:
    """The unit vector to a light: x right, y down, z towards the eye (``rendering.md``, Formulas)."""
    x, y = direction(lamp.direction)
    height = math.radians(lamp.height)
    return x * math.cos(height), y * math.cos(height), math.sin(height)
