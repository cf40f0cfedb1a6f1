"""Blur: the whole part out of focus; and what lies behind it, seen through frosted glass."""

from __future__ import annotations

from typing import ClassVar, Literal

from pydantic import Field

from obrell.core.effects.base import Effect, Operation, Side, Stand, Zone
from obrell.core.raster.blur import TAIL
from obrell.core.shapes.base import Sentence, Slot, Words
from obrell.core.values.fields import Blur as Radius


class Blurred(Effect):
    """Base of both: neither paints anything of its own."""

    radius: Radius = Field(4.0, title="blur")

    def operations(self, stand: Stand, side: Side) -> tuple[Operation, ...]:
        return ()

    def sentence(self) -> Sentence:
        return Words("of "), Slot("radius"), Words(", "), Slot("opacity")


class Blur(Blurred):
    """A Gaussian over the part with its shadows and all that lies in it, live."""

    label: ClassVar[str] = "Blur"
    rank: ClassVar[int] = 130
    zone: ClassVar[Zone] = "whole"
    strengths: ClassVar[tuple[str, ...]] = ()
    kind: Literal["blur"] = "blur"

    @property
    def deviation(self) -> float:
        return self.radius / 2 * self.opacity

    def reach(self, light: float) -> float:
        return self.radius * TAIL


class BackdropBlur(Blurred):
    """A Gaussian over what lies behind the part, seen inside its shape."""

    label: ClassVar[str] = "Backdrop blur"
    rank: ClassVar[int] = 120
    zone: ClassVar[Zone] = "behind"
    kind: Literal["backdrop-blur"] = "backdrop-blur"
    radius: Radius = Field(8.0, title="blur")

    @property
    def frosting(self) -> float:
        return self.radius / 2

    def reach(self, light: float) -> float:
        return 0.0
