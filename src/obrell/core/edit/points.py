"""Drawing paths point by point, and changing their points."""

from __future__ import annotations

import math
from abc import abstractmethod
from collections.abc import Callable, Sequence
from dataclasses import replace
from typing import Annotated, Literal, Self

from pydantic import BeforeValidator, Field

from obrell.core.document.measures import points_on_canvas
from obrell.core.document.model import Control, Part
from obrell.core.document.moving import place_of, way_of
from obrell.core.edit.base import Edit, Surroundings, add_parts, each_part, names_of, part_of
from obrell.core.edit.drawing import new_part
from obrell.core.edit.leading import Lead, Led, Way, freely, ray
from obrell.core.edit.snapping import pulled_by, snap_point
from obrell.core.edit.typed import summed, summed_or_none
from obrell.core.errors import NoSuchThing, Refused
from obrell.core.geometry.fillets import fillet
from obrell.core.geometry.knots import SAME_PX, Bend, nearest, pulled, room_of, split, straight
from obrell.core.geometry.plane import Point, along_axis
from obrell.core.geometry.svgdata import number as number_text
from obrell.core.shapes.kinds.line import Line
from obrell.core.shapes.kinds.path import Path
from obrell.core.shapes.outlined import Contour, Knot, knot_from
from obrell.core.values.fields import Id, Length, Place

Number = Annotated[int, Field(ge=0, le=100_000)]
Spot = tuple[Number, Number]
"""A contour's number and a knot's number in it."""
Points = Annotated[tuple[Spot, ...], Field(min_length=1, max_length=5000)]
NEARLY, SHOWN_POINTS, TRIED = 1e-6, 4, 100
DECIMALS = 6
"""Of px, that places led by hand are kept to."""
GONE = "That point is no longer there: it was removed, perhaps in another window."


class PenStart(Led):
    """A new path of two points, drawn as a line until it is closed; places are on the canvas.
    ``constrained`` keeps the segment to multiples of 45°."""

    kind: Literal["pen-start"] = "pen-start"
    first: Knot
    second: Knot
    constrained: bool = False

    def apply(self, control: Control, around: Surroundings) -> Control:
        edit = self.settled(control)
        first = self._first(control)
        second = _put(edit.second, edit._way(first).end(_at(first)))
        x, y = (first.x + second.x) / 2, (first.y + second.y) / 2
        knots = tuple(knot.evolve(x=knot.x - x, y=knot.y - y) for knot in (first, second))
        shape = Path(contours=(Contour(closed=False, knots=knots),), form="line")
        return add_parts(control, [new_part(control, shape, Point(x, y), around)])

    def label(self, control: Control) -> str:
        return "Started a path"

    def lead(self, control: Control) -> Lead:
        first = self._first(control)
        return self._way(first).lead(_at(first), own=(_at(first),))

    def shifted(self, dx: float, dy: float) -> Self:
        return self.evolve(second=_shifted(self.second, dx, dy), snap=None)

    def _first(self, control: Control) -> Knot:
        if self.snap is None:
            return self.first
        return _shifted(self.first, *pulled_by(snap_point(control, (), self.first.x, self.first.y, self.snap)))

    def _way(self, first: Knot) -> Way:
        return ray(_at(first), self.second.x, self.second.y, constrained=self.constrained)


class _Points(Edit):
    """Base of the edits of one path's points."""

    part: Id

    def apply(self, control: Control, around: Surroundings) -> Control:
        edit = self.settled(control)

        def changed(part: Part) -> Part:
            return part.evolve(shape=edit._changed(part, _path_of(part)))

        return each_part(control, [self.part], changed)

    def settled(self, control: Control) -> Self:
        """The edit with its place where it comes to lie: where it is, for one that is not led."""
        return self

    @abstractmethod
    def _changed(self, part: Part, path: Path) -> Path:
        """The path with its points changed."""

    def _where(self, control: Control) -> str:
        return f" of {names_of(control, [self.part])}"


