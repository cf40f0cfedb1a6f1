"""Pieces that move: in their room, in the colour of the kit, moved by a reading or lit in a state."""

from typing import get_args

import pytest
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.document.measures import bounds_of
from obrell.core.document.model import Canvas, Control
from obrell.core.document.readings import read
from obrell.core.document.resolve import resolve
from obrell.core.document.states import in_state
from obrell.core.document.swatch_uses import uses
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.edit.admission import check_drawable
from obrell.core.edit.pieces import PieceName
from obrell.core.errors import Refused
from obrell.core.render.picture import picture
from obrell.samples.wendmere_lock import wendmere_lock
from tests.making import KIT

PIECES = get_args(PieceName)
LOCK = wendmere_lock()


def begun(piece: str, width: float = 140, height: float = 100, kit=LOCK) -> Control:
    bare = Control(id="c1", name="C", canvas=Canvas(width=width, height=height, margin=12))
    return applied(read_edit({"kind": "begin-piece", "piece": piece}), bare, Surroundings.of(kit))


@given(st.sampled_from(PIECES), st.integers(40, 400), st.integers(40, 300), st.sampled_from([0.0, 50.0, 100.0]))
def test_a_piece_stays_in_its_room_wherever_it_moves(piece, width, height, value):
    made = begun(piece, width, height)
    on = [in_state(made, "on")] if "on" in made.state_ids else []
    looks = [read(made, {"value": value}, {})] if made.readings else [in_state(made, "rest"), *on]
    for look in looks:
        box = bounds_of(look, [part.id for part in look.parts])
        assert min(box.left, box.top) >= 12 - 0.01
        assert box.right <= width - 12 + 0.01
        assert box.bottom <= height - 12 + 0.01


@pytest.mark.parametrize("piece", PIECES)
def test_a_piece_can_be_drawn_follows_the_main_colour_and_changes(piece):
    made = begun(piece)
    check_drawable(LOCK, made)
    assert "tarn" in uses(made)
    assert not uses(begun(piece, kit=KIT))
    other = {"readings": (("value", 90.0),)} if made.readings else {"state": made.states[-1].id}
    assert (picture(resolve(LOCK, made), 1.0) != picture(resolve(LOCK, made, **other), 1.0)).any()


def test_a_meter_says_its_number_and_a_knob_turns_as_far_to_both_sides():
    meter, knob = begun("meter"), begun("knob")
    assert read(meter, {"value": 62}, {}).parts[2].shape.words == "62 %"
    assert [read(knob, {"value": value}, {}).parts[3].rotation for value in (0, 50, 100)] == [-135, 0, 135]


def test_where_there_is_no_room_or_one_of_the_name_nothing_is_begun():
    with pytest.raises(Refused, match="less room than 16 px"):
        begun("lamp", 36, 36)
    with pytest.raises(Refused, match="called “Value” already"):
        applied(read_edit({"kind": "begin-piece", "piece": "slider"}), begun("knob"), Surroundings.of(LOCK))
