"""Sheen: broad light and dark folds made from the part's own shape."""

from __future__ import annotations

from typing import ClassVar, Literal

import numpy as np
from pydantic import Field

from obrell.core.effects.base import Coat, Side, Site, Zone
from obrell.core.effects.lit import Lit
from obrell.core.effects.pigments import solid
from obrell.core.effects.tones import Tone, tone_pictures, tone_table
from obrell.core.geometry.plane import Similarity, direction
from obrell.core.raster.falloff import toned
from obrell.core.raster.layers import Mask
from obrell.core.shapes.base import Sentence, Slot, Words
from obrell.core.values.colours import Colour
from obrell.core.values.curves import Curve, Table
from obrell.core.values.fields import Blur, Length, Share


class Sheen(Lit):
    """The shape moved both ways along the light and blurred; the square of what both differ by, through a
    tonal curve (``rendering.md``, Formulas)."""

    label: ClassVar[str] = "Sheen"
    zone: ClassVar[Zone] = "surface"
    in_svg: ClassVar[bool] = False
    kind: Literal["sheen"] = "sheen"
    opacity: Share = Field(0.5, title="strength")
    distance: Length = Field(8.0, title="by")
    blur: Blur = Field(10.0, title="blur")
    tone: Tone = Field("straight", title="tones")
    drawn_tone: Curve = Field(default_factory=Curve, title="drawn tones")
    inverted: bool = Field(False, title="inverted")
    colour: Colour = Field("#ffffff", title="colour")

    def reach(self, light: float) -> float:
        return 0.0

    def coats(self, site: Site, side: Side) -> tuple[Coat, ...]:
        x, y = direction(self.lamp(site.lamp).direction)
        scale = site.place.scale
        by = (x * self.distance * scale, y * self.distance * scale)
        path = site.shape.path().transformed(site.place)
        deviation = self.blur / 2 * scale
        one, other = (
            site.within(path.transformed(Similarity(dx=way * by[0], dy=way * by[1])), deviation) for way in (1, -1)
        )
        folds = np.square(one.values - other.values)
        mask = toned(Mask(one.box, folds), tone_table(self.tone, self.drawn_tone))
        if self.inverted:
            mask = Mask(one.box, 1 - mask.values)
        return (Coat(mask, solid(str(self.colour)), self.opacity, self.blend),)

    def hidden_fields(self) -> tuple[str, ...]:
        tone = () if self.tone == "drawn" else ("drawn_tone",)
        return (*tone, "elevation", *super().hidden_fields())

    def pictures(self, field: str) -> dict[str, Table]:
        return tone_pictures(self.drawn_tone) if field == "tone" else {}

    def sentence(self) -> Sentence:
        return (
            Words("by "), Slot("distance"), Words(", blur "), Slot("blur"), Words(", "), Slot("tone"), Words(", "),
            Slot("colour"), Words(" "), Slot("opacity"), *self.light_said(),
        )  # fmt: skip
