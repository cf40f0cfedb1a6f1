"""Round: an ellipse; a circle when both sizes are equal."""

from __future__ import annotations

from typing import ClassVar, Literal

from pydantic import Field

from obrell.core.geometry.paths import Path
from obrell.core.geometry.pens import MITRE_LIMIT, Join
from obrell.core.geometry.rounded import ellipse
from obrell.core.shapes.base import Sentence, Slot, Tool, Words
from obrell.core.shapes.framed import Framed
from obrell.core.values.fields import Size


class Round(Framed):
    """Centred on the part's place."""

    label: ClassVar[str] = "Round"
    rank: ClassVar[int] = 20
    tool: ClassVar[Tool | None] = Tool("Round", "r")
    kind: Literal["round"] = "round"
    width: Size = Field(48.0, title="width")
    height: Size = Field(48.0, title="height")

    def path(self) -> Path:
        return ellipse(self.width, self.height)

    def spread(self, distance: float) -> Path:
        return ellipse(self.width + 2 * distance, self.height + 2 * distance)

    def parallel(self, distance: float, join: Join = "mitre", mitre: float = MITRE_LIMIT) -> Path:
        if self.width == self.height:
            return self.spread(distance)
        return super().parallel(distance, join, mitre)

    def grown_by(self, distance: float) -> Round | None:
        width, height = self.width + 2 * distance, self.height + 2 * distance
        return self.evolve(width=width, height=height) if width > 0 and height > 0 else None

    def sentence(self) -> Sentence:
        return Words("round "), Slot("width"), Words(" × "), Slot("height")
