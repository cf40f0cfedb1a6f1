"""Shadows of boxes against the product of two error integrals, and the rules for spread."""

import math

import numpy as np
import pytest

from obrell.core.effects import DropShadow, InnerShadow, Outline
from obrell.core.effects.offsets import Cast, Shift, converted
from obrell.core.geometry.rounded import spread_radius
from obrell.core.paint import areas
from obrell.core.raster.coverage import rasterise
from obrell.core.shapes import Box, Round
from obrell.core.values.curves import TONES, curve
from obrell.core.values.paints import Solid
from tests.making import layer, part, resolved, solid


def integral(start, end, sigma, count):
    """A blurred step up at ``start`` and down at ``end``, averaged over each pixel."""
    fine = (np.arange(count * 16) + 0.5) / 16
    value = [0.5 * (math.erf((end - x) / sigma / 2**0.5) - math.erf((start - x) / sigma / 2**0.5)) for x in fine]
    return np.array(value).reshape(count, 16).mean(axis=1)


@pytest.mark.parametrize("blur", [6, 16])
@pytest.mark.parametrize(("right", "below"), [(3, -2), (2.37, -1.5), (-0.5, 0)])
def test_a_drop_shadow_is_the_product_of_two_error_integrals(blur, right, below):
    fall = Shift(across=right, down=below)
    shadow = DropShadow(id="e1", offset=fall, blur=blur, spread=2, colour="#000000", opacity=1, shows_through=True)
    got = layer(resolved(part(Box(width=30, height=20), shadow))).planes[3]
    across = integral(40 - 17 + right, 40 + 17 + right, blur / 2, 80)
    down = integral(30 - 12 + below, 30 + 12 + below, blur / 2, 60)
    assert np.abs(got - np.outer(down, across)).max() < 1.2 / 255


def test_an_inner_shadow_is_one_minus_the_shape_moved_and_shrunk():
    shadow = InnerShadow(id="e1", offset=Shift(across=0, down=3), blur=8, spread=1, colour="#000000", opacity=1)
    got = layer(resolved(part(Box(width=40, height=30), shadow))).planes[3]
    across, down = integral(21, 59, 4, 80), integral(30 - 14 + 3, 30 + 14 + 3, 4, 60)
    want = 1 - np.outer(down, across)
    assert np.abs(got - want)[15:45, 20:60].max() < 1.2 / 255
    assert got[:15].max() == 0


def test_shadows_that_fall_by_whole_pixels_share_the_coverage_of_their_shape(monkeypatch):
    drawn = []

    def counted(rows, box):
        drawn.append(box)
        return rasterise(rows, box)

    monkeypatch.setattr(areas, "rasterise", counted)
    falls = [Shift(across=x, down=y) for x, y in ((0, 3), (-2, 8), (1, 0))]
    cast = [kind(id="e", offset=fall, blur=4) for fall in falls for kind in (DropShadow, InnerShadow)]
    layer(resolved(part(Box(width=30, height=20), solid("#406080"), *cast)))
    assert len(drawn) == 1
    layer(resolved(part(Box(width=30, height=20), *cast, DropShadow(id="e", offset=Shift(down=2.5), blur=4))))
    assert len(drawn) == 3


def test_spread_follows_the_rule_for_small_radii():
    assert spread_radius(0, 5) == 0
    assert spread_radius(8, 5) == 13
    assert spread_radius(2, 4) == pytest.approx(2 + 4 * (1 + (0.5 - 1) ** 3))
    assert spread_radius(3, -5) == 0
    sharp = DropShadow(id="e1", offset=Shift(down=0), blur=0, spread=5, colour="#000000", opacity=1)
    got = layer(resolved(part(Box(width=30, height=20), sharp), width=80, height=60)).planes[3]
    assert got.sum() == pytest.approx(40 * 30 - 30 * 20)


def test_light_from_above_lets_shadows_fall_down():
    assert Cast(direction=0, distance=4).vector(0) == (0, 4)
    across, down = Cast(direction=90, distance=4).vector(0)
    assert (across, down) == (-4, 0)
    assert Cast(direction=12, distance=4, follow=True).vector(180) == (0, -4)


@pytest.mark.parametrize("direction", [0, 33, 180, 271.5])
def test_both_ways_of_saying_where_it_falls_convert(direction):
    cast = Cast(direction=direction, distance=7.5)
    back = converted(converted(cast, "shift", 0), "cast", 0)
    assert back.direction == pytest.approx(direction, abs=0.01)
    assert back.distance == pytest.approx(7.5, abs=0.001)


@pytest.mark.parametrize("shape", [Box(width=30, height=20, radius=7), Round(width=31, height=21)])
@pytest.mark.parametrize("place", ["inside", "centre", "outside"])
def test_opaque_paint_and_outline_meet_without_a_fringe(shape, place):
    edge = Outline(id="e1", place=place, width=3, fill=Solid(colour="#ffffff"))
    shadow = DropShadow(id="e1", offset=Shift(down=3), blur=6, colour="#000000", opacity=1)
    got = layer(resolved(part(shape, solid("#ffffff"), edge, shadow, x=40.3, y=30.6))).planes
    whole = got[3] > 1 - 1e-5
    cover = layer(resolved(part(shape, solid("#ffffff"), x=40.3, y=30.6))).planes[3]
    inner = cover > (1 - 1e-6 if place == "inside" else 0)
    assert whole[inner].all()
    assert np.abs(got[0][inner] - 1).max() < 1e-5


def test_under_an_opaque_edge_the_shadow_is_not_cut_to_a_halo():
    shadow = DropShadow(id="e1", offset=Shift(down=0), blur=8, spread=2, colour="#000000", opacity=1)
    shown = part(Round(width=30, height=30), shadow, solid("#000000"), x=40.37, y=30.21)
    got = layer(resolved(shown)).planes[3]
    through = shown.evolve(effects=(shadow.evolve(shows_through=True), *shown.effects[1:]))
    assert np.abs(got - layer(resolved(through)).planes[3]).max() < 1e-6


@pytest.mark.parametrize("falloff", ["soft", "two bands", "drawn"])
def test_a_falloff_maps_how_much_of_the_shadow_is_there(falloff):
    """The curve of the two error integrals, moved so that it begins at nothing."""
    drawn = curve((0, 0.4), (0.5, 0.5), (1, 0.9))
    shadow = DropShadow(
        id="e1", offset=Shift(down=0), blur=10, colour="#000000", opacity=1, shows_through=True,
        falloff=falloff, drawn_falloff=drawn,
    )  # fmt: skip
    got = layer(resolved(part(Box(width=30, height=20), shadow))).planes[3]
    plain = np.outer(integral(20, 40, 5, 60), integral(25, 55, 5, 80))
    of = drawn if falloff == "drawn" else TONES[falloff]
    low = of.at(0)
    want = np.clip((np.vectorize(of.at)(plain) - low) / (1 - low), 0, 1)
    assert np.abs(got - want).max() < 3 / 255
    assert got[0].max() < 0.01
