"""Distance, bevels and glows against closed forms: circle, box, cone, sphere."""

import math
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.effects import Bevel, InnerGlow, OuterGlow
from obrell.core.effects.base import Lamp
from obrell.core.effects.kinds.bevel import profile_table
from obrell.core.effects.lit import towards
from obrell.core.geometry.plane import Rect, Similarity
from obrell.core.geometry.rounded import ellipse, rounded_box
from obrell.core.paint.fills import texture_field
from obrell.core.raster.distance import distance, distances
from obrell.core.raster.layers import PixelBox
from obrell.core.raster.noise import textured
from obrell.core.raster.relief import INSIDE, Relief, lit
from obrell.core.shapes import Box, Round
from obrell.core.values.curves import TONES, Curve, curve
from obrell.core.values.paints import Ramp, Solid, Stop, Texture
from tests.making import layer, part, resolved

STRAIGHT = TONES["straight"].table()
WHOLE = PixelBox(0, 0, 100, 100)


def box_distance(x, y, half_width, half_height, radius):
    """Signed distance to a rounded box around the origin, positive inside."""
    qx, qy = np.abs(x) - half_width + radius, np.abs(y) - half_height + radius
    outside = np.hypot(np.maximum(qx, 0), np.maximum(qy, 0))
    return radius - outside - np.minimum(np.maximum(qx, qy), 0)


def corners(box=WHOLE):
    return np.meshgrid(np.arange(box.left, box.right + 1.0), np.arange(box.top, box.bottom + 1.0))


@given(st.floats(5, 45), st.floats(5, 45), st.floats(0, 1), st.floats(0, 180))
def test_distance_to_a_rounded_box_at_any_angle(half_width, half_height, share, turn):
    radius = share * min(half_width, half_height)
    place = Similarity(turn=turn, dx=50.3, dy=49.6)
    path = rounded_box(2 * half_width, 2 * half_height, (radius,) * 4).transformed(place)
    x, y = corners()
    cos, sin = math.cos(math.radians(turn)), math.sin(math.radians(turn))
    u, v = cos * (x - 50.3) + sin * (y - 49.6), -sin * (x - 50.3) + cos * (y - 49.6)
    want = np.clip(box_distance(u, v, half_width, half_height, radius), -30, 30)
    got = distance(path.rows, WHOLE, 30).values
    assert np.abs(np.abs(got) - np.abs(want)).max() < 0.005
    clear = np.abs(want) > 0.005
    assert np.array_equal(got[clear] > 0, want[clear] > 0)


@given(st.floats(5, 45), st.floats(5, 45), st.floats(0, 1), st.floats(0, 180))
def test_a_pixel_has_the_distance_of_its_middle_at_ridges_and_corners_too(half_width, half_height, share, turn):
    radius = share * min(half_width, half_height)
    place = Similarity(turn=turn, dx=50.3, dy=49.6)
    path = rounded_box(2 * half_width, 2 * half_height, (radius,) * 4).transformed(place)
    y, x = np.mgrid[:100, :100] + 0.5
    cos, sin = math.cos(math.radians(turn)), math.sin(math.radians(turn))
    u, v = cos * (x - 50.3) + sin * (y - 49.6), -sin * (x - 50.3) + cos * (y - 49.6)
    want = np.clip(box_distance(u, v, half_width, half_height, radius), -30, 30)
    got = distances(path.rows, WHOLE, 30)[1].values
    seen = (np.abs(want) > 0.75) & (np.abs(want) < 28)
    assert np.abs(got - want)[seen].max() < 0.03


def test_a_one_pixel_bevel_stays_in_the_outermost_pixels():
    square = rounded_box(40, 30, (0.0,) * 4).transformed(Similarity(dx=50, dy=45))
    high, low = shaded(square, "chamfer", 1.0, 1.0, Lamp(315, 40))
    lit_at = (high + low) > 0
    rim = np.zeros((100, 100), bool)
    rim[30:60, 30:70] = True
    rim[31:59, 31:69] = False
    assert not lit_at[31:59, 31:69].any()
    assert lit_at[rim].mean() > 0.9


def test_a_glow_reaches_its_height_on_a_ridge():
    glow = InnerGlow(id="e1", extent=8, fill=Solid(colour="#ffffff"), falloff="even", opacity=1.0)
    seen = layer(resolved(part(Box(width=41, height=7), glow, x=40.5, y=30.5))).planes[3]
    assert seen[30, 30:50] == pytest.approx(1 - 3.5 / 8, abs=1e-5)


def test_distance_does_not_depend_on_the_rectangle_asked_for():
    path = ellipse(60, 34).transformed(Similarity(turn=20, dx=50.3, dy=49.6))
    whole = distance(path.rows, WHOLE, 20).values
    tile = PixelBox(33, 41, 71, 60)
    assert np.array_equal(distance(path.rows, tile, 20).values, whole[41:61, 33:72])


