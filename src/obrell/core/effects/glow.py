"""What outer and inner glow share: reach, falloff, one colour or a ramp over the reach."""

from __future__ import annotations

from typing import Annotated, Literal

import numpy as np
from pydantic import Field

from obrell.core.effects.base import Effect, Operation, Stand
from obrell.core.paint.areas import Constant, Faded
from obrell.core.paint.lookup import Lookup
from obrell.core.paint.sources import Flat, Ramped, Source
from obrell.core.shapes.base import Sentence, Slot, Words
from obrell.core.values.curves import Curve, Table, curve
from obrell.core.values.fields import Length
from obrell.core.values.paints import Gradient, Ramp, Solid

Falloff = Literal["soft", "even", "quick", "drawn"]
AT = np.linspace(0.0, 1.0, 1025)
FALLOFFS: dict[str, Table] = {
    "even": AT.astype(np.float32), "soft": (AT * AT * (3 - 2 * AT)).astype(np.float32),
    "quick": (AT * AT).astype(np.float32),
}  # fmt: skip
"""f of ``rendering.md``, Formulas, as tables from 0 to 1."""


class Glow(Effect):
    """``fill`` is one colour, or a ramp that begins where the glow does."""

    extent: Length = Field(10.0, title="reaches")
    falloff: Falloff = Field("soft", title="falloff")
    drawn: Curve = Field(default_factory=lambda: curve((0, 0), (0.5, 0.3), (1, 1)), title="drawn falloff")
    fill: Annotated[Solid | Ramp, Field(discriminator="kind")] = Field(
        default_factory=lambda: Solid(colour="#ffe9b0"), title="colour"
    )

    def table(self) -> Table:
        """The falloff's values."""
        return self.drawn.table() if self.falloff == "drawn" else FALLOFFS[self.falloff]

    def fading(self, stand: Stand, way: int, outwards: float) -> tuple[Operation, ...]:
        """What it paints from an edge on; nothing when it reaches nowhere."""
        if self.extent <= 0:
            return ()
        reach = max(self.extent * stand.scale, 1e-6)
        field = Faded(stand.outline, stand.margin(outwards), way, reach, Lookup(self.table()))
        return (Operation(field.first, self._source(field, reach), self.opacity, self.blend),)

    def _source(self, field: Faded, reach: float) -> Source:
        if isinstance(self.fill, Gradient):
            return Ramped(self.fill, field.second, Constant(1 / reach))
        return Flat(str(self.fill.colour))

    def hidden_fields(self) -> tuple[str, ...]:
        return () if self.falloff == "drawn" else ("drawn",)

    def pictures(self, field: str) -> dict[str, Table]:
        return FALLOFFS | {"drawn": self.drawn.table()} if field == "falloff" else {}

    def sentence(self) -> Sentence:
        colours: Sentence = (Slot("fill/colour"),) if isinstance(self.fill, Solid) else (Slot("fill/stops"),)
        return Slot("extent"), Words(", "), Slot("falloff"), Words(", "), *colours, Words(" "), Slot("opacity")
