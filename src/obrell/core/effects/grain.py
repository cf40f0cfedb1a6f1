"""Grain: fine noise that leaves the mean of the surface as it is."""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from obrell.core.effects.base import Coat, Effect, Side, Site, Zone
from obrell.core.effects.pigments import solid
from obrell.core.raster.layers import Mask
from obrell.core.shapes.base import Sentence, Slot, Words
from obrell.core.values.fields import Live, Share
from obrell.core.values.paints import Seed, Texture


class Grain(Effect):
    """Half of it lightens and half of it darkens, as much."""

    label: ClassVar[str] = "Grain"
    zone: ClassVar[Zone] = "surface"
    in_svg: ClassVar[bool] = False
    kind: Literal["grain"] = "grain"
    opacity: Share = Field(0.12, title="strength")
    scale: Annotated[float, Live("px", 0.1, 0.3, 8), Field(gt=0, le=200)] = Field(1.0, title="grain of")
    seed: Seed = Field(1, title="seed")

    def reach(self, light: float) -> float:
        return 0.0

    def coats(self, site: Site, side: Side) -> tuple[Coat, ...]:
        field = site.texture(Texture(pattern="grain", scale=self.scale, seed=self.seed), site.everywhere().box)
        above = (field.values * 2 - 1).clip(0, 1)
        below = (1 - field.values * 2).clip(0, 1)
        return (
            Coat(Mask(field.box, above), solid("#ffffff"), self.opacity, self.blend),
            Coat(Mask(field.box, below), solid("#000000"), self.opacity, self.blend),
        )

    def sentence(self) -> Sentence:
        return Words("of "), Slot("scale"), Words(", "), Slot("opacity")
