"""The light an effect stands in: the key light, or one of its own."""

from __future__ import annotations

import math
from typing import Self

from pydantic import Field

from obrell.core.effects.base import Effect, Lamp
from obrell.core.geometry.plane import direction, opposite
from obrell.core.shapes.base import Sentence, Slot, Words
from obrell.core.values.fields import Angle, Elevation


class Lit(Effect):
    """Base of the effects that light falls on."""

    follow: bool = Field(True, title="follow light")
    direction: Angle = Field(0.0, title="light from")
    elevation: Elevation = Field(40.0, title="light's height")

    def lamp(self, key: Lamp) -> Lamp:
        """The light that falls on it."""
        return key if self.follow else Lamp(self.direction, self.elevation)

    def light_path(self) -> str:
        return "follow"

    def hidden_fields(self) -> tuple[str, ...]:
        return ("direction", "elevation") if self.follow else ()

    def pressed(self, light: float) -> Self:
        return self.evolve(follow=False, direction=opposite(light if self.follow else self.direction))

    def light_said(self) -> Sentence:
        """Where the light comes from, when it is not the key light."""
        return () if self.follow else (Words(", light from "), Slot("direction"))


def towards(lamp: Lamp) -> tuple[float, float, float]:
    """The unit vector to a light: x right, y down, z towards the eye (``rendering.md``, Formulas)."""
    x, y = direction(lamp.direction)
    height = math.radians(lamp.height)
    return x * math.cos(height), y * math.cos(height), math.sin(height)
