"""How much of a path may cross itself: what an operation on it will cost, told before it is begun."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from obrell.core.geometry.paths import ARC, CLOSE, CUBIC, MOVE, Path
from obrell.core.geometry.plane import Rect

MOST_COMPARED = 4000
"""Of more pieces than this, every pair is taken to cross."""
ROWS_AT_ONCE = 512
NEIGHBOURS = 2
"""Pieces so near in their order touch without crossing."""


def crossings(paths: Sequence[Path]) -> int:
    """How many pairs of pieces lie in boxes that overlap, those next to each other not counted."""
    boxes = np.concatenate([_boxes(path) for path in paths])
    count = len(boxes)
    if count > MOST_COMPARED:
        return count * count
    found = 0
    places = np.arange(count)
    for start in range(0, count, ROWS_AT_ONCE):
        some = boxes[start : start + ROWS_AT_ONCE, None, :]
        overlap = (some[..., 0] < boxes[:, 2]) & (boxes[:, 0] < some[..., 2])
        overlap &= (some[..., 1] < boxes[:, 3]) & (boxes[:, 1] < some[..., 3])
        far = places[None, :] - places[start : start + ROWS_AT_ONCE, None] > NEIGHBOURS
        found += int(np.count_nonzero(overlap & far))
    return found


def length_of(path: Path) -> float:
    """The length of the path, or a little more: curves count as the lines between their handles."""
    rows = path.rows
    if not len(rows):
        return 0.0
    ends = _ends(path)
    starts = np.roll(ends, 1, axis=0)
    starts[rows[:, 0] == MOVE] = ends[rows[:, 0] == MOVE]
    lengths = np.hypot(*(ends - starts).T)
    cubics = rows[:, 0] == CUBIC
    a, b, c = rows[cubics, 1:3], rows[cubics, 3:5], rows[cubics, 5:7]
    lengths[cubics] = np.hypot(*(a - starts[cubics]).T) + np.hypot(*(b - a).T) + np.hypot(*(c - b).T)
    arcs = rows[:, 0] == ARC
    lengths[arcs] = rows[arcs, 3:5].max(axis=1) * np.abs(rows[arcs, 7]) if arcs.any() else 0.0
    return float(lengths.sum())


def touching(boxes: Sequence[Rect]) -> list[list[int]]:
    """The numbers of the boxes in heaps: those in different heaps lie apart from each other."""
    order = sorted(range(len(boxes)), key=lambda place: boxes[place].left)
    heaps = list(range(len(boxes)))

    def heap_of(place: int) -> int:
        while heaps[place] != place:
            heaps[place] = heaps[heaps[place]]
            place = heaps[place]
        return place

    open_boxes: list[int] = []
    for place in order:
        open_boxes = [other for other in open_boxes if boxes[other].right >= boxes[place].left]
        for other in open_boxes:
            if boxes[other].meets(boxes[place]):
                first, second = sorted((heap_of(other), heap_of(place)))
                heaps[second] = first
        open_boxes.append(place)
    gathered: dict[int, list[int]] = {}
    for place in range(len(boxes)):
        gathered.setdefault(heap_of(place), []).append(place)
    return list(gathered.values())


def _ends(path: Path) -> NDArray[np.float64]:
    """Where each row ends; a closing row where its contour began."""
    rows = path.rows
    ends = rows[:, 1:3].copy()
    cubics, arcs = rows[:, 0] == CUBIC, rows[:, 0] == ARC
    ends[cubics] = rows[cubics, 5:7]
    if arcs.any():
        cx, cy, rx, ry, turn, start, sweep = rows[arcs, 1:].T
        x, y = rx * np.cos(start + sweep), ry * np.sin(start + sweep)
        ends[arcs] = np.stack([cx + x * np.cos(turn) - y * np.sin(turn), cy + x * np.sin(turn) + y * np.cos(turn)], 1)
    return np.asarray(ends)


def _boxes(path: Path) -> NDArray[np.float64]:
    """Around every piece: left, top, right, bottom."""
    rows = path.rows
    if not len(rows):
        return np.zeros((0, 4))
    ends = _ends(path)
    starts = np.roll(ends, 1, axis=0)
    low, high = np.minimum(starts, ends), np.maximum(starts, ends)
    cubics, arcs = rows[:, 0] == CUBIC, rows[:, 0] == ARC
    for columns in ((1, 3), (3, 5)):
        points = rows[cubics, columns[0] : columns[1]]
        low[cubics], high[cubics] = np.minimum(low[cubics], points), np.maximum(high[cubics], points)
    if arcs.any():
        reach = rows[arcs, 3:5].max(axis=1, keepdims=True)
        low[arcs], high[arcs] = rows[arcs, 1:3] - reach, rows[arcs, 1:3] + reach
    drawn = (rows[:, 0] != MOVE) & ((rows[:, 0] != CLOSE) | (np.abs(high - low).max(axis=1) > 0))
    return np.asarray(np.concatenate([low, high], axis=1)[drawn])
