"""Shapes as parts: what fills them and what a pen draws along them (SVG 2, chapter 13)."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from xml.etree.ElementTree import Element

from pydantic import ValidationError

from obrell.core.document.model import Part
from obrell.core.effects import AnyEffect, Outline, Paint
from obrell.core.errors import BadValue
from obrell.core.geometry.affine import Affine
from obrell.core.geometry.combine import Rule, stroked
from obrell.core.geometry.crossings import length_of
from obrell.core.geometry.paths import Path as Outlined
from obrell.core.geometry.pens import Pen
from obrell.core.interchange.svg.cascade import Style
from obrell.core.interchange.svg.context import Context, Here, called
from obrell.core.interchange.svg.gradients import Filled, Laid, Paints
from obrell.core.interchange.svg.items import Item, grouped
from obrell.core.interchange.svg.lengths import FONT_PX, length, opacity
from obrell.core.interchange.svg.shapes import outline_of, radii_of, runs_of, too_long
from obrell.core.interchange.svg.strokes import dash_fields, keeps_shape, mirrors, pen_of, scaled, turn_of
from obrell.core.shapes import Box, Path, Round
from obrell.core.shapes.outlined import MAX_KNOTS, contours_from
from obrell.core.values.fields import LIMIT_PX

MOST_SIDE = 4096.0
"""The longest side of a box or a round; what is longer is a path."""
LEAST_WIDTH = 1e-3
ENDED = frozenset({"path", "line", "polyline", "polygon"})
"""Elements that markers are put on."""


@dataclass(frozen=True, slots=True)
class Placed:
    """A shape of ours where it stands on the canvas, and the way there from the element's own space."""

    shape: Box | Round | Path
    x: float
    y: float
    turn: float = 0.0

    def way(self, by: Affine) -> Affine:
        """From the element's own space to the part's."""
        cos, sin = math.cos(math.radians(self.turn)), math.sin(math.radians(self.turn))
        return Affine(cos, -sin, sin, cos).after(Affine(e=-self.x, f=-self.y)).after(by)


@dataclass(slots=True)
class Painter:
    """Makes parts of the basic shapes and paths of a document."""

    context: Context
    paints: Paints = field(init=False)

    def __post_init__(self) -> None:
        self.paints = Paints(self.context.by_id, self.context.cascade, self.context.left_out)

    def items(self, name: str, element: Element, here: Here) -> list[Item]:
        """A shape as one part, or as a group of what is filled and what is drawn, where these are two."""
        style = here.style
        if too_long(element):
            self.context.left_out["path with too many points"] += 1
            return []
        outline = outline_of(element, style, here.view)
        if not outline or style.get("visibility") in ("hidden", "collapse"):
            return []
        if name in ENDED and any(style.get(f"marker-{place}", "none") != "none" for place in ("start", "mid", "end")):
            self.context.left_out["marker"] += 1
        usual = called(element, name.capitalize())
        try:
            parts = list(self._parts(name, element, outline, here, usual))
        except (ValidationError, BadValue, OverflowError, ZeroDivisionError):
            self.context.left_out["shape outside of what can be drawn"] += 1
            return []
        items = [self.context.counted(part) for part in parts]
        return items if len(items) < 2 else [grouped(items, usual, opacity=1.0)]

    def _parts(self, name: str, element: Element, outline: Outlined, here: Here, usual: str) -> Iterator[Part]:
        style, by = here.style, here.to_canvas
        said = length(element.get("pathLength"))
        pen = pen_of(style, here.view, length_of(outline) / said if said > 0 else 1.0)
        fixed = style.get("vector-effect") == "non-scaling-stroke"
        if not keeps_shape(by) and not fixed:
            yield from self._stretched(name, outline, here, pen, usual)
            return
        pen = scaled(pen, 1.0 if fixed else by.scale())
        known = None if pen.dashes else _known(name, here)
        placed = known or self._path(outline, by, style, dots=pen.cap != "flat")
        if placed is not None:
            yield from self._one_or_two(placed, outline, here, pen, usual)

    def _one_or_two(self, placed: Placed, outline: Outlined, here: Here, pen: Pen, usual: str) -> Iterator[Part]:
        """A part that is filled and outlined; two where its line lies below what fills it."""
        style, shape, fade = here.style, placed.shape, here.style.get("stroke-opacity")
        line = _as_line(shape, pen) if isinstance(shape, Path) else None
        fill = None if outline.bounds().empty else self._filled("fill", "#000", placed, outline, here)
        first = fill is not None and _stroke_first(style)
        drawn = replace(placed, shape=line) if line is not None and (fill is None or first) else placed
        stroke = self._filled("stroke", "none", drawn, outline, here) if pen.width > 0 else None
        filling = () if fill is None else (_paint(fill, style.get("fill-opacity")),)
        if stroke is None:
            over: tuple[AnyEffect, ...] = ()
        elif drawn is not placed:
            over = (_paint(stroke, fade),)
        else:
            over = (_outline(stroke, pen, fade, drawn=isinstance(shape, Path)),)
        if over and (first or drawn is not placed):
            yield _part(drawn, usual, over)
            over = ()
        if filling or over:
            yield _part(placed, usual, (*filling, *over))

    def _stretched(self, name: str, outline: Outlined, here: Here, pen: Pen, usual: str) -> Iterator[Part]:
        """A shape under a transform that makes its pen an ellipse: what the pen leaves is a part of its own."""
        style, by = here.style, here.to_canvas
        filled = _known(name, here) or self._path(outline, by, style, dots=False)
        layers = [("fill", "#000", filled)]
        if style.get("stroke", "none") != "none" and pen.width > 0:
            left = self._path(stroked(outline, scaled(pen, 1.0)), by, {}, dots=False)
            layers.insert(0 if _stroke_first(style) else 1, ("stroke", "none", left))
        for asked, otherwise, placed in layers:
            fill = None if placed is None else self._filled(asked, otherwise, placed, outline, here)
            if placed is not None and fill is not None:
                yield _part(placed, usual, (_paint(fill, style.get(f"{asked}-opacity")),))

    def _filled(self, asked: str, usual: str, placed: Placed, outline: Outlined, here: Here) -> Filled | None:
        way = placed.way(here.to_canvas)
        laid = Laid(outline.bounds(), here.view, way, placed.shape.box())
        return self.paints.fill(here.style.get(asked, usual), here.style, laid)

    def _path(self, outline: Outlined, by: Affine, style: Style, *, dots: bool) -> Placed | None:
        """The outline as a path; None when there is nothing in it."""
        runs = runs_of(outline, by, dots=dots)
        spots = [(bend.x, bend.y) for _, bends in runs for bend in bends]
        if not spots:
            return None
        if len(spots) > MAX_KNOTS:
            self.context.left_out["path with too many points"] += 1
            return None
        if not all(math.isfinite(v) and abs(v) < LIMIT_PX for spot in spots for v in spot):
            raise OverflowError
        x = (min(x for x, _ in spots) + max(x for x, _ in spots)) / 2
        y = (min(y for _, y in spots) + max(y for _, y in spots)) / 2
        contours = contours_from([(closed, [bend.moved(-x, -y) for bend in bends]) for closed, bends in runs])
        rule: Rule = "evenodd" if style.get("fill-rule") == "evenodd" else "nonzero"
        return Placed(Path(contours=contours, rule=rule), x, y)


