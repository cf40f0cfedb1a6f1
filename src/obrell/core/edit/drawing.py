"""Drawing parts: what begins is plain, in a colour that can be seen where it is drawn."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Annotated, Literal

from pydantic import Field

from obrell.core.colour.contrast import ORDINARY, contrast
from obrell.core.colour.links import literal
from obrell.core.document.bodies import box_of, is_read
from obrell.core.document.measures import frame_on_canvas
from obrell.core.document.model import Canvas, Control, Part
from obrell.core.document.resolve import ground_colour
from obrell.core.edit.base import Edit, Surroundings, add_parts
from obrell.core.edit.companions import main_colour
from obrell.core.edit.parts import fresh_name
from obrell.core.edit.snapping import PIXELS, SAME, Snap, Snapping, pulled_by, snap_point
from obrell.core.effects import Paint
from obrell.core.errors import Refused
from obrell.core.geometry.plane import Point, Rect
from obrell.core.shapes import SHAPES, Icon, Line, Ring, Shape, Text
from obrell.core.shapes.base import INK, is_press
from obrell.core.shapes.kinds.path import Path
from obrell.core.values.colours import Colour, SwatchLink
from obrell.core.values.fields import Place
from obrell.core.values.paints import Solid
from obrell.core.values.plain import Plain

VOWELS = "aeiou"
MANY_SIDED = "shape with sides"
SEEN = 1.5
"""Least contrast (WCAG 2.2) of a new surface against what lies below it."""
LEGIBLE, READABLE = ORDINARY, 3.0
"""Contrast that is wanted of a new text or icon, and the least if no swatch reaches that."""
BODY_ROLES = ("main", "metal")
LABEL_ROLES = ("label",)
"""Roles of the swatches that are tried first, for surfaces and for texts and icons."""
MOSTLY = 0.5
"""A new part lies on another one if more than this share of its box does."""


class Draw(Edit):
    """Draw a plain part from one place to another (``Shape.drawn``): in front of all parts, but a surface that would
    cover a label goes right behind it."""

    kind: Literal["draw"] = "draw"
    shape: Annotated[str, Field(max_length=20)]
    values: dict[str, Plain] = Field(default_factory=dict)
    """Values of the shape that differ from the usual ones."""
    x0: Place
    y0: Place
    x1: Place
    y1: Place
    constrained: bool = False
    centred: bool = False
    snap: Snapping | None = None

    def apply(self, control: Control, around: Surroundings) -> Control:
        shape, place = self._drawn(control)
        label = _label_under(control, shape, place)
        if label is None:
            return add_parts(control, [new_part(control, shape, place, around)])
        return add_parts(control, [new_part(control, shape, place, around, label)], control.parts.index(label))

    def _drawn(self, control: Control) -> tuple[Shape, Point]:
        """Return the new shape and its place."""
        if self.shape not in SHAPES:
            raise Refused(f"“{self.shape}” is not a kind of part that can be drawn.")
        (x0, y0), (x1, y1) = self._ends(control)
        shape, place = SHAPES[self.shape].drawn(x0, y0, x1, y1, constrained=self.constrained, centred=self.centred)
        shape = shape.evolve(**self.values)
        if is_press(x1 - x0, y1 - y0):
            shape = _no_larger(shape, control.canvas)
        return shape, place

    def snaps(self, control: Control) -> tuple[Snap, ...]:
        return () if self.snap is None else snap_point(control, (), self.x1, self.y1, self.snap)

    def label(self, control: Control) -> str:
        noun = MANY_SIDED if self.shape == "sides" else self.shape
        added = f"Added {'an' if noun[:1] in VOWELS else 'a'} {noun}"
        label = _label_under(control, *self._drawn(control)) if self.shape in SHAPES else None
        return f"{added}{self._snapped(control)}" if label is None else f"{added} behind {label.name}"

    def _snapped(self, control: Control) -> str:
        """Return what is said of a line whose direction is another than was drawn, as one of its ends snapped."""
        if self.snap is None or self.shape != "line" or self.constrained or (self.x0, self.y0) == (self.x1, self.y1):
            return ""
        begun, now = snap_point(control, (), self.x0, self.y0, self.snap), self.snaps(control)
        if pulled_by(begun) == pulled_by(now):
            return ""
        near = {"start": _near(begun), "end": _near(now)}
        said = ", ".join(f"its {end} snapped to {words}" for end, words in near.items() if words)
        return f"; {said}" if said else ""

    def _ends(self, control: Control) -> tuple[tuple[float, float], tuple[float, float]]:
        """Where drawing began and where it is, both snapped."""
        if self.snap is None:
            return (self.x0, self.y0), (self.x1, self.y1)
        begun = pulled_by(snap_point(control, (), self.x0, self.y0, self.snap))
        now = pulled_by(self.snaps(control))
        still = (self.x0, self.y0) == (self.x1, self.y1)
        now = begun if still else now
        return (self.x0 + begun[0], self.y0 + begun[1]), (self.x1 + now[0], self.y1 + now[1])


def _near(snaps: Sequence[Snap]) -> str:
    """Return in words what a place was drawn to, but for whole pixels."""
    return " and ".join(snap.words for snap in snaps if snap.words != PIXELS and abs(snap.by) > SAME)


def _no_larger(shape: Shape, canvas: Canvas) -> Shape:
    """A shape of a usual size, in a canvas that may be smaller than that; words keep their size."""
    frame = shape.frame()
    over = max(1.0, frame.width / canvas.width, frame.height / canvas.height)
    return shape if isinstance(shape, Text) or over == 1 else shape.stretched(1 / over, 1 / over)


def new_part(control: Control, shape: Shape, place: Point, around: Surroundings, label: Part | None = None) -> Part:
    """Return a part with one plain paint, called as its kind suggests; ``label`` is one that it goes behind. Raises
    ``Refused`` when the shape's values do not go together."""
    if shape.problem():
        raise Refused(shape.problem())
    name = fresh_name(control, shape.suggested_name())
    part = Part(id="p0", name=name, shape=shape, x=place.x, y=place.y)
    sign = main_colour(label) if label else None
    above = None if sign is None else literal(sign, around.palette)
    colour = first_colour(shape, _colour_under(control, frame_on_canvas(part), around), around, above)
    return part.evolve(effects=(Paint(id="e1", fill=Solid(colour=colour)),))


