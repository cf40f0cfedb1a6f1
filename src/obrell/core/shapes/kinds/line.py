"""Line: from one place to another, with caps, arrow ends and dashes."""

from __future__ import annotations

import math
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from obrell.core.geometry.combine import union
from obrell.core.geometry.paths import Path, PathBuilder, joined
from obrell.core.geometry.pens import Pen, dashes_of, problem_of_dashes, stretches
from obrell.core.geometry.plane import Point, Rect, Similarity, along_eighths, degrees_of
from obrell.core.geometry.rounded import rounded_box
from obrell.core.shapes.base import Sentence, Shape, Slot, Tool, Words, on_grid, stroke_on_grid
from obrell.core.shapes.outlined import Contour, Knot, Outlined
from obrell.core.values.fields import Length, Lengths, Live, Place, Signed, Size, Thin

ARROW_LENGTH, ARROW_WIDTH = 3.5, 3.5
"""An arrow end in widths of the line."""
MAX_DASHES = 2000

Steps = Annotated[float, Live("px", 1, 0, 40), Field(ge=0, le=4096)]


class Line(Shape):
    """From the part's place to ``across``, ``down`` of it. ``gap`` 0 is no dashes."""

    label: ClassVar[str] = "Line"
    rank: ClassVar[int] = 50
    tool: ClassVar[Tool | None] = Tool("Line", "l")
    kind: Literal["line"] = "line"
    across: Place = Field(48.0, title="across")
    down: Place = Field(0.0, title="down")
    width: Size = Field(2.0, title="line width")
    thin: Thin = Field("as typed", title="width is")
    caps: Literal["flat", "round", "square"] = Field("flat", title="caps")
    arrows: Literal["none", "start", "end", "both"] = Field("none", title="arrow at")
    dash: Length = Field(6.0, title="dash")
    gap: Steps = Field(0.0, title="gap")
    further: Lengths = Field((), title="further dashes and gaps")
    phase: Signed = Field(0.0, title="dashes begin at")

    def path(self) -> Path:
        pieces = self._pieces()
        if len(pieces) == 1:
            return pieces[0]
        whole = joined(pieces) if pieces else Path()
        return union(whole) if self.arrows != "none" or self.caps != "flat" else whole

    def box(self) -> Rect:
        return self.path().bounds()

    def frame(self) -> Rect:
        left, right = sorted((0.0, self.across))
        top, bottom = sorted((0.0, self.down))
        return Rect(left, top, right, bottom)

    def straight_sides(self) -> tuple[float, float, float, float] | None:
        if self._plain() and self._along_axis():
            box = self.box()
            return box.left, box.top, box.right, box.bottom
        return None

    def fitted(self, density: float, place: Point) -> tuple[Line, Point]:
        if not (self._plain() and self._along_axis()):
            return self, place
        if self.down == 0:
            length, x = on_grid(abs(self.across), place.x + self.across / 2, density)
            width, y = stroke_on_grid(self.width, place.y, density)
            across = math.copysign(length, self.across)
            return self.evolve(across=across, width=width), Point(x - across / 2, y)
        length, y = on_grid(abs(self.down), place.y + self.down / 2, density)
        width, x = stroke_on_grid(self.width, place.x, density)
        down = math.copysign(length, self.down)
        return self.evolve(down=down, width=width), Point(x, y - down / 2)

    def resized(self, width: float, height: float) -> Line:
        frame = self.frame()
        across = self.across * width / frame.width if frame.width else 0.0
        down = self.down * height / frame.height if frame.height else 0.0
        return self.evolve(across=across, down=down)

    @classmethod
    def drawn(
        cls, x0: float, y0: float, x1: float, y1: float, *, constrained: bool, centred: bool
    ) -> tuple[Line, Point]:  # fmt: skip
        dx, dy = (x1 - x0, y1 - y0) if (x0, y0) != (x1, y1) else (cls().across, 0.0)
        if constrained:
            dx, dy = along_eighths(dx, dy)
        if centred or (x0, y0) == (x1, y1):
            factor = 2.0 if (x0, y0) != (x1, y1) else 1.0
            return cls(across=dx * factor, down=dy * factor), Point(x0 - dx * factor / 2, y0 - dy * factor / 2)
        return cls(across=dx, down=dy), Point(x0, y0)

    def sentence(self) -> Sentence:
        way = (Words("line "), Slot("across"), Words(" across, "), Slot("down"), Words(" down, "))
        wide = Slot("width" if self.thin == "as typed" else "thin")
        return (*way, wide, Words(" wide"))

    def details(self) -> tuple[str, ...]:
        dashes = ("dash", "gap", "further", "phase") if self.dashes else ("gap",)
        thin = ("thin",) if self.thin == "as typed" else ()
        return (*thin, "caps", "arrows", *dashes)

    def at_density(self, density: float) -> Line:
        return self.evolve(width=1 / density, thin="as typed") if self.thin != "as typed" else self

    def as_line(self) -> Outlined | None:
        if self.arrows != "none":
            return None
        knots = (Knot(x=0, y=0), Knot(x=self.across, y=self.down))
        return Outlined(
            contours=(Contour(closed=False, knots=knots),), form="line", width=self.width, caps=self.caps,
            dash=self.dash, gap=self.gap, further=self.further, phase=self.phase,
        )  # fmt: skip

    @property
    def dashes(self) -> tuple[float, ...]:
        """Its pattern of dashes and gaps; empty for a whole line."""
        return dashes_of(self.dash, self.gap, self.further)

    def problem(self) -> str:
        if self.across == 0 and self.down == 0:
            return "A line needs a length: its two ends are at the same place."
        count = self._length() / sum(self.dashes) * len(self.dashes) / 2 if self.dashes else 0
        if count > MAX_DASHES:
            return f"That is more than {MAX_DASHES} dashes; make dashes or gaps longer."
        return problem_of_dashes(Pen(self.width, self.caps, dashes=self.dashes))

    def _length(self) -> float:
        return math.hypot(self.across, self.down)

    def _plain(self) -> bool:
        return self.arrows == "none" and not self.dashes

    def _along_axis(self) -> bool:
        return (self.across == 0) != (self.down == 0)

    def _pieces(self) -> list[Path]:
        """Dashes and arrow ends in order; they may overlap."""
        length = self._length()
        turn = degrees_of(self.across, self.down) - 90
        start = self._arrow() if self.arrows in ("start", "both") else 0.0
        end = length - (self._arrow() if self.arrows in ("end", "both") else 0.0)
        pieces = [self._dash(a, b).transformed(Similarity(turn=turn)) for a, b in self._stretches(start, end)]
        if self.arrows in ("start", "both"):
            pieces.append(self._head(0.0, 1.0).transformed(Similarity(turn=turn)))
        if self.arrows in ("end", "both"):
            pieces.append(self._head(length, -1.0).transformed(Similarity(turn=turn)))
        return pieces

    def _arrow(self) -> float:
        return min(ARROW_LENGTH * self.width, self._length() / (2 if self.arrows == "both" else 1))

    def _stretches(self, start: float, end: float) -> list[tuple[float, float]]:
        if end <= start:
            return []
        drawn = stretches(end - start, self.dashes, self.phase, MAX_DASHES)
        return [(start + a, start + b) for a, b in drawn]

    def _dash(self, start: float, end: float) -> Path:
        """A stretch of the line lying along the x axis."""
        half = self.width / 2
        more = 0.0 if self.caps == "flat" else half
        radius = half if self.caps == "round" else 0.0
        body = rounded_box(end - start + 2 * more, self.width, (radius,) * 4)
        return body.transformed(Similarity(dx=(start + end) / 2))

    def _head(self, tip: float, way: float) -> Path:
        pen = PathBuilder()
        back, half = tip + way * self._arrow(), ARROW_WIDTH * self.width / 2
        pen.move(tip, 0)
        pen.line(back, way * half)
        pen.line(back, -way * half)
        pen.close()
        return pen.path()
