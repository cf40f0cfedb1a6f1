"""Outer glow: light that spreads from the edge outwards."""

from __future__ import annotations

from typing import ClassVar, Literal

from pydantic import Field

from obrell.core.effects.base import Coat, Side, Site, Zone
from obrell.core.effects.glow import Glow
from obrell.core.raster.falloff import FROM_OUTSIDE
from obrell.core.values.fields import Share


class OuterGlow(Glow):
    """Fades with the exact distance from the shape."""

    label: ClassVar[str] = "Outer glow"
    zone: ClassVar[Zone] = "behind"
    in_svg: ClassVar[bool] = False
    kind: Literal["outer-glow"] = "outer-glow"
    opacity: Share = Field(0.7, title="strength")
    shows_through: bool = Field(False, title="shows through")

    def reach(self, light: float) -> float:
        return self.extent

    def coats(self, site: Site, side: Side) -> tuple[Coat, ...]:
        if self.extent <= 0:
            return ()
        reach = self.scaled(site)
        return (self.coat(*site.faded(FROM_OUTSIDE, reach, self.table(), self.extent), reach),)

    @property
    def shows_through_body(self) -> bool:
        return self.shows_through
