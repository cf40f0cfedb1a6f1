"""The basic shapes and paths of SVG as outlines (SVG 2, chapters 9 and 10)."""

from __future__ import annotations

import math
import re
from itertools import islice, pairwise
from xml.etree.ElementTree import Element

from obrell.core.errors import BadDocument
from obrell.core.geometry.affine import Affine
from obrell.core.geometry.knots import Bend, draw_contour, knots_of
from obrell.core.geometry.paths import MOVE, Path, PathBuilder
from obrell.core.geometry.svgdata import only_path_data, read_path_data, valid_beginning
from obrell.core.interchange.svg.cascade import Style
from obrell.core.interchange.svg.document import name_of
from obrell.core.interchange.svg.lengths import View, length
from obrell.core.shapes.outlined import MAX_KNOTS

SHAPES = frozenset({"path", "rect", "circle", "ellipse", "line", "polyline", "polygon"})
_PIECE = re.compile(r"[a-zA-Z]|[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?")
_CSS_PATH = re.compile(r"path\(\s*+(?:(?:nonzero|evenodd)\s*+,)?\s*+(['\"])(.*)\1\s*\)", re.DOTALL)
MOST_TOKENS = 6 * MAX_KNOTS
"""Letters and numbers of path data: a cubic has six numbers."""
DOT_PX = 1e-3
"""How long a line without a length is drawn, so that its caps are seen."""
Runs = list[tuple[bool, list[Bend]]]


def too_long(element: Element) -> bool:
    """Whether the element's points are more than a path can have, told before any of them is made."""
    text = element.get({"path": "d", "polyline": "points", "polygon": "points"}.get(name_of(element), ""), "")
    if len(text) <= MOST_TOKENS:
        return False
    return sum(1 for _ in islice(_PIECE.finditer(text), MOST_TOKENS + 1)) > MOST_TOKENS


def outline_of(element: Element, style: Style, view: View) -> Path:
    """The element's geometry in its own space; empty when there is none."""
    pen = PathBuilder()
    font = length(style.get("font-size"), usual=16.0)

    def get(key: str, whole: float) -> float:
        return length(style.get(key) or element.get(key), whole, font)

    match name_of(element):
        case "path":
            css = _CSS_PATH.fullmatch(style.get("d", "").strip())
            return path_from_data(css[2] if css else element.get("d", ""))
        case "rect":
            place = get("x", view.across), get("y", view.down)
            size = get("width", view.across), get("height", view.down)
            _rectangle(pen, *place, *size, radii_of(style, view))
        case "circle":
            radius = get("r", view.whole)
            _ellipse(pen, get("cx", view.across), get("cy", view.down), radius, radius)
        case "ellipse":
            _ellipse(pen, get("cx", view.across), get("cy", view.down), *radii_of(style, view))
        case "line":
            pen.move(get("x1", view.across), get("y1", view.down))
            pen.line(get("x2", view.across), get("y2", view.down))
        case "polyline" | "polygon" as name:
            _polygon(pen, element.get("points", ""), closed=name == "polygon")
    return pen.path()


def path_from_data(text: str) -> Path:
    """The path as far as its data can be read (SVG 2, section 9.5.4)."""
    if only_path_data(text):
        try:
            return read_path_data(text)
        except BadDocument:
            pass
    return read_path_data(valid_beginning(text))


def runs_of(outline: Path, by: Affine, *, dots: bool) -> Runs:
    """The knots of an outline carried to another space; contours without a length are kept as ``dots`` when
    they can be seen."""
    runs = [(closed, [bend.carried(by) for bend in bends]) for closed, bends in knots_of(outline)]
    return runs + [_dot(*by.apply(x, y)) for x, y in _points(outline)] if dots else runs


def carried(outline: Path, by: Affine) -> Path:
    """An outline in another space."""
    pen = PathBuilder()
    for closed, bends in runs_of(outline, by, dots=False):
        draw_contour(pen, bends, closed=closed)
    return pen.path()


def radii_of(style: Style, view: View) -> tuple[float, float]:
    """The corner radii of a rectangle; one that is not said is as the other."""
    rx, ry = ((style.get(key) or "auto").strip() for key in ("rx", "ry"))
    across = length(rx, view.across, usual=-1.0)
    down = length(ry, view.down, usual=-1.0)
    across, down = (across if across >= 0 else down), (down if down >= 0 else across)
    return max(0.0, across), max(0.0, down)


def _polygon(pen: PathBuilder, points: str, *, closed: bool) -> None:
    values = [float(found) for found in _PIECE.findall(points) if not found.isalpha()]
    if len(values) < 4 or not all(math.isfinite(value) for value in values):
        return
    for index in range(0, len(values) - 1, 2):
        (pen.line if index else pen.move)(values[index], values[index + 1])
    if closed:
        pen.close()


def _points(outline: Path) -> list[tuple[float, float]]:
    """Where contours begin that never leave their first point."""
    found: list[tuple[float, float]] = []
    starts = [*(index for index, row in enumerate(outline.rows) if row[0] == MOVE), len(outline.rows)]
    for start, end in pairwise(starts):
        places = outline.rows[start:end, 1:7]
        if end - start > 1 and (abs(places - [*places[0, :2]] * 3) < 1e-9).all():
            found.append((float(places[0, 0]), float(places[0, 1])))
    return found


def _dot(x: float, y: float) -> tuple[bool, list[Bend]]:
    return False, [Bend(x - DOT_PX / 2, y), Bend(x + DOT_PX / 2, y)]


def _rectangle(pen: PathBuilder, x: float, y: float, width: float, height: float, radii: tuple[float, float]) -> None:
    if width <= 0 or height <= 0:
        return
    rx, ry = min(radii[0], width / 2), min(radii[1], height / 2)
    if rx <= 0 or ry <= 0:
        rx = ry = 0.0
    pen.move(x + rx, y)
    quarter = math.pi / 2
    for cx, cy, start, to in (
        (x + width - rx, y + ry, -quarter, (x + width - rx, y)),
        (x + width - rx, y + height - ry, 0.0, (x + width, y + height - ry)),
        (x + rx, y + height - ry, quarter, (x + rx, y + height)),
        (x + rx, y + ry, 2 * quarter, (x, y + ry)),
    ):
        pen.line(*to)
        if rx:
            pen.arc(cx, cy, rx, ry, 0.0, start, quarter)
    pen.close()


def _ellipse(pen: PathBuilder, cx: float, cy: float, rx: float, ry: float) -> None:
    if rx <= 0 or ry <= 0:
        return
    pen.move(cx + rx, cy)
    for index in range(4):
        pen.arc(cx, cy, rx, ry, 0.0, index * math.pi / 2, math.pi / 2)
    pen.close()
