"""Ring: a band between two circles, whole or with a gap."""

from __future__ import annotations

import math
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from obrell.core.geometry.paths import Path, PathBuilder
from obrell.core.geometry.pens import MITRE_LIMIT, Join
from obrell.core.geometry.plane import Point, Rect, degrees_of, direction
from obrell.core.geometry.svgdata import number
from obrell.core.shapes.base import Grip, Sentence, Shape, Slot, Tool, Words, on_grid
from obrell.core.values.fields import Angle, Live, Size

BESIDE_DEGREES = 135.0
"""Where the inner radius of a whole ring is taken hold of, seen from where it opens."""
STEP_DEGREES = 15.0
LEAST_BAND = 0.1
"""px, of the band and of the hole."""
Sweep = Annotated[float, Live("°", 1, 1, 360), Field(gt=0, le=360)]


class Ring(Shape):
    """Centred on the part's place. Less than a whole turn runs clockwise from ``start``; round ends
    reach half a band beyond it, as round caps do."""

    label: ClassVar[str] = "Ring"
    rank: ClassVar[int] = 30
    tool: ClassVar[Tool | None] = Tool("Ring", "g")
    kind: Literal["ring"] = "ring"
    outer: Size = Field(24.0, title="outer radius")
    inner: Size = Field(18.0, title="inner radius")
    sweep: Sweep = Field(360.0, title="turn")
    start: Angle = Field(0.0, title="from")
    ends: Literal["flat", "round"] = Field("flat", title="ends")

    def path(self) -> Path:
        return _band(self.outer, self.inner, self.start, self.sweep, self.ends)

    def spread(self, distance: float) -> Path:
        return self._grown(distance) if self.sweep == 360 else super().spread(distance)

    def parallel(self, distance: float, join: Join = "mitre", mitre: float = MITRE_LIMIT) -> Path:
        return self._grown(distance) if self.sweep == 360 else super().parallel(distance, join, mitre)

    def frame(self) -> Rect:
        return Rect(-self.outer, -self.outer, self.outer, self.outer)

    def fitted(self, density: float, place: Point) -> tuple[Ring, Point]:
        across, x = on_grid(2 * self.outer, place.x, density)
        _, y = on_grid(2 * self.outer, place.y, density)
        band = self.outer - self.inner
        return self.evolve(outer=across / 2, inner=max(across / 2 - band, 1e-6)), Point(x, y)

    def resized(self, width: float, height: float) -> Ring:
        outer = max(width, height) / 2
        return self.evolve(outer=outer, inner=self.inner * outer / self.outer)

    def grown_by(self, distance: float) -> Ring | None:
        outer, inner = self.outer + distance, self.inner - distance
        return self.evolve(outer=outer, inner=inner) if self.sweep == 360 and outer > inner > 0 else None

    def as_ring(self, distance: float) -> Ring | None:
        """Return a ring of the same width a distance farther out."""
        outer, inner = self.outer + distance, self.inner + distance
        return self.evolve(outer=outer, inner=inner) if outer > inner > 0 else None

    def grips(self) -> tuple[Grip, ...]:
        whole = self.sweep == 360
        beside = self.start + (BESIDE_DEGREES if whole else self.sweep / 2)
        found = [
            Grip("inner", "inner radius", _on(self.inner, beside), f"{number(self.inner)} px"),
            Grip("end", "opens the ring" if whole else "end", _on(self._middle, self.start + self.sweep),
                 f"{number(self.sweep)}°"),
        ]  # fmt: skip
        start = Grip("start", "start", _on(self._middle, self.start), f"from {number(self.start)}°")
        return tuple(found if whole else [*found, start])

    def gripped(self, name: str, at: Point, *, constrained: bool, centred: bool) -> Ring | None:
        if name == "inner":
            far = math.hypot(at.x, at.y)
            inner = float(round(far)) if constrained else round(far, 2)
            return self.evolve(inner=min(max(inner, LEAST_BAND), self.outer - LEAST_BAND))
        step = STEP_DEGREES if constrained else 1.0
        angle = round(degrees_of(at.x, at.y) / step) * step
        if name == "end":
            return self._ended(angle, centred)
        return self._begun(angle, centred) if name == "start" else None

    def sentence(self) -> Sentence:
        size = (Words("ring, radius "), Slot("outer"), Words(" around "), Slot("inner"))
        if self.sweep == 360:
            return size
        return (*size, Words(", "), Slot("sweep"), Words(" from "), Slot("start"))

    def details(self) -> tuple[str, ...]:
        return ("sweep",) if self.sweep == 360 else ("ends",)

    def pushed(self, before: Shape) -> Ring:
        """The other radius goes along, as far from the one that was set as before, or as there is room."""
        if self.inner < self.outer or not isinstance(before, Ring):
            return self
        band = before.outer - before.inner
        if self.inner != before.inner:
            return self.evolve(outer=self.inner + band)
        return self.evolve(inner=self.outer - band if self.outer > band else self.outer / 2)

    def problem(self) -> str:
        return "" if self.inner < self.outer else "The inner radius must be less than the outer radius."

    @property
    def _middle(self) -> float:
        return (self.outer + self.inner) / 2

    def _ended(self, angle: float, centred: bool) -> Ring:
        """Up to an angle; ``centred`` the start goes as far the other way."""
        sweep = (angle - self.start) % 360 or 360.0
        if not centred:
            return self.evolve(sweep=sweep)
        middle = self.start + self.sweep / 2
        half = (angle - middle) % 360 or 360.0
        return self.evolve(start=(middle - half) % 360, sweep=min(2 * half, 360.0))

    def _begun(self, angle: float, centred: bool) -> Ring:
        """From an angle on, its end staying; ``centred`` that goes as far the other way."""
        sweep = (self.start + self.sweep - angle) % 360 or 360.0
        if not centred:
            return self.evolve(start=angle % 360, sweep=sweep)
        half = (self.start + self.sweep / 2 - angle) % 360 or 360.0
        return self.evolve(start=angle % 360, sweep=min(2 * half, 360.0))

    def _grown(self, distance: float) -> Path:
        return _band(self.outer + distance, self.inner - distance, 0.0, 360.0, "flat")


