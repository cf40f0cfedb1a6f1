"""Swatches of a kit: whatever stores a colour can follow one, is found where it does, and can be let go again."""

import pytest

from obrell.core.colour.links import literal
from obrell.core.document.colours import colour_fields, drawn_places, with_colours
from obrell.core.document.model import Control, Swatch
from obrell.core.document.resolve import resolve
from obrell.core.document.swatch_uses import uses, uses_of
from obrell.core.document.value_paths import value_at
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.edit.colours import literals_of, proposals
from obrell.core.edit.swatches import coloured, freed, moved, renamed, with_swatch, without_swatch
from obrell.core.effects import EFFECTS
from obrell.core.errors import NoSuchThing, Refused
from obrell.core.shapes import SHAPES, Box, Text
from obrell.core.values.base import canonical_json
from obrell.core.values.colours import SwatchLink
from obrell.core.values.paints import FILL_KINDS, Linear, Radial, Solid, Stop
from obrell.core.values.slugs import free_id
from obrell.samples.wendmere_lock import unlinked_lock
from tests.making import KIT, control, part, solid

TARN = KIT.evolve(
    swatches=(Swatch(id="tarn", name="tarn", colour="#1f8a92"), Swatch(id="moss", name="moss", colour="#5e8a3a"))
)
AROUND = Surroundings.of(TARN)
RUSH = Swatch(id="rush", name="rush", colour="#7a8b3c")
LINK = SwatchLink(swatch="tarn", tint=20, chroma=-2, hue=15)


def does(base, **edit):
    return applied(read_edit(edit), base, AROUND)


def colours_everywhere():
    """A control with every field that stores a colour: of each effect, each fill, letters, copies, and its ground."""
    every = unlinked_lock().controls
    effects = tuple(kind(id=f"e{number}") for number, kind in enumerate(EFFECTS.values(), start=1))
    fills = []
    for number, kind in enumerate(FILL_KINDS[:-1], start=60):
        base = control(part(Box(), solid("#204060")))
        edit = {"kind": "set", "changes": [{"path": "parts/p1/effects/e1/fill/kind", "value": kind}]}
        fills.append(does(base, **edit).parts[0].effects[0].evolve(id=f"e{number}"))
    ends = Stop(position=0, colour="#111111"), Stop(position=1, colour="#eeeeee")
    ends = Stop(position=0, colour="#111111"), Stop(position=1, colour="#eeeeee")
    own = control(part(Box(), *effects, *fills)).evolve(ground=Linear(stops=ends))
    return (own, *every)


EVERYWHERE = [(one, place.path) for one in colours_everywhere() for place in drawn_places(one)]


def test_every_kind_of_value_that_stores_a_colour_is_among_them():
    kinds = {type(value_at(one, path.rpartition("/")[0])) for one, path in EVERYWHERE}
    stores = {kind for kind in (*EFFECTS.values(), *SHAPES.values()) if colour_fields(kind)}
    assert stores <= kinds
    assert {Stop, Solid} <= kinds


@pytest.mark.parametrize("number", range(0, len(EVERYWHERE), 7))
def test_whatever_stores_a_colour_follows_is_found_and_survives(number):
    base, path = EVERYWHERE[number]
    linked = does(base, kind="set", changes=[{"path": path, "value": LINK.model_dump(mode="json")}])
    assert value_at(linked, path) == LINK
    assert Control.model_validate_json(canonical_json(linked)) == linked
    assert value_at(resolve(TARN, linked).control, path) == literal(LINK, {"tarn": "#1f8a92"})
    assert uses(linked)["tarn"] == 1
    assert [use.colours for use in uses_of(linked, "tarn")] != [()]
    deeper = does(linked, kind="type", path=f"{path}/tint", text="40", negated=True)
    assert value_at(deeper, path).tint == -40
    own = does(linked, kind="set", changes=[{"path": f"{path}/own", "value": "#abcdef"}])
    assert value_at(resolve(TARN, own).control, path) == "#abcdef"
    assert uses(own) == uses(base)
    again = does(own, kind="set", changes=[{"path": f"{path}/own", "value": None}])
    assert again == linked


def test_a_change_of_one_of_them_changes_what_follows_it_alone():
    base = control(part(Box(), solid("#204060"))).evolve(ground=Solid(colour=LINK))
    other = coloured(TARN, "tarn", "#a05020")
    assert resolve(other, base).control.ground != resolve(TARN, base).control.ground
    assert resolve(coloured(TARN, "moss", "#a05020"), base).control == resolve(TARN, base).control