class PenNext(Led, _Points):
    """One more point at an open end; the place is on the canvas. ``constrained`` as in ``PenStart``."""

    kind: Literal["pen-next"] = "pen-next"
    contour: Number
    at_start: bool = False
    knot: Knot
    constrained: bool = False

    def _changed(self, part: Part, path: Path) -> Path:
        run = _contour(path, self.contour)
        if run.closed:
            raise Refused("This path is closed. Cut it open at a point to go on drawing.")
        start = self._start(part, run)
        new = _to_own(part, _put(self.knot, self._way(start).end(start)))
        knots = (_turned_round(new), *run.knots) if self.at_start else (*run.knots, new)
        return _with_contour(path, self.contour, run.evolve(knots=knots))

    def label(self, control: Control) -> str:
        return f"Added a point{self._where(control)}"

    def lead(self, control: Control) -> Lead:
        part = part_of(control, self.part)
        path = _path_of(part)
        start = self._start(part, _contour(path, self.contour))
        return self._way(start).lead(start, (self.part,), _others(part))

    def shifted(self, dx: float, dy: float) -> Self:
        return self.evolve(knot=_shifted(self.knot, dx, dy), snap=None)

    def _start(self, part: Part, run: Contour) -> Point:
        """The end on the canvas that the point is joined to."""
        last = run.knots[0 if self.at_start else -1]
        return Point(*place_of(part).apply(last.x, last.y))

    def _way(self, start: Point) -> Way:
        return ray(start, self.knot.x, self.knot.y, constrained=self.constrained)


class ClosePath(_Points):
    """An open contour closed; a path that was a line of this one contour is filled from then on."""

    kind: Literal["close-path"] = "close-path"
    contour: Number

    def _changed(self, part: Part, path: Path) -> Path:
        run = _contour(path, self.contour)
        form = "filled" if len(path.contours) == 1 else path.form
        return _with_contour(path, self.contour, run.evolve(closed=True)).evolve(form=form)

    def label(self, control: Control) -> str:
        return f"Closed the path{self._where(control)}"


class MovePoints(Led, _Points):
    """Points moved on the canvas; ``constrained`` keeps to the longer of the two directions. It is the first of them
    that snaps."""

    kind: Literal["move-points"] = "move-points"
    points: Points
    dx: Place
    dy: Place
    constrained: bool = False

    def _changed(self, part: Part, path: Path) -> Path:
        way = self._way()
        dx, dy = way_of(part).undo(way.dx, way.dy)
        return _each(path, self.points, lambda bend: bend.moved(dx, dy))

    def lead(self, control: Control) -> Lead:
        part = part_of(control, self.part)
        first = _knot(_path_of(part), self.points[0])
        start = Point(*place_of(part).apply(first.x, first.y))
        return self._way().lead(start, (self.part,), _others(part, self.points))

    def shifted(self, dx: float, dy: float) -> Self:
        way = self._way()
        return self.evolve(dx=way.dx + dx, dy=way.dy + dy, constrained=False, snap=None)

    def _way(self) -> Way:
        return freely(self.dx, self.dy, along_axis if self.constrained else None)

    def label(self, control: Control) -> str:
        count = len(self.points)
        return f"Moved {'a point' if count == 1 else f'{count} points'}{self._where(control)}"


class PlacePoints(_Points):
    """Points put at a typed place on the canvas, each of them; a coordinate that was left empty stays. With ``side``
    it is a point's handle that is put there, the other one staying where it is."""

    kind: Literal["place-points"] = "place-points"
    points: Points
    x: Annotated[Place | None, BeforeValidator(summed_or_none)] = None
    y: Annotated[Place | None, BeforeValidator(summed_or_none)] = None
    side: Literal["in", "out"] | None = None

    def _changed(self, part: Part, path: Path) -> Path:
        place = place_of(part)

        def put(bend: Bend) -> Bend:
            dx, dy = self._handle(bend)
            x, y = place.apply(bend.x + dx, bend.y + dy)
            x, y = place.undo(x if self.x is None else self.x, y if self.y is None else self.y)
            if self.side is None:
                return bend.moved(x - bend.x, y - bend.y)
            arm = {f"{self.side}_x": x - bend.x, f"{self.side}_y": y - bend.y}
            return replace(bend, **arm)

        return _each(path, self.points, put)

    def _handle(self, bend: Bend) -> tuple[float, float]:
        if self.side is None:
            return 0.0, 0.0
        return (bend.in_x, bend.in_y) if self.side == "in" else (bend.out_x, bend.out_y)

    def label(self, control: Control) -> str:
        what = "a handle" if self.side else "a point" if len(self.points) == 1 else f"{len(self.points)} points"
        return f"Placed {what}{self._where(control)}"