def test_distance_to_an_ellipse_is_that_to_its_finest_polygon():
    path = ellipse(80, 30).transformed(Similarity(dx=50, dy=50))
    angle = np.linspace(0, 2 * np.pi, 20_000)
    edge_x, edge_y = 50 + 40 * np.cos(angle), 50 + 15 * np.sin(angle)
    found = distance(path.rows, WHOLE, 60).values
    for x, y in ((50, 50), (20, 52), (80, 48), (5, 5), (60, 60)):
        assert abs(found[y, x]) == pytest.approx(np.hypot(edge_x - x, edge_y - y).min(), abs=0.01)


def lambert(nx, ny, nz, lamp):
    """Highlight and shade of a unit normal (rendering.md, Formulas) in float64."""
    lx, ly, lz = towards(lamp)
    bright = nx * lx + ny * ly + nz * lz
    high = np.maximum(0, (bright - lz) / (1 - lz))
    low = np.maximum(0, (lz - bright) / (lz + math.cos(math.radians(lamp.height))))
    return high, low


def shaded(path, profile, width, rise, lamp):
    relief = Relief(INSIDE, width, rise, 0.0, profile_table(profile, 3, Curve()))
    return (mask.values for mask in lit(path.rows, WHOLE, relief, towards(lamp), STRAIGHT))


@pytest.mark.parametrize("lamp", [Lamp(0, 40), Lamp(315, 60), Lamp(120, 15)])
def test_a_chamfered_circle_is_a_cone(lamp):
    high, low = shaded(ellipse(90, 90).transformed(Similarity(dx=50, dy=50)), "chamfer", 45, 20, lamp)
    y, x = np.mgrid[:100, :100] + 0.5 - 50
    away = np.hypot(x, y)
    slope = 20 / 45
    norm = math.hypot(slope, 1)
    want = lambert(slope * x / away / norm, slope * y / away / norm, 1 / norm, lamp)
    seen = (away < 43) & (away > 3)
    assert np.abs(high - want[0])[seen].max() < 0.01
    assert np.abs(low - want[1])[seen].max() < 0.01


def test_a_bullnosed_circle_is_a_sphere():
    lamp = Lamp(315, 45)
    high, low = shaded(ellipse(90, 90).transformed(Similarity(dx=50, dy=50)), "bullnose", 45, 45, lamp)
    y, x = (np.mgrid[:100, :100] + 0.5 - 50) / 45
    away = np.hypot(x, y)
    want = lambert(x, y, np.sqrt(np.maximum(0, 1 - away**2)), lamp)
    seen = away < 0.93
    for got, true in ((high, want[0]), (low, want[1])):
        assert np.sqrt(np.mean((got - true)[seen] ** 2)) < 0.005
        assert np.abs(got - true)[seen].max() < 0.03


def test_a_pill_bevel_is_a_half_cylinder_with_a_clean_ridge():
    path = rounded_box(90, 40, (20,) * 4).transformed(Similarity(dx=50, dy=50))
    lamp = Lamp(0, 45)
    high, low = shaded(path, "bullnose", 20, 20, lamp)
    y = (np.arange(100) + 0.5 - 50) / 20
    want = lambert(0 * y, y, np.sqrt(np.maximum(0, 1 - y**2)), lamp)
    middle = np.abs(y) < 0.9
    assert np.abs(high[:, 50] - want[0])[middle].max() < 0.02
    assert np.abs(low[:, 50] - want[1])[middle].max() < 0.02
    straight = slice(31, 69)
    assert np.ptp(high[:, straight], axis=1).max() < 1e-4


def test_flat_profiles_paint_nothing():
    path = ellipse(90, 90).transformed(Similarity(dx=50, dy=50))
    high, low = shaded(path, "chamfer", 10, 5, Lamp(0, 40))
    assert high[40:60, 40:60].max() == 0
    assert low[40:60, 40:60].max() == 0


def test_profiles_rise_from_zero_and_to_one_where_they_should():
    for name, end in (("chamfer", 1), ("bullnose", 1), ("cove", 1), ("ogee", 1), ("bead", 0), ("step", 1)):
        table = profile_table(name, 3, Curve())
        assert (table[0], table[-1]) == pytest.approx((0, end), abs=1e-6)
    treads = profile_table("step", 4, Curve())
    assert len(np.unique(np.round(treads[np.abs(np.gradient(treads)) < 1e-9], 6))) == 4


def test_the_crisp_light_upper_edge():
    edge = Bevel(id="e1", width=1, rise=1, profile="chamfer", shade_opacity=0, highlight_opacity=1,
                 highlight_blend="normal")  # fmt: skip
    shown = layer(resolved(part(Box(width=40, height=20), edge))).planes[3]
    assert shown[20, 25:55].min() > 0.3
    assert shown[21:39, 25:55].max() == 0


