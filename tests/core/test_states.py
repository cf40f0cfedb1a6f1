"""States: what differs is stored and nothing else; what is changed at rest goes on into them."""

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from obrell.core.colour.contrast import contrast
from obrell.core.colour.difference import ciede2000
from obrell.core.colour.links import literal
from obrell.core.colour.spaces import from_hex, to_oklch
from obrell.core.document.differing import OF_THE_CONTROL, differences
from obrell.core.document.fitting import lost_words
from obrell.core.document.laying import laid
from obrell.core.document.model import PLAIN_GROUND, Control, Follow, State
from obrell.core.document.resolve import ground_colour, resolve
from obrell.core.document.states import all_states, in_state
from obrell.core.document.swatch_uses import swatches_of, uses, uses_of
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.edit.admission import check_drawable
from obrell.core.edit.base import applied_once
from obrell.core.edit.companions import main_colour
from obrell.core.edit.starts import STARTS
from obrell.core.errors import BadValue, NoSuchThing, ObrellError, Refused
from obrell.core.paint.fills import mean_colour
from obrell.core.shapes import Box, Group, Repeat, Round, Text
from obrell.core.values.base import canonical, canonical_json
from obrell.core.values.colours import SwatchLink
from obrell.core.values.paints import Linear, Solid, Stop
from obrell.samples.wendmere_lock import wendmere_lock
from tests.core.test_rules import kinds_of_edits
from tests.generating import values
from tests.making import EFFECTS_TRIED, KIT, control, layer, part, solid

INK = solid("#204060")
RAMP = INK.evolve(fill=Linear(stops=(Stop(position=0, colour="#112233"), Stop(position=1, colour="#445566"))))
HERE = Surroundings.of(KIT)


def base() -> Control:
    """A group of two, a repeat, a box with a ramp; pressed differs a little, lit is made of on and hover."""
    made = control(
        part(Box(width=30, height=20), INK, EFFECTS_TRIED["drop-shadow"], x=20, y=12),
        part(Repeat(count=3)), part(Round(), INK, within="p2"),
        part(Group(), x=40, y=30), part(Box(width=9), RAMP, within="p4"), part(Text(words="Open"), INK, within="p4"),
    )  # fmt: skip
    for name in ("Pressed", "On", "Hover"):
        made = done(made, kind="add-state", name=name)
    return done(made, kind="add-state", of=["on", "hover"])


def done(where: Control, **edit) -> Control:
    return applied(read_edit(edit), where, HERE)


def pressed(where: Control, state: str = "pressed", **edit) -> Control:
    return done(where, kind="in-states", states=[state], edit=edit)


def put(where: Control, path: str, value: object, state: str = "") -> Control:
    edit = {"kind": "set", "changes": [{"path": path, "value": value}]}
    return pressed(where, state, **edit) if state else done(where, **edit)


def stored(where: Control, state: str = "pressed"):
    return next(one for one in where.states if one.id == state).differences


BUSY = base()
PATIENT = settings(max_examples=3, suppress_health_check=list(HealthCheck), deadline=None)


def plain(where: Control) -> str:
    """All of it that can differ in states, as one text."""
    fixed = {name: "x" for name in OF_THE_CONTROL if name == "name"}
    parts = tuple(one.evolve(**fixed, locked=False, versions=()) for one in where.parts)
    return canonical(rounded(Control(id="c", name="x", parts=parts, light=where.light).model_dump(mode="json")))


def rounded(data):
    """Places are kept to nine digits behind the point."""
    if isinstance(data, dict):
        return {name: rounded(inner) for name, inner in data.items()}
    if isinstance(data, list):
        return [rounded(inner) for inner in data]
    return round(data, 6) if isinstance(data, float) else data


@pytest.mark.parametrize("kind", kinds_of_edits(), ids=lambda kind: kind.model_fields["kind"].default)
@PATIENT
@given(data=st.data())
def test_an_edit_in_a_state_gives_what_it_gives_anywhere_and_leaves_rest_as_it_is(kind, data):
    """The look of the state is what the edit makes of that look, byte for byte; set back, rest is what remains."""
    wish = data.draw(values(kind)) | {"kind": kind.model_fields["kind"].default}
    start = put(put(BUSY, "parts/p1/y", 14, "pressed"), "parts/p4/x", 44, "pressed")
    look = in_state(start, "pressed")
    try:
        edit = read_edit(wish)
        want = applied_once(edit, look, HERE)
        got = applied(read_edit({"kind": "in-states", "states": ["pressed"], "edit": wish}), start, HERE)
    except ObrellError:
        return
    if edit.of_control:
        return
    assert plain(in_state(got, "pressed")) == plain(want)
    assert plain(got) == plain(start)
    assert Control.model_validate_json(canonical_json(got)) == got
    if stored(got):
        back = done(got, kind="return-to-rest", state="pressed")
        assert plain(in_state(back, "pressed")) == plain(back)