def _part(placed: Placed, name: str, effects: tuple[AnyEffect, ...]) -> Part:
    return Part(id="p0", name=name, shape=placed.shape, x=placed.x, y=placed.y, rotation=placed.turn, effects=effects)


def _as_line(path: Path, pen: Pen) -> Path:
    return path.evolve(
        form="line", width=max(pen.width, LEAST_WIDTH), caps=pen.cap, joins=pen.join, mitre=pen.mitre,
        **dash_fields(pen),
    )  # fmt: skip


def _paint(filled: Filled, fade: str | None) -> Paint:
    return Paint(id="e1", fill=filled.fill, opacity=filled.opacity * opacity(fade))


def _outline(filled: Filled, pen: Pen, fade: str | None, *, drawn: bool) -> Outline:
    return Outline(
        id="e2", place="centre", width=pen.width, fill=filled.fill, joins=pen.join, mitre=pen.mitre, caps=pen.cap,
        opacity=filled.opacity * opacity(fade), line="the path as drawn" if drawn else "the edge", **dash_fields(pen),
    )  # fmt: skip


def _stroke_first(style: Style) -> bool:
    """Whether ``paint-order`` lays the line below the fill; what it does not say follows in the usual order."""
    said = [word for word in style.get("paint-order", "").split() if word in ("fill", "stroke")]
    return said[:1] == ["stroke"]


def _known(name: str, here: Here) -> Placed | None:
    """A box or a round where the element is one and is neither slanted nor mirrored."""
    by = here.to_canvas
    even, upright = keeps_shape(by) and not mirrors(by), by.upright
    found = _as_box(here, even=even) if name == "rect" else _as_round(name, here)
    if found is None or not (even or upright):
        return None
    (wide, high), centre, radius = found
    across, down = math.hypot(by.a, by.b), math.hypot(by.c, by.d)
    if min(wide, high) <= 0 or max(wide * across, high * down) > MOST_SIDE:
        return None
    x, y = by.apply(*centre)
    if max(abs(x), abs(y)) > LIMIT_PX:
        return None
    if name == "rect":
        return Placed(Box(width=wide * across, height=high * down, radius=radius * across), x, y, turn_of(by))
    return Placed(Round(width=wide * across, height=high * down), x, y, 0.0 if name == "circle" else turn_of(by))


Measured = tuple[tuple[float, float], tuple[float, float], float]
"""Sides, centre and corner radius in the element's own space."""


def _as_box(here: Here, *, even: bool) -> Measured | None:
    style, view = here.style, here.view
    font = length(style.get("font-size"), usual=FONT_PX)
    x, wide = (length(style.get(key), view.across, font) for key in ("x", "width"))
    y, high = (length(style.get(key), view.down, font) for key in ("y", "height"))
    rx, ry = (min(radius, side / 2) for radius, side in zip(radii_of(style, view), (wide, high), strict=True))
    sharp = min(rx, ry) <= 0
    if not sharp and not (even and rx == ry):
        return None
    return (wide, high), (x + wide / 2, y + high / 2), 0.0 if sharp else rx


def _as_round(name: str, here: Here) -> Measured | None:
    style, view = here.style, here.view
    font = length(style.get("font-size"), usual=FONT_PX)
    if name == "circle":
        rx = ry = length(style.get("r"), view.whole, font)
    elif name == "ellipse":
        rx, ry = radii_of(style, view)
    else:
        return None
    centre = length(style.get("cx"), view.across, font), length(style.get("cy"), view.down, font)
    return (2 * rx, 2 * ry), centre, 0.0
