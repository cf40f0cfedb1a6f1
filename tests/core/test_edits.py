"""Edits: pure, in words when they cannot be done, and never half done."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.document.model import MAX_PARTS, Canvas, Control
from obrell.core.document.value_paths import value_at
from obrell.core.edit import Surroundings, read_edit
from obrell.core.edit.typed import number_from
from obrell.core.effects import DropShadow, InnerShadow, Paint
from obrell.core.errors import BadValue, NoSuchThing, Refused
from obrell.core.shapes import SHAPES, Box, Round, Text
from obrell.core.values.fields import Live
from obrell.core.values.paints import Linear, Stop
from tests.making import control, part, solid

RAMP = Linear(
    stops=(
        Stop(position=0, colour="#000000", midpoint=0.25),
        Stop(position=0.5, colour="#404040"),
        Stop(position=1, colour="#ffffff"),
    )
)
BASE = control(
    part(Box(width=40, height=20), Paint(id="e1", fill=RAMP), InnerShadow(id="e2"), DropShadow(id="e3")),
    part(Text(words="Lock"), solid("#ffffff"), name="Lock"),
)
FILL = "parts/p1/effects/e1/fill"


def do(base=BASE, **edit):
    return read_edit(edit).apply(base, Surroundings())


def set_value(path, value, base=BASE):
    return do(base, kind="set", changes=[{"path": path, "value": value}])


@pytest.mark.parametrize(
    ("text", "unit", "factor", "value"),
    [
        ("258-2*3", "px", 1, 252), ("(4+.5)*-2 px", "px", 1, -9), ("55 %", "%", 100, 0.55),
        ("1/4turn", "°", 1, 90), ("0.25turn", "°", 1, 90),
        ("2turn/8", "°", 1, 90), ("90+1/4turn", "°", 1, 180), ("-1/8turn", "°", 1, -45),
        ("3,5", "px", 1, 3.5), ("2×3", "px", 1, 6), ("−4", "px", 1, -4), ("90°", "°", 1, 90),
    ],
)  # fmt: skip
def test_numbers_are_typed_as_sums_with_units(text, unit, factor, value):
    assert number_from(text, Live(unit, factor=factor)) == pytest.approx(value)


def test_hiding_is_said_of_the_thing_that_is_hidden():
    for path, words in (("parts/p1/visible", "Hid "), ("reference/visible", "Hid the reference")):
        edit = read_edit({"kind": "set", "changes": [{"path": path, "value": False}]})
        assert edit.label(BASE).startswith(words)


@pytest.mark.parametrize("text", ["", "abc", "1/0", "((1", "1 2", "2 deg", "9" * 400, "__import__('os')", "(" * 150])
def test_nonsense_is_refused_in_words(text):
    with pytest.raises(BadValue) as refusal:
        number_from(text, Live("px"))
    assert str(refusal.value).endswith(".")


def test_typing_sets_a_value_and_says_what_it_did():
    edit = read_edit({"kind": "type", "path": "parts/p1/effects/e3/blur", "text": "2*3"})
    assert value_at(edit.apply(BASE, Surroundings()), "parts/p1/effects/e3/blur") == 6
    assert edit.label(BASE) == "Blur of drop shadow on Part: 4 px → 6 px"


def test_a_label_says_something():
    with pytest.raises(BadValue, match="only spaces"):
        set_value("parts/p2/shape/words", "  ")
    with pytest.raises(BadValue, match="empty"):
        set_value("parts/p2/shape/words", "")


def test_a_text_goes_on_being_called_by_its_words_until_it_is_named():
    assert set_value("parts/p2/shape/words", "Gate").parts[1].name == "Gate"
    named = set_value("parts/p2/name", "Caption")
    assert set_value("parts/p2/shape/words", "Gate", named).parts[1].name == "Caption"


def test_the_light_becomes_the_controls_own_when_it_is_moved():
    assert set_value("light/direction", 40).light.direction == 40


@pytest.mark.parametrize("constrained", [False, True])
@pytest.mark.parametrize("centred", [False, True])
def test_drawing_goes_from_corner_to_corner_or_from_the_centre(constrained, centred):
    drawn = do(kind="draw", shape="box", x0=10, y0=10, x1=40, y1=22, constrained=constrained, centred=centred)
    new = drawn.parts[-1]
    width, height = (30, 30) if constrained else (30, 12)
    assert (new.shape.width, new.shape.height) == ((2 * width, 2 * height) if centred else (width, height))
    assert (new.x, new.y) == ((10, 10) if centred else (10 + width / 2, 10 + height / 2))
    assert new.id not in {p.id for p in BASE.parts}


@pytest.mark.parametrize("kind", sorted(set(SHAPES) - {"text", "picture"}))
def test_what_is_put_by_a_press_is_no_larger_than_its_canvas(kind):
    def framed(width, height):
        empty = Control(id="c", name="C", canvas=Canvas(width=width, height=height))
        return do(empty, kind="draw", shape=kind, x0=4, y0=4, x1=4, y1=4).parts[0].shape.frame()

    usual = framed(200, 200)
    for width, height in ((8, 8), (1200, 20), (20, 900)):
        frame = framed(width, height)
        assert frame.width <= width + 0.01
        assert frame.height <= height + 0.01
        assert frame.width * usual.height == pytest.approx(frame.height * usual.width, rel=0.01)


@pytest.mark.parametrize("turn", [0, 90, 30])
@pytest.mark.parametrize("handle", ["n", "ne", "e", "se", "s", "sw", "w", "nw"])
def test_pulling_a_handle_leaves_the_opposite_side_where_it_is(turn, handle):
    base = control(part(Box(width=40, height=20), solid("#000000"), rotation=turn))
    pulled = do(base, kind="resize", part="p1", handle=handle, dx=7, dy=-3).parts[0]

    def anchor(p):
        from obrell.core.geometry.plane import Similarity

        x = (("w" in handle) - ("e" in handle)) * p.shape.width / 2
        y = (("n" in handle) - ("s" in handle)) * p.shape.height / 2
        return Similarity(1, p.rotation, p.x, p.y).apply(x, y)

    assert anchor(pulled) == pytest.approx(anchor(base.parts[0]))
    kept = do(base, kind="resize", part="p1", handle=handle, dx=7, dy=-3, constrained=True).parts[0].shape
    assert kept.width / kept.height == pytest.approx(2)


def test_a_handle_pulled_too_far_leaves_a_pixel():
    assert do(kind="resize", part="p1", handle="e", dx=-500, dy=0).parts[0].shape.width == 1


@given(st.floats(-50, 50), st.floats(-50, 50))
def test_moving_there_and_back_is_no_move(dx, dy):
    there = do(kind="move", parts=["p1", "p2"], dx=dx, dy=dy)
    back = do(there, kind="move", parts=["p1", "p2"], dx=-dx, dy=-dy)
    for before, after in zip(BASE.parts, back.parts, strict=True):
        assert (after.x, after.y) == pytest.approx((before.x, before.y))


def test_centring_uses_the_frame_and_keeps_the_other_direction():
    centred = do(kind="centre", parts=["p1"], down=False).parts[0]
    assert (centred.x, centred.y) == (40, 30)


def test_canvas_edges_move_outwards_and_the_art_stays():
    wider = do(kind="canvas-edges", left=10, right=5)
    assert (wider.canvas.width, wider.parts[0].x) == (95, 50)
    with pytest.raises(Refused):
        do(kind="canvas-edges", right=-80)


def test_copies_have_new_ids_and_names_and_stand_in_front_of_their_originals():
    copied = do(kind="duplicate", parts=["p1"], dx=2)
    assert [p.name for p in copied.parts] == ["Part", "Part 2", "Lock"]
    pasted = do(copied, kind="paste", parts=[copied.parts[0].model_dump(mode="json")])
    assert len({p.id for p in pasted.parts}) == 4


def test_removing_everything_twice_says_it_is_gone():
    empty = do(kind="remove", parts=["p1", "p2"])
    assert empty.parts == ()
    with pytest.raises(NoSuchThing):
        do(empty, kind="remove", parts=["p1"])


def test_a_locked_part_stays_as_it_is_until_unlocked():
    locked = set_value("parts/p1/locked", True)
    for edit in (
        {"kind": "move", "parts": ["p1"], "dx": 1, "dy": 0},
        {"kind": "remove", "parts": ["p1"]},
        {"kind": "add-effect", "part": "p1", "effect": "paint"},
        {"kind": "reverse-stops", "path": FILL},
        {"kind": "set", "changes": [{"path": "parts/p1/x", "value": 3}]},
    ):
        with pytest.raises(Refused, match="locked"):
            do(locked, **edit)
    assert not set_value("parts/p1/locked", False, locked).parts[0].locked


def test_ten_thousand_parts_are_refused():
    many = [BASE.parts[0].model_dump(mode="json")] * 1000
    with pytest.raises(Refused, match=f"at most {MAX_PARTS} parts"):
        do(kind="paste", parts=many)
    with pytest.raises(BadValue):
        do(kind="paste", parts=many * 10)


def test_effects_move_inside_their_zone_only():
    more = do(kind="add-effect", part="p1", effect="paint")
    ids = [e.id for e in more.parts[0].effects]
    moved = do(more, kind="move-effect", part="p1", effect=ids[-1], by=-1)
    assert [e.id for e in moved.parts[0].effects] == ["e1", "e100", "e3", "e2"]
    assert do(moved, kind="move-effect", part="p1", effect="e3", by=5).parts[0].effects == moved.parts[0].effects


def test_an_effect_takes_the_place_of_another_of_its_zone():
    base = control(part(Box(), *(solid(f"#{n}{n}{n}{n}{n}{n}") for n in "123"), DropShadow(id="e4")))
    moved = do(base, kind="move-effect", part="p1", effect="e1", to="e3").parts[0]
    assert [e.id for e in moved.effects] == ["e2", "e3", "e1", "e4"]
    back = do(base, kind="move-effect", part="p1", effect="e3", to="e1").parts[0]
    assert [e.id for e in back.effects] == ["e3", "e1", "e2", "e4"]
    with pytest.raises(Refused, match="zone"):
        do(base, kind="move-effect", part="p1", effect="e1", to="e4")


def test_the_same_effect_of_several_parts_is_set_at_once():
    shadows = (DropShadow(id="e1", blur=2), InnerShadow(id="e2"), DropShadow(id="e3", blur=4))
    base = control(part(Box(), *shadows), part(Round(), *shadows[1:], shadows[0]))
    path = "parts/*/effects/drop-shadow:1/blur"
    edit = {"kind": "set", "changes": [{"path": path, "value": 9}], "parts": ["p1", "p2"]}
    blurs = [[e.blur for e in p.effects if e.kind == "drop-shadow"] for p in do(base, **edit).parts]
    assert blurs == [[2, 9], [4, 9]]
    with pytest.raises(NoSuchThing):
        do(base, kind="set", changes=[{"path": "parts/p1/effects/drop-shadow:2/blur", "value": 9}])


def test_a_pull_can_take_the_lengths_of_effects_along():
    base = control(part(Box(width=40, height=20, radius=4), DropShadow(id="e1", blur=6)))
    pull = {"kind": "resize", "part": "p1", "handle": "se", "dx": 40, "dy": 20}
    assert do(base, **pull).parts[0].effects[0].blur == 6
    assert do(base, **pull, effects=True).parts[0].effects[0].blur == 12


def test_effects_are_copied_above_the_original_and_removed():
    twice = do(kind="duplicate-effect", part="p1", effect="e1")
    assert [e.kind for e in twice.parts[0].effects][:2] == ["paint", "paint"]
    assert do(twice, kind="remove-effect", part="p1", effect="e100").parts == BASE.parts
    with pytest.raises(Refused):
        do(kind="add-effect", part="p1", effect="sparkle")


def test_a_new_stop_changes_nothing_that_is_seen():
    added = value_at(do(kind="add-stop", path=FILL, position=0.75), FILL)
    assert [s.colour for s in added.stops] == ["#000000", "#404040", "#a0a0a0", "#ffffff"]


def test_reversing_twice_is_no_change_and_bends_go_along():
    once = do(kind="reverse-stops", path=FILL)
    stops = value_at(once, FILL).stops
    assert [s.position for s in stops] == [0, 0.5, 1]
    assert stops[1].midpoint == 0.75
    assert do(once, kind="reverse-stops", path=FILL) == BASE


def test_the_last_two_stops_stay():
    two = do(kind="remove-stop", path=FILL, index=1)
    with pytest.raises(Refused, match="two stops"):
        do(two, kind="remove-stop", path=FILL, index=0)
    assert value_at(do(kind="turn-gradient", path=FILL, degrees=270), f"{FILL}/angle") == 90


@pytest.mark.parametrize(
    "nonsense",
    [None, 7, {}, {"kind": "explode"}, {"kind": "move", "parts": [], "dx": 0, "dy": 0}, {"kind": "set", "changes": []},
     {"kind": "draw", "shape": "box", "x0": float("inf"), "y0": 0, "x1": 1, "y1": 1}],
)  # fmt: skip
def test_an_edit_that_makes_no_sense_is_refused(nonsense):
    with pytest.raises(BadValue):
        read_edit(nonsense)


def test_round_ends_follow_the_height_and_large_radii_are_reduced_together():
    assert Box(width=60, height=20, corners="round").radii() == (10, 10, 10, 10)
    assert Box(width=20, height=20, radius=400).radii() == (10, 10, 10, 10)
    four = Box(width=20, height=40, corners="four", top_left=30, top_right=10).radii()
    assert four == (15, 5, 0, 0)
    assert Round(width=10, height=10).resized(4, 6).height == 6
