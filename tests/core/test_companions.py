"""Linked copies, rims, what stays inside, bodies fitted with room: they keep to another part as it changes."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.document.measures import frame_on_canvas
from obrell.core.document.tree import arranged
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.effects import Paint
from obrell.core.errors import BadValue, ObrellError, Refused
from obrell.core.shapes import SHAPES, Box, Round, Text
from obrell.core.values.colours import SwatchLink
from obrell.core.values.paints import Solid
from tests.making import control, part, solid, with_inner

AROUND = Surroundings()
PAINT = solid("#1f8a92")
LENGTHS = st.floats(0.5, 30).map(lambda value: round(value, 2))


def done(document, **edit):
    return applied(read_edit(edit), document, AROUND)


def moved(document, **values):
    changes = [{"path": f"parts/p1/{path.replace('__', '/')}", "value": value} for path, value in values.items()]
    return done(document, kind="set", changes=changes)


def by_name(document, name):
    return next(one for one in document.parts if one.name == name)


@given(by=st.floats(-4, 12).map(lambda value: round(value, 2)), width=LENGTHS.map(lambda value: value + 12))
def test_a_linked_copy_keeps_its_distance_on_every_side(by, width):
    start = control(part(Box(width=30, height=20, radius=5), PAINT))
    copy = done(start, kind="linked-copy", parts=["p1"], by=by)
    later = moved(copy, x=11.0, y=-3.0, shape__width=width, shape__radius=2.0)
    twin = by_name(later, "Part 2")
    assert (twin.x, twin.y) == (11.0, -3.0)
    assert twin.shape.width == pytest.approx(max(0.5, width + 2 * by), abs=1e-6)
    assert twin.shape.height == pytest.approx(20 + 2 * by, abs=1e-6)
    assert twin.shape.radius == pytest.approx(max(0.0, 2 + by), abs=1e-6)


def test_later_linked_copies_lie_in_front_of_earlier_ones():
    start = control(part(Round(width=30, height=30), PAINT), part(Box(width=5, height=5), PAINT))
    first = done(start, kind="linked-copy", parts=["p1"], by=-4)
    second = done(first, kind="linked-copy", parts=["p1"], by=-8)
    assert [one.name for one in second.parts] == ["Part", "Part 2", "Part 3", "Part"]
    assert [getattr(one.shape, "width", 0) for one in second.parts] == [30, 22, 14, 5]


def drawn_box(document, name):
    return frame_on_canvas(arranged(document).all[name].part)


@pytest.mark.parametrize("turn", [0, 20])
@pytest.mark.parametrize("kind", SHAPES)
def test_a_linked_copy_of_any_kind_lies_on_its_original_and_goes_where_that_goes(kind, turn):
    start = control(*with_inner(kind, PAINT, rotation=turn))
    source, there = start.parts[-1].id, {one.id for one in start.parts}
    made = done(start, kind="linked-copy", parts=[source])
    (copy,) = (one.id for one in made.parts if one.id not in there and one.within is None)
    assert len(made.parts) == 2 * len(start.parts)
    assert drawn_box(made, source) == drawn_box(start, source)
    for document in (made, done(made, kind="move", parts=[source], dx=7, dy=-3)):
        one, other = drawn_box(document, source), drawn_box(document, copy)
        assert (other.left, other.top) == pytest.approx((one.left, one.top), abs=1e-5)
        assert (other.right, other.bottom) == pytest.approx((one.right, one.bottom), abs=1e-5)


@pytest.mark.parametrize("kind", SHAPES)
def test_what_stays_inside_any_kind_keeps_the_margins_it_has(kind):
    start = control(*with_inner(kind, PAINT), part(Box(width=10, height=8), x=33, y=31))
    source, inner = start.parts[-2].id, start.parts[-1]
    made = done(start, kind="stay-inside", part=inner.id, source=source)
    assert drawn_box(made, inner.id) == drawn_box(start, inner.id)
    fitted = done(start, kind="stay-inside", part=inner.id, source=source, left=2, top=1, right=3, bottom=2)
    outer, box = drawn_box(fitted, source), drawn_box(fitted, inner.id)
    assert (box.left - outer.left, box.top - outer.top) == pytest.approx((2, 1), abs=1e-5)
    assert (outer.right - box.right, outer.bottom - box.bottom) == pytest.approx((3, 2), abs=1e-5)


def test_a_rim_around_a_colour_that_follows_a_swatch_follows_it_too():
    follows = Paint(id="e1", fill=Solid(colour=SwatchLink(swatch="tarn")))
    made = done(control(part(Box(width=30, height=20), follows)), kind="add-rim", part="p1")
    assert made.parts[0].effects[0].fill.colour.swatch == "tarn"


def test_copies_of_several_parts_each_follow_their_own():
    start = control(part(Round(width=20, height=20), x=10), part(Round(width=8, height=8), x=60, name="Dot"))
    made = done(start, kind="linked-copy", parts=["p1", "p2"])
    assert [one.name for one in made.parts] == ["Part", "Part 2", "Dot", "Dot 2"]
    later = moved(made, x=20.0)
    assert [one.x for one in later.parts] == [20, 20, 60, 60]


def test_a_linked_copy_of_a_text_follows_its_place_alone():
    made = done(control(part(Text(words="Lock"))), kind="linked-copy", parts=["p1"])
    assert {follow.path for follow in made.parts[1].follows} == {"x", "y"}
    with pytest.raises(Refused, match="no width and height"):
        done(control(part(Text(words="Lock"))), kind="linked-copy", parts=["p1"], by=2)


@pytest.mark.parametrize(
    ("place", "order", "sides"), [("around", ["Key rim", "Key"], 34), ("inside", ["Key", "Key rim"], 26)]
)
def test_a_rim_is_as_wide_on_every_side_and_lies_where_it_shows(place, order, sides):
    start = control(part(Box(width=30, height=20, radius=5), PAINT, name="Key", opacity=0.4, blend="multiply"))
    made = done(start, kind="add-rim", part="p1", width=2, place=place)
    assert [one.name for one in made.parts] == order
    rim = by_name(made, "Key rim")
    assert (rim.shape.width, rim.shape.radius) == (sides, 5 + (sides - 30) / 2)
    assert (rim.opacity, rim.blend, rim.material) == (1.0, "normal", None)
    assert rim.effects[0].fill.colour not in ("#1f8a92", "#6b6f70")
    grown = moved(made, shape__height=40.0)
    assert by_name(grown, "Key rim").shape.height == 40 + sides - 30


def test_a_rim_around_a_gradient_takes_a_shade_of_it():
    start = done(control(part(Box(width=30, height=20), PAINT)), kind="add-rim", part="p1")
    ramp = {"path": "parts/p1/effects/e1/fill/kind", "value": "linear"}
    graded = done(control(part(Box(width=30, height=20), PAINT)), kind="set", changes=[ramp])
    made = done(graded, kind="add-rim", part="p1")
    assert made.parts[0].effects == start.parts[0].effects


@given(left=LENGTHS, top=LENGTHS, right=LENGTHS, bottom=LENGTHS)
def test_what_stays_inside_keeps_its_margins(left, top, right, bottom):
    start = control(part(Box(width=200, height=100), x=100, y=50), part(Box(width=9, height=9)))
    margins = {"left": left, "top": top, "right": right, "bottom": bottom}
    made = done(start, kind="stay-inside", part="p2", source="p1", **margins)
    later = moved(made, shape__width=160.0, x=90.0)
    inner = later.parts[1]
    assert inner.x - inner.shape.width / 2 == pytest.approx(10 + left, abs=1e-6)
    assert inner.x + inner.shape.width / 2 == pytest.approx(170 - right, abs=1e-6)
    assert inner.y - inner.shape.height / 2 == pytest.approx(top, abs=1e-6)
    assert inner.y + inner.shape.height / 2 == pytest.approx(100 - bottom, abs=1e-6)


def test_margins_wider_than_the_part_leave_the_least_there_can_be():
    start = control(part(Box(width=20, height=20)), part(Box(width=9, height=9)))
    made = done(start, kind="stay-inside", part="p2", source="p1", left=4, right=4, top=4, bottom=4)
    assert moved(made, shape__width=6.0).parts[1].shape.width == 0.5


def test_margins_that_are_not_given_are_those_it_has():
    start = control(part(Box(width=60, height=40), x=40, y=30), part(Box(width=20, height=10), x=35, y=30))
    made = done(start, kind="stay-inside", part="p2", source="p1", top=2)
    assert made.parts[1].x == 35
    assert made.parts[1].shape.width == 20
    assert made.parts[1].shape.height == 40 - 2 - 15


def test_a_body_is_fitted_with_room_and_put_behind_its_label():
    label = part(Text(words="Lock", size=20), x=40, y=36)
    body = part(Box(width=5, height=5, radius=3), PAINT, x=4, y=4, name="Body")
    made = done(control(label, body), kind="fit-around", body="p2", inner="p1", left=10, right=10, top=6, bottom=6)
    assert [one.id for one in made.parts] == ["p2", "p1"]
    short = made.parts[0].shape.width
    longer = moved(made, shape__words="Lock the gate")
    assert longer.parts[0].shape.width > short + 20
    assert longer.parts[0].shape.height == pytest.approx(made.parts[0].shape.height)


def test_what_is_refused_says_which_number_it_is_about():
    with pytest.raises(BadValue, match="Width: must be more than 0"):
        read_edit({"kind": "add-rim", "part": "p1", "width": 0})


@pytest.mark.parametrize("edit", [
    {"kind": "stay-inside", "part": "p1", "source": "p1"}, {"kind": "add-rim", "part": "p1", "width": 0},
    {"kind": "add-rim", "part": "gone"}, {"kind": "linked-copy", "parts": []},
    {"kind": "fit-around", "body": "p1", "inner": "p2", "left": -4000, "right": -4000},
    {"kind": "stay-inside", "part": "p2", "source": "p1", "left": "wide"},
])  # fmt: skip
def test_what_makes_no_sense_is_refused_and_nothing_changes(edit):
    start = control(part(Box(width=30, height=20)), part(Box(width=9, height=9)))
    before = start.model_dump_json()
    with pytest.raises(ObrellError):
        done(start, **edit)
    assert start.model_dump_json() == before
