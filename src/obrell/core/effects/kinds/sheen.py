"""Sheen: broad light and dark folds made from the part's own shape."""

from __future__ import annotations

from typing import ClassVar, Literal

from pydantic import Field

from obrell.core.effects.base import Operation, Side, Stand, Zone
from obrell.core.effects.lit import Lit
from obrell.core.effects.tones import Tone, tone_pictures, tone_table
from obrell.core.geometry.plane import direction
from obrell.core.paint.areas import Area, Folds, Inverse, Toned, Within
from obrell.core.paint.lookup import Lookup
from obrell.core.paint.sources import Flat
from obrell.core.shapes.base import Sentence, Slot, Words
from obrell.core.values.colours import Colour
from obrell.core.values.curves import Curve, Table
from obrell.core.values.fields import Blur, Length, Share


class Sheen(Lit):
    """The shape moved both ways along the light and blurred; the square of what both differ by, through a
    tonal curve (``rendering.md``, Formulas)."""

    label: ClassVar[str] = "Sheen"
    rank: ClassVar[int] = 50
    zone: ClassVar[Zone] = "surface"
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

    def operations(self, stand: Stand, side: Side) -> tuple[Operation, ...]:
        x, y = direction(self.lamp(stand.lamp).direction)
        one, other = (stand.fallen(way * x * self.distance, way * y * self.distance, self.blur) for way in (1, -1))
        folds: Area = Toned(Folds(one, other), Lookup(tone_table(self.tone, self.drawn_tone)))
        seen = Within(Inverse(folds) if self.inverted else folds, stand.outline)
        return (Operation(seen, Flat(str(self.colour)), self.opacity, self.blend),)

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
