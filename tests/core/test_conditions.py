"""What the eye gets of a screen: against published matrices, closed forms, and pixels worked out by hand."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.colour.spaces import decoded, encoded
from obrell.core.trial.conditions import WHITE_CD, Conditions, blur_px, deficiency, rod_share, seen_under

LEVELS = st.integers(0, 255)
MACHADO = {
    "protan": ((0.152286, 1.052583, -0.204868), (0.114503, 0.786281, 0.099216), (-0.003882, -0.048116, 1.051998)),
    "deutan": ((0.367322, 0.860646, -0.227968), (0.280085, 0.672501, 0.047413), (-0.011820, 0.042940, 0.968881)),
    "tritan": ((1.255528, -0.076749, -0.178779), (-0.078411, 0.930809, 0.147602), (0.004733, 0.691367, 0.303900)),
}
"""As published for severity 1."""


def screen(*colours):
    """A row of pixels."""
    return np.array([colours], np.uint8)


def seen(conditions, *colours, px_per_mm=4.0):
    return [tuple(map(int, one)) for one in seen_under(conditions, screen(*colours), px_per_mm)[0]]


def level(linear: float) -> int:
    return math.floor(255 * encoded(min(1.0, max(0.0, linear))) + 0.5)


@given(st.lists(st.tuples(LEVELS, LEVELS, LEVELS), min_size=1, max_size=20))
def test_as_it_is_nothing_changes_and_the_way_through_linear_light_keeps_every_level(colours):
    assert seen(Conditions(), *colours) == colours
    assert seen(Conditions(vision="protan", severity=0), *colours) == colours
    # So little of a veil that no level can change, but the pixels go all the way.
    assert seen(Conditions(sun=1e-4), *colours) == colours


@given(LEVELS, st.floats(0, 2000))
def test_sunlight_adds_to_every_light_and_white_stays_white(value, sun):
    veil = sun / WHITE_CD
    (red, green, blue), white = seen(Conditions(sun=sun), (value, value, value), (255, 255, 255))
    assert abs(red - level((decoded(value / 255) + veil) / (1 + veil))) <= 1
    assert red == green == blue
    assert white == (255, 255, 255)


def test_as_much_light_on_the_glass_as_the_display_has_leaves_a_contrast_of_two():
    ((black, _, _),) = seen(Conditions(sun=WHITE_CD), (0, 0, 0))
    assert black == level(0.5) == 188


@pytest.mark.parametrize("kind", MACHADO)
def test_deficiencies_are_those_that_were_published(kind):
    assert deficiency(kind, 1.0) == pytest.approx(np.array(MACHADO[kind]), abs=1e-6)
    assert deficiency(kind, 0.0) == pytest.approx(np.eye(3))
    tenth, fifth = deficiency(kind, 0.1), deficiency(kind, 0.2)
    assert deficiency(kind, 0.15) == pytest.approx((tenth + fifth) / 2, abs=1e-6)


@pytest.mark.parametrize("kind", MACHADO)
def test_a_pixel_is_seen_as_its_matrix_says_and_grey_stays_grey(kind):
    colour = (200, 60, 30)
    linear = [decoded(value / 255) for value in colour]
    by_hand = tuple(level(sum(m * v for m, v in zip(row, linear, strict=True))) for row in MACHADO[kind])
    ((red, green, blue), grey) = seen(Conditions(vision=kind), colour, (128, 128, 128))
    assert max(abs(a - b) for a, b in zip((red, green, blue), by_hand, strict=True)) <= 1
    assert max(abs(value - 128) for value in grey) <= 1


def test_without_colour_a_pixel_has_its_luminance():
    assert seen(Conditions(grey=True), (255, 0, 0), (0, 255, 0)) == [(level(0.2126),) * 3, (level(0.7152),) * 3]


def test_rods_take_over_from_ten_to_a_hundredth_of_a_candela():
    shares = rod_share(np.array([20.0, 10.0, math.sqrt(0.1), 0.01, 0.001], np.float32))
    assert shares == pytest.approx([0, 0, 0.5, 1, 1], abs=1e-5)


def test_by_night_red_sinks_below_blue_that_is_darker_by_day():
    red, blue = (200, 0, 0), (0, 0, 200)
    by_day = [0.2126 * decoded(200 / 255), 0.0722 * decoded(200 / 255)]
    assert by_day[0] > by_day[1]
    seen_red, seen_blue = seen(Conditions(night=0.01), red, blue)
    assert sum(seen_red) < sum(seen_blue)


@given(st.tuples(LEVELS, LEVELS, LEVELS), st.sampled_from([0.003, 0.05, 0.7, 4, 20]))
def test_by_night_a_pixel_is_what_cones_and_rods_make_of_it_together(colour, white):
    dimmed = (white / 350) ** (1 / 3)
    light = np.array([decoded(one / 255) * dimmed for one in colour])
    to_xyz = np.array([
        [0.4124564, 0.3575761, 0.1804375], [0.2126729, 0.7151522, 0.0721750], [0.0193339, 0.1191920, 0.9503041]
    ])  # fmt: skip

    def rods_get(rgb):
        x, y, z = to_xyz @ rgb
        return y * (1.33 * (1 + (y + z) / x) - 1.68) if x > 1e-6 else 0

    candela = np.dot([0.2126, 0.7152, 0.0722], light) * white / dimmed
    rods = min(1, max(0, (1 - math.log10(max(candela, 1e-6))) / 3))
    both = [
        one + (rods_get(light) / rods_get(np.ones(3)) * tint - one) * rods
        for one, tint in zip(light, (0.72, 0.92, 1.32), strict=True)
    ]
    ((red, green, blue),) = seen(Conditions(night=white), colour)
    assert (red, green, blue) == pytest.approx([level(one) for one in both], abs=1)


def test_a_dimmed_display_that_is_bright_enough_for_cones_keeps_its_colours():
    ((red, green, blue),) = seen(Conditions(night=WHITE_CD / 8), (255, 255, 255))
    assert red == green == blue == level((1 / 8) ** (1 / 3))


def test_the_eye_blurs_by_a_minute_of_arc():
    at_a_metre = blur_px(Conditions(distance=1), 10)
    assert at_a_metre == pytest.approx(1000 * math.tan(math.radians(1 / 60)) * 10 / 2.3548, rel=1e-4)
    assert blur_px(Conditions(distance=1, acuity=0.5), 10) == pytest.approx(2 * at_a_metre, rel=1e-3)


def test_blur_is_done_in_linear_light_by_a_gaussian():
    conditions, px_per_mm = Conditions(distance=2), 6.0
    deviation = blur_px(conditions, px_per_mm)
    pixels = np.zeros((41, 81, 3), np.uint8)
    pixels[:, 40:] = 255
    row = seen_under(conditions, pixels, px_per_mm)[20, :, 0]
    # An edge blurred by a Gaussian is its integral; taps lie at whole pixels.
    taps = np.exp(-0.5 * (np.arange(-60, 61) / deviation) ** 2)
    taps /= taps.sum()
    edge = np.convolve(np.where(np.arange(-80, 161) >= 40, 1.0, 0.0), taps, "same")[80:161]
    wanted = [level(value) for value in edge]
    assert max(abs(int(a) - b) for a, b in zip(row, wanted, strict=True)) <= 3
    assert row[0] == 0
    assert row[-1] == 255


def test_conditions_come_together_dimmed_before_the_sun_and_colours_last():
    both = Conditions(sun=175, grey=True)
    linear = (decoded(200 / 255) + 0.5) / 1.5, 0.5 / 1.5, 0.5 / 1.5
    luminance = 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]
    ((red, green, blue),) = seen(both, (200, 0, 0))
    assert abs(red - level(luminance)) <= 1
    assert red == green == blue