@pytest.mark.parametrize("kind", kinds_of_edits(), ids=lambda kind: kind.model_fields["kind"].default)
@PATIENT
@given(data=st.data())
def test_whatever_is_done_at_rest_the_states_can_be_shown(kind, data):
    wish = data.draw(values(kind)) | {"kind": kind.model_fields["kind"].default}
    start = put(put(BUSY, "parts/p5/effects/e1/fill/stops/1/colour", "#ff0000", "pressed"), "parts/p2/x", 44, "on")
    try:
        changed = applied(read_edit(wish), start, HERE)
    except ObrellError:
        return
    for state, look in all_states(changed).items():
        assert [one.id for one in resolve(KIT, changed, state).control.parts] == [one.id for one in look.parts]
    assert all(not laid(changed, one.differences).misfits for one in changed.states if not one.of)


def test_only_what_differs_is_stored_and_rest_flows_on():
    lower = put(BUSY, "parts/p1/effects/e2/blur", 3, "pressed")
    assert [(one.path, one.value) for one in stored(lower)] == [("parts/p1/effects/e2/blur", 3)]
    later = put(put(lower, "parts/p1/effects/e2/blur", 9), "parts/p1/shape/width", 50)
    look = in_state(later, "pressed").parts[0]
    assert (look.effects[1].blur, look.shape.width) == (3, 50)
    assert later.parts[0].effects[1].blur == 9


def test_a_place_is_kept_as_a_distance_so_that_it_moves_along():
    lower = put(BUSY, "parts/p1/y", 13, "pressed")
    assert stored(lower)[0].by == 1
    moved = done(lower, kind="move", parts=["p1"], dx=0, dy=10)
    assert (moved.parts[0].y, in_state(moved, "pressed").parts[0].y) == (22, 23)


def test_what_lies_in_a_moved_group_goes_along_also_when_it_comes_later():
    lower = pressed(BUSY, kind="move", parts=["p4"], dx=0, dy=2)
    assert [one.path for one in stored(lower)] == ["parts/p4/y"]
    drawn = done(lower, kind="draw", shape="box", x0=30, y0=20, x1=40, y1=30)
    more = done(drawn, kind="put-into", parts=[drawn.parts[-1].id], into="p4")
    look = in_state(more, "pressed")
    assert {p.id: p.y for p in look.parts if p.within == "p4"} == {
        p.id: p.y + 2 for p in more.parts if p.within == "p4"
    }


def test_a_value_that_was_said_stays_said_where_rest_comes_to_say_the_same():
    said = put(put(BUSY, "parts/p1/effects/e2/blur", 3, "pressed"), "parts/p1/effects/e2/blur", 3)
    other = put(put(said, "parts/p1/opacity", 0.5, "pressed"), "parts/p1/effects/e2/blur", 8)
    assert in_state(other, "pressed").parts[0].effects[1].blur == 3
    again = put(put(BUSY, "parts/p1/opacity", 0.5, "pressed"), "parts/p1/opacity", 1, "pressed")
    assert not stored(again)


def test_parts_and_effects_come_go_and_change_places_in_one_state():
    start = BUSY
    shone = pressed(start, kind="add-effect", part="p1", effect="inner-glow")
    gone = pressed(shone, kind="remove", parts=["p5"])
    turned = pressed(gone, kind="reorder", part="p1", to="p4")
    assert [p.id for p in turned.parts] == [p.id for p in start.parts]
    assert len(turned.parts[0].effects) == 2
    look = in_state(turned, "pressed")
    assert "p5" not in [p.id for p in look.parts]
    assert len(next(p for p in look.parts if p.id == "p1").effects) == 3
    assert [p.id for p in look.parts].index("p1") > 0
    assert {one.kind for one in stored(turned)} == {"extra", "gone", "order"}
    for one in stored(turned):
        turned = done(turned, kind="return-to-rest", state="pressed", path=one.path)
    assert canonical_json(in_state(turned, "pressed")) == canonical_json(in_state(start, "rest").evolve(
        next_number=turned.next_number))  # fmt: skip


