"""Reach: how large the touch areas on a panel are, and how near to each other."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations

import numpy as np
from numpy.typing import NDArray

from obrell.core.document.model import Control
from obrell.core.document.touching import touch_outline
from obrell.core.geometry.nearest import chords
from obrell.core.geometry.paths import Path
from obrell.core.geometry.plane import Rect, Similarity
from obrell.core.shapes import Box
from obrell.core.trial.operating import TABLES, Rows
from obrell.core.values.panels import Behaviour, Fixture

Chords = NDArray[np.float64]
"""Shape (n, 4): both ends of each."""
Place = tuple[float, float]
TOUCHED = ("field", "button")
"""Kinds of fixtures that are touched."""
SAMPLES = 40
"""Ends of chords of an outline by which it is first looked where another is near."""


@dataclass(frozen=True, slots=True)
class Area:
    """Where something on a panel is touched, logical px of the panel."""

    placement: str
    outline: Path
    box: Rect


@dataclass(frozen=True, slots=True)
class Gap:
    """The shortest way between the touch areas of two things on a panel, px; 0 where they meet."""

    one: str
    other: str
    px: float
    start: Place
    end: Place


@dataclass(frozen=True, slots=True)
class Reach:
    """The smallest touch area and the shortest way between two; None where there is none."""

    smallest: Area | None
    nearest: Gap | None


def is_touched(behaviour: Behaviour) -> bool:
    """Whether something comes of touching it."""
    rows: Rows = TABLES[behaviour].rows
    return bool(rows)


def area_of(placement: str, control: Control, x: float, y: float) -> Area | None:
    """The touch area of a control whose canvas lies at a place; None where it has none."""
    outline = touch_outline(control).transformed(Similarity(dx=x, dy=y))
    box = outline.bounds()
    return None if box.empty else Area(placement, outline, box)


def area_of_fixture(fixture: Fixture) -> Area | None:
    """The touch area of something that a screen itself shows: all of a field or a plain button; None of the others."""
    if fixture.kind not in TOUCHED:
        return None
    box = Rect(fixture.x, fixture.y, fixture.x + fixture.width, fixture.y + fixture.height)
    return Area(fixture.id, Box(width=box.width, height=box.height).path().transformed(
        Similarity(dx=box.centre.x, dy=box.centre.y)), box)  # fmt: skip


def reach_of(areas: Sequence[Area]) -> Reach:
    """What is smallest, by its narrower side, and what is nearest of the touch areas of a panel."""
    smallest = min(areas, key=lambda area: min(area.box.width, area.box.height), default=None)
    nearest: Gap | None = None
    for one, other in sorted(combinations(areas, 2), key=lambda pair: _apart(pair[0].box, pair[1].box)):
        if nearest is not None and _apart(one.box, other.box) >= nearest.px:
            break
        gap = gap_between(one, other)
        nearest = gap if nearest is None or gap.px < nearest.px else nearest
    return Reach(smallest, nearest)


def _apart(one: Rect, other: Rect) -> float:
    """At least how far two boxes are from each other."""
    across = max(0.0, other.left - one.right, one.left - other.right)
    down = max(0.0, other.top - one.bottom, one.top - other.bottom)
    return float(np.hypot(across, down))


def gap_between(one: Area, other: Area) -> Gap:
    """The shortest way from one area to another, curves as chords (``nearest``); between two that do not cross it
    begins or ends at the end of a chord."""
    a, b = chords(one.outline), chords(other.outline)
    near_a, near_b = _facing(a, b, other.box), _facing(b, a, one.box)
    to_b, to_a = _nearest(near_a, near_b), _nearest(near_b, near_a)
    far, start, end = to_b if to_b[0] <= to_a[0] else (to_a[0], to_a[2], to_a[1])
    common = _within(a, b) or _crossing(near_a, near_b)
    if common is not None:
        return Gap(one.placement, other.placement, 0.0, common, common)
    return Gap(one.placement, other.placement, far, start, end)


def _facing(lines: Chords, others: Chords, box: Rect) -> Chords:
    """Those of some chords that can be the nearest to others in a box: no farther from it than some two ends are."""
    few = max(1, len(lines) // SAMPLES), max(1, len(others) // SAMPLES)
    some = lines[:: few[0], None, :2] - others[None, :: few[1], :2]
    most = float(np.hypot(some[:, :, 0], some[:, :, 1]).min())
    left, right = np.minimum(lines[:, 0], lines[:, 2]), np.maximum(lines[:, 0], lines[:, 2])
    top, bottom = np.minimum(lines[:, 1], lines[:, 3]), np.maximum(lines[:, 1], lines[:, 3])
    across = np.maximum(np.maximum(box.left - right, left - box.right), 0)
    down = np.maximum(np.maximum(box.top - bottom, top - box.bottom), 0)
    return lines[np.hypot(across, down) <= most]


def _nearest(lines: Chords, others: Chords) -> tuple[float, Place, Place]:
    """How far the beginnings of some chords are from others at least, from where, and to where."""
    start, way = others[:, :2], others[:, 2:] - others[:, :2]
    square = np.maximum((way * way).sum(axis=1), 1e-18)
    to = lines[:, None, :2] - start[None]
    share = np.clip((to * way[None]).sum(axis=2) / square, 0, 1)
    there = start[None] + share[:, :, None] * way[None]
    far = np.hypot(*(lines[:, None, :2] - there).transpose(2, 0, 1))
    line, other = np.unravel_index(int(far.argmin()), far.shape)
    (x0, y0), (x1, y1) = lines[line, :2], there[line, other]
    return float(far[line, other]), (float(x0), float(y0)), (float(x1), float(y1))


def _within(lines: Chords, others: Chords) -> Place | None:
    """An end of chords that lies within the closed outline that the others make, either way round."""
    for ends, outline in ((lines, others), (others, lines)):
        found = ends[_inside(ends[:, :2], outline), :2]
        if len(found):
            return float(found[0, 0]), float(found[0, 1])
    return None


def _crossing(lines: Chords, others: Chords) -> Place | None:
    """A place where some chord crosses another: each has its ends on both sides of the other."""
    crossed = np.argwhere(_astride(lines, others) & _astride(others, lines).T)
    if not len(crossed):
        return None
    one, other = lines[crossed[0, 0]], others[crossed[0, 1]]
    first, last = (
        _turning(other[None, 2:] - other[None, :2], one[None, None, at : at + 2] - other[:2]) for at in (0, 2)
    )
    x, y = one[:2] + (one[2:] - one[:2]) * float((first / (first - last))[0, 0])
    return float(x), float(y)


def _astride(lines: Chords, others: Chords) -> NDArray[np.bool_]:
    """Which of some chords have their ends on both sides of the line through which of others, shape (n, m)."""
    way = others[:, 2:] - others[:, :2]
    first, last = (lines[:, None, at : at + 2] - others[None, :, :2] for at in (0, 2))
    found: NDArray[np.bool_] = _turning(way, first) * _turning(way, last) < 0
    return found


def _turning(way: NDArray[np.float64], to: NDArray[np.float64]) -> NDArray[np.float64]:
    """Twice the area that two vectors span, its sign by which side the second lies on."""
    spanned: NDArray[np.float64] = way[:, 0] * to[:, :, 1] - way[:, 1] * to[:, :, 0]
    return spanned


def _inside(places: NDArray[np.float64], outline: Chords) -> NDArray[np.bool_]:
    """Which places an outline lies around: rays to the right cross it an odd number of times."""
    x, y = places[:, :1], places[:, 1:]
    rises = (outline[:, 1] > y) != (outline[:, 3] > y)
    down = np.where(outline[:, 3] == outline[:, 1], 1.0, outline[:, 3] - outline[:, 1])
    at = outline[:, 0] + (y - outline[:, 1]) / down * (outline[:, 2] - outline[:, 0])
    found: NDArray[np.bool_] = np.count_nonzero(rises & (at > x), axis=1) % 2 == 1
    return found
