"""Repeat: live copies of what lies in it."""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from obrell.core.shapes.base import INK, Sentence, Slot, Words
from obrell.core.shapes.containers import Container
from obrell.core.values.base import Value
from obrell.core.values.colours import Colour
from obrell.core.values.fields import Live, Share, Signed

MAX_COPIES = 500

Count = Annotated[int, Live("", 1, 1, 60), Field(ge=1, le=MAX_COPIES)]
Index = Annotated[int, Field(ge=0, lt=MAX_COPIES)]
Factor = Annotated[float, Live("%", 0.01, 0, 2, 100), Field(ge=0, le=10)]
Turned = Annotated[float, Live("°", 1, -360, 360), Field(ge=-360, le=360)]
Seed = Annotated[int, Live("", 1, 0, 99), Field(ge=0, le=9999)]


class Own(Value):
    """What one copy of a repeat has for itself."""

    copy_number: Index = Field(0, title="copy")
    opacity: Share = Field(1.0, title="opacity")
    width: Factor = Field(1.0, title="outline width")
    coloured: bool = Field(False, title="own colour")
    colour: Colour = INK
    across: Signed = Field(0.0, title="across")
    down: Signed = Field(0.0, title="down")


class Repeat(Container):
    """Live copies of what it holds: along a row, around the repeat's place, as rings that grow by a
    step on each side, or one mirrored left to right at the repeat's place. Spacing grows by a factor
    from copy to copy, and is irregular by a share of the step, the same for the same seed. Sizes,
    opacity and outline widths change evenly up to the last copy."""

    label: ClassVar[str] = "Repeat"
    rank: ClassVar[int] = 120
    kind: Literal["repeat"] = "repeat"
    way: Literal["row", "around", "rings", "mirrored"] = Field("row", title="way")
    count: Count = Field(5, title="copies")
    across: Signed = Field(16.0, title="across")
    down: Signed = Field(0.0, title="down")
    sweep: Turned = Field(360.0, title="over")
    turned: bool = Field(True, title="copies turn along")
    step: Signed = Field(4.0, title="step")
    growth: Factor = Field(1.0, title="spacing grows to")
    irregular: Share = Field(0.0, title="irregular")
    seed: Seed = Field(1, title="seed")
    last_size: Factor = Field(1.0, title="last size")
    last_opacity: Share = Field(1.0, title="last opacity")
    last_width: Factor = Field(1.0, title="last outline width")
    left_out: Annotated[tuple[Index, ...], Field(max_length=MAX_COPIES)] = Field((), title="left out")
    own: Annotated[tuple[Own, ...], Field(max_length=MAX_COPIES)] = ()

    def flipped(self, *, across: bool) -> Repeat:
        """The same copies in a mirror: rows run, and copies stand around, the other way."""
        own = tuple(
            one.evolve(across=-one.across) if across else one.evolve(down=-one.down) for one in self.own
        )  # fmt: skip
        way = {"across": -self.across} if across else {"down": -self.down}
        return self.evolve(sweep=-self.sweep, own=own, **way)

    def sentence(self) -> Sentence:
        copies = (Slot("count"), Words(" copies "), Slot("way"))
        match self.way:
            case "row":
                return (*copies, Words(", "), Slot("across"), Words(" across, "), Slot("down"), Words(" down"))
            case "mirrored":
                return Slot("way"), Words(" at its middle")
            case "around":
                return (*copies, Words(", over "), Slot("sweep"))
            case _:
                return (*copies, Words(", step "), Slot("step"))

    def details(self) -> tuple[str, ...]:
        if self.way == "mirrored":
            return ()
        turn = ("turned",) if self.way == "around" else ()
        seed = ("seed",) if self.irregular else ()
        return (*turn, "growth", "irregular", *seed, "last_size", "last_opacity", "last_width")
