"""Picture: a kept picture in a frame of its own size, with its sides cut off by shares."""

from __future__ import annotations

from typing import ClassVar, Literal

from pydantic import Field

from obrell.core.errors import Refused
from obrell.core.files import FileId
from obrell.core.geometry.paths import Path
from obrell.core.geometry.rounded import Insets, inset_box, rounded_box
from obrell.core.shapes.base import Sentence, Slot, Tool, Words
from obrell.core.shapes.framed import Sided
from obrell.core.values import paints
from obrell.core.values.fields import Size
from obrell.core.values.paints import CutShare, cut_away


class Picture(Sided):
    """Centred on the part's place; its own colours lie below all surface effects."""

    label: ClassVar[str] = "Picture"
    rank: ClassVar[int] = 90
    tool: ClassVar[Tool | None] = Tool("Picture", "u")
    kind: Literal["picture"] = "picture"
    file: FileId
    width: Size = Field(40.0, title="width")
    height: Size = Field(40.0, title="height")
    lies: Literal["stretched", "whole", "filling"] = Field("filling", title="lies")
    cut_left: CutShare = Field(0.0, title="cut off the left")
    cut_top: CutShare = Field(0.0, title="the top")
    cut_right: CutShare = Field(0.0, title="the right")
    cut_bottom: CutShare = Field(0.0, title="the bottom")

    def problem(self) -> str:
        cut = cut_away((self.cut_left, self.cut_right), (self.cut_top, self.cut_bottom))
        return "The cuts from both sides leave nothing of the picture." if cut else ""

    def path(self) -> Path:
        return rounded_box(self.width, self.height, (0.0, 0.0, 0.0, 0.0))

    def inset(self, insets: Insets) -> Path | None:
        return inset_box(self.box(), (0.0, 0.0, 0.0, 0.0), insets)

    def ground(self) -> paints.Picture:
        if self.problem():
            raise Refused(self.problem())
        cuts = {name: getattr(self, name) for name in ("cut_left", "cut_top", "cut_right", "cut_bottom")}
        return paints.Picture(file=self.file, fit=self.lies, **cuts)

    @property
    def plain(self) -> bool:
        return False

    def sentence(self) -> Sentence:
        return Words("picture "), Slot("width"), Words(" × "), Slot("height"), Words(", "), Slot("lies")

    def details(self) -> tuple[str, ...]:
        return "cut_left", "cut_top", "cut_right", "cut_bottom"
