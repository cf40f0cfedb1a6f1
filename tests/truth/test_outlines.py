"""Outlines that are not one even band: widths for each side, gradients along and across."""

import numpy as np
import pytest

from obrell.core.effects import Outline
from obrell.core.render.cache import PixelCache
from obrell.core.render.compose import Frame, canvas_box, draw
from obrell.core.shapes import Box, Round
from obrell.core.values.paints import Conic, Linear, Radial, Solid, Stop
from tests.making import layer, part, resolved, soft_sides
from tests.truth.test_chromium import CURVED, SHARP_4, css, ours, shot

STOPS = (Stop(position=0, colour="#ff0000"), Stop(position=1, colour="#0000ff"))
OWN = {"sides": "each its own", "top": 5, "right": 2, "bottom": 0, "left": 8}


@pytest.mark.parametrize("radius", [0, 6, 12])
def test_each_side_of_a_box_as_css_borders_it(chromium, radius):
    """Backgrounds 3, section 4.2: inner corners are ellipses, and sharp where a width is larger than the radius."""
    edge = Outline(id="e1", fill=Solid(colour="#ffffff"), **OWN)
    got = ours(resolved(part(Box(width=40, height=24, radius=radius), edge)))
    style = f"box-sizing:border-box;border:0 solid #fff;border-width:5px 2px 0 8px;border-radius:{radius}px"
    away = np.abs(got - shot(chromium, css(style)))
    assert away.max() <= (SHARP_4 if radius == 0 else CURVED)
    assert np.percentile(away, 97) <= SHARP_4


def test_outer_sides_grow_the_box_and_none_is_painted_where_the_width_is_none():
    edge = Outline(id="e1", place="outside", fill=Solid(colour="#ffffff"), **OWN)
    alpha = layer(resolved(part(Box(width=40, height=24), edge))).planes[3]
    want = np.zeros_like(alpha)
    want[18 - 5 : 42, 20 - 8 : 60 + 2] = 1
    want[18:42, 20:60] = 0
    assert np.array_equal(alpha, want)


def test_soft_sides_are_counted_for_each_width():
    edge = Outline(id="e1", fill=Solid(colour="#ffffff"), sides="each its own", top=1.5, right=0, bottom=0, left=0.25)
    box = part(Box(width=40, height=24), edge)
    assert soft_sides(resolved(box), box, 1.0) == 2
    assert soft_sides(resolved(box), box, 2.0) == 1


@pytest.mark.parametrize("place", ["inside", "centre", "outside"])
def test_a_gradient_across_the_width_begins_at_the_outer_edge(place):
    outer = {"inside": 24, "centre": 28, "outside": 32}[place]
    edge = Outline(id="e1", place=place, width=8, run="across its width", fill=Radial(stops=STOPS))
    planes = layer(resolved(part(Round(width=48, height=48), edge)), 2.0).planes
    y, x = np.mgrid[0:120, 0:160] + 0.5
    away = np.hypot(x / 2 - 40, y / 2 - 30)
    inside = planes[3] > 0.999
    assert inside.sum() > 800
    want = np.clip((outer - away) / 8, 0, 1)
    assert np.abs(planes[2] - want)[inside].max() < 1.2 / 255
    assert np.abs(planes[0] - (1 - want))[inside].max() < 1.2 / 255


@pytest.mark.parametrize("fill", [Conic(stops=STOPS), Linear(stops=STOPS, scale=0.5, spread="mirrored")])
def test_a_gradient_along_the_path_runs_with_its_length(fill):
    """On a circle, length is angle: from where it begins, at the right, clockwise."""
    edge = Outline(id="e1", width=6, run="along the path", fill=fill)
    planes = layer(resolved(part(Round(width=48, height=48), edge)), 2.0).planes
    y, x = np.mgrid[0:120, 0:160] + 0.5
    turn = (np.arctan2(y / 2 - 30, x / 2 - 40) / (2 * np.pi)) % 1.0
    seen = (planes[3] > 0.999) & (turn > 0.01) & (turn < 0.99)
    want = turn
    if isinstance(fill, Linear):
        want = np.abs(((turn - 0.25) / 0.5 + 1) % 2 - 1)
    assert seen.sum() > 800
    assert np.abs(planes[2] - want)[seen].max() < 1.5 / 255


def test_a_dashed_outline_takes_its_gradient_along_the_path():
    edge = Outline(id="e1", width=4, dash=6, gap=4, run="along the path", fill=Conic(stops=STOPS))
    planes = layer(resolved(part(Box(width=60, height=40), edge))).planes
    assert 0.3 < (planes[3][10:14, 10:70] > 0.5).mean() < 0.8
    left, right = (planes[:, 10:14, at].sum(axis=(1, 2)) for at in (slice(10, 30), slice(50, 70)))
    assert right[2] / right[3] > left[2] / left[3] + 0.1


@pytest.mark.parametrize("place", ["inside", "centre", "outside"])
def test_a_side_without_width_leaves_no_fringe_along_its_curve(place):
    edge = Outline(
        id="e1", place=place, fill=Solid(colour="#ffffff"), sides="each its own", top=4, right=0, bottom=0, left=0
    )
    alpha = layer(resolved(part(Box(width=41, height=25, radius=9), edge, x=40.3, y=30.4))).planes[3]
    assert alpha[32:].max() < 1e-3
    assert alpha[15:22].max() > 0.9


def test_a_hairline_inside_a_curve_covers_its_own_area():
    """The ring's area, pixel by pixel as exact as the two circles' coverages."""
    edge = Outline(id="e1", width=0.5, fill=Solid(colour="#ffffff"))
    alpha = layer(resolved(part(Round(width=40, height=40), edge, x=40.2, y=29.7))).planes[3]
    assert alpha.sum() == pytest.approx(np.pi * (20**2 - 19.5**2), rel=2e-3)


def test_hard_stops_across_and_along_are_anti_aliased():
    half = (
        Stop(position=0, colour="#000000"), Stop(position=0.5, colour="#000000"),
        Stop(position=0.5, colour="#ffffff"), Stop(position=1, colour="#ffffff"),
    )  # fmt: skip
    for run in ("across its width", "along the path"):
        edge = Outline(id="e1", width=10, run=run, fill=Linear(stops=half))
        shown = resolved(part(Round(width=46, height=46), edge, x=40.3, y=30.4))
        planes = layer(shown).planes
        fine = layer(shown, 4.0).planes.reshape(4, 60, 4, 80, 4).mean(axis=(2, 4))
        assert np.abs(planes - fine)[:, planes[3] > 0.99].max() < 0.2
        assert ((planes[0] > 0.1) & (planes[0] < 0.9) & (planes[3] > 0.99)).sum() > 8


def test_ramps_across_a_band_are_not_mistaken_for_those_of_another_density():
    """Two rounds with one outline on the device grid, but bands of other widths on it."""
    cache, edge = PixelCache(), Outline(id="e1", width=4, run="across its width", fill=Linear(stops=STOPS))
    small = resolved(part(Round(width=20, height=20), edge, x=20, y=15), width=40, height=30)
    large = resolved(part(Round(width=40, height=40), edge))
    for shown, density in ((small, 2.0), (large, 1.0)):
        frame = Frame(density, canvas_box(shown, density))
        assert np.array_equal(draw(shown, frame, cache), draw(shown, frame, PixelCache()))