def test_what_is_removed_at_rest_takes_its_differences_along_and_undo_is_the_document_before():
    start = put(put(BUSY, "parts/p1/opacity", 0.5, "pressed"), "parts/p5/shape/width", 12, "pressed")
    less = done(start, kind="remove", parts=["p5"])
    assert [one.path for one in stored(less)] == ["parts/p1/opacity"]
    assert lost_words(start, less) == "What differed of it went with it: 1 in Pressed."
    assert lost_words(start, start) == ""


def test_a_stop_that_differs_stays_itself_when_rest_gets_more_of_them():
    start = put(BUSY, "parts/p5/effects/e1/fill/stops/1/colour", "#ff0000", "pressed")
    more = done(start, kind="add-stop", path="parts/p5/effects/e1/fill", position=0.2)
    look = in_state(more, "pressed").parts[4].effects[0].fill
    assert [stop.colour for stop in look.stops] == ["#112233", "#ff0000"]
    assert len(more.parts[4].effects[0].fill.stops) == 3


def test_names_locks_and_guides_are_the_controls_own():
    start = put(BUSY, "parts/p1/name", "Body", "pressed")
    start = pressed(start, kind="add-guide", axis="across", at=12)
    assert start.parts[0].name == "Body"
    assert len(start.guides) == 1
    assert not stored(start)


def test_a_state_of_two_is_what_they_come_to_one_after_the_other():
    start = put(put(BUSY, "parts/p1/opacity", 0.5, "on"), "parts/p1/opacity", 0.8, "hover")
    start = put(start, "parts/p1/rotation", 5, "on")
    both = in_state(start, "on-hover").parts[0]
    assert (both.opacity, both.rotation) == (0.8, 5)
    own = put(start, "parts/p1/rotation", 9, "on-hover")
    assert [one.path for one in stored(own, "on-hover")] == ["parts/p1/rotation"]
    later = put(own, "parts/p1/x", 25, "on")
    assert (in_state(later, "on-hover").parts[0].x, in_state(later, "on-hover").parts[0].rotation) == (25, 9)


def test_differences_of_separate_values_come_to_the_same_in_any_order():
    one = stored(put(BUSY, "parts/p1/opacity", 0.5, "on"), "on")
    two = stored(put(BUSY, "parts/p4/y", 33, "hover"), "hover")
    assert laid(laid(BUSY, one).control, two).control == laid(laid(BUSY, two).control, one).control
    assert laid(BUSY, (*one, *two)).control == laid(laid(BUSY, one).control, two).control


def test_recolouring_and_the_canvas_go_into_every_state():
    start = put(BUSY, "parts/p1/effects/e1/fill/colour", "#206040", "pressed")
    wide = done(start, kind="canvas-edges", left=10)
    assert (wide.parts[0].x, in_state(wide, "pressed").parts[0].x) == (30, 30)
    groups = ["hue-240", "hue-150"]
    turned = done(start, kind="recolour", groups=groups, to_hue=20)
    assert in_state(turned, "pressed").parts[0].effects[0].fill != in_state(start, "pressed").parts[0].effects[0].fill
    assert [one.path for one in stored(turned)] == ["parts/p1/effects/e1/fill/colour"]


def test_swatches_that_only_a_state_follows_are_known():
    tarn = wendmere_lock()
    first = tarn.controls[0].evolve(states=(), parts=(part(Box(), INK),), follows=(), ground=None)
    around = Surroundings.of(tarn)
    start = applied(read_edit({"kind": "add-state", "name": "On"}), first, around)
    lay = {"kind": "lay-swatch", "swatch": "brass", "parts": ["p1"]}
    lit = applied(read_edit({"kind": "in-states", "states": ["on"], "edit": lay}), start, around)
    assert uses(lit) == {"brass": 1}
    assert next(iter(uses_of(lit, "brass"))).colours == ("paint (On)",)
    assert resolve(tarn, lit, "on").control.parts[0].effects[0].fill == Solid(colour=next(
        one.colour for one in tarn.swatches if one.id == "brass"))  # fmt: skip


