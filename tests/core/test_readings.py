"""Readings: numbers that drive values, by hand at two places and by what is typed."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.colour.spaces import from_hex, to_oklab
from obrell.core.document.fitting import lost_words
from obrell.core.document.mixing import mixed, mixed_colours
from obrell.core.document.model import Control
from obrell.core.document.readings import course_of, read
from obrell.core.document.resolve import resolve
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.errors import BadValue, NoSuchThing, ObrellError, Refused
from obrell.core.shapes import Box, Group, Line, Repeat, Round, Text
from obrell.core.values.base import canonical_json
from obrell.core.values.curves import curve
from obrell.core.values.readings import Drive, Reading
from tests.making import KIT, control, part, solid

INK = solid("#204060")


def done(where: Control, **edit) -> Control:
    return applied(read_edit(edit), where, Surroundings())


def knob() -> Control:
    """A pointer in a group that turns about the middle, a label beside it."""
    made = control(
        part(Group(), x=40, y=30), part(Box(width=4, height=10), INK, x=40, y=15, within="p1"),
        part(Text(words="0"), INK, x=70, y=30),
    )  # fmt: skip
    return done(made, kind="add-reading", name="Level", unit="%")


def driven(*paths: str) -> Control:
    made = knob()
    for path in paths:
        made = done(made, kind="drive", reading="level", path=path)
    return made


def at(where: Control, value: float, **edit) -> Control:
    return done(where, kind="at-readings", values={"level": value}, edit=edit)


def put(where: Control, value: float, path: str, wanted: object) -> Control:
    return at(where, value, kind="set", changes=[{"path": path, "value": wanted}])


def look(where: Control, value: float | None = None) -> Control:
    return read(where, {} if value is None else {"level": value}, {})


TURN = "parts/p1/rotation"


def test_a_pointer_is_driven_by_hand_at_two_places():
    by_hand = put(put(driven(TURN), 0, TURN, -135), 100, TURN, 135)
    assert [look(by_hand, value).parts[0].rotation for value in (0, 50, 75, 100)] == [-135, 0, 67.5, 135]
    pointer = look(by_hand, 100).parts[1]
    assert (round(pointer.x, 3), round(pointer.y, 3)) == (round(40 + 15 * 2**-0.5, 3), round(30 + 15 * 2**-0.5, 3))
    assert by_hand.parts == driven(TURN).parts
    assert look(by_hand).parts[0].rotation == -135


@given(st.floats(1, 99), st.floats(-300, 300))
def test_what_is_set_between_the_ends_is_what_is_seen_there(value, wanted):
    by_hand = put(put(driven(TURN), 0, TURN, -100), 100, TURN, 100)
    there = put(by_hand, value, TURN, wanted)
    assert look(there, value).parts[0].rotation == pytest.approx(wanted, abs=1e-3)
    other = (0, 100)[value < 50]
    assert look(there, other).parts[0].rotation == (100 if other else -100)


def test_an_edit_of_something_else_changes_no_drive():
    by_hand = put(put(driven(TURN), 0, TURN, -135), 100, TURN, 135)
    moved = at(by_hand, 40, kind="set", changes=[{"path": "parts/p3/x", "value": 75}])
    assert moved.readings == by_hand.readings
    assert moved.parts[0] == by_hand.parts[0]
    assert moved.parts[2].x == 75


def test_words_are_the_number_as_the_format_has_it():
    said = done(driven("parts/p3/shape/words"), kind="set-drive", reading="level", path="parts/p3/shape/words",
                format="{} %")  # fmt: skip
    assert look(said, 62.4).parts[2].shape.words == "62 %"
    assert resolve(KIT, said, readings=(("level", 7.0),)).control.parts[2].shape.words == "7 %"


def test_part_of_a_reading_drives_along_a_curve_clamped_or_wrapping():
    reading = Reading(id="level", name="Level", end=10, drives=(
        Drive(path="parts/p1/opacity", start=0, end=1, low=0.2, high=0.6, curve=curve((0, 0), (0.5, 0.8), (1, 1))),
        Drive(path=TURN, start=0, end=360, high=0.5, beyond="wrapping"),
    ))  # fmt: skip
    where = knob().evolve(readings=(reading,))
    assert [round(look(where, value).parts[0].opacity, 2) for value in (0, 2, 4, 6, 10)] == [0, 0, 0.8, 1, 1]
    assert [look(where, value).parts[0].rotation for value in (2.5, 7.5)] == [180, 180]


def test_colours_go_through_oklab_and_links_as_they_look():
    half = to_oklab(from_hex(mixed_colours("#ff0000", "#0000ff", 0.5)))
    ends = [to_oklab(from_hex(one)) for one in ("#ff0000", "#0000ff")]
    assert half == pytest.approx([(a + b) / 2 for a, b in zip(*ends, strict=True)], abs=0.004)
    assert mixed({"swatch": "tarn"}, "#000000", 0.0001, {"tarn": "#1f8a92"}) == "#1f8a92"
    assert mixed("normal", "screen", 0.49, {}) == "normal"
    assert mixed("normal", "screen", 0.5, {}) == "screen"
    assert mixed([0, 10], [10, 20], 0.5, {}) == [5, 15]
    assert mixed(True, False, 0.2, {}) is True


def test_a_state_and_a_reading_go_together():
    by_hand = put(put(driven(TURN), 0, TURN, -135), 100, TURN, 135)
    stated = done(by_hand, kind="add-state", name="Pressed")
    edit = {"kind": "at-readings", "values": {"level": 100}, "edit": {
        "kind": "set", "changes": [{"path": "parts/p3/opacity", "value": 0.5}]}}  # fmt: skip
    pressed = done(stated, kind="in-states", states=["pressed"], edit=edit)
    shown = resolve(KIT, pressed, "pressed", readings=(("level", 100.0),)).control
    assert (shown.parts[0].rotation, shown.parts[2].opacity) == (135, 0.5)
    assert [one.path for one in pressed.states[0].differences] == ["parts/p3/opacity"]
    assert pressed.readings == by_hand.readings


def test_what_is_removed_is_not_driven_any_more_and_what_it_drove_stays():
    start = driven(TURN)
    less = done(start, kind="remove", parts=["p1"])
    assert less.readings[0].drives == ()
    assert lost_words(start, less) == "What differed of it went with it: 1 in Level."
    assert done(start, kind="stop-driving", reading="level", path=TURN).readings[0].drives == ()
    assert done(start, kind="remove-reading", reading="level").readings == ()


@pytest.mark.parametrize(
    ("edit", "words"),
    [
        ({"kind": "add-reading", "name": "level"}, "called “level” already"),
        ({"kind": "add-reading", "name": "Flat", "start": 5, "end": 5}, "two ends that differ"),
        ({"kind": "set", "changes": [{"path": "readings/level/end", "value": 0}]}, "two ends that differ"),
        ({"kind": "set", "changes": [{"path": "readings/level/value", "value": 101}]}, "between its ends, 0 and 100"),
        ({"kind": "drive", "reading": "level", "path": TURN}, "drives that already"),
        ({"kind": "drive", "reading": "level", "path": "parts/gone/x"}, "no longer there"),
        ({"kind": "drive", "reading": "level", "path": "parts/p1"}, "no value"),
        ({"kind": "drive", "reading": "gone", "path": "parts/p1/x"}, "no reading “gone”"),
        ({"kind": "set-drive", "reading": "level", "path": "parts/p1/opacity", "end": 3}, "cannot be driven there"),
        ({"kind": "set-drive", "reading": "level", "path": TURN, "low": 0.8, "high": 0.2}, "ends after it begins"),
        ({"kind": "stop-driving", "reading": "level", "path": "parts/p1/x"}, "does not drive that"),
    ],
)
def test_what_makes_no_sense_is_refused_in_words(edit, words):
    where = driven(TURN, "parts/p1/opacity")
    before = canonical_json(where)
    with pytest.raises(Refused, match=words):
        done(where, **edit)
    assert canonical_json(where) == before


def test_a_reading_out_of_its_range_is_refused():
    with pytest.raises(BadValue, match="goes from 0 to 100; 101 is outside"):
        resolve(KIT, driven(TURN), readings=(("level", 101.0),))
    with pytest.raises(NoSuchThing, match="no reading “depth”"):
        resolve(KIT, driven(TURN), readings=(("depth", 1.0),))


def test_how_a_value_is_driven_is_set_like_any_other():
    by_hand = put(put(driven(TURN), 0, TURN, 0), 100, TURN, 80)

    def with_way(**ways: object) -> Control:
        changes = [
            {"path": f"readings/level/drives/parts-p1-rotation/{name}", "value": way} for name, way in ways.items()
        ]
        return done(by_hand, kind="set", changes=changes)

    def turn(where: Control, value: float) -> float:
        return look(where, value).parts[0].rotation

    late = with_way(low=0.5, high=0.75)
    assert [turn(late, value) for value in (25, 50, 62.5, 75, 100)] == [0, 0, 40, 80, 80]
    assert turn(with_way(high=0.25, beyond="wrapping"), 30) == pytest.approx(16)
    bent = with_way(curve=curve((0, 0), (0.5, 0.25), (1, 1)).model_dump(mode="json"))
    assert turn(bent, 50) == pytest.approx(20, abs=0.1)
    assert canonical_json(
        done(bent, kind="set", changes=[{"path": "readings/level/drives/parts-p1-rotation/curve", "value": None}])
    ) == (canonical_json(by_hand))
    for wrong in ({"low": 0.8, "high": 0.2}, {"path": "parts/p9/x"}, {"beyond": "sideways"}):
        with pytest.raises(BadValue):
            with_way(**wrong)


def test_copies_are_driven_by_whole_numbers():
    row = control(part(Repeat(count=1)), part(Box(width=2), INK, within="p1"))
    row = done(done(row, kind="add-reading", name="Level"), kind="drive", reading="level", path="parts/p1/shape/count")
    row = done(row, kind="set-drive", reading="level", path="parts/p1/shape/count", start=1, end=10)
    assert [look(row, value).parts[0].shape.count for value in (0, 50, 70, 100)] == [1, 6, 7, 10]


def slider(*way: object) -> Control:
    """A thumb beside a way, and a reading that takes it along."""
    made = control(*way, part(Round(width=6, height=6), INK, x=12, y=35), width=120, height=80)
    made = done(made, kind="add-reading", name="Level", unit="%")
    return done(made, kind="drive", reading="level", path="parts/p2/x", along="p1")


def thumb(where: Control, value: float) -> tuple[float, float]:
    found = look(where, value).parts[1]
    return found.x, found.y


LINE = part(Line(across=80, down=30), INK, x=10, y=30)
CIRCLE = part(Round(width=40, height=40), INK, x=60, y=40)


def test_a_place_goes_along_a_line_from_where_it_is_set_by_hand():
    start = slider(LINE)
    assert thumb(start, 0) == thumb(start, 100)
    low = at(start, 0, kind="move", parts=["p2"], dx=-30, dy=-20)
    high = at(low, 100, kind="move", parts=["p2"], dx=200, dy=9)
    assert thumb(high, 0) == pytest.approx((10, 30))
    assert thumb(high, 50) == pytest.approx((50, 45))
    assert thumb(high, 100) == pytest.approx((90, 60))
    assert (high.parts[1].x, high.parts[1].y) == (12, 35)
    later = done(high, kind="set", changes=[{"path": "parts/p1/shape/across", "value": 40}])
    assert thumb(later, 100) == pytest.approx((50, 60))


def test_a_place_goes_round_a_circle_and_half_of_it_is_half_of_its_length():
    start = done(slider(CIRCLE), kind="set-drive", reading="level", path="parts/p2/x", start="0 %", end="100")
    places = [thumb(start, value) for value in (0, 25, 50, 75, 100)]
    assert [math.dist(one, (60, 40)) for one in places] == pytest.approx([20] * 5, abs=0.02)
    assert places[0] == pytest.approx(places[4], abs=1e-6)
    assert math.dist(places[0], places[2]) == pytest.approx(40, abs=0.02)
    more = done(start, kind="set-drive", reading="level", path="parts/p2/x", end="150")
    assert thumb(more, 100) == pytest.approx(places[2], abs=0.02)


@given(st.floats(0, 1), st.sampled_from((LINE, CIRCLE)))
def test_the_share_of_a_place_on_a_way_leads_back_to_it(share, way):
    course = course_of(slider(way), "p1")
    place = course.at(share)
    again = course.at(course.share_of(place.x, place.y))
    assert math.dist((place.x, place.y), (again.x, again.y)) < 1e-6


def test_what_leads_nowhere_or_is_no_place_goes_along_nothing():
    start = slider(LINE)
    for edit, words in (
        ({"path": "parts/p2/x", "along": "p1"}, "drives that already"),
        ({"path": "parts/p1/x", "along": "p1"}, "cannot go along itself"),
        ({"path": "parts/p1/opacity", "along": "p2"}, "only the place of a part"),
        ({"path": "parts/p1/x", "along": "p9"}, "no longer"),
    ):  # fmt: skip
        with pytest.raises(ObrellError, match=words):
            done(start, kind="drive", reading="level", **edit)
    gone = done(start, kind="remove", parts=["p1"])
    assert not gone.readings[0].drives
    assert lost_words(start, gone) == "What differed of it went with it: 1 in Level."
    stopped = done(start, kind="stop-driving", reading="level", path="parts/p2/x")
    assert (stopped.parts[1].x, stopped.parts[1].y) == pytest.approx(thumb(start, 0))
    assert Control.model_validate_json(canonical_json(start)) == start


def test_ends_are_typed_in_the_unit_they_are_shown_in():
    made = done(driven("parts/p2/opacity"), kind="set-drive", reading="level", path="parts/p2/opacity", end="40 %")
    assert look(made, 100).parts[1].opacity == 0.4
