"""Mask: a gradient or another part that says how much of the whole part is seen."""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field

from obrell.core.colour.contrast import weighed
from obrell.core.colour.spaces import from_hex, to_hex
from obrell.core.effects.base import Effect, Operation, Side, Stand, Zone
from obrell.core.shapes.base import Sentence, Slot, Words
from obrell.core.values.base import Value
from obrell.core.values.fields import PartId, Place
from obrell.core.values.paints import Linear, Radial, Stop

FADE = (Stop(position=0, colour="#ffffff"), Stop(position=1, colour="#ffffff", opacity=0))


class GradientCover(Value):
    """A gradient over the part's box; its ends are drawn out beyond it."""

    kind: Literal["gradient"] = "gradient"
    fill: Annotated[Linear | Radial, Field(discriminator="kind")] = Field(
        default_factory=lambda: Linear(stops=FADE), title="gradient"
    )


class PartCover(Value):
    """Another part as it looks, shown or hidden; nothing outside of it."""

    kind: Literal["part"] = "part"
    part: PartId | None = Field(None, title="part")


Cover = Annotated[GradientCover | PartCover, Field(discriminator="kind")]
COVER_KINDS: dict[str, type[GradientCover] | type[PartCover]] = {"gradient": GradientCover, "part": PartCover}


class Mask(Effect):
    """Masks the part as a whole, as SVG masks a group: shadows and all that lies in it too. Lightness is that
    of the premultiplied colours (CSS Masking 1, section 7.10.1). (``fitted_x``, ``fitted_y``) is the part's
    place at which the mask fits it; one that moves with the part goes as far from there as the part does."""

    label: ClassVar[str] = "Mask"
    rank: ClassVar[int] = 140
    zone: ClassVar[Zone] = "whole"
    strengths: ClassVar[tuple[str, ...]] = ()
    kind: Literal["mask"] = "mask"
    cover: Cover = Field(default_factory=GradientCover, title="masked by")
    measure: Literal["opacity", "lightness"] = Field("opacity", title="its")
    inverted: bool = Field(False, title="inverted")
    moves: bool = Field(True, title="moves with the part")
    fitted_x: Place = 0.0
    fitted_y: Place = 0.0

    def reach(self, light: float) -> float:
        return 0.0

    def operations(self, stand: Stand, side: Side) -> tuple[Operation, ...]:
        return ()

    def hidden_fields(self) -> tuple[str, ...]:
        return ("blend",)

    def fitted_to(self, x: float, y: float) -> Self:
        return self.evolve(fitted_x=x, fitted_y=y)

    def measured_by(self, measure: Literal["opacity", "lightness"]) -> Self:
        """Return the mask with another measure, the stops of its gradient changed so that it masks as before."""
        cover = self.cover
        if measure != self.measure and isinstance(cover, GradientCover):
            changed = _as_lightness if measure == "lightness" else _as_opacity
            stops = tuple(map(changed, cover.fill.stops))
            cover = cover.evolve(fill=cover.fill.evolve(stops=stops))
        return self.evolve(measure=measure, cover=cover)

    def shift(self, x: float, y: float) -> tuple[float, float]:
        """How far the cover is moved when the part stands at (x, y): a gradient from the part's box,
        another part from where it lies."""
        away = (x - self.fitted_x, y - self.fitted_y)
        if isinstance(self.cover, PartCover):
            return away if self.moves else (0.0, 0.0)
        return (0.0, 0.0) if self.moves else (-away[0], -away[1])

    def sentence(self) -> Sentence:
        by: Sentence = (Words(" "), Slot("cover/part"))
        if isinstance(self.cover, GradientCover):
            by = (Words(" "), Slot("cover/fill/kind"))
        return Words("by "), Slot("cover/kind"), *by, Words(", its "), Slot("measure")


def _as_lightness(stop: Stop) -> Stop:
    return stop.evolve(colour=to_hex((stop.opacity, stop.opacity, stop.opacity)), opacity=1.0)


def _as_opacity(stop: Stop) -> Stop:
    if not isinstance(stop.colour, str):
        return stop
    return stop.evolve(colour="#ffffff", opacity=min(1.0, weighed(from_hex(stop.colour)) * stop.opacity))


def cover_of_kind(kind: str) -> GradientCover | PartCover:
    """A cover with its usual values."""
    return COVER_KINDS[kind]()
