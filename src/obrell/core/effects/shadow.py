"""What drop shadow and inner shadow share: where they fall, how soft, what colour."""

from __future__ import annotations

import math

from pydantic import Field

from obrell.core.effects.base import Effect
from obrell.core.effects.offsets import Cast, Offset
from obrell.core.raster.blur import TAIL
from obrell.core.shapes.base import Sentence, Slot, Words
from obrell.core.values.colours import Colour
from obrell.core.values.fields import Blur, Signed


class Shadow(Effect):
    """The shape, grown by ``spread``, moved and blurred."""

    offset: Offset = Field(default_factory=Cast, title="falls")
    blur: Blur = Field(4.0, title="blur")
    spread: Signed = Field(0.0, title="spread")
    colour: Colour = Field("#10222a", title="colour")

    def reach(self, light: float) -> float:
        fall = math.hypot(*self.offset.vector(light))
        return max(0.0, fall + self.blur * TAIL + self.spread)

    def sentence(self) -> Sentence:
        if isinstance(self.offset, Cast):
            falls: Sentence = (
                Words("from "),
                Slot("offset/direction"),
                Words(" by "),
                Slot("offset/distance"),
            )
        else:
            falls = (Slot("offset/across"), Words(" across, "), Slot("offset/down"), Words(" down"))
        return (
            *falls, Words(", blur "), Slot("blur"), Words(", "), Slot("colour"), Words(" "),
            Slot("opacity"),
        )  # fmt: skip
