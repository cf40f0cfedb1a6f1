"""Outlines made of knots with handles, filled or drawn as a line."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Annotated, Literal, Self

from pydantic import Field

from obrell.core.geometry.combine import Rule, stroked, union
from obrell.core.geometry.knots import Bend, draw_contour
from obrell.core.geometry.paths import Path, PathBuilder
from obrell.core.geometry.pens import MITRE_LIMIT, Cap, Join, Pen, dashes_of, problem_of_dashes
from obrell.core.shapes.base import Sentence, Shape, Slot, Words
from obrell.core.values.base import Value
from obrell.core.values.fields import Length, Lengths, Live, Mitre, Place, Signed, Size, Thin
from obrell.core.workspace import remembered

MAX_KNOTS = 5000
Reach = Annotated[float, Live("px", 1, -100, 100), Field(ge=-16384, le=16384)]


class Knot(Value):
    """A place on the path; its handles are given from it, 0 for none."""

    x: Place = Field(0.0, title="point across")
    y: Place = Field(0.0, title="point down")
    in_x: Reach = Field(0.0, title="handle in across")
    in_y: Reach = Field(0.0, title="handle in down")
    out_x: Reach = Field(0.0, title="handle out across")
    out_y: Reach = Field(0.0, title="handle out down")
    radius: Length = Field(0.0, title="corner")

    def bend(self) -> Bend:
        return Bend(self.x, self.y, self.in_x, self.in_y, self.out_x, self.out_y, self.radius)


class Contour(Value):
    """One run of knots."""

    closed: bool = True
    knots: Annotated[tuple[Knot, ...], Field(min_length=2, max_length=MAX_KNOTS)]


class Outlined(Shape):
    """Knots around the part's place. As a line it has a width, caps and joins; filled, contours that
    are open are closed by a straight line, and ``rule`` says what lies inside where they overlap."""

    contours: Annotated[tuple[Contour, ...], Field(max_length=MAX_KNOTS)] = ()
    form: Literal["filled", "line"] = Field("filled", title="drawn as")
    rule: Rule = Field("nonzero", title="inside by")
    width: Size = Field(2.0, title="line width")
    thin: Thin = Field("as typed", title="width is")
    caps: Cap = Field("flat", title="caps")
    joins: Join = Field("mitre", title="joins")
    mitre: Mitre = Field(MITRE_LIMIT, title="mitres up to")
    dash: Length = Field(6.0, title="dash")
    gap: Length = Field(0.0, title="gap")
    further: Lengths = Field((), title="further dashes and gaps")
    phase: Signed = Field(0.0, title="dashes begin at")

    def path(self) -> Path:
        return _outline(self)

    def centre_line(self) -> Path:
        """The contours as they are, open ones open."""
        pen = PathBuilder()
        for contour in self.contours:
            draw_contour(pen, [knot.bend() for knot in contour.knots], closed=contour.closed)
        return pen.path()

    def at_density(self, density: float) -> Self:
        return self.evolve(width=1 / density, thin="as typed") if self.thin != "as typed" else self

    def as_line(self) -> Outlined | None:
        return self if self.form == "line" else None

    def pen(self) -> Pen:
        """What it is drawn with as a line."""
        dashes = dashes_of(self.dash, self.gap, self.further)
        return Pen(self.width, self.caps, self.joins, self.mitre, dashes, self.phase)

    def problem(self) -> str:
        return problem_of_dashes(self.pen()) if self.form == "line" else ""

    def resized(self, width: float, height: float) -> Self:
        frame = self.frame()
        across = width / frame.width if frame.width else 1.0
        down = height / frame.height if frame.height else 1.0
        return self.scaled(across, down)

    def scaled(self, across: float, down: float) -> Self:
        """Every knot and handle multiplied; -1 mirrors."""
        return self.evolve(
            contours=tuple(
                contour.evolve(knots=tuple(_scaled(knot, across, down) for knot in contour.knots))
                for contour in self.contours
            )
        )

    def sentence(self) -> Sentence:
        count = sum(len(contour.knots) for contour in self.contours)
        start = (Words(f"path of {count} points, "), Slot("form"))
        wide = Slot("width" if self.thin == "as typed" else "thin")
        return start if self.form == "filled" else (*start, Words(", "), wide, Words(" wide"))

    def details(self) -> tuple[str, ...]:
        if self.form == "filled":
            return ("rule",) if len(self.contours) > 1 else ()
        joins = ("joins", "mitre") if self.joins == "mitre" else ("joins",)
        dashes = ("dash", "gap", "further", "phase") if self.pen().dashes else ("gap",)
        return ("thin", "caps", *joins, *dashes) if self.thin == "as typed" else ("caps", *joins, *dashes)


def _scaled(knot: Knot, across: float, down: float) -> Knot:
    return knot.evolve(
        x=knot.x * across, y=knot.y * down, in_x=knot.in_x * across, in_y=knot.in_y * down,
        out_x=knot.out_x * across, out_y=knot.out_y * down, radius=knot.radius * min(abs(across), abs(down)),
    )  # fmt: skip


@remembered(512)
def _outline(path: Outlined) -> Path:
    line = path.centre_line()
    if path.form == "line":
        return stroked(line, path.pen())
    return union(line, path.rule)


def contours_from(runs: Iterable[tuple[bool, Sequence[Bend]]]) -> tuple[Contour, ...]:
    """Contours of knots as they are stored."""
    return tuple(Contour(closed=closed, knots=tuple(knot_from(b) for b in bends)) for closed, bends in runs)


def knot_from(bend: Bend) -> Knot:
    """A knot as it is stored, its numbers rounded to a millionth of a px."""
    x, y, in_x, in_y, out_x, out_y, radius = (
        round(v, 6) for v in (bend.x, bend.y, bend.in_x, bend.in_y, bend.out_x, bend.out_y, bend.radius)
    )
    return Knot(x=x, y=y, in_x=in_x, in_y=in_y, out_x=out_x, out_y=out_y, radius=radius)