class MoveHandle(_Points):
    """A point's handle pulled to a place on the canvas. The other handle of a smooth point turns with
    it, unless ``alone``."""

    kind: Literal["move-handle"] = "move-handle"
    point: Spot
    side: Literal["in", "out"]
    x: Place
    y: Place
    alone: bool = False
    constrained: bool = False

    def _changed(self, part: Part, path: Path) -> Path:
        x, y = place_of(part).undo(self.x, self.y)

        def turned(bend: Bend) -> Bend:
            dx, dy = x - bend.x, y - bend.y
            if self.constrained:
                step = math.pi / 12
                angle = round(math.atan2(dy, dx) / step) * step
                length = math.hypot(dx, dy)
                dx, dy = length * math.cos(angle), length * math.sin(angle)
            other = (bend.in_x, bend.in_y) if self.side == "out" else (bend.out_x, bend.out_y)
            if bend.smooth and not self.alone and (dx or dy):
                share = -math.hypot(*other) / math.hypot(dx, dy)
                other = dx * share, dy * share
            if self.side == "out":
                return replace(bend, out_x=dx, out_y=dy, in_x=other[0], in_y=other[1])
            return replace(bend, in_x=dx, in_y=dy, out_x=other[0], out_y=other[1])

        return _each(path, [self.point], turned)

    def label(self, control: Control) -> str:
        return f"Moved a handle{self._where(control)}"


class AddPoint(_Points):
    """A point on the segment after ``point``, where it is nearest to a place on the canvas; the shape
    stays."""

    kind: Literal["add-point"] = "add-point"
    point: Spot
    x: Place
    y: Place

    def _changed(self, part: Part, path: Path) -> Path:
        run, index, to = _segment(path, self.point)
        at = nearest(run[index], run[to], *place_of(part).undo(self.x, self.y))
        one, middle, other = split(run[index], run[to], at)
        run[index], run[to] = one, other
        run.insert(index + 1, middle)
        return _with_bends(path, self.point[0], run)

    def label(self, control: Control) -> str:
        return f"Added a point{self._where(control)}"


class DragSegment(_Points):
    """The segment after ``point`` pulled where it was taken hold of, (x, y) on the canvas; its ends
    stay."""

    kind: Literal["drag-segment"] = "drag-segment"
    point: Spot
    x: Place
    y: Place
    dx: Place
    dy: Place

    def _changed(self, part: Part, path: Path) -> Path:
        dx, dy = way_of(part).undo(self.dx, self.dy)
        run, index, to = _segment(path, self.point)
        at = nearest(run[index], run[to], *place_of(part).undo(self.x, self.y))
        run[index], run[to] = pulled(run[index], run[to], at, dx, dy)
        return _with_bends(path, self.point[0], run)

    def label(self, control: Control) -> str:
        return f"Bent a segment{self._where(control)}"


class RemovePoints(_Points):
    """Points taken out; a contour left with one point goes too."""

    kind: Literal["remove-points"] = "remove-points"
    points: Points

    def _changed(self, part: Part, path: Path) -> Path:
        gone = set(self.points)
        runs = []
        for number, run in enumerate(path.contours):
            knots = tuple(k for index, k in enumerate(run.knots) if (number, index) not in gone)
            if len(knots) >= 2:
                runs.append(run.evolve(knots=knots))
        if not runs:
            raise Refused("A path keeps at least two points. To be rid of it, remove the part.")
        return path.evolve(contours=tuple(runs))

    def removes(self) -> bool:
        return True

    def label(self, control: Control) -> str:
        count = len(self.points)
        return f"Removed {'a point' if count == 1 else f'{count} points'}{self._where(control)}"


class BendPoints(_Points):
    """Points made smooth (handles in the direction of their neighbours) or sharp (no handles)."""

    kind: Literal["bend-points"] = "bend-points"
    points: Points
    smooth: bool

    def _changed(self, part: Part, path: Path) -> Path:
        for point in self.points:
            number, index = point
            run = _bends(_contour(path, number))
            if index >= len(run):
                raise NoSuchThing(GONE)
            before, after = run[index - 1], run[(index + 1) % len(run)]
            run[index] = _smoothed(run[index], before, after) if self.smooth else _sharp(run[index])
            path = _with_bends(path, number, run)
        return path

    def label(self, control: Control) -> str:
        return f"Made points {'smooth' if self.smooth else 'sharp'}{self._where(control)}"


