"""Paths as SVG path data and back (SVG 2, section 9.3)."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass, field

from fontTools.svgLib.path.arc import EllipticalArc
from fontTools.svgLib.path.parser import parse_path

from obrell.core.errors import BadDocument
from obrell.core.geometry.paths import Path, PathBuilder, arc_point
from obrell.core.geometry.plane import Rect
from obrell.core.workspace import remembered

DECIMALS = 4
_ONLY = re.compile(r"[\s,0-9.eE+\-mMzZlLhHvVcCsSqQtTaA]*+")
_COMMAND = re.compile(r"[\s,]*+([mMzZlLhHvVcCsSqQtTaA])")
_NUMBER = re.compile(r"[\s,]*+([-+]?(?:\d++\.?\d*+|\.\d++)(?:[eE][-+]?\d++)?)")
_FLAG = re.compile(r"[\s,]*+([01])")
_COUNTS = {"m": 2, "z": 0, "l": 2, "h": 1, "v": 1, "c": 6, "s": 4, "q": 4, "t": 2, "a": 7}
"""Numbers of a segment of each command (SVG 2, section 9.3)."""


def number(value: float) -> str:
    """A number as short as ``DECIMALS`` allows.

    >>> number(2.50), number(-0.00001)
    ('2.5', '0')
    """
    text = f"{value:.{DECIMALS}f}".rstrip("0").rstrip(".")
    return "0" if text in ("-0", "") else text


def shown(value: float) -> str:
    """A number as people read it: up to two decimals, and three where it has no more, as typed ones may.

    >>> shown(104.9348), shown(0.125), shown(2.0)
    ('104.93', '0.125', '2')
    """
    whole = round(value, 3)
    return number(whole if abs(whole - value) < 1e-9 else round(value, 2))


@remembered(4096)
def path_data(path: Path) -> str:
    """The ``d`` attribute of a path."""
    sink = _DataSink()
    path.draw(sink)
    return " ".join(sink.pieces)


def rectangle(box: Rect) -> str:
    """Path data of a rectangle."""
    left, top, right, bottom = (number(side) for side in (box.left, box.top, box.right, box.bottom))
    return f"M{left} {top}H{right}V{bottom}H{left}Z"


@dataclass(slots=True)
class _DataSink:
    pieces: list[str] = field(default_factory=list)

    def _add(self, command: str, *values: float) -> None:
        self.pieces.append(command + " ".join(number(value) for value in values))

    def move(self, x: float, y: float) -> None:
        self._add("M", x, y)

    def line(self, x: float, y: float) -> None:
        self._add("L", x, y)

    def cubic(self, a: float, b: float, c: float, d: float, x: float, y: float) -> None:
        self._add("C", a, b, c, d, x, y)

    def arc(self, cx: float, cy: float, rx: float, ry: float, turn: float, start: float, sweep: float) -> None:
        end = arc_point(cx, cy, rx, ry, turn, start + sweep)
        large = 1 if abs(sweep) > math.pi else 0
        clockwise = 1 if sweep > 0 else 0
        self._add("A", rx, ry, math.degrees(turn), large, clockwise, *end)

    def close(self) -> None:
        self.pieces.append("Z")


def read_path_data(text: str) -> Path:
    """The path of a ``d`` attribute, arcs as cubics; raises ``BadDocument`` when it cannot be read."""
    pen = PathBuilder()
    try:
        parse_path(text, _ReadingSink(pen), arc_class=_Arc)
    except (ValueError, IndexError, TypeError, OverflowError, ZeroDivisionError) as error:
        raise BadDocument("A path in this SVG is broken: its data cannot be read.") from error
    return pen.path()


def only_path_data(text: str) -> bool:
    """Return whether a text has no characters but those of path data."""
    return bool(_ONLY.fullmatch(text))


def valid_beginning(text: str) -> str:
    """Return path data up to the first segment that is wrong (SVG 2, section 9.5.4), without that."""
    segments: list[str] = []
    found = _COMMAND.match(text)
    whole = found is not None and found[1] in "mM"
    while found and whole:
        numbers, place, whole = _numbers_after(text, found)
        if numbers or not _COUNTS[found[1].lower()]:
            segments.append(found[1] + " ".join(numbers))
        found = _COMMAND.match(text, place)
    return "".join(segments)


def _numbers_after(text: str, command: re.Match[str]) -> tuple[list[str], int, bool]:
    """Return the numbers of a command's whole segments, where reading ended, and whether all of them are whole."""
    count = _COUNTS[command[1].lower()]
    numbers: list[str] = []
    place = command.end()
    while count:
        segment, end = _segment(text, place, count, flags=command[1] in "aA")
        if len(segment) < count:
            return numbers, place, bool(numbers) and not segment
        numbers += segment
        place = end
    return numbers, place, True


def _segment(text: str, place: int, count: int, *, flags: bool) -> tuple[list[str], int]:
    """Return as many numbers as follow a place, at most ``count``, and where they end. Arcs have two flags, each one
    digit."""
    found: list[str] = []
    for number in range(count):
        piece = (_FLAG if flags and number in (3, 4) else _NUMBER).match(text, place)
        if piece is None:
            break
        found.append(piece[1])
        place = piece.end()
    return found, place


@remembered(64)
def read_again(text: str) -> Path:
    """The same of a short text that is read with every edit."""
    return read_path_data(text)


class _Arc(EllipticalArc):  # type: ignore[misc]
    """An arc without a radius is a straight line (SVG 2, section 9.5.1)."""

    def draw(self, pen: _ReadingSink) -> None:
        if self.rx == 0 or self.ry == 0:
            pen.lineTo((self.target_point.real, self.target_point.imag))
        else:
            super().draw(pen)


class _ReadingSink:
    """Takes what the path parser draws."""

    def __init__(self, pen: PathBuilder) -> None:
        self._pen = pen
        self._here = (0.0, 0.0)

    def moveTo(self, point: tuple[float, float]) -> None:  # noqa: N802
        self._here = point
        self._pen.move(*point)

    def lineTo(self, point: tuple[float, float]) -> None:  # noqa: N802
        self._here = point
        self._pen.line(*point)

    def curveTo(self, *points: tuple[float, float]) -> None:  # noqa: N802
        (a, b), (c, d), (x, y) = points
        self._here = (x, y)
        self._pen.cubic(a, b, c, d, x, y)

    def qCurveTo(self, *points: tuple[float, float]) -> None:  # noqa: N802
        control, end = points
        start = self._here
        a, b = (start[i] + (control[i] - start[i]) * 2 / 3 for i in (0, 1))
        c, d = (end[i] + (control[i] - end[i]) * 2 / 3 for i in (0, 1))
        self._here = end
        self._pen.cubic(a, b, c, d, *end)

    def closePath(self) -> None:  # noqa: N802
        self._pen.close()

    def endPath(self) -> None:  # noqa: N802
        """Nothing is drawn at an open end."""