def test_a_state_has_a_name_of_its_own():
    for edit, words in (
        ({"name": "pressed"}, "called “pressed” already"), ({"name": "Rest"}, "called “Rest” already"),
        ({"name": "Lit", "of": ["on"]}, "two others"), ({"name": "Lit", "of": ["on", "on"]}, "each once"),
        ({}, "needs a name"),
        ({"of": ["on", "on-hover"]}, "plain ones"), ({"of": ["on", "hover"]}, "already"),
    ):  # fmt: skip
        with pytest.raises(Refused, match=words):
            done(BUSY, kind="add-state", **edit)
    with pytest.raises(NoSuchThing, match="no state “floating”"):
        pressed(BUSY, "floating", kind="remove", parts=["p1"])
    with pytest.raises(BadValue):
        read_edit({"kind": "in-states", "states": ["on"], "edit": {"kind": "in-states", "states": [], "edit": {}}})
    assert done(BUSY, kind="add-state", name="2 lit").states[-1].id == "state-2-lit"


def test_states_are_named_ordered_duplicated_and_removed():
    renamed = done(BUSY, kind="rename-state", state="pressed", name="Down")
    assert renamed.states[0].id, renamed.states[0].name == ("pressed", "Down")
    assert [one.id for one in done(BUSY, kind="move-state", state="pressed", to=1).states][:2] == ["on", "pressed"]
    twice = done(put(BUSY, "parts/p1/opacity", 0.5, "on"), kind="duplicate-state", state="on")
    assert (twice.states[2].name, stored(twice, twice.states[2].id)) == ("On 2", stored(twice, "on"))
    assert [one.id for one in done(BUSY, kind="remove-state", state="hover").states] == ["pressed", "on"]


def test_states_of_the_first_form_are_read():
    old = {"id": "pressed", "name": "Pressed", "overrides": [{"path": "parts/p1/y", "value": 31}]}
    where = BUSY.evolve(states=(State.model_validate(old),))
    assert in_state(where, "pressed").parts[0].y == 31
    assert differences(in_state(where, "rest"), in_state(where, "pressed"))[0].by == 19


def test_a_state_is_drawn_as_it_is():
    lower = put(BUSY, "parts/p1/effects/e1/fill/colour", "#ffffff", "pressed")
    rest, down = (layer(resolve(KIT, lower, name)).planes for name in ("rest", "pressed"))
    assert abs(rest - down).max() > 0.2


def labelled():
    """A body 20 px wider than its label, which is longer when on."""
    body = part(Box(width=10, height=20), INK, follows=(Follow(path="shape/width", source="p2", offset=20),))
    start = done(control(body, part(Text(words="Go"), INK)), kind="add-state", name="On")
    return put(start, "parts/p2/shape/words", "Gone away", "on")


def widths(where: Control):
    return [in_state(where, state).parts[0].shape.width for state in ("rest", "on")]


def test_a_body_is_as_wide_as_the_longest_words_of_all_states():
    longer = labelled()
    assert [one.path for one in stored(longer, "on")] == ["parts/p2/shape/words"]
    assert widths(longer)[0] == widths(longer)[1] > 60
    assert longer.parts[0].shape.width == widths(longer)[0]
    longest = put(longer, "parts/p2/shape/words", "Gone away for good")
    assert widths(longest)[0] == widths(longest)[1] > widths(longer)[0]
    shortest = put(longer, "parts/p2/shape/words", "Go", "on")
    assert widths(shortest)[0] == widths(shortest)[1] < 60
    by_hand = put(longer, "parts/p1/shape/width", 120)
    assert widths(by_hand) == [120, 120]
    in_its_state = put(longer, "parts/p1/shape/width", 130, "on")
    assert widths(in_its_state)[1] == 130


def test_unless_each_state_has_the_width_of_its_own_words():
    own = put(labelled(), "parts/p1/follows/0/own_words", True)
    assert widths(own)[0] < widths(own)[1]


SAMPLE = wendmere_lock()
AROUND = Surroundings.of(SAMPLE)


def begun(where: Control, start: str, **more) -> Control:
    return applied(read_edit({"kind": "start-state", "start": start} | more), where, AROUND)


@pytest.mark.parametrize("start", STARTS)
def test_controls_of_all_kinds_can_begin_every_state(start):
    for one in (SAMPLE.controls[n] for n in (0, 2, 3, 6, 8, 11)):
        plain_one = one.evolve(states=())
        made = begun(plain_one, start)
        check_drawable(SAMPLE, made, plain_one)
        assert made.states[0].differences
        assert plain(in_state(made, "rest")) == plain(plain_one)
        assert in_state(made, made.states[0].id) != in_state(made, "rest")


