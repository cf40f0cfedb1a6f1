"""Reach: touch areas are as small and as near to each other as the sums of their outlines say."""

import cmath
import math
from itertools import product

import pytest
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.shapes import Box, Round
from obrell.core.trial.reach import area_of, area_of_fixture, gap_between, reach_of
from obrell.core.trial.starts import begun
from tests.making import control, part, solid

KEY = control(part(Box(width=40, height=20), solid("#204060")))
KNOB = control(part(Round(width=40, height=40), solid("#808080")))


@given(st.floats(0, 60), st.floats(0, 60))
def test_the_way_between_two_touch_areas_is_the_shortest(dx, dy):
    other = area_of("b", KEY, 40 + dx, 20 + dy)
    one = area_of("a", KEY, 0, 0)
    assert one is not None
    assert other is not None
    gap = reach_of([one, other]).nearest
    assert gap is not None
    assert gap.px == pytest.approx(math.hypot(dx, dy), abs=0.01)
    assert math.dist(gap.start, gap.end) == pytest.approx(gap.px, abs=0.01)


def test_round_areas_are_as_far_apart_as_their_edges_and_those_that_overlap_not_at_all():
    areas = [area_of(name, KNOB, x, y) for name, x, y in (("a", 0, 0), ("b", 60, 45), ("c", 200, 0))]
    reach = reach_of([one for one in areas if one])
    assert reach.nearest is not None
    assert reach.nearest.px == pytest.approx(75 - 40, abs=0.15)
    over = area_of("d", KNOB, 30, 0)
    assert over is not None
    assert areas[0] is not None
    met = reach_of([areas[0], over]).nearest
    assert met is not None
    assert met.px == 0


def test_the_smallest_area_is_the_narrowest():
    areas = [one for one in (area_of("a", KNOB, 0, 0), area_of("b", KEY, 100, 0)) if one]
    assert (smallest := reach_of(areas).smallest) is not None
    assert (smallest.placement, smallest.box.height) == ("b", 20)
    assert reach_of([]).nearest is None


def distance(a, b):
    """How far two closed polygons are apart, by every pair of their sides; 0 where they meet."""

    def beside(p, a, b):
        way, to = b - a, p - a
        share = min(1.0, max(0.0, (to * way.conjugate()).real / abs(way) ** 2))
        return abs(to - share * way)

    def turn(a, b, c):
        return ((b - a).conjugate() * (c - a)).imag

    def within(p, corners):
        turns = [turn(x, y, p) for x, y in zip(corners, [*corners[1:], corners[0]], strict=True)]
        return all(one >= 0 for one in turns) or all(one <= 0 for one in turns)

    sides = [list(zip(one, [*one[1:], one[0]], strict=True)) for one in (a, b)]
    if any(within(p, b) for p in a) or any(within(p, a) for p in b):
        return 0.0
    for (p, q), (r, s) in product(*sides):
        if turn(p, q, r) * turn(p, q, s) < 0 and turn(r, s, p) * turn(r, s, q) < 0:
            return 0.0
    return min(
        min(beside(p, r, s), beside(q, r, s), beside(r, p, q), beside(s, p, q)) for (p, q), (r, s) in product(*sides)
    )


BARS = st.tuples(
    st.integers(2, 70), st.integers(2, 70), st.integers(-60, 60), st.integers(-60, 60), st.integers(0, 179)
)


@given(BARS, BARS)
def test_turned_bars_are_as_far_apart_as_the_nearest_of_their_sides_and_not_at_all_where_they_cross(one, other):
    areas, corners = [], []
    for name, (width, height, x, y, turn) in zip("ab", (one, other), strict=True):
        bar = part(Box(width=width, height=height), solid("#204060"), x=60, y=60, rotation=turn)
        areas.append(area_of(name, control(bar, width=120, height=120), x, y))
        halves = [complex(a * width / 2, b * height / 2) for a, b in ((-1, -1), (1, -1), (1, 1), (-1, 1))]
        corners.append([complex(60 + x, 60 + y) + half * cmath.rect(1, math.radians(turn)) for half in halves])
    gap = gap_between(*areas)
    assert gap.px == pytest.approx(distance(*corners), abs=1e-4)
    if gap.px > 0:
        assert math.dist(gap.start, gap.end) == pytest.approx(gap.px, abs=1e-4)


def test_fields_and_plain_buttons_of_a_screen_are_touched_too():
    fixtures = begun("form", "p", "Form").fixtures
    areas = [area for one in fixtures if (area := area_of_fixture(one))]
    assert [one.placement for one in areas] == [one.id for one in fixtures if one.kind in ("field", "button")]
    found = reach_of(areas)
    assert (found.smallest.box.width, found.smallest.box.height) == (320, 34)
    assert found.nearest.px == 20
