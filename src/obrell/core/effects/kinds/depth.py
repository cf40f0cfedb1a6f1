"""Depth: the visible thickness of a body."""

from __future__ import annotations

from typing import ClassVar, Literal, Self

from pydantic import Field

from obrell.core.effects.base import Effect, Operation, Side, Stand, Zone
from obrell.core.geometry.paths import Path
from obrell.core.geometry.plane import Rect, Similarity, direction, flipped_direction
from obrell.core.geometry.sweep import swept
from obrell.core.paint.areas import Filled, Outside
from obrell.core.shapes.base import Sentence, Shape, Slot, Words
from obrell.core.values.fields import Angle, Length
from obrell.core.values.paints import Fill, Linear, Solid, Stop


class Depth(Effect):
    """The shape swept towards a direction by a distance, behind itself; its paint spans all of that."""

    label: ClassVar[str] = "Depth"
    rank: ClassVar[int] = 110
    zone: ClassVar[Zone] = "behind"
    kind: Literal["depth"] = "depth"
    direction: Angle = Field(180.0, title="towards")
    distance: Length = Field(4.0, title="by")
    fill: Fill = Field(
        default_factory=lambda: Linear(
            stops=(Stop(position=0, colour="#2a3a40"), Stop(position=1, colour="#121e22"))
        ),
        title="fill",
    )  # fmt: skip

    def reach(self, light: float) -> float:
        return self.distance + 1.0

    def operations(self, stand: Stand, side: Side) -> tuple[Operation, ...]:
        path = self._path(stand.shape, stand.place)
        area = Outside(Filled(path.transformed(stand.place)), stand.own)
        return (Operation(area, stand.laid(self.fill, path.bounds()), self.opacity, self.blend),)

    def sentence(self) -> Sentence:
        colours: Sentence = (Slot("fill/kind"),)
        if isinstance(self.fill, Solid):
            colours = (Slot("fill/colour"),)
        return Words("towards "), Slot("direction"), Words(" by "), Slot("distance"), Words(", "), *colours

    def fill_box(self, shape: Shape, place: Similarity) -> Rect:
        return self._path(shape, place).bounds()

    def flipped(self, *, across: bool) -> Self:
        return self.evolve(direction=flipped_direction(self.direction, across=across))

    def _path(self, shape: Shape, place: Similarity) -> Path:
        x, y = direction(place.own(self.direction))
        return swept(shape.path(), x * self.distance, y * self.distance)