def soft(u):
    return (1 - u) ** 2 * (3 - 2 * (1 - u))


@pytest.mark.parametrize(
    ("falloff", "f"), [("soft", soft), ("even", lambda u: 1 - u), ("quick", lambda u: (1 - u) ** 2)]
)
def test_glows_fade_with_the_distance_from_a_circle(falloff, f):
    outer = OuterGlow(id="e1", extent=15, falloff=falloff, opacity=1.0, fill=Solid(colour="#ffffff"))
    inner = InnerGlow(id="e1", extent=15, falloff=falloff, opacity=1.0, fill=Solid(colour="#ffffff"))
    y, x = np.mgrid[:60, :80] + 0.5
    away = np.hypot(x - 40, y - 30) - 20
    for effect, distance_from in ((outer, away), (inner, -away)):
        shown = layer(resolved(part(Round(width=40, height=40), effect))).planes[3]
        seen = (distance_from > 1) & (distance_from < 20)
        want = f(np.clip(distance_from / 15, 0, 1))
        assert np.abs(shown - want)[seen].max() < 0.003


def test_a_glow_from_the_middle_and_a_ramp():
    ramp = Ramp(stops=(Stop(position=0, colour="#ff0000"), Stop(position=1, colour="#0000ff")))
    glow = InnerGlow(id="e1", extent=10, start="middle", falloff="even", opacity=1.0, fill=ramp)
    shown = layer(resolved(part(Box(width=60, height=40), glow))).planes
    assert shown[3, 30, 40] == pytest.approx(1, abs=0.001)
    assert shown[:, 30, 14] == pytest.approx([0.45 * 0.45, 0, 0.55 * 0.45, 0.45], abs=0.01)


@given(st.lists(st.tuples(st.floats(0, 1), st.floats(0, 1)), min_size=2, max_size=8))
def test_curves_go_through_their_points_and_never_overshoot(places):
    places = sorted({round(x, 2): y for x, y in places}.items())
    if len(places) < 2:
        return
    drawn = curve(*places)
    for x, y in places:
        assert drawn.at(x) == pytest.approx(y, abs=0.06)
    for (x0, y0), (x1, y1) in pairwise(places):
        inside = [drawn.at(x0 + (x1 - x0) * t) for t in np.linspace(0, 1, 7)]
        assert min(y0, y1) - 0.06 <= min(inside)
        assert max(inside) <= max(y0, y1) + 0.06


@pytest.mark.parametrize("pattern", ["hammered", "lines"])
def test_a_texture_as_relief_is_lit_by_its_own_slope(pattern):
    """A flat surface: Lambert's law for the slope of the texture between a pixel's corners."""
    rough = Bevel(
        id="e1", rise=0, texture=pattern, texture_depth=1.5, texture_scale=6, seed=4, highlight="#ffffff",
        highlight_opacity=1, highlight_blend="normal", shade_opacity=0,
    )  # fmt: skip
    got = layer(resolved(part(Box(width=60, height=40), rough))).planes[3][12:48, 12:68]
    fill = Texture(pattern=pattern, scale=6, seed=4)
    (a, b, c, d, e, f), size = texture_field(fill, Rect(-30, -20, 30, 20), Similarity(dx=40, dy=30))
    moved = (a, b, c - (a + b) / 2, d, e, f - (d + e) / 2)
    z = 1.5 * textured(pattern, moved, size, 4, PixelBox(12, 12, 69, 49)).values.astype(float)
    sx = (z[:-1, 1:] + z[1:, 1:] - z[:-1, :-1] - z[1:, :-1]) / 2
    sy = (z[1:, :-1] + z[1:, 1:] - z[:-1, :-1] - z[:-1, 1:]) / 2
    lx, ly, lz = towards(Lamp(0, 40))
    bright = (lz - sx * lx - sy * ly) / np.sqrt(1 + sx**2 + sy**2)
    assert np.abs(got - np.clip((bright - lz) / (1 - lz), 0, None)).max() < 1e-3
    assert got.max() > 0.2


def test_a_texture_on_an_outer_band_ends_with_it():
    band = Bevel(id="e1", side="outside", width=6, rise=2, texture="grain", texture_depth=3)
    alpha = layer(resolved(part(Round(width=30, height=30), band)), 2.0).planes[3]
    y, x = np.mgrid[0:120, 0:160] + 0.5
    away = np.hypot(x / 2 - 40, y / 2 - 30)
    assert alpha[away > 15 + 6 + 1].max() == 0
    assert alpha[(away > 15.5) & (away < 20)].max() > 0.1
