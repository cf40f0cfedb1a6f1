"""A fill made one of another kind keeps its colours; one colour becomes opaque tones of itself."""

import pytest

from obrell.core.colour.refills import refilled, toned
from obrell.core.colour.spaces import from_hex, to_oklch
from obrell.core.values.colours import SwatchLink
from obrell.core.values.paints import FILL_KINDS, Linear, Picture, Ramp, Solid, Stop, Texture


@pytest.mark.parametrize("kind", ["linear", "radial", "conic"])
@pytest.mark.parametrize("colour", ["#1f8a92", "#000000", "#ffffff", "#808080"])
def test_one_colour_becomes_a_light_and_a_dark_tone_without_gaps(kind, colour):
    made = refilled(Solid(colour=colour), kind)
    light, middle, dark = made.stops
    assert (light.opacity, middle.opacity, dark.opacity) == (1, 1, 1)
    assert refilled(made, "solid") == Solid(colour=colour)
    bright, own, deep = (to_oklch(from_hex(one))[0] for one in (light.colour, colour, dark.colour))
    assert deep - 1e-3 <= own <= bright + 1e-3
    assert bright - deep > 0.15


def test_a_falloff_ends_at_no_opacity():
    made = refilled(Solid(colour="#204060"), "ramp")
    assert isinstance(made, Ramp)
    ends = [(stop.position, stop.colour, stop.opacity) for stop in made.stops]
    assert ends == [(0, "#204060", 1), (1, "#204060", 0)]


def test_a_colour_that_follows_a_swatch_goes_on_following():
    light, _, dark = refilled(Solid(colour=SwatchLink(swatch="tarn", tint=90)), "linear").stops
    assert (light.colour.tint, dark.colour.tint) == (100, 66)
    assert toned(SwatchLink(swatch="tarn"), -24).swatch == "tarn"
    assert toned(SwatchLink(swatch="tarn", tint=-90), -24).tint == -100


def test_what_has_several_colours_keeps_them_there_and_back():
    stops = (
        Stop(position=0, colour="#102030"),
        Stop(position=0.4, colour="#ffffff"),
        Stop(position=1, colour="#a0b0c0"),
    )
    linear = Linear(stops=stops, space="oklab")
    assert refilled(refilled(linear, "conic"), "linear") == linear
    texture = refilled(linear, "texture")
    assert isinstance(texture, Texture)
    assert [stop.colour for stop in refilled(texture, "radial").stops] == ["#102030", "#a0b0c0"]
    assert refilled(linear, "solid") == Solid(colour="#ffffff")


@pytest.mark.parametrize("kind", [kind for kind in FILL_KINDS if kind != "texture"])
def test_every_kind_is_what_it_is_called_and_a_picture_becomes_one_too(kind):
    picture = Picture(file="0" * 32)
    for fill in (Solid(colour="#204060"), Texture(), picture):
        assert refilled(fill, kind).kind == kind
    assert refilled(picture, kind) == refilled(Solid(), kind)


def test_ends_keep_their_order_and_of_two_colours_the_first_is_the_one_colour():
    texture = Texture(colour="#102030", second="#a0b0c0")
    stops = refilled(texture, "linear").stops
    assert [(stop.position, stop.colour) for stop in stops] == [(0, "#102030"), (1, "#a0b0c0")]
    assert refilled(Linear(stops=stops), "solid") == Solid(colour="#102030")
    assert refilled(Linear(stops=stops[::-1]), "solid") == Solid(colour="#102030")
    assert refilled(Solid(colour="#102030"), "texture") == Texture()
