"""The document: values, paths, states, colourways, links."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from obrell.core.colour.links import MISSING, literal
from obrell.core.colour.notations import SPACES
from obrell.core.colour.spaces import from_hex, to_hex
from obrell.core.document.model import Canvas, Colourway, Control, Kit, State, Swatch
from obrell.core.document.resolve import resolve
from obrell.core.document.swatch_uses import uses
from obrell.core.document.texts import control_json
from obrell.core.document.value_paths import value_at, with_number, with_value
from obrell.core.effects import DropShadow, Paint
from obrell.core.errors import BadValue, NoSuchThing
from obrell.core.interchange.kit_file import kit_schema
from obrell.core.shapes import Box, Sides
from obrell.core.values.base import canonical_json, content_hash
from obrell.core.values.colours import SwatchLink
from obrell.core.values.differences import Other
from obrell.core.values.paints import Linear, Radial, Solid, Stop
from obrell.samples.wendmere_lock import wendmere_lock
from tests.making import KIT, control, part, solid

TARN = KIT.evolve(
    swatches=(Swatch(id="tarn", name="tarn", colour="#1f8a92"),),
    colourways=(Colourway(id="night", name="night watch", colours={"tarn": "#103038"}),),
)


def lit(**link):
    return control(part(Box(), Paint(id="e1", fill=Solid(colour=SwatchLink(swatch="tarn", **link)))))


def test_the_sample_kit_survives_json_and_is_within_its_own_schema():
    kit = wendmere_lock()
    assert Kit.model_validate_json(kit.model_dump_json()) == kit
    assert kit_schema()["properties"]["schema_version"]["const"] == 1


@pytest.mark.parametrize("number", range(len(wendmere_lock().controls)))
def test_the_text_put_together_of_parts_is_the_canonical_one(number):
    shown = wendmere_lock().controls[number]
    assert control_json(shown) == canonical_json(shown)
    moved = shown.evolve(parts=(shown.parts[0].evolve(x=-0.0, name='-0.0 "é'), *shown.parts[1:]))
    assert control_json(moved) == canonical_json(moved)


def test_equal_documents_have_equal_hashes_even_with_a_negative_zero():
    plus, minus = control(part(Box(), x=0.0)), control(part(Box(), x=-0.0))
    assert content_hash(plus) == content_hash(minus)
    assert "-0" not in canonical_json(minus)
    assert content_hash(plus) != content_hash(control(part(Box(), x=1.0)))


@pytest.mark.parametrize("bad", [0, -1, math.nan, math.inf, 1e9])
def test_impossible_sizes_are_refused(bad):
    with pytest.raises(ValidationError):
        Canvas(width=bad)
    with pytest.raises(BadValue):
        with_value(control(part(Box())), "parts/p1/shape/width", bad)


def test_two_parts_cannot_share_an_id_and_unknown_fields_are_refused():
    twin = part(Box())
    with pytest.raises(ValidationError, match="same id"):
        Control(id="c1", name="Twins", parts=(twin, twin))
    with pytest.raises(ValidationError):
        Box.model_validate({"kind": "box", "colour": "red"})


def test_a_value_is_changed_by_its_path_and_nothing_else_moves():
    before = control(part(Box(), solid("#000000"), DropShadow(id="e2")), part(Box()))
    after = with_value(before, "parts/p1/effects/e2/offset/distance", 9)
    assert value_at(after, "parts/p1/effects/e2/offset/distance") == 9
    assert after.parts[1] is before.parts[1]
    assert after.parts[0].effects[0] is before.parts[0].effects[0]


@pytest.mark.parametrize("path", ["parts/p9/x", "parts/p1/effects/e7/blur", "parts/p1/sparkle", "x/y", "parts/0/x"])
def test_a_path_to_nowhere_says_so(path):
    with pytest.raises(NoSuchThing):
        with_value(control(part(Box())), path, 1)


def test_ids_and_kinds_are_not_overwritten():
    base = control(part(Box(), solid("#000000")))
    with pytest.raises(BadValue):
        with_value(base, "parts/p1/id", "p7")
    with pytest.raises(BadValue):
        with_value(base, "parts/p1/shape/kind", "round")


def test_a_fill_becomes_another_kind_and_keeps_its_colours():
    base = control(part(Box(), solid("#aa3322")))
    linear = with_value(base, "parts/p1/effects/e1/fill/kind", "linear")
    fill = value_at(linear, "parts/p1/effects/e1/fill")
    assert isinstance(fill, Linear)
    assert fill.stops[1].colour == "#aa3322"
    radial = with_value(linear, "parts/p1/effects/e1/fill/kind", "radial")
    assert isinstance(value_at(radial, "parts/p1/effects/e1/fill"), Radial)
    back = with_value(radial, "parts/p1/effects/e1/fill/kind", "solid")
    assert value_at(back, "parts/p1/effects/e1/fill") == Solid(colour="#aa3322")


def test_stops_are_kept_in_order():
    fill = Linear(stops=(Stop(position=0.9, colour="#000000"), Stop(position=0.1, colour="#ffffff")))
    assert [stop.position for stop in fill.stops] == [0.1, 0.9]


def test_a_state_stores_only_what_differs():
    pressed = State(id="pressed", name="Pressed", differences=(Other(path="parts/p1/y", value=31),))
    base = control(part(Box(), solid("#000000"))).evolve(states=(pressed,))
    assert resolve(KIT, base).control.parts[0].y == 30
    assert resolve(KIT, base, "pressed").control.parts[0].y == 31
    with pytest.raises(NoSuchThing):
        resolve(KIT, base, "floating")


def test_links_follow_their_swatch_through_colourways():
    shown = resolve(TARN, lit()).control.parts[0].effects[0].fill.colour
    assert shown == "#1f8a92"
    assert resolve(TARN, lit(), colourway="night").control.parts[0].effects[0].fill.colour == "#103038"
    assert uses(lit()) == {"tarn": 1}
    with pytest.raises(NoSuchThing):
        resolve(TARN, lit(), colourway="dusk")


def test_resolving_without_links_shares_every_part():
    base = control(part(Box(), solid("#000000")))
    assert resolve(KIT, base).control is base


def test_tints_go_to_black_and_white_and_hues_turn():
    palette = {"tarn": "#1f8a92"}
    assert literal(SwatchLink(swatch="tarn", tint=100), palette) == "#ffffff"
    assert literal(SwatchLink(swatch="tarn", tint=-100), palette) == "#000000"
    assert literal(SwatchLink(swatch="tarn", hue=360), palette) == "#1f8a92"
    assert literal(SwatchLink(swatch="gone"), palette) == MISSING


@given(st.integers(0, 0xFFFFFF), st.sampled_from(["rgb", "hsl", "hsv", "oklch"]))
def test_every_colour_survives_every_space(number, space):
    text = f"#{number:06x}"
    assert to_hex(SPACES[space].back(SPACES[space].of(from_hex(text)))) == text


def test_halves_of_a_count_round_up():
    assert [with_number(Sides(count=3), "count", value).count for value in (3.5, 4.49, 4.5)] == [4, 4, 5]