class RoundPoints(_Points):
    """Corners rounded off by a radius: between straight segments one that can be changed again, where a
    segment is curved an arc of two points in its stead."""

    kind: Literal["round-points"] = "round-points"
    points: Points
    radius: Annotated[Length, BeforeValidator(summed)]

    def _changed(self, part: Part, path: Path) -> Path:
        for number, index in sorted(self.points, reverse=True):
            path = self._rounded(path, number, index)
        self._check_room(path)
        return path

    def _check_room(self, path: Path) -> None:
        """Refuses a radius that some of the corners have no room for, and says how much they have."""
        lacking = []
        for number, run in enumerate(path.contours):
            chosen = [index for at, index in self.points if at == number and index < len(run.knots)]
            bends = [knot.bend() for knot in run.knots]
            rooms = room_of(bends, closed=run.closed)
            lacking += [
                (index + 1, rooms[index])
                for index in sorted(chosen)
                if bends[index].radius == self.radius and rooms[index] < self.radius * (1 - NEARLY)
            ]
        if lacking:
            least = math.floor(min(room for _, room in lacking) * 100 + 1e-6) / 100
            which = ", ".join(str(point) for point, _ in lacking[:SHOWN_POINTS])
            raise Refused(
                f"{'Point' if len(lacking) == 1 else 'Points'} {which} of the path: no room for a radius of "
                f"{number_text(self.radius)} px; {number_text(least)} px is the most that fits."
            )

    def _rounded(self, path: Path, number: int, index: int) -> Path:
        run = _bends(_contour(path, number))
        if index >= len(run):
            raise NoSuchThing(GONE)
        if not path.contours[number].closed and _is_end(path.contours[number], index):
            raise Refused("The end of an open path is no corner.")
        before, corner, after = run[index - 1], run[index], run[(index + 1) % len(run)]
        if straight(before, corner) and straight(corner, after):
            return _each(path, [(number, index)], lambda bend: replace(bend, radius=self.radius))
        found = fillet(before, corner, after, self.radius)
        if found is None:
            room = _largest(lambda radius: fillet(before, corner, after, radius) is not None, self.radius)
            fits = f"{number_text(room)} px is about the most that fits." if room else "none fits there."
            lacks = f"no room for a radius of {number_text(self.radius)} px"
            raise Refused(f"Point {index + 1} of the path: {lacks}; {fits}")
        run[index - 1], run[(index + 1) % len(run)] = found.before, found.after
        return _with_bends(path, number, [*run[:index], found.first, found.second, *run[index + 1 :]])

    def label(self, control: Control) -> str:
        return f"Rounded corners{self._where(control)}"


def _largest(fits: Callable[[float], bool], most: float) -> float:
    """The largest of even shares of ``most`` that fits, rounded down; 0 when none does."""
    found = (most * step / TRIED for step in range(TRIED - 1, 0, -1))
    return math.floor(next((radius for radius in found if fits(radius)), 0.0) * 100) / 100


class CutOpen(_Points):
    """A closed contour opened at a point, or an open one cut in two there; the point is doubled."""

    kind: Literal["cut-open"] = "cut-open"
    point: Spot

    def _changed(self, part: Part, path: Path) -> Path:
        number, index = self.point
        run = _contour(path, number)
        if index >= len(run.knots):
            raise NoSuchThing(GONE)
        if run.closed:
            knots = (*run.knots[index:], *run.knots[: index + 1])
            return _with_contour(path, number, Contour(closed=False, knots=knots))
        if index in (0, len(run.knots) - 1):
            raise Refused("This is an end already.")
        pieces = (run.knots[: index + 1], run.knots[index:])
        cut = tuple(Contour(closed=False, knots=knots) for knots in pieces)
        return path.evolve(contours=(*path.contours[:number], *cut, *path.contours[number + 1 :]))

    def label(self, control: Control) -> str:
        return f"Cut the path open{self._where(control)}"


