"""A shape swept along a straight way."""

from __future__ import annotations

import math
from collections.abc import Iterator

from obrell.core.errors import TooLarge
from obrell.core.geometry.combine import combined, union
from obrell.core.geometry.paths import Path, PathBuilder, PathSink
from obrell.core.geometry.plane import Similarity
from obrell.core.workspace import remembered

CHORD_PX = 0.003
"""Largest distance between a curve and the chords of its strip, logical px. No chord is an edge of the result: strips
are moved into what both ends cover by more than that."""
INTO_PX = 0.03
HALVINGS = (5, 3, 0, 1, 7)
"""How often the chords on both sides of where an outline runs along the way are halved, for that near to it moving
them along the way hardly moves them sideways; others are tried when the union fails."""
SLACK_PX = 0.05
FLAT = 1e-9
"""What the sine of the angle between a chord and the way is at least, for it to sweep over anything."""
Spot = tuple[float, float]


@remembered(256)
def swept(path: Path, dx: float, dy: float) -> Path:
    """The union of the path moved by every share of (dx, dy): both its ends, and between them what every
    piece of the outline sweeps over. Its edges are pieces of the path itself and straight lines."""
    if dx == 0 and dy == 0:
        return path
    ends = path, path.transformed(Similarity(dx=dx, dy=dy))
    made = Path()
    for halvings in HALVINGS:
        made = combined("union", (_united(list(_strips(path, dx, dy, halvings))), *ends))
        if _plausible(made, ends):
            break
    return made


def _plausible(made: Path, ends: tuple[Path, Path]) -> bool:
    """Whether a union reaches as far as what it is made of, and is no smaller: the native library loses pieces of some
    that touch without crossing."""
    bounds, want = made.bounds(), ends[0].bounds().union(ends[1].bounds())
    gaps = (bounds.left - want.left, bounds.top - want.top, bounds.right - want.right, bounds.bottom - want.bottom)
    return max(abs(gap) for gap in gaps) < SLACK_PX and _area(made) > _area(ends[0]) * (1 - 1e-6) - CHORD_PX


def _area(path: Path) -> float:
    sink = _ChordSink(0.0, 0.0, 0)
    path.draw(sink)
    return abs(_twice_area(sink.chords)) / 2


def _twice_area(chords: list[tuple[Spot, Spot]]) -> float:
    """Positive for what runs clockwise."""
    return sum(x0 * y1 - x1 * y0 for (x0, y0), (x1, y1) in chords)


def _strips(path: Path, dx: float, dy: float, halvings: int) -> Iterator[list[Spot]]:
    """What stretches of the outline sweep over, as polygons, all clockwise. A stretch moves to one side of itself, so
    no strip crosses itself. Where its inside lies behind, a strip begins and ends a little farther back, and where
    that lies ahead, a little farther on, so that its chords are covered."""
    sink = _ChordSink(dx, dy, halvings)
    path.draw(sink)
    clockwise = _twice_area(sink.chords) > 0
    share = min(0.5, INTO_PX / math.hypot(dx, dy))
    for side, curved, run in _runs(sink.chords, sink.curved, dx, dy):
        by = 0.0 if not curved else share if (side > 0) == clockwise else -share
        near = [(x + by * dx, y + by * dy) for x, y in (run if side > 0 else run[::-1])]
        yield [*near, *((x + dx, y + dy) for x, y in reversed(near))]


def _runs(
    chords: list[tuple[Spot, Spot]], curved: list[bool], dx: float, dy: float
) -> Iterator[tuple[int, bool, list[Spot]]]:  # fmt: skip
    """Chords one after the other that move to the same side, 1 or -1, of themselves, those of curves apart."""
    run: list[Spot] = []
    side, bent = 0, False
    for (start, end), curve in zip(chords, curved, strict=True):
        turn = (end[0] - start[0]) * dy - (end[1] - start[1]) * dx
        flat = abs(turn) <= FLAT * math.dist(start, end) * math.hypot(dx, dy)
        to = 0 if flat else 1 if turn > 0 else -1
        if run and to == side and run[-1] == start and curve == bent:
            run.append(end)
            continue
        if run:
            yield side, bent, run
        run, side, bent = ([start, end] if to else []), to, curve
    if run:
        yield side, bent, run


