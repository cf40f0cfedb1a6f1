"""Union, difference and parallel outlines of any path. The only module that knows the native engine.

The engine works in single precision with tolerances of its own, so paths are enlarged before an
operation and shrunk after it (``kernels.md``, section 5).
"""

from __future__ import annotations

import math
from collections.abc import Callable
from functools import partial, reduce
from typing import Any, Literal

import pathops

from obrell.core.aside import SECONDS, aside
from obrell.core.errors import TookTooLong, TooLarge
from obrell.core.geometry.crossings import crossings, length_of, touching
from obrell.core.geometry.paths import Path, PathBuilder, arc_point, joined
from obrell.core.geometry.pens import MITRE_LIMIT, Cap, Join, Pen
from obrell.core.geometry.plane import Similarity
from obrell.core.workspace import Kept

Mode = Literal["union", "difference", "intersection", "exclusion"]
_OPERATIONS = {
    "union": pathops.PathOp.UNION, "difference": pathops.PathOp.DIFFERENCE,
    "intersection": pathops.PathOp.INTERSECTION, "exclusion": pathops.PathOp.XOR,
}  # fmt: skip
Rule = Literal["nonzero", "evenodd"]
_FILL = {"nonzero": pathops.FillType.WINDING, "evenodd": pathops.FillType.EVEN_ODD}
_CAPS: dict[Cap, Any] = {
    "flat": pathops.LineCap.BUTT_CAP, "round": pathops.LineCap.ROUND_CAP, "square": pathops.LineCap.SQUARE_CAP,
}  # fmt: skip
_JOINS: dict[Join, Any] = {
    "mitre": pathops.LineJoin.MITER_JOIN, "round": pathops.LineJoin.ROUND_JOIN,
    "bevel": pathops.LineJoin.BEVEL_JOIN,
}  # fmt: skip
ENLARGE = 64.0
"""Factor paths are enlarged by: brings a stroke's error on a 20 px circle from 0.07 to 0.008 px."""
CONIC_TOLERANCE = 0.02
"""Enlarged px between a round join and the curves that stand for it: 0.0003 px."""
MAX_PIECES = 40_000
"""How many lines and curves an operation takes."""
MAX_DASHES = 5000
DASH_WEIGHT = 4
"""A dash is worked on as so many pieces."""
QUICK_WEIGHT = 900
"""Pieces, and pairs of them that may cross, up to which an operation is surely done within some 0.1 s."""
MOST_HOPELESS = 64
_HOPELESS = Kept[str](MOST_HOPELESS)
"""What was given all the time there is and did not end is not tried again whenever it is looked at: why not."""
MAX_ARC_PIECE = math.pi / 8
"""An arc becomes cubics of at most this angle: off by less than 1e-7 of the radius."""


def union(path: Path, rule: Rule = "nonzero") -> Path:
    """The path without overlaps, by the rule of what lies inside, so that coverage adds up."""
    return _made(_union, (path,), rule)


def grown(path: Path, distance: float, join: Join = "mitre", mitre: float = MITRE_LIMIT) -> Path:
    """The path moved outwards (inwards when negative) by ``distance``."""
    if distance == 0 or not path:
        return path
    return _made(_grown, (path,), distance, join, mitre)


def stroked(path: Path, pen: Pen) -> Path:
    """The outline of a line drawn along the path; contours that are not closed have ends. Raises ``TooLarge``
    when there would be too many dashes."""
    count = math.ceil(length_of(path) / sum(pen.dashes) * len(pen.dashes) / 2) if pen.dashes else 0
    if count > MAX_DASHES:
        raise TooLarge(
            f"This outline would have {count:,} dashes; {MAX_DASHES:,} are the most. Use longer dashes or gaps."
        )
    return _made(_stroked, (path,), pen, weight=count * DASH_WEIGHT)


