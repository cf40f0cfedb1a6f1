"""What drop shadow and inner shadow share: where they fall, how soft, what colour."""

from __future__ import annotations

import math
from typing import Self

import numpy as np
from pydantic import Field

from obrell.core.effects.base import Effect, Operation
from obrell.core.effects.offsets import Cast, Offset, Shift
from obrell.core.effects.tones import Tone, tone_pictures, tone_table
from obrell.core.geometry.svgdata import number
from obrell.core.paint.areas import Area, Toned
from obrell.core.paint.lookup import Lookup
from obrell.core.paint.sources import Flat
from obrell.core.raster.blur import TAIL
from obrell.core.shapes.base import Sentence, Slot, Words
from obrell.core.values.colours import Colour
from obrell.core.values.curves import Curve, Table
from obrell.core.values.fields import Blur, Signed


class Shadow(Effect):
    """The shape, grown by ``spread``, moved and blurred; the falloff maps how much of it is there."""

    offset: Offset = Field(default_factory=Cast, title="falls")
    blur: Blur = Field(4.0, title="blur")
    spread: Signed = Field(0.0, title="spread")
    falloff: Tone = Field("straight", title="falloff")
    drawn_falloff: Curve = Field(default_factory=Curve, title="drawn falloff")
    colour: Colour = Field("#10222a", title="colour")

    def fitted_to(self, x: float, y: float) -> Self:
        return self.evolve(offset=Shift())

    def light_path(self) -> str:
        return "offset/follow" if isinstance(self.offset, Cast) else ""

    def flipped(self, *, across: bool) -> Self:
        return self.evolve(offset=self.offset.flipped(across=across))

    def hidden_fields(self) -> tuple[str, ...]:
        return () if self.falloff == "drawn" else ("drawn_falloff",)

    def pictures(self, field: str) -> dict[str, Table]:
        return tone_pictures(self.drawn_falloff) if field == "falloff" else {}

    def cast(self, area: Area) -> tuple[Operation, ...]:
        """The blurred area through the falloff."""
        toned = area if self.falloff == "straight" else Toned(area, self._table())
        return (Operation(toned, Flat(str(self.colour)), self.opacity, self.blend),)

    def _table(self) -> Lookup:
        """The falloff, moved so that nothing is painted where there is no shadow."""
        table = tone_table(self.falloff, self.drawn_falloff)
        return Lookup(np.asarray(np.clip((table - table[0]) / max(1e-6, 1 - table[0]), 0, 1), np.float32))

    def reach(self, light: float) -> float:
        fall = math.hypot(*self.offset.vector(light))
        return max(0.0, fall + self.blur * TAIL + self.spread)

    def sentence(self) -> Sentence:
        if isinstance(self.offset, Cast) and self.offset.follow:
            falls: Sentence = (Words("from the light by "), Slot("offset/distance"))
        elif isinstance(self.offset, Cast):
            falls = (
                Words("from "),
                Slot("offset/direction"),
                Words(" by "),
                Slot("offset/distance"),
                Words(" to {} across, {} down".format(*(number(round(one, 1)) for one in self.offset.vector(0.0)))),
            )
        else:
            falls = (Slot("offset/across"), Words(" across, "), Slot("offset/down"), Words(" down"))
        return (
            *falls, Words(", blur "), Slot("blur"),
            Words(", "), Slot("colour"), Words(" "), Slot("opacity"),
        )  # fmt: skip