def first_colour(shape: Shape, under: str, around: Surroundings, above: str | None = None) -> Colour:
    """Return the first colour of a shape on ``under`` and behind a label in ``above``, ``#rrggbb``: a swatch with
    enough contrast, else the grey or ink of its kind, else ink or white. A label that can be read counts first."""
    sign = isinstance(shape, Text | Icon)
    colours: list[Colour] = [*_swatches(around, LABEL_ROLES if sign else BODY_ROLES), shape.first_colour]
    seen = {number: contrast(literal(one, around.palette), under) for number, one in enumerate(colours)}
    for wanted in (LEGIBLE, READABLE) if sign else (SEEN,):
        fit = [one for number, one in enumerate(colours) if seen[number] >= wanted]
        if fit:
            return fit[0] if above is None else _most_legible(fit, above, around)
    return max((INK, "#ffffff"), key=lambda one: contrast(one, under))


def _most_legible(colours: Sequence[Colour], above: str, around: Surroundings) -> Colour:
    """Return the first colour on which a label in ``above``, ``#rrggbb``, is legible, else the one on which it is seen
    best."""
    seen = [contrast(literal(one, around.palette), above) for one in colours]
    return next(
        (one for one, now in zip(colours, seen, strict=True) if now >= LEGIBLE), colours[seen.index(max(seen))]
    )


def _swatches(around: Surroundings, roles: tuple[str, ...]) -> Iterator[SwatchLink]:
    """Return links to the kit's swatches, those of the roles first."""
    rank = {role: number for number, role in enumerate(roles)}
    for swatch in sorted(around.swatches, key=lambda one: rank.get(one.role, len(rank))):
        yield SwatchLink(swatch=swatch.id)


def _colour_under(control: Control, box: Rect, around: Surroundings) -> str:
    """Return the colour, ``#rrggbb``, below a new part: of the part that most of its box lies on, else of the
    ground."""
    for part in reversed(control.parts):
        colour = None if is_read(part) or not part.visible else main_colour(part)
        if colour is not None and _share_on(box, box_of(control, part)) > MOSTLY:
            return literal(colour, around.palette)
    return ground_colour(control, around.palette)


def _share_on(box: Rect, other: Rect) -> float:
    """Return the share of a box that lies on another one, 0 to 1. A box without area counts by its middle."""
    if box.width * box.height <= 0:
        return float(other.meets(Rect(box.centre.x, box.centre.y, box.centre.x, box.centre.y)))
    across = min(box.right, other.right) - max(box.left, other.left)
    down = min(box.bottom, other.bottom) - max(box.top, other.top)
    return max(0.0, across) * max(0.0, down) / (box.width * box.height)


def _label_under(control: Control, shape: Shape, place: Point) -> Part | None:
    """Return the rearmost text or icon that a new surface would cover completely."""
    if isinstance(shape, Text | Icon | Line | Path | Ring):
        return None
    box = shape.frame().shifted(place.x, place.y)
    signs = (one for one in control.parts if is_read(one) and one.within is None)
    return next((one for one in signs if box.union(inner := box_of(control, one)) == box and inner != box), None)