def combined(mode: Mode, paths: tuple[Path, ...]) -> Path:
    """The first path with the others joined to it, taken from it, kept where all are, or kept where
    an odd number of them is. Empty paths are left out, but for an intersection and a first one that
    others are taken from. Only paths that can touch are worked on together."""
    if mode == "intersection" and not all(paths):
        return Path()
    if mode == "difference" and (not paths or not paths[0]):
        return Path()
    shown = [path for path in paths if path]
    if len(shown) < 2:
        return shown[0] if shown else Path()
    if mode == "difference":
        shown = [shown[0], *(path for path in shown[1:] if path.hull().meets(shown[0].hull()))]
    if mode in ("union", "exclusion"):
        heaps = touching([path.hull() for path in shown])
        done = [_combined_heap(mode, [shown[place] for place in heap]) for heap in heaps]
        return joined([path for path in done if path]) if any(done) else Path()
    return _combined_heap(mode, shown)


def _combined_heap(mode: Mode, paths: list[Path]) -> Path:
    return paths[0] if len(paths) == 1 else _made(_combined, tuple(paths), mode)


def _made(work: Callable[..., Path], paths: tuple[Path, ...], *rest: Any, weight: int = 0) -> Path:
    """The work done here when it is surely quick, in a process of its own when it may not be; refused when its
    pieces are more than anybody could edit."""
    pieces = sum(len(path.rows) for path in paths)
    if pieces > MAX_PIECES:
        raise TooLarge(f"This outline has {pieces:,} pieces; {MAX_PIECES:,} are the most that can be worked on.")
    weight += pieces
    if weight <= QUICK_WEIGHT and weight + crossings(paths) <= QUICK_WEIGHT:
        return _worked_out(work, paths, *rest)
    key = (work.__name__, paths, rest)
    if (why := _HOPELESS.find(key)) is not None:
        raise TooLarge(why)
    try:
        return aside("Working out this outline", _worked_out, work, paths, *rest)
    except TookTooLong as error:
        if error.seconds >= SECONDS:
            _HOPELESS.put(key, str(error))
        raise


def _worked_out(work: Callable[..., Path], paths: tuple[Path, ...], *rest: Any) -> Path:
    try:
        return work(paths, *rest)
    except pathops.PathOpsError as error:
        raise TooLarge("This outline cannot be worked out: it is too large, too small or too tangled.") from error


def _union(paths: tuple[Path, ...], rule: Rule) -> Path:
    native = _native(paths[0])
    native.fillType = _FILL[rule]
    native.simplify(fix_winding=True, keep_starting_points=False)
    return _ours(native)


def _grown(paths: tuple[Path, ...], distance: float, join: Join, mitre: float) -> Path:
    body, band = _native(paths[0]), _native(paths[0])
    band.stroke(2 * abs(distance) * ENLARGE, pathops.LineCap.BUTT_CAP, _JOINS[join], mitre)
    band.convertConicsToQuads(CONIC_TOLERANCE)
    operation = pathops.PathOp.UNION if distance > 0 else pathops.PathOp.DIFFERENCE
    return _ours(pathops.op(body, band, operation, fix_winding=True))


def _stroked(paths: tuple[Path, ...], pen: Pen) -> Path:
    sink = _NativeSink(closing=False)
    paths[0].draw(sink)
    sink.end()
    native = sink.path
    dashes = [length * ENLARGE for length in pen.dashes] or None
    cap, join = _CAPS[pen.cap], _JOINS[pen.join]
    native.stroke(pen.width * ENLARGE, cap, join, pen.mitre, dashes, pen.phase * ENLARGE)
    native.convertConicsToQuads(CONIC_TOLERANCE)
    native.simplify(fix_winding=True, keep_starting_points=False)
    return _ours(native)


def _combined(paths: tuple[Path, ...], mode: Mode) -> Path:
    """By halves where the order does not matter, so that no path is worked on more often than it must be."""
    natives = [_native(path) for path in paths]
    if mode == "difference":
        return _ours(reduce(partial(_op, mode), natives))
    while len(natives) > 1:
        pairs = [natives[place : place + 2] for place in range(0, len(natives), 2)]
        natives = [_op(mode, *pair) if len(pair) == 2 else pair[0] for pair in pairs]
    return _ours(natives[0])


