"""Paths: exact bounds, transforms that undo, data that SVG readers draw."""

import math

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.geometry.paths import Path, PathBuilder
from obrell.core.geometry.plane import NOWHERE, Rect, Similarity, degrees_of, direction
from obrell.core.geometry.rounded import ellipse, rounded_box
from obrell.core.geometry.svgdata import number, path_data, rectangle
from obrell.core.raster.coverage import _flatten

points = st.tuples(st.floats(-50, 50), st.floats(-50, 50))


@st.composite
def paths(draw):
    pen = PathBuilder()
    pen.move(*draw(points))
    for _ in range(draw(st.integers(1, 4))):
        if draw(st.booleans()):
            pen.cubic(*draw(points), *draw(points), *draw(points))
        else:
            pen.line(*draw(points))
    pen.close()
    return pen.path()


turns = st.floats(-360, 360)


@given(st.one_of(paths(), st.builds(ellipse, st.floats(1, 60), st.floats(1, 60))), turns)
def test_bounds_are_those_of_the_path_flattened_very_finely(path, turn):
    turned = path.transformed(Similarity(1.5, turn, 3, -4))
    edges = _flatten(turned.rows, 1e-6)
    xs, ys = np.concatenate([edges[:, 0], edges[:, 2]]), np.concatenate([edges[:, 1], edges[:, 3]])
    bounds, hull = turned.bounds(), turned.hull()
    assert np.allclose([bounds.left, bounds.top, bounds.right, bounds.bottom],
                       [xs.min(), ys.min(), xs.max(), ys.max()], atol=2e-4)  # fmt: skip
    assert hull.left <= bounds.left + 1e-9
    assert hull.bottom >= bounds.bottom - 1e-9


@given(points, turns, st.floats(0.1, 20))
def test_a_similarity_undoes_itself(point, turn, scale):
    there = Similarity(scale, turn, 7, -3)
    assert np.allclose(there.undo(*there.apply(*point)), point, atol=1e-9)


@given(turns)
def test_directions_are_clockwise_from_above(degrees):
    x, y = direction(degrees)
    assert math.hypot(x, y) == math.hypot(*direction(0)) or abs(math.hypot(x, y) - 1) < 1e-12
    assert abs((degrees_of(x, y) - degrees + 180) % 360 - 180) < 1e-9
    assert direction(90) == (1, 0)


def test_quarter_turns_are_exact():
    turned = rounded_box(10, 6, (0, 0, 0, 0)).transformed(Similarity(2, 90, 1, 1))
    assert turned.bounds() == Rect(-5, -9, 7, 11)


def test_an_empty_path_is_nowhere():
    assert Path().bounds() == Path().hull() == NOWHERE
    assert not rounded_box(0, 5, (1, 1, 1, 1))
    assert Rect(0, 0, 1, 1).union(NOWHERE) == Rect(0, 0, 1, 1)


def test_svg_data_is_short_and_keeps_arcs():
    assert path_data(rounded_box(10, 6, (3, 0, 0, 0))) == "M-2 -3 L5 -3 L5 3 L-5 3 L-5 0 A3 3 0 0 1 -2 -3 Z"
    assert rectangle(Rect(0, 1, 2.5, 3)) == "M0 1H2.5V3H0Z"
    assert number(-0.00001) == "0"
