"""Drop shadow: behind the part, cut out under it unless it shows through."""

from __future__ import annotations

from typing import ClassVar, Literal, Self

from pydantic import Field

from obrell.core.effects.base import Operation, Side, Stand, Zone
from obrell.core.effects.offsets import shorter
from obrell.core.effects.shadow import Shadow
from obrell.core.values.fields import Share

PRESSED_SHARE = 0.4
"""What is left of its distance and blur under a part that is pressed."""


class DropShadow(Shadow):
    """Spread grows the shadow; a negative one shrinks it."""

    label: ClassVar[str] = "Drop shadow"
    rank: ClassVar[int] = 90
    zone: ClassVar[Zone] = "behind"
    kind: Literal["drop-shadow"] = "drop-shadow"
    opacity: Share = Field(0.4, title="strength")
    shows_through: bool = Field(False, title="shows through")

    def operations(self, stand: Stand, side: Side) -> tuple[Operation, ...]:
        spread = self.spread if self.blur else stand.stroke(self.spread)
        return self.cast(stand.fallen(*self.offset.vector(stand.lamp.direction), self.blur, spread))

    def pressed(self, light: float) -> Self:
        return self.evolve(offset=self.offset.shortened(PRESSED_SHARE), blur=shorter(self.blur, PRESSED_SHARE))

    @property
    def shows_through_body(self) -> bool:
        return self.shows_through