def _op(mode: Mode, first: pathops.Path, second: pathops.Path) -> pathops.Path:
    return pathops.op(first, second, _OPERATIONS[mode], fix_winding=True)


class _NativeSink:
    """Draws to the engine, enlarged, with arcs as short cubics."""

    def __init__(self, *, closing: bool = True) -> None:
        self.path = pathops.Path()
        self._closing = closing
        self._pen = self.path.getPen()
        self._open = False

    def move(self, x: float, y: float) -> None:
        self.end()
        self._pen.moveTo((x * ENLARGE, y * ENLARGE))
        self._open = True

    def line(self, x: float, y: float) -> None:
        self._pen.lineTo((x * ENLARGE, y * ENLARGE))

    def cubic(self, a: float, b: float, c: float, d: float, x: float, y: float) -> None:
        scaled = [value * ENLARGE for value in (a, b, c, d, x, y)]
        self._pen.curveTo(scaled[0:2], scaled[2:4], scaled[4:6])

    def arc(self, cx: float, cy: float, rx: float, ry: float, turn: float, start: float, sweep: float) -> None:
        for piece in arc_cubics(cx, cy, rx, ry, turn, start, sweep, MAX_ARC_PIECE):
            self.cubic(*piece)

    def close(self) -> None:
        if self._open:
            self._pen.closePath()
        self._open = False

    def end(self) -> None:
        """After the last contour: one that was not closed is, unless its ends are to stay open."""
        if self._open and not self._closing:
            self._pen.endPath()
            self._open = False
        self.close()


def arc_cubics(
    cx: float, cy: float, rx: float, ry: float, turn: float, start: float, sweep: float,
    max_piece: float,
) -> list[tuple[float, float, float, float, float, float]]:  # fmt: skip
    """An arc as cubics, each of at most ``max_piece`` radians, tangent at its ends."""
    count = max(1, math.ceil(abs(sweep) / max_piece - 1e-9))
    step = sweep / count
    handle = 4 / 3 * math.tan(step / 4)
    place = Similarity(turn=math.degrees(turn), dx=cx, dy=cy)
    pieces = []
    for index in range(count):
        a, b = start + index * step, start + (index + 1) * step
        first = place.apply(rx * (math.cos(a) - handle * math.sin(a)), ry * (math.sin(a) + handle * math.cos(a)))
        second = place.apply(rx * (math.cos(b) + handle * math.sin(b)), ry * (math.sin(b) - handle * math.cos(b)))
        pieces.append((*first, *second, *arc_point(cx, cy, rx, ry, turn, b)))
    return pieces


def _native(path: Path) -> pathops.Path:
    sink = _NativeSink()
    path.draw(sink)
    sink.end()
    return sink.path


def _ours(native: pathops.Path) -> Path:
    native.convertConicsToQuads(CONIC_TOLERANCE)
    pen = PathBuilder()
    here = (0.0, 0.0)
    for verb, raw in native:
        points = [(x / ENLARGE, y / ENLARGE) for x, y in raw]
        match verb:
            case pathops.PathVerb.MOVE:
                pen.move(*points[0])
            case pathops.PathVerb.LINE:
                pen.line(*points[0])
            case pathops.PathVerb.QUAD:
                quadratic(pen, here, points[0], points[1])
            case pathops.PathVerb.CUBIC:
                pen.cubic(*points[0], *points[1], *points[2])
            case _:
                pen.close()
        here = points[-1] if points else here
    return pen.path()


def quadratic(
    pen: PathBuilder,
    start: tuple[float, float], control: tuple[float, float], end: tuple[float, float],
) -> None:  # fmt: skip
    """Add a quadratic curve as the cubic that equals it."""
    a = (start[0] + (control[0] - start[0]) * 2 / 3, start[1] + (control[1] - start[1]) * 2 / 3)
    b = (end[0] + (control[0] - end[0]) * 2 / 3, end[1] + (control[1] - end[1]) * 2 / 3)
    pen.cubic(*a, *b, *end)
