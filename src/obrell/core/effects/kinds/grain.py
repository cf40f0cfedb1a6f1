"""Grain: fine noise that leaves the mean of the surface as it is."""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from obrell.core.effects.base import Effect, Operation, Side, Stand, Zone
from obrell.core.paint.areas import Stretched, Within
from obrell.core.paint.sources import Flat, textured_on
from obrell.core.shapes.base import Sentence, Slot, Words
from obrell.core.values.fields import Live, Share
from obrell.core.values.paints import Seed, Texture


class Grain(Effect):
    """Half of it lightens and half of it darkens, as much."""

    label: ClassVar[str] = "Grain"
    rank: ClassVar[int] = 70
    zone: ClassVar[Zone] = "surface"
    kind: Literal["grain"] = "grain"
    opacity: Share = Field(0.12, title="strength")
    scale: Annotated[float, Live("px", 0.1, 0.3, 8), Field(gt=0, le=200)] = Field(1.0, title="grain of")
    seed: Seed = Field(1, title="seed")

    def reach(self, light: float) -> float:
        return 0.0

    def operations(self, stand: Stand, side: Side) -> tuple[Operation, ...]:
        fill = Texture(pattern="grain", scale=self.scale, seed=self.seed)
        field = textured_on(fill, stand.box, stand.place)
        above, below = (Within(Stretched(field, 2 * way, -way), stand.outline) for way in (1, -1))
        return (
            Operation(above, Flat("#ffffff"), self.opacity, self.blend),
            Operation(below, Flat("#000000"), self.opacity, self.blend),
        )

    def sentence(self) -> Sentence:
        return Words("of "), Slot("scale"), Words(", "), Slot("opacity")
