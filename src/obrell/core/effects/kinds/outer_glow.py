"""Outer glow: light that spreads from the edge outwards."""

from __future__ import annotations

from typing import ClassVar, Literal, Self

from pydantic import Field

from obrell.core.effects.base import Operation, Side, Stand, Zone
from obrell.core.effects.glow import Glow
from obrell.core.raster.falloff import FROM_OUTSIDE
from obrell.core.values.fields import Share


class OuterGlow(Glow):
    """Fades with the exact distance from the shape."""

    label: ClassVar[str] = "Outer glow"
    rank: ClassVar[int] = 100
    zone: ClassVar[Zone] = "behind"
    kind: Literal["outer-glow"] = "outer-glow"
    opacity: Share = Field(0.7, title="strength")
    shows_through: bool = Field(False, title="shows through")

    def fitted_to(self, x: float, y: float) -> Self:
        """With a quick falloff, so that a label stays readable in front of it."""
        return self.evolve(falloff="quick")

    def reach(self, light: float) -> float:
        return self.extent

    def operations(self, stand: Stand, side: Side) -> tuple[Operation, ...]:
        return self.fading(stand, FROM_OUTSIDE, self.extent)

    @property
    def shows_through_body(self) -> bool:
        return self.shows_through
