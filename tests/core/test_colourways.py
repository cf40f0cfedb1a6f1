"""Colourways: turned, made for the dark, named, and what a swatch is in each."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.colour.colourways import for_the_dark, readable, turned
from obrell.core.colour.contrast import ORDINARY, contrast
from obrell.core.colour.spaces import from_hex, to_oklch
from obrell.core.deliver.order import Order
from obrell.core.deliver.plan import plan
from obrell.core.document.resolve import DAY, ground_colour, palette
from obrell.core.edit.colourways import made_of, renamed_colourway, with_colourway, without_colourway
from obrell.core.edit.swatches import coloured
from obrell.core.errors import NoSuchThing, Refused
from obrell.samples.wendmere_lock import wendmere_lock

KIT = wendmere_lock().settings()
COLOURS = dict(palette(KIT))
ROLES = {swatch.id: swatch.role for swatch in KIT.swatches}
HEX = st.integers(0, 0xFFFFFF).map(lambda number: f"#{number:06x}")


def lightness(colour):
    return to_oklch(from_hex(colour))[0]


@given(st.floats(-180, 180))
def test_turned_colours_keep_their_lightness_and_accents_stay(degrees):
    made = turned(COLOURS, degrees, ("signal",))
    assert made["signal"] == COLOURS["signal"]
    assert all(abs(lightness(made[name]) - lightness(COLOURS[name])) < 0.02 for name in COLOURS)
    assert turned(COLOURS, 0) == COLOURS


def test_from_nothing_every_colour_is_a_grey_as_light_as_it_was():
    made = made_of(KIT, DAY, "nothing")
    assert set(made) == set(COLOURS)
    for name, colour in made.items():
        assert len(set(from_hex(colour))) == 1
        assert lightness(colour) == pytest.approx(lightness(COLOURS[name]), abs=0.01)


def test_for_the_dark_grounds_go_dark_and_labels_can_be_read_on_them():
    made = for_the_dark(COLOURS, ROLES)
    assert lightness(made["slate"]) < 0.4 < lightness(made["chalk"])
    assert lightness(made["signal"]) < lightness(COLOURS["signal"])
    assert min(contrast(made["chalk"], made[name]) for name in ("slate", "tarn")) >= ORDINARY


@given(HEX, st.lists(HEX, min_size=1, max_size=3))
def test_a_colour_is_made_readable_wherever_it_can_be(colour, behind):
    made = readable(colour, behind)
    best = max(min(contrast(one, other) for other in behind) for one in ("#000000", "#ffffff"))
    reached = min(contrast(made, other) for other in behind)
    assert reached >= min(ORDINARY, best) - 0.05
    if min(contrast(colour, other) for other in behind) >= ORDINARY:
        assert made == colour


def test_a_colourway_is_made_changed_renamed_and_removed():
    kit, new = with_colourway(KIT, "Dusk", made_of(KIT, "frost", "turned", 40))
    assert (new, kit.colourways[-1].colours["signal"]) == ("dusk", palette(KIT, "frost")["signal"])
    other = coloured(kit, "tarn", "#123456", "dusk")
    assert (palette(other, "dusk")["tarn"], palette(other)["tarn"]) == ("#123456", COLOURS["tarn"])
    assert renamed_colourway(kit, "dusk", "Dawn").colourways[-1].name == "Dawn"
    assert without_colourway(kit, "dusk") == KIT
    assert made_of(KIT, DAY, "same") == COLOURS


def test_what_cannot_be_is_refused():
    for name in ("Day", "night WATCH"):
        with pytest.raises(Refused, match="already"):
            with_colourway(KIT, name, {})
    with pytest.raises(Refused, match="neither renamed nor removed"):
        without_colourway(KIT, DAY)
    with pytest.raises(NoSuchThing):
        coloured(KIT, "tarn", "#123456", "dusk")
    with pytest.raises(NoSuchThing):
        plan(KIT, wendmere_lock().controls, Order(colourways=("dusk",)))


def test_names_without_the_colourway_are_told_apart_or_left_out():
    kit = wendmere_lock()
    order = Order(controls=("c1",), densities=(1.0,), formats=("png",), colourways=("day", "frost"))
    both = plan(kit, kit.controls, order.evolve(pattern="{control}"))
    assert len(both.files) == 1
    assert "{colourway}" in both.left_out[0].words


def test_night_watch_is_dark_its_metal_is_dim_and_day_is_light():
    kit, night = wendmere_lock(), palette(KIT, "night-watch")
    for one in kit.controls:
        assert lightness(ground_colour(one, COLOURS)) > 0.85
        assert lightness(ground_colour(one, night)) < 0.3
    assert lightness(night["pewter"]) < lightness(COLOURS["pewter"]) - 0.3
    assert lightness(night["chalk"]) > lightness(night["pewter"])


def test_all_that_is_operated_in_the_sample_kit_shows_when_it_is_hovered():
    hovered = {one.name for one in wendmere_lock().controls if one.state_in_role("hover")}
    assert {one.name for one in wendmere_lock().controls} - hovered == {"Pilot lamp"}
