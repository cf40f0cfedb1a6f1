"""Icon: one of the shipped icons, its lines as wide as asked."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from obrell.core.geometry.affine import Affine
from obrell.core.geometry.combine import stroked
from obrell.core.geometry.knots import Bend, draw_contour, knots_of
from obrell.core.geometry.paths import Path, PathBuilder
from obrell.core.geometry.pens import Pen
from obrell.core.geometry.plane import Rect
from obrell.core.geometry.svgdata import read_path_data
from obrell.core.icons import GRID, icon_paths
from obrell.core.shapes.base import INK, Sentence, Shape, Slot, Tool, Words
from obrell.core.shapes.outlined import Outlined, contours_from
from obrell.core.values.fields import Size
from obrell.core.workspace import remembered


class Icon(Shape):
    """Centred on the part's place; its grid fills width × height."""

    label: ClassVar[str] = "Icon"
    rank: ClassVar[int] = 80
    tool: ClassVar[Tool | None] = Tool("Icon", "i")
    first_colour: ClassVar[str] = INK
    kind: Literal["icon"] = "icon"
    icon: Annotated[str, Field(max_length=60)] = Field("anchor", title="icon")
    width: Size = Field(24.0, title="width")
    height: Size = Field(24.0, title="height")
    line: Size = Field(2.0, title="line width")

    def path(self) -> Path:
        return _outline(self.icon, self.width, self.height, self.line)

    def frame(self) -> Rect:
        return Rect(-self.width / 2, -self.height / 2, self.width / 2, self.height / 2)

    def resized(self, width: float, height: float) -> Icon:
        return self.evolve(width=width, height=height)

    def sentence(self) -> Sentence:
        size = (Words("icon "), Slot("icon"), Words(", "), Slot("width"), Words(" × "), Slot("height"))
        return (*size, Words(", lines "), Slot("line"))

    def details(self) -> tuple[str, ...]:
        return ()

    def as_line(self) -> Outlined:
        contours = contours_from(_runs(self.icon, self.width, self.height))
        return Outlined(contours=contours, form="line", width=self.line, caps="round", joins="round")

    def suggested_name(self) -> str:
        return self.icon.replace("-", " ").capitalize()

    def problem(self) -> str:
        return "" if icon_paths(self.icon) else f"There is no icon called “{self.icon}”."


@remembered(256)
def _outline(name: str, width: float, height: float, line: float) -> Path:
    pen = PathBuilder()
    for closed, bends in _runs(name, width, height):
        draw_contour(pen, bends, closed=closed)
    return stroked(pen.path(), Pen(line, "round", "round"))


def _runs(name: str, width: float, height: float) -> Iterator[tuple[bool, list[Bend]]]:
    """The knots of its lines, around its place."""
    scale = Affine(a=width / GRID, d=height / GRID, e=-width / 2, f=-height / 2)
    for data in icon_paths(name):
        for closed, bends in knots_of(read_path_data(data)):
            yield closed, [bend.carried(scale) for bend in bends]
