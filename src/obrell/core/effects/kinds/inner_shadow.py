"""Inner shadow: the shadow of the shape's outside, seen inside."""

from __future__ import annotations

from typing import ClassVar, Literal, Self

from pydantic import Field

from obrell.core.effects.base import Operation, Side, Stand, Zone
from obrell.core.effects.grounds import taking_up
from obrell.core.effects.shadow import Shadow
from obrell.core.paint.areas import Inverse, Within
from obrell.core.values.fields import Share


class InnerShadow(Shadow):
    """Spread makes the shadow thicker; a negative one thinner."""

    label: ClassVar[str] = "Inner shadow"
    rank: ClassVar[int] = 20
    zone: ClassVar[Zone] = "surface"
    kind: Literal["inner-shadow"] = "inner-shadow"
    opacity: Share = Field(0.5, title="strength")
    takes_up: Share = Field(0.0, title="tinted by the ground")

    def reach(self, light: float) -> float:
        return 0.0

    def on_ground(self, colour: str) -> Self:
        return taking_up(self, colour)

    def pressed(self, light: float) -> Self:
        return self.evolve(offset=self.offset.opposite(light))

    def operations(self, stand: Stand, side: Side) -> tuple[Operation, ...]:
        spread = self.spread if self.blur else stand.stroke(self.spread)
        hole = stand.fallen(*self.offset.vector(stand.lamp.direction), self.blur, -spread)
        return self.cast(Within(Inverse(hole), stand.outline))
