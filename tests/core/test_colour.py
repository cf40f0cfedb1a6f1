"""Colour against published figures: gamut mapping, differences, contrast, and links that follow swatches."""

from itertools import pairwise

import pytest
from coloraide import Color
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.colour.contrast import contrast
from obrell.core.colour.css import css_colour, is_colour
from obrell.core.colour.difference import ciede2000
from obrell.core.colour.gamut import from_oklch
from obrell.core.colour.links import ALIKE, MISSING, ladder, literal, match, nearest
from obrell.core.colour.spaces import from_hex, to_hex, to_oklch
from obrell.core.values.colours import SwatchLink

HEX = st.integers(0, 0xFFFFFF).map(lambda number: f"#{number:06x}")
SHARMA = (
    ((50.0, 2.6772, -79.7751), (50.0, 0.0, -82.7485), 2.0425),
    ((50.0, 3.1571, -77.2803), (50.0, 0.0, -82.7485), 2.8615),
    ((50.0, -1.3802, -84.2814), (50.0, 0.0, -82.7485), 1.0000),
    ((50.0, 2.49, -0.001), (50.0, -2.49, 0.0009), 7.1792),
    ((50.0, 2.49, -0.001), (50.0, -2.49, 0.0011), 7.2195),
    ((50.0, 2.5, 0.0), (73.0, 25.0, -18.0), 27.1492),
    ((60.2574, -34.0099, 36.2677), (60.4626, -34.1751, 39.4387), 1.2644),
    ((22.7233, 20.0904, -46.694), (23.0331, 14.973, -42.5619), 2.0373),
    ((90.8027, -2.0831, 1.441), (91.1528, -1.6435, 0.0447), 1.4441),
    ((2.0776, 0.0795, -1.135), (0.9033, -0.0636, -0.5514), 0.9082),
)
"""Of the test pairs of Sharma, Wu and Dalal (2005), table 1: two colours of Lab, and their CIEDE2000."""


@pytest.mark.parametrize(("one", "other", "difference"), SHARMA)
def test_the_library_gives_the_published_differences(one, other, difference):
    found = Color("lab-d65", list(one)).delta_e(Color("lab-d65", list(other)), method="2000")
    assert found == pytest.approx(difference, abs=1e-4)


@given(HEX, HEX)
def test_a_difference_is_the_same_both_ways_and_none_from_itself(one, other):
    assert ciede2000(one, one) == 0
    assert ciede2000(one, other) == pytest.approx(ciede2000(other, one), abs=1e-9)
    assert (ciede2000(one, other) == 0) == (one == other)


@given(st.floats(0, 1), st.floats(0, 0.5), st.floats(0, 360))
def test_what_is_out_of_gamut_is_mapped_as_css_does(lightness, chroma, hue):
    theirs = Color("oklch", [lightness, chroma, hue]).fit("srgb", method="oklch-chroma").convert("srgb")
    ours = from_oklch((lightness, chroma, hue))
    assert ours == pytest.approx(theirs.coords(), abs=2.5e-3)


@given(HEX)
def test_what_is_in_gamut_stays_as_it_is(colour):
    assert to_hex(from_oklch(to_oklch(from_hex(colour)))) == colour


def test_contrast_is_that_of_the_recommendation():
    assert contrast("#000000", "#ffffff") == 21
    assert contrast("#777777", "#ffffff") == pytest.approx(4.48, abs=5e-3)
    assert contrast("#ffffff", "#767676") == pytest.approx(4.54, abs=5e-3)
    assert contrast("#123456", "#123456") == 1


@given(HEX, st.integers(-100, 100), st.integers(-20, 20), st.integers(-180, 180))
def test_every_adjustment_is_a_colour_and_none_is_the_swatch(base, tint, chroma, hue):
    link = SwatchLink(swatch="tarn", tint=tint, chroma=chroma, hue=hue)
    assert from_hex(literal(link, {"tarn": base}))
    assert literal(SwatchLink(swatch="tarn"), {"tarn": base}) == base
    assert literal(link.evolve(own="#123456"), {"tarn": base}) == "#123456"
    assert literal(link, {}) == MISSING


@given(HEX)
def test_a_ladder_goes_from_dark_to_light_through_the_colour(base):
    steps = dict(ladder(base))
    lightness = [to_oklch(from_hex(colour))[0] for _, colour in sorted(steps.items())]
    assert steps[0] == base
    assert all(one <= other + 0.012 for one, other in pairwise(lightness))


def test_less_chroma_and_turned_hue_are_told_in_oklch():
    grown = to_oklch(from_hex(literal(SwatchLink(swatch="s", chroma=-4), {"s": "#5e8a3a"})))
    turned = to_oklch(from_hex(literal(SwatchLink(swatch="s", hue=-20), {"s": "#5e8a3a"})))
    base = to_oklch(from_hex("#5e8a3a"))
    assert grown[1] - base[1] == pytest.approx(-0.04, abs=2e-3)
    assert turned[2] - base[2] == pytest.approx(-20, abs=1.5)