def _united(strips: list[list[Spot]]) -> Path:
    """All polygons as one outline. The native library gives up on some heaps of edges that it takes
    in two halves."""
    pen = PathBuilder()
    for corners in strips:
        _polygon(pen, corners)
    try:
        return union(pen.path())
    except TooLarge:
        if len(strips) < 2:
            return pen.path()
        half = len(strips) // 2
        return combined("union", (_united(strips[:half]), _united(strips[half:])))


def _polygon(pen: PathSink, corners: list[Spot]) -> None:
    pen.move(*corners[0])
    for corner in corners[1:]:
        pen.line(*corner)
    pen.close()


class _ChordSink:
    """Collects the chords of an outline, every contour closed, cut where it runs along the way (dx, dy)."""

    def __init__(self, dx: float, dy: float, halvings: int) -> None:
        self.chords: list[tuple[Spot, Spot]] = []
        self.curved: list[bool] = []
        """Of every chord, whether it stands for a piece of a curve."""
        self._way, self._halvings = (dx, dy), halvings
        self._here = self._start = (0.0, 0.0)

    def move(self, x: float, y: float) -> None:
        self._here = self._start = (x, y)

    def line(self, x: float, y: float) -> None:
        self._to(x, y, curved=False)

    def _to(self, x: float, y: float, *, curved: bool) -> None:
        if (x, y) != self._here:
            self.chords.append((self._here, (x, y)))
            self.curved.append(curved)
        self._here = (x, y)

    def cubic(self, a: float, b: float, c: float, d: float, x: float, y: float) -> None:
        x0, y0 = self._here
        bend = 6 * max(math.hypot(x0 - 2 * a + c, y0 - 2 * b + d), math.hypot(a - 2 * c + x, b - 2 * d + y))
        count = max(1, math.ceil(math.sqrt(bend / (8 * CHORD_PX))))
        off = [self._across(*step) for step in ((a - x0, b - y0), (c - a, d - b), (x - c, y - d))]
        for t in _cuts(count, _turns(*off), self._halvings):
            u = 1 - t
            self._to(
                u**3 * x0 + 3 * u * u * t * a + 3 * u * t * t * c + t**3 * x,
                u**3 * y0 + 3 * u * u * t * b + 3 * u * t * t * d + t**3 * y,
                curved=True,
            )

    def arc(self, cx: float, cy: float, rx: float, ry: float, turn: float, start: float, sweep: float) -> None:
        cos, sin = math.cos(turn), math.sin(turn)
        count = max(2, math.ceil(abs(sweep) * math.sqrt(max(rx, ry) / (8 * CHORD_PX))))
        along = math.atan2(self._across(-ry * sin, ry * cos), self._across(rx * cos, rx * sin))
        turns = [((along + half - start) / sweep) % (math.tau / abs(sweep)) for half in (0, math.pi)]
        for share in (0.0, *_cuts(count, turns, self._halvings)):
            angle = start + sweep * share
            x, y = rx * math.cos(angle), ry * math.sin(angle)
            self._to(cx + cos * x - sin * y, cy + sin * x + cos * y, curved=share > 0)

    def close(self) -> None:
        self.line(*self._start)

    def _across(self, x: float, y: float) -> float:
        """How far a step leads away from the way."""
        return x * self._way[1] - y * self._way[0]


def _cuts(count: int, turns: list[float], halvings: int) -> list[float]:
    """The ends of even steps, as shares of a curve, and of ever smaller ones around where it turns."""
    cuts = {step / count for step in range(1, count)}
    for turn in turns:
        near = (way * 0.5**level / count for level in range(halvings) for way in (-1, 1))
        cuts.update(turn + step for step in (0.0, *near))
    return [*sorted(cut for cut in cuts if 0 < cut < 1), 1.0]


def _turns(a: float, b: float, c: float) -> list[float]:
    """Where a cubic runs along the way, ``a``, ``b`` and ``c`` being how far its three handles lead away from it."""
    square, linear = a - 2 * b + c, 2 * (b - a)
    if abs(square) < 1e-12:
        found = [-a / linear] if abs(linear) > 1e-12 else []
    else:
        root = linear * linear - 4 * square * a
        found = [(-linear + way * math.sqrt(root)) / (2 * square) for way in (-1, 1)] if root >= 0 else []
    return [t for t in found if 0 < t < 1]
