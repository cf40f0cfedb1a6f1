"""Gloss: a reflected area with its own horizon."""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field

from obrell.core.effects.base import Operation, Side, Stand, Zone
from obrell.core.effects.grounds import taking_up
from obrell.core.effects.lit import Lit
from obrell.core.geometry.combine import combined
from obrell.core.geometry.paths import Path, PathBuilder
from obrell.core.geometry.plane import Rect, Similarity
from obrell.core.paint.areas import Area, Blurred, Filled, Inside, Within
from obrell.core.paint.sources import Fading
from obrell.core.shapes import Shape
from obrell.core.shapes.base import Sentence, Slot, Words
from obrell.core.values.colours import Colour
from obrell.core.values.fields import Blur, Length, Live, Share
from obrell.core.workspace import remembered

Form = Literal["cap", "horizon", "S-curve", "crescent", "corner to corner"]
Bend = Annotated[float, Live("%", 0.01, -0.4, 0.4, 100), Field(ge=-2, le=2)]
AIR = 2.0
"""How far the cutting area reaches over the shape, px."""


class Gloss(Lit):
    """The shape shrunk by the inset and cut at a share of its extent, counted from the lit side. It fades
    from its strength there to ``far`` of it at the cut."""

    label: ClassVar[str] = "Gloss"
    rank: ClassVar[int] = 60
    zone: ClassVar[Zone] = "surface"
    kind: Literal["gloss"] = "gloss"
    opacity: Share = Field(0.6, title="strength")
    form: Form = Field("cap", title="form")
    depth: Share = Field(0.48, title="down to")
    inset: Length = Field(2.0, title="inset")
    bend: Bend = Field(0.08, title="bent by")
    far: Share = Field(0.15, title="left at the cut")
    softness: Blur = Field(0.0, title="softness")
    colour: Colour = Field("#ffffff", title="colour")
    takes_up: Share = Field(0.0, title="tinted by the ground")

    def reach(self, light: float) -> float:
        return 0.0

    def on_ground(self, colour: str) -> Self:
        return taking_up(self, colour)

    def operations(self, stand: Stand, side: Side) -> tuple[Operation, ...]:
        area, ends = self._area(stand.shape, stand.place.own(self.lamp(stand.lamp).direction))
        path = area.transformed(stand.place)
        seen: Area = Inside(Filled(path), stand.own)
        if self.softness:
            seen = Within(Blurred(path, self.softness / 2 * stand.scale), stand.outline)
        return (
            Operation(seen, Fading(str(self.colour), ends, (1.0, self.far), stand.place), self.opacity, self.blend),
        )

    def hidden_fields(self) -> tuple[str, ...]:
        bend = ("bend",) if self.form in ("crescent", "corner to corner") else ()
        return (*bend, "elevation", *super().hidden_fields())

    def sentence(self) -> Sentence:
        return (
            Slot("form"), Words(" down to "), Slot("depth"), Words(", inset "), Slot("inset"), Words(", "),
            Slot("opacity"), *self.light_said(),
        )  # fmt: skip

    def _area(self, shape: Shape, angle: float) -> tuple[Path, tuple[tuple[float, float], tuple[float, float]]]:
        """The reflected area in the part's own space, and where its fade begins and ends."""
        return _cut(shape.parallel(-self.inset), round(angle % 360, 6), self.form, self.depth, self.bend)


@remembered(256)
def _cut(
    path: Path, angle: float, form: Form, depth: float, bend: float
) -> tuple[Path, tuple[tuple[float, float], tuple[float, float]]]:  # fmt: skip
    """Worked out with the light straight above, then turned back."""
    upright, back = Similarity(turn=-angle), Similarity(turn=angle)
    seen = path.transformed(upright)
    box = seen.bounds()
    way = (back.apply(box.centre.x, box.top), back.apply(box.centre.x, box.top + max(depth * box.height, 1e-3)))
    if not path or depth <= 0:
        return Path(), way
    if form == "crescent":
        lower = seen.transformed(Similarity(dy=depth * box.height))
        return combined("difference", (seen, lower)).transformed(back), way
    return combined("intersection", (seen, _lit_side(box, form, depth, bend))).transformed(back), way


def _lit_side(box: Rect, form: Form, depth: float, bend: float) -> Path:
    """All that lies above the cut."""
    pen, wide = PathBuilder(), box.grown(AIR)
    at, sag = box.top + depth * box.height, bend * box.width
    if form == "corner to corner":
        slant = (2 * depth - 1) * box.height
        pen.move(wide.left, wide.top)
        pen.line(wide.right, wide.top)
        pen.line(wide.right, box.top + slant)
        pen.line(wide.left, box.bottom + slant)
        pen.close()
        return pen.path()
    pen.move(wide.left, wide.top - abs(sag))
    pen.line(wide.right, wide.top - abs(sag))
    if form == "S-curve":
        middle = box.centre.x
        pen.line(wide.right, at + sag)
        pen.line(box.right, at + sag)
        pen.cubic(middle, at + sag, middle, at - sag, box.left, at - sag)
        pen.line(wide.left, at - sag)
    else:
        third = box.width / 3
        pen.line(wide.right, at)
        pen.line(box.right, at)
        pen.cubic(box.right - third, at + 4 / 3 * sag, box.left + third, at + 4 / 3 * sag, box.left, at)
        pen.line(wide.left, at)
    pen.close()
    return pen.path()