class JoinEnds(_Points):
    """Two open ends joined: by one point where they meet, else by a straight segment."""

    kind: Literal["join-ends"] = "join-ends"
    points: Annotated[tuple[Spot, Spot], Field()]

    def _changed(self, part: Part, path: Path) -> Path:
        (a, i), (b, j) = self.points
        first, second = _contour(path, a), _contour(path, b)
        if first.closed or second.closed or not (_is_end(first, i) and _is_end(second, j)) or (a, i) == (b, j):
            raise Refused("Choose two open ends to join.")
        if a == b:
            return _with_bends(path, a, _merged(_bends(first)), closed=True)
        one = _bends(first) if i else _reversed(_bends(first))
        other = _reversed(_bends(second)) if j else _bends(second)
        run = one + other
        if math.dist((one[-1].x, one[-1].y), (other[0].x, other[0].y)) < SAME_PX:
            met = replace(one[-1], out_x=other[0].out_x, out_y=other[0].out_y)
            run = [*one[:-1], met, *other[1:]]
        joined = Contour(closed=False, knots=tuple(knot_from(bend) for bend in run))
        rest = tuple(c for number, c in enumerate(path.contours) if number not in (a, b))
        return path.evolve(contours=(*rest, joined))

    def label(self, control: Control) -> str:
        return f"Joined two ends{self._where(control)}"


class MoveEnd(Led):
    """One end of a line moved on the canvas, the other staying, or going the other way when ``centred``;
    ``constrained`` keeps the line to multiples of 45°."""

    kind: Literal["move-end"] = "move-end"
    part: Id
    end: Literal["start", "end"]
    dx: Place
    dy: Place
    constrained: bool = False
    centred: bool = False

    def apply(self, control: Control, around: Surroundings) -> Control:
        return each_part(control, [self.part], self.settled(control)._moved)

    def lead(self, control: Control) -> Lead:
        part = part_of(control, self.part)
        still, led = self._ends(part)
        about = self._about(still, led)
        return self._way(about, led).lead(about, (self.part,), () if self.centred else (still,))

    def shifted(self, dx: float, dy: float) -> Self:
        return self.evolve(dx=self.dx + dx, dy=self.dy + dy, snap=None)

    def label(self, control: Control) -> str:
        return f"Moved an end of {names_of(control, [self.part])}"

    def _moved(self, part: Part) -> Part:
        still, led = self._ends(part)
        about = self._about(still, led)
        at = self._way(about, led).end(about)
        other = Point(2 * about.x - at.x, 2 * about.y - at.y) if self.centred else still
        if math.hypot(other.x - at.x, other.y - at.y) < SAME_PX:
            return part
        start, end = (at, other) if self.end == "start" else (other, at)
        across, down = (round(v, DECIMALS) for v in way_of(part).undo(end.x - start.x, end.y - start.y))
        shape = part.shape.evolve(across=across, down=down)
        return part.evolve(shape=shape, x=round(start.x, DECIMALS), y=round(start.y, DECIMALS))

    def _ends(self, part: Part) -> tuple[Point, Point]:
        """The end that stays and the one that is led, on the canvas."""
        if not isinstance(part.shape, Line):
            raise Refused(f"“{part.name}” is not a line.")
        place, line = place_of(part), part.shape
        start, end = Point(part.x, part.y), Point(*place.apply(line.across, line.down))
        return (end, start) if self.end == "start" else (start, end)

    def _about(self, still: Point, led: Point) -> Point:
        """What the led end is seen from."""
        return Point((still.x + led.x) / 2, (still.y + led.y) / 2) if self.centred else still

    def _way(self, about: Point, led: Point) -> Way:
        return ray(about, led.x + self.dx, led.y + self.dy, constrained=self.constrained)


def _path_of(part: Part) -> Path:
    if not isinstance(part.shape, Path):
        raise Refused(f"“{part.name}” has no points of its own. Convert it to a path first.")
    return part.shape


def _contour(path: Path, number: int) -> Contour:
    if number >= len(path.contours):
        raise NoSuchThing(GONE)
    return path.contours[number]


def _knot(path: Path, spot: Spot) -> Knot:
    run = _contour(path, spot[0])
    if spot[1] >= len(run.knots):
        raise NoSuchThing(GONE)
    return run.knots[spot[1]]