@given(HEX, HEX)
def test_any_colour_can_follow_any_swatch_and_look_nearly_as_it_did(colour, base):
    found = match(colour, "tarn", base)
    assert found.remains == pytest.approx(ciede2000(literal(found.link, {"tarn": base}), colour))
    assert found.remains < 3


def test_no_adjustment_is_made_that_cannot_be_seen():
    assert match("#1f8b92", "tarn", "#1f8a92").link == SwatchLink(swatch="tarn")
    light = match(literal(SwatchLink(swatch="tarn", tint=40), {"tarn": "#1f8a92"}), "tarn", "#1f8a92")
    assert (light.link, light.remains) == (SwatchLink(swatch="tarn", tint=40), 0)
    assert light.remains <= ALIKE


def test_the_nearest_swatch_is_that_of_the_same_hue():
    palette = {"tarn": "#1f8a92", "brass": "#c9952c", "slate": "#4d5b63", "chalk": "#f1efe7"}
    expected = {"#8fd0d6": "tarn", "#0b3b40": "tarn", "#f4d38a": "brass", "#2b3338": "slate", "#ffffff": "chalk"}
    assert {colour: nearest(colour, palette).link.swatch for colour in expected} == expected
    assert nearest("#ffffff", {}) is None


WRITTEN = {
    "hsl": "hsl({0:.6f} {1:.6f}% {2:.6f}% / {alpha})",
    "hwb": "hwb({0:.6f}deg {1:.6f}% {2:.6f}% / {alpha})",
    "lab": "lab({0:.6f} {1:.6f} {2:.6f} / {alpha})",
    "lch": "lch({0:.6f} {1:.6f} {2:.6f} / {alpha})",
    "oklab": "oklab({0:.8f} {1:.8f} {2:.8f} / {alpha})",
    "oklch": "oklch({0:.8f} {1:.8f} {2:.6f} / {alpha})",
    "srgb-linear": "color(srgb-linear {0:.8f} {1:.8f} {2:.8f} / {alpha})",
    "display-p3": "color(display-p3 {0:.8f} {1:.8f} {2:.8f} / {alpha})",
    "xyz-d65": "color(xyz {0:.8f} {1:.8f} {2:.8f} / {alpha})",
    "xyz-d50": "color(xyz-d50 {0:.8f} {1:.8f} {2:.8f} / {alpha})",
}


@pytest.mark.parametrize("space", WRITTEN)
@given(st.integers(0, 0xFFFFFF), st.sampled_from(["1", "0.25", "50%"]))
def test_a_colour_is_read_in_every_space_of_css(space, number, alpha):
    wanted = f"#{number:06x}"
    scale = (1, 100, 100) if space in ("hsl", "hwb") else (1, 1, 1)
    values = [one * by for one, by in zip(Color(wanted).convert(space).coords(nans=False), scale, strict=True)]
    colour, opacity = css_colour(WRITTEN[space].format(*values, alpha=alpha))
    levels = [[int(one[at : at + 2], 16) for at in (1, 3, 5)] for one in (colour, wanted)]
    assert levels[0] == pytest.approx(levels[1], abs=1)
    assert opacity == {"1": 1, "0.25": 0.25, "50%": 0.5}[alpha]


CHANNELS = {
    "rgb": "r g b", "hsl": "h s l", "hwb": "h w b", "lab": "l a b", "lch": "l c h", "oklab": "l a b", "oklch": "l c h",
    "color": "srgb r g b",
}  # fmt: skip


@pytest.mark.parametrize("name", CHANNELS)
@given(st.integers(0, 0xFFFFFF))
def test_a_colour_made_of_all_channels_of_another_is_that_colour(name, number):
    wanted = f"#{number:06x}"
    colour, opacity = css_colour(f"{name}(from {wanted}80 {CHANNELS[name]})")
    levels = [[int(one[at : at + 2], 16) for at in (1, 3, 5)] for one in (colour, wanted)]
    assert levels[0] == pytest.approx(levels[1], abs=1)
    assert opacity == pytest.approx(128 / 255, abs=1e-6)


def test_channels_of_another_colour_are_worked_out_and_nonsense_is_none():
    assert css_colour("rgb(from #102030 calc(r * 2) calc((g + b) / 2 - 8) 0 / calc(alpha - .5))") == ("#202000", 0.5)
    for inside in ("", "red", "red r g", "red r g q", "red r g b /", "red r g calc(b +)", "red r g calc(b / 0)"):
        assert css_colour(f"rgb(from {inside})") is None, inside
    assert css_colour("color(from red rec2020 r g b)") is None


def test_what_is_beyond_the_gamut_of_the_screen_is_cut_and_what_is_no_colour_is_none():
    assert css_colour("color(display-p3 0 1 0)") == ("#00ff00", 1)
    assert css_colour("rgb(300 -20 none / 2)") == ("#ff0000", 1)
    for text in ("", "currentcolor", "var(--x)", "color(rec2020 0 1 0)", "redd", "#12", " " * 300):
        assert css_colour(text) is None, text
    assert is_colour("transparent")
    assert is_colour("currentcolor")
    assert not is_colour("glow")