def _on(radius: float, degrees: float) -> Point:
    x, y = direction(degrees)
    return Point(radius * x, radius * y)


def _band(outer: float, inner: float, start: float, sweep: float, ends: str) -> Path:
    """Degrees clockwise from straight up; a circle without a hole when ``inner`` is not positive."""
    pen = PathBuilder()
    if outer <= inner:
        return pen.path()
    if sweep == 360:
        _circle(pen, outer, 1)
        if inner > 0:
            _circle(pen, inner, -1)
        return pen.path()
    first = math.radians(start - 90)
    turn = math.radians(sweep)
    last = first + turn
    cap, middle = (outer - inner) / 2, (outer + inner) / 2
    pen.move(outer * math.cos(first), outer * math.sin(first))
    pen.arc(0, 0, outer, outer, 0, first, turn)
    _end(pen, middle, cap, last, last, ends)
    if ends == "flat":
        pen.line(inner * math.cos(last), inner * math.sin(last))
    pen.arc(0, 0, inner, inner, 0, last, -turn)
    _end(pen, middle, cap, first, first + math.pi, ends)
    pen.close()
    return pen.path()


def _end(pen: PathBuilder, middle: float, cap: float, at: float, start: float, ends: str) -> None:
    if ends == "round":
        pen.arc(middle * math.cos(at), middle * math.sin(at), cap, cap, 0, start, math.pi)


def _circle(pen: PathBuilder, radius: float, way: int) -> None:
    pen.move(radius, 0)
    for quarter in range(4):
        pen.arc(0, 0, radius, radius, 0, way * quarter * math.pi / 2, way * math.pi / 2)
    pen.close()
