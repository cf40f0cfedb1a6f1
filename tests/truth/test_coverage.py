"""Coverage against closed forms and exact polygon clipping in float64."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.geometry.combine import grown, union
from obrell.core.geometry.paths import PathBuilder
from obrell.core.geometry.plane import Similarity
from obrell.core.geometry.rounded import ellipse, rounded_box
from obrell.core.raster.coverage import rasterise
from obrell.core.raster.layers import PixelBox

LEVEL = 1 / 255
WHOLE = PixelBox(0, 0, 40, 30)
coordinates = st.floats(-20, 60, allow_nan=False)


def clipped_area(polygon, left, top):
    """Area of a polygon inside one pixel, by clipping at its four sides (Sutherland and Hodgman)."""
    for axis, bound, sign in ((0, left, 1), (0, left + 1, -1), (1, top, 1), (1, top + 1, -1)):
        result = []
        for a, b in zip(polygon, polygon[1:] + polygon[:1], strict=True):
            da, db = sign * (a[axis] - bound), sign * (b[axis] - bound)
            if da >= 0:
                result.append(a)
            if da * db < 0:
                t = da / (da - db)
                result.append((a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])))
        polygon = result
        if not polygon:
            return 0.0
    twice = sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(polygon, polygon[1:] + polygon[:1], strict=True))
    return abs(twice) / 2


def polygon_path(points):
    pen = PathBuilder()
    pen.move(*points[0])
    for point in points[1:]:
        pen.line(*point)
    pen.close()
    return pen.path()


@given(st.lists(st.tuples(coordinates, coordinates), min_size=3, max_size=3))
def test_a_triangle_anywhere_covers_exactly_its_area(points):
    got = rasterise(polygon_path(points).rows, WHOLE).values
    want = [[clipped_area(points, x, y) for x in range(WHOLE.width)] for y in range(WHOLE.height)]
    assert np.abs(got - np.array(want)).max() < 0.01 * LEVEL


@given(st.floats(0, 10), st.floats(0, 10), st.floats(0.01, 20), st.floats(0.01, 15))
def test_a_box_at_any_fraction_is_the_product_of_its_overlaps(x, y, width, height):
    box = rounded_box(width, height, (0, 0, 0, 0)).transformed(Similarity(dx=x + width / 2, dy=y + height / 2))
    got = rasterise(box.rows, WHOLE).values

    def overlap(start, length, count):
        pixels = np.arange(count)
        return np.clip(np.minimum(pixels + 1, start + length) - np.maximum(pixels, start), 0, 1)

    want = np.outer(overlap(y, height, WHOLE.height), overlap(x, width, WHOLE.width))
    assert np.abs(got - want).max() < 0.01 * LEVEL


def test_sides_on_the_grid_are_crisp_and_half_a_pixel_is_half():
    on_grid = rasterise(rounded_box(10, 6, (0, 0, 0, 0)).transformed(Similarity(dx=9, dy=9)).rows, WHOLE).values
    assert set(np.unique(on_grid)) == {0.0, 1.0}
    half = rasterise(rounded_box(10, 6, (0, 0, 0, 0)).transformed(Similarity(dx=9.5, dy=9)).rows, WHOLE).values
    assert half[9, 4] == half[9, 14] == 0.5


@pytest.mark.parametrize("radius", [0.7, 6, 20, 90])
def test_a_circle_is_within_half_a_level_of_its_exact_area(radius):
    centre = (radius + 2.3, radius + 1.6)
    size = math.ceil(2 * radius + 5)
    path = ellipse(2 * radius, 2 * radius).transformed(Similarity(dx=centre[0], dy=centre[1]))
    got = rasterise(path.rows, PixelBox(0, 0, size, size)).values
    fine = 2000
    xs = (np.arange(size * fine) + 0.5) / fine - centre[0]
    half = np.sqrt(np.clip(radius * radius - xs * xs, 0, None))
    rows = np.arange(size)[:, None]
    top, bottom = centre[1] - half, centre[1] + half
    inside = np.clip(np.minimum(rows + 1, bottom) - np.maximum(rows, top), 0, None)
    want = inside.reshape(size, size, fine).mean(axis=2)
    assert np.abs(got - want).max() < 0.5 * LEVEL


def test_a_contour_that_winds_the_other_way_cuts_a_hole():
    outer = [(2, 2), (20, 2), (20, 20), (2, 20)]
    inner = [(6, 6), (6, 16), (16, 16), (16, 6)]
    pen = PathBuilder()
    for contour in (outer, inner):
        pen.move(*contour[0])
        for point in contour[1:]:
            pen.line(*point)
        pen.close()
    values = rasterise(pen.path().rows, WHOLE).values
    assert values.sum() == pytest.approx(18 * 18 - 100)
    assert values[10, 10] == 0


@given(st.integers(-5, 30), st.integers(-5, 25), st.integers(1, 20), st.integers(1, 15), st.floats(0, 360))
def test_a_pixel_does_not_depend_on_the_box_that_was_asked_for(left, top, width, height, turn):
    path = rounded_box(21.7, 13.3, (4, 0, 6.5, 2)).transformed(Similarity(1.0, turn, 20.2, 14.9))
    whole = rasterise(path.rows, PixelBox(-10, -10, 60, 50)).values
    part = rasterise(path.rows, PixelBox(left, top, left + width, top + height)).values
    assert np.array_equal(part, whole[top + 10 : top + 10 + height, left + 10 : left + 10 + width])


def test_growing_a_circle_and_uniting_overlaps_keep_their_areas():
    disc = ellipse(40, 40)
    got = rasterise(grown(disc, 4, "round").transformed(Similarity(dx=40, dy=40)).rows, PixelBox(0, 0, 80, 80))
    assert got.values.sum() == pytest.approx(math.pi * 24 * 24, abs=24 * math.tau * 0.01)
    pen = PathBuilder()
    for dx in (0, 10):
        disc.transformed(Similarity(dx=30 + dx, dy=30)).draw(pen)
    both = rasterise(union(pen.path()).rows, PixelBox(0, 0, 80, 80)).values
    lens = 2 * 400 * math.acos(10 / 40) - 5 * math.sqrt(1600 - 100)
    assert both.sum() == pytest.approx(2 * math.pi * 400 - lens, abs=0.3)
    assert both.max() == 1.0