def test_a_swatch_laid_on_a_gradient_keeps_how_light_its_stops_are():
    stops = (
        Stop(position=0, colour="#e9c8b0"),
        Stop(position=0.5, colour="#a8552c"),
        Stop(position=1, colour="#3a1a0a"),
    )
    base = control(part(Box(), solid("#204060").evolve(fill=Linear(stops=stops))))
    laid = does(base, kind="lay-swatch", swatch="tarn", parts=["p1"])
    fill = laid.parts[0].effects[0].fill
    assert [stop.colour.swatch for stop in fill.stops] == ["tarn"] * 3
    tints = [stop.colour.tint for stop in fill.stops]
    assert tints[0] > 30 > tints[1] > tints[2]
    assert tints[2] < -30


def test_a_swatch_is_laid_on_a_colour_an_effect_or_a_part_without_paint():
    base = control(part(Box(), solid("#204060")), part(Box(), id="p2"))
    on_colour = does(base, kind="lay-swatch", swatch="tarn", path="parts/p1/effects/e1/fill/colour")
    assert on_colour.parts[0].effects[0].fill.colour == SwatchLink(swatch="tarn")
    on_effect = does(base, kind="lay-swatch", swatch="tarn", path="parts/p1/effects/e1")
    assert on_effect == on_colour
    bare = does(base, kind="lay-swatch", swatch="moss", parts=["p2"]).parts[1]
    assert bare.effects[-1].fill.colour == SwatchLink(swatch="moss")
    with pytest.raises(NoSuchThing):
        does(base, kind="lay-swatch", swatch="gone", parts=["p1"])
    with pytest.raises(Refused, match="Select a part"):
        does(base, kind="lay-swatch", swatch="tarn")
    locked = control(part(Box(), solid("#204060"), locked=True))
    for target in ({"parts": ["p1"]}, {"path": "parts/p1/effects/e1"}):
        with pytest.raises(Refused, match="locked"):
            does(locked, kind="lay-swatch", swatch="tarn", **target)


def test_colours_that_look_alike_are_proposed_as_one_and_look_as_they_did_afterwards():
    near = part(
        Box(), solid("#4fb0b8"), *(solid(one).evolve(id=f"e{n}") for n, one in ((2, "#50b0b8"), (3, "#c05040")))
    )
    base = control(near, part(Text(words="Hoot"), solid("#4fb0b8"), id="p2"))
    found = proposals(literals_of([base]), AROUND.palette)
    assert (found[0].colours, found[0].count) == (("#4fb0b8", "#50b0b8"), 3)
    assert found[0].match.link.swatch == "tarn"
    links = {colour: one.match.link.model_dump(mode="json") for one in found for colour in one.colours}
    followed = does(base, kind="follow-swatches", links=links)
    assert literals_of([followed]) == {}
    for place in drawn_places(base):
        seen = value_at(resolve(TARN, followed).control, place.path)
        match = next(one.match for one in found if place.colour in one.colours)
        assert seen == literal(match.link, AROUND.palette)
    only = does(base, kind="follow-swatches", links=links, parts=["p2"])
    assert only.parts[0] == base.parts[0]
    assert set(uses(only)) == {"tarn"}


def test_locked_parts_keep_their_colours_unless_they_are_asked_for():
    base = control(part(Box(), solid("#4fb0b8"), locked=True), part(Box(), solid("#4fb0b8"), id="p2"))
    links = {"#4fb0b8": {"swatch": "tarn"}}
    assert does(base, kind="follow-swatches", links=links).parts[0] == base.parts[0]
    with pytest.raises(Refused, match="locked"):
        does(base, kind="follow-swatches", links=links, parts=["p1"])
    with pytest.raises(NoSuchThing):
        does(base, kind="follow-swatches", links={"#4fb0b8": {"swatch": "gone"}})


def test_names_make_ids_that_nothing_else_has():
    assert free_id("Rush Green", ()) == "rush-green"
    assert free_id("Tarn", ("tarn", "tarn-2")) == "tarn-3"
    assert free_id("7 deep", ()) == "s-7-deep"
    kit, made = with_swatch(TARN, "Tarn, deep", "#0b3b40", "main")
    assert (made, kit.swatches[-1].role) == ("tarn-deep", "main")
    assert [one.id for one in moved(kit, made, 0).swatches] == [made, "tarn", "moss"]
    assert [one.id for one in moved(kit, "tarn", 99).swatches] == ["moss", made, "tarn"]
    assert renamed(kit, made, "tarn, DEEP").swatches[-1].name == "tarn, DEEP"