def _at(knot: Knot) -> Point:
    return Point(knot.x, knot.y)


def _put(knot: Knot, at: Point) -> Knot:
    return knot.evolve(x=at.x, y=at.y)


def _shifted(knot: Knot, dx: float, dy: float) -> Knot:
    return knot.evolve(x=knot.x + dx, y=knot.y + dy) if dx or dy else knot


def _others(part: Part, but: Sequence[Spot] = ()) -> tuple[Point, ...]:
    """The path's points on the canvas, without some."""
    return tuple(point for spot, point in points_on_canvas(part).items() if spot not in but)


def _bends(run: Contour) -> list[Bend]:
    return [knot.bend() for knot in run.knots]


def _with_contour(path: Path, number: int, run: Contour) -> Path:
    return path.evolve(contours=(*path.contours[:number], run, *path.contours[number + 1 :]))


def _with_bends(path: Path, number: int, bends: Sequence[Bend], *, closed: bool | None = None) -> Path:
    run = path.contours[number]
    knots = tuple(knot_from(bend) for bend in bends)
    return _with_contour(path, number, Contour(closed=run.closed if closed is None else closed, knots=knots))


def _each(path: Path, points: Sequence[Spot], change: Callable[[Bend], Bend]) -> Path:
    wanted = set(points)
    for number, index in wanted:
        if index >= len(_contour(path, number).knots):
            raise NoSuchThing(GONE)
    for number in {number for number, _ in wanted}:
        run = path.contours[number]
        knots = tuple(
            knot_from(change(knot.bend())) if (number, index) in wanted else knot
            for index, knot in enumerate(run.knots)
        )
        path = _with_contour(path, number, run.evolve(knots=knots))
    return path


def _segment(path: Path, point: Spot) -> tuple[list[Bend], int, int]:
    """The contour's knots and the numbers of a segment's two ends."""
    number, index = point
    run = _contour(path, number)
    count = len(run.knots)
    if index >= count or (not run.closed and index == count - 1):
        raise NoSuchThing(GONE)
    return _bends(run), index, (index + 1) % count


def _to_own(part: Part, knot: Knot) -> Knot:
    """A knot given on the canvas in the part's own space."""
    turn = way_of(part)
    x, y = place_of(part).undo(knot.x, knot.y)
    in_x, in_y = turn.undo(knot.in_x, knot.in_y)
    out_x, out_y = turn.undo(knot.out_x, knot.out_y)
    return knot_from(Bend(x, y, in_x, in_y, out_x, out_y, knot.radius))


def _turned_round(knot: Knot) -> Knot:
    return knot.evolve(in_x=knot.out_x, in_y=knot.out_y, out_x=knot.in_x, out_y=knot.in_y)


def _reversed(bends: Sequence[Bend]) -> list[Bend]:
    return [
        replace(b, in_x=b.out_x, in_y=b.out_y, out_x=b.in_x, out_y=b.in_y) for b in reversed(bends)
    ]  # fmt: skip


def _merged(bends: list[Bend]) -> list[Bend]:
    """A run whose two ends become one knot where they meet."""
    first, last = bends[0], bends[-1]
    if len(bends) > 2 and math.dist((first.x, first.y), (last.x, last.y)) < SAME_PX:
        return [replace(first, in_x=last.in_x, in_y=last.in_y), *bends[1:-1]]
    return bends


def _is_end(run: Contour, index: int) -> bool:
    return index in (0, len(run.knots) - 1)


def _sharp(bend: Bend) -> Bend:
    return replace(bend, in_x=0.0, in_y=0.0, out_x=0.0, out_y=0.0)


def _smoothed(bend: Bend, before: Bend, after: Bend) -> Bend:
    """Handles along the line through both neighbours, a third of the way to each."""
    dx, dy = after.x - before.x, after.y - before.y
    length = math.hypot(dx, dy) or 1.0
    back = math.dist((bend.x, bend.y), (before.x, before.y)) / 3 / length
    ahead = math.dist((bend.x, bend.y), (after.x, after.y)) / 3 / length
    return replace(bend, in_x=-dx * back, in_y=-dy * back, out_x=dx * ahead, out_y=dy * ahead, radius=0.0)
