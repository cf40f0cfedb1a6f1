"""What an operation on paths will cost, told before it: lengths, pairs that may cross, heaps that lie apart."""

import math
from itertools import combinations, pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.geometry.crossings import MOST_COMPARED, NEIGHBOURS, crossings, length_of, touching
from obrell.core.geometry.paths import PathBuilder, joined
from obrell.core.geometry.plane import Rect, Similarity
from obrell.core.geometry.rounded import ellipse

PLACE = st.tuples(st.integers(-50, 50), st.integers(-50, 50))
RUN = st.lists(PLACE, min_size=2, max_size=7)


def polyline(places, *, closed):
    pen = PathBuilder()
    pen.move(*places[0])
    for place in places[1:]:
        pen.line(*place)
    if closed:
        pen.close()
    return pen.path()


def sides(places, *, closed):
    return list(pairwise([*places, *places[:1]] if closed else places))


@given(st.lists(st.tuples(RUN, st.booleans()), max_size=3))
def test_straight_pieces_are_as_long_as_they_are(runs):
    path = joined([polyline(places, closed=closed) for places, closed in runs]) if runs else PathBuilder().path()
    want = sum(math.dist(*side) for places, closed in runs for side in sides(places, closed=closed))
    assert length_of(path) == pytest.approx(want)


@given(PLACE, PLACE, PLACE, PLACE, PLACE)
def test_curves_count_as_the_lines_between_their_handles(begin, first, a, b, end):
    pen = PathBuilder()
    pen.move(*begin)
    pen.line(*first)
    pen.cubic(*a, *b, *end)
    pen.line(*begin)
    way = [begin, first, a, b, end, begin]
    assert length_of(pen.path()) == pytest.approx(sum(math.dist(*side) for side in pairwise(way)))


@given(st.integers(1, 40), st.integers(1, 40), st.integers(0, 180))
def test_a_circle_is_as_long_as_it_is_and_an_ellipse_no_longer_than_that_around_it(wide, high, turn):
    assert length_of(ellipse(2 * wide, 2 * wide)) == pytest.approx(2 * math.pi * wide)
    oval = ellipse(2 * wide, 2 * high).transformed(Similarity(turn=turn))
    assert 4 * math.hypot(wide, high) - 1e-6 <= length_of(oval) <= 2 * math.pi * max(wide, high) + 1e-6


@given(RUN, RUN, st.booleans())
def test_pairs_that_may_cross_are_those_whose_boxes_overlap(one, other, closed):
    pieces = [
        (min(x, u), min(y, v), max(x, u), max(y, v))
        for places in (one, other)
        for (x, y), (u, v) in sides(places, closed=closed)
    ]
    if closed:
        last = [len(one) - 1, len(one) + len(other) - 1]
        pieces = [piece for n, piece in enumerate(pieces) if n not in last or piece[:2] != piece[2:]]
    want = sum(
        far - near > NEIGHBOURS and a[0] < b[2] and b[0] < a[2] and a[1] < b[3] and b[1] < a[3]
        for (near, a), (far, b) in combinations(enumerate(pieces), 2)
    )
    assert crossings([polyline(one, closed=closed), polyline(other, closed=closed)]) == want


def test_of_very_many_pieces_every_pair_is_taken_to_cross():
    flat = polyline([(n, 0) for n in range(MOST_COMPARED + 1)], closed=False)
    assert crossings([flat]) == 0
    longer = polyline([(n, 0) for n in range(MOST_COMPARED + 2)], closed=False)
    assert crossings([longer]) == (MOST_COMPARED + 1) ** 2


@given(st.lists(st.tuples(PLACE, st.integers(1, 30), st.integers(1, 30)), max_size=8))
def test_heaps_are_what_hangs_together(places):
    boxes = [Rect(x, y, x + wide, y + high) for (x, y), wide, high in places]
    heap = list(range(len(boxes)))
    for _ in boxes:
        for one, other in combinations(range(len(boxes)), 2):
            if boxes[one].meets(boxes[other]):
                heap[one] = heap[other] = min(heap[one], heap[other])
    want = {tuple(n for n, name in enumerate(heap) if name == each) for each in set(heap)}
    assert {tuple(sorted(one)) for one in touching(boxes)} == want