def test_pressed_is_lower_and_lit_from_the_other_side_with_a_shorter_shadow():
    key = control(part(Box(width=40, height=20), INK, EFFECTS_TRIED["bevel"], EFFECTS_TRIED["drop-shadow"]),
                  part(Text(words="Go"), solid("#ffffff")))  # fmt: skip
    rest, down = key, in_state(begun(key, "pressed", lower=2), "pressed")
    assert [one.y for one in down.parts] == [one.y + 2 for one in rest.parts]
    lit = next(one for one in down.parts[0].effects if one.kind == "bevel")
    assert (lit.follow, lit.direction % 360) == (False, 180)
    shadow, before = (next(e for e in k.parts[0].effects if e.kind == "drop-shadow") for k in (down, rest))
    assert shadow.blur < before.blur
    sunk = in_state(begun(key, "sunk"), "pressed")
    assert sunk.parts[0].effects[-1].kind == "inner-shadow"


def test_a_focus_ring_is_seen_on_its_ground_and_keeps_its_gap():
    for colour in ("#1f8a92", "#f4f1ea", "#202428", "#c9952c"):
        key = control(part(Box(width=40, height=20, radius=6), solid(colour)))
        ring = in_state(begun(key, "focus", gap=3), "focus").parts[-1]
        seen = literal(ring.effects[0].fill.colour, AROUND.palette)
        assert min(contrast(seen, colour), contrast(seen, mean_colour(PLAIN_GROUND))) >= 3
        assert (ring.shape.width, ring.shape.radius) == (46, 9)
        wider = put(begun(key, "focus", gap=3), "parts/p1/shape/width", 60)
        assert in_state(wider, "focus").parts[-1].shape.width == 66


QUAY = Solid(colour=SwatchLink(swatch="slate", tint=-40))


@pytest.mark.parametrize("ground", [None, Solid(colour="#101418"), QUAY], ids=["light", "dark", "following"])
@pytest.mark.parametrize("colour", ["#1f8a92", "#f4f1ea", "#96958f", "#202428", "#fbe9ae"])
def test_the_glow_of_hover_is_seen_on_its_ground_and_is_no_shadow(colour, ground):
    key = control(part(Box(width=40, height=20), solid(colour))).evolve(ground=ground)
    glow = in_state(begun(key, "hover"), "hover").parts[0].effects[0]
    seen, under = literal(glow.fill.colour, AROUND.palette), ground_colour(key, AROUND.palette)
    assert glow.kind == "outer-glow"
    assert ciede2000(seen, under) >= 15
    (light, chroma, _), (behind, _, _) = to_oklch(from_hex(seen)), to_oklch(from_hex(under))
    assert light > behind or chroma > 0.03


def test_a_focus_ring_stands_out_from_a_ground_that_follows_a_swatch():
    key = control(part(Box(width=40, height=20), solid("#2b3337"))).evolve(ground=QUAY)
    ring = in_state(begun(key, "focus"), "focus").parts[-1]
    assert contrast(literal(ring.effects[0].fill.colour, AROUND.palette), literal(QUAY.colour, AROUND.palette)) >= 3


def test_the_grain_of_a_metal_is_not_its_colour():
    grain = solid("#101010").evolve(id="e2", blend="overlay")
    assert main_colour(part(Box(), solid("#c9952c"), grain)) == "#c9952c"
    assert main_colour(part(Box(), grain)) == "#101010"


def test_disabled_has_less_colour_and_hover_is_lighter():
    key = control(part(Box(width=40, height=20), solid("#206040"), EFFECTS_TRIED["outer-glow"]))
    dim, lit = (in_state(begun(key, start), start).parts[0].effects for start in ("disabled", "hover"))
    was = to_oklch(from_hex("#206040"))
    assert to_oklch(from_hex(dim[0].fill.colour))[1] < was[1] / 2
    assert not dim[1].visible
    assert to_oklch(from_hex(lit[1].fill.colour))[0] == pytest.approx(was[0] + 0.045, abs=0.004)


def test_what_begins_a_state_follows_the_swatches_that_rest_follows():
    hover = in_state(begun(SAMPLE.controls[0].evolve(states=()), "hover"), "hover")
    body = next(one for one in hover.parts if one.name == "Body")
    assert "tarn" in swatches_of(body)


def test_a_state_cannot_begin_where_there_is_nothing_to_press():
    with pytest.raises(Refused, match="draw a body"):
        begun(control(), "hover")
