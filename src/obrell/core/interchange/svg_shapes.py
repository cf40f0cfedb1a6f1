"""The basic shapes and paths of SVG as outlines (SVG 2, chapters 9 and 10)."""

from __future__ import annotations

import math
import re
from collections.abc import Mapping
from itertools import islice

from obrell.core.geometry.paths import Path, PathBuilder
from obrell.core.geometry.svgdata import read_path_data
from obrell.core.interchange.svg_paint import number_of
from obrell.core.shapes.path import MAX_KNOTS

_PIECE = re.compile(r"[a-zA-Z]|[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?")
MOST_TOKENS = 6 * MAX_KNOTS
"""Letters and numbers of path data: a cubic has six numbers."""


def too_long(name: str, own: Mapping[str, str]) -> bool:
    """Whether the element's points are more than a path can have, told before any of them is made."""
    text = own.get({"path": "d", "polyline": "points", "polygon": "points"}.get(name, ""), "")
    if len(text) <= MOST_TOKENS:
        return False
    return sum(1 for _ in islice(_PIECE.finditer(text), MOST_TOKENS + 1)) > MOST_TOKENS


def outline_of(name: str, own: Mapping[str, str]) -> Path | None:
    """The element's geometry in its own space; None when it is not a shape."""
    pen = PathBuilder()

    def get(key: str) -> float:
        return number_of(own.get(key, "0"))

    match name:
        case "path":
            return read_path_data(own.get("d", ""))
        case "rect":
            _rectangle(pen, get("x"), get("y"), get("width"), get("height"), radii_of(own))
        case "circle":
            _ellipse(pen, get("cx"), get("cy"), get("r"), get("r"))
        case "ellipse":
            _ellipse(pen, get("cx"), get("cy"), get("rx"), get("ry"))
        case "line":
            pen.move(get("x1"), get("y1"))
            pen.line(get("x2"), get("y2"))
        case "polyline" | "polygon":
            numbers = [number_of(n) for n in re.split(r"[\s,]+", own.get("points", "").strip()) if n]
            for index in range(0, len(numbers) - 1, 2):
                (pen.line if index else pen.move)(numbers[index], numbers[index + 1])
            if name == "polygon" and numbers:
                pen.close()
        case _:
            return None
    return pen.path()


def radii_of(own: Mapping[str, str]) -> tuple[float, float]:
    rx, ry = own.get("rx"), own.get("ry")
    return number_of(rx or ry or "0"), number_of(ry or rx or "0")


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
