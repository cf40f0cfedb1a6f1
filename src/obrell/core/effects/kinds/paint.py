"""Paint: the whole surface in one colour or gradient."""

from __future__ import annotations

from typing import ClassVar, Literal, Self

from pydantic import Field

from obrell.core.effects.base import Effect, Operation, Side, Stand, Zone
from obrell.core.shapes.base import Sentence, Slot, Words
from obrell.core.values.paints import Fill, Gradient, Linear, Picture, Radial, Solid, Texture, reversed_stops


class Paint(Effect):
    """A fill over the part's box, cut by its shape."""

    label: ClassVar[str] = "Paint"
    rank: ClassVar[int] = 10
    zone: ClassVar[Zone] = "surface"
    strengths: ClassVar[tuple[str, ...]] = ()
    kind: Literal["paint"] = "paint"
    fill: Fill = Field(default_factory=Solid, title="fill")

    def reach(self, light: float) -> float:
        return 0.0

    def operations(self, stand: Stand, side: Side) -> tuple[Operation, ...]:
        return (Operation(stand.whole, stand.laid(self.fill), self.opacity, self.blend),)

    def pressed(self, light: float) -> Self:
        """With the light turned: a straight gradient runs the other way, a round one is lit from the other side."""
        fill = self.fill
        if isinstance(fill, Linear):
            return self.evolve(fill=fill.evolve(stops=reversed_stops(fill.stops)))
        if isinstance(fill, Radial):
            return self.evolve(fill=fill.evolve(centre_y=1 - fill.centre_y, focus_y=-fill.focus_y))
        return self

    def sentence(self) -> Sentence:
        strength = (Words(", "), Slot("opacity"))
        match self.fill:
            case Solid():
                return (Slot("fill/kind"), Words(" "), Slot("fill/colour"), *strength)
            case Linear():
                ramp = (Slot("fill/angle"), Words(", "), Slot("fill/stops"))
                return (Slot("fill/kind"), Words(" "), *ramp, *strength)
            case Texture():
                return (
                    Slot("fill/pattern"),
                    Words(" "),
                    Slot("fill/colour"),
                    Words(" "),
                    Slot("fill/second"),
                    *strength,
                )
            case Picture():
                return (Slot("fill/kind"), Words(", "), Slot("fill/fit"), *strength)
            case _:
                return (Slot("fill/kind"), Words(", "), Slot("fill/stops"), *strength)

    @property
    def opaque(self) -> bool:
        solid = isinstance(self.fill, Solid) or (
            isinstance(self.fill, Gradient) and all(stop.opacity >= 1 for stop in self.fill.stops)
        )
        return self.visible and self.opacity >= 1 and self.blend == "normal" and solid
