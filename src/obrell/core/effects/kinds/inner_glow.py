"""Inner glow: light that spreads inwards from the edge, or outwards from the middle."""

from __future__ import annotations

from typing import ClassVar, Literal

from pydantic import Field

from obrell.core.effects.base import Operation, Side, Stand, Zone
from obrell.core.effects.glow import Glow
from obrell.core.raster.falloff import FROM_EDGE, FROM_MIDDLE
from obrell.core.shapes.base import Sentence, Slot, Words
from obrell.core.values.fields import Share


class InnerGlow(Glow):
    """Fades with the exact distance inside the shape."""

    label: ClassVar[str] = "Inner glow"
    rank: ClassVar[int] = 30
    zone: ClassVar[Zone] = "surface"
    kind: Literal["inner-glow"] = "inner-glow"
    opacity: Share = Field(0.6, title="strength")
    start: Literal["edge", "middle"] = Field("edge", title="from the")

    def reach(self, light: float) -> float:
        return 0.0

    def operations(self, stand: Stand, side: Side) -> tuple[Operation, ...]:
        return self.fading(stand, FROM_EDGE if self.start == "edge" else FROM_MIDDLE, 0.0)

    def sentence(self) -> Sentence:
        return (Words("from the "), Slot("start"), Words(", "), *super().sentence())