def test_what_a_kit_keeps_lets_go_of_a_swatch_too():
    fill = Radial(stops=(Stop(position=0, colour=LINK), Stop(position=1, colour="#000000")))
    kit = (
        unlinked_lock()
        .settings()
        .evolve(
            gradients=({"id": "g", "name": "Glow", "fill": fill},),
            colourways=({"id": "night", "name": "Night", "colours": {"tarn": "#103038", "moss": "#223311"}},),
        )
    )
    rest = without_swatch(kit, "tarn")
    assert rest.gradients[0].fill.stops[0].colour == literal(LINK, {"tarn": kit.swatches[0].colour})
    assert rest.colourways[0].colours == {"moss": "#223311"}
    assert without_swatch(kit, "tarn", "moss").gradients[0].fill.stops[0].colour == LINK.evolve(swatch="moss")


def test_a_remembered_link_goes_with_its_swatch():
    base = control(part(Box(), solid("#204060"))).evolve(ground=Solid(colour=LINK.evolve(own="#abcdef")))
    assert freed(base, TARN, "tarn").ground.colour == "#abcdef"
    assert with_colours(base, lambda colour: colour) is base


def test_what_comes_from_another_kit_follows_the_same_swatch_the_same_role_or_none():
    rush = SwatchLink(swatch="rush", tint=-30)
    lake = SwatchLink(swatch="lake", tint=10)
    copied = part(Box(), solid("#204060").evolve(fill=Solid(colour=rush)), solid("#204060").evolve(id="e2"))
    copied = copied.evolve(effects=(*copied.effects, solid("#111111").evolve(id="e3", fill=Solid(colour=lake))))
    origins = [
        {"id": "rush", "role": "reeds", "colour": "#7a8b3c"}, {"id": "lake", "role": "main", "colour": "#335577"},
    ]  # fmt: skip
    kit = TARN.evolve(swatches=tuple(one.evolve(role="main") if one.id == "tarn" else one for one in TARN.swatches))
    around = Surroundings.of(kit)
    edit = {"kind": "paste", "parts": [copied.model_dump(mode="json")], "origins": origins}
    pasted = applied(read_edit(edit), control(), around).parts[0]
    assert pasted.effects[0].fill.colour == literal(rush, {"rush": "#7a8b3c"})
    assert pasted.effects[1].fill.colour == "#204060"
    assert pasted.effects[2].fill.colour == lake.evolve(swatch="tarn")
    effects = [effect.model_dump(mode="json") for effect in copied.effects]
    onto = {"kind": "paste-effects", "parts": ["p1"], "effects": effects, "origins": origins}
    laid = applied(read_edit(onto), control(part(Box())), around).parts[0]
    assert [effect.fill for effect in laid.effects] == [effect.fill for effect in pasted.effects]
    for read in (read_edit(edit), read_edit(onto)):
        assert read.remark(around) == "No swatch here is like rush: what followed it is its own now."
        assert "like rush, lake: what followed them" in read.remark(Surroundings())
        assert read.remark(Surroundings.of(kit.evolve(swatches=(*kit.swatches, RUSH)))) == ""
    same = {"kind": "paste", "parts": [copied.model_dump(mode="json")]}
    there = Surroundings(swatches=tuple(Swatch(id=one["id"], name=one["id"], colour=one["colour"]) for one in origins))
    assert applied(read_edit(same), control(), there).parts[0].effects[0].fill.colour == rush


def test_a_colour_cannot_begin_to_follow_a_swatch_that_is_not_there():
    gone = {"swatch": "gone"}
    shown = control(part(Box(), solid("#204060")))
    around = Surroundings.of(TARN)
    path = "parts/p1/effects/e1/fill/colour"
    linked = applied(
        read_edit({"kind": "set", "changes": [{"path": path, "value": {"swatch": "tarn"}}]}), shown, around
    )
    for edit in (
        {"kind": "set", "changes": [{"path": path, "value": gone}]},
        {"kind": "set", "changes": [{"path": "ground", "value": {"kind": "solid", "colour": gone}}]},
        {"kind": "lay-swatch", "swatch": "gone", "parts": ["p1"]},
    ):
        with pytest.raises(NoSuchThing, match="swatch is no longer there"):
            applied(read_edit(edit), shown, around)
    moved = {"kind": "move", "parts": ["p1"], "dx": 3, "dy": 0}
    kept = applied(read_edit(moved), linked, Surroundings()).parts[0]
    assert kept.effects[0].fill.colour == SwatchLink(swatch="tarn")
