"""What follows goes on following when a person sets it by hand, and a canvas that follows stays whole px."""

import math
from typing import get_args

import pytest
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.document.guides import guide_places
from obrell.core.document.measures import measured
from obrell.core.document.model import Measure, Reference
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.effects import Mask
from obrell.core.errors import Refused
from obrell.core.shapes import Box, Round, Text
from tests.making import SLOPE, control, part, solid

FIT = {"kind": "fit-around", "body": "p1", "inner": "p2", "canvas": True}


def done(shown, *edits):
    for edit in edits:
        shown = applied(read_edit(edit), shown, Surroundings())
    return shown


def button():
    body, label = part(Box(width=70, height=24), solid("#204060")), part(Text(words="Open"), solid("#ffffff"))
    return done(control(body, label), FIT)


def followed(shown, path):
    return next(follow for follow in shown.parts[0].follows if follow.path == path)


LONGER = {"kind": "set", "changes": [{"path": "parts/p2/shape/words", "value": "Open the upper gate now"}]}


@pytest.mark.parametrize(
    "edit",
    [
        {"kind": "resize", "part": "p1", "handle": "e", "dx": 9, "dy": 0},
        {"kind": "grow", "parts": ["p1"], "by": 4},
        {"kind": "type", "path": "parts/p1/shape/width", "text": "+12", "parts": ["p1"]},
        {"kind": "set", "changes": [{"path": "parts/p1/shape/width", "value": 81.5}]},
        {"kind": "scale", "parts": ["p1"], "percent": 120},
    ],
)
def test_a_size_that_follows_can_be_set_by_hand_and_follows_on_from_there(edit):
    start = button()
    by_hand = done(start, edit if edit["kind"] != "type" else edit | {"path": "parts/*/shape/width", "text": "*1.2"})
    wide = by_hand.parts[0].shape.width
    assert wide > start.parts[0].shape.width
    longer = done(by_hand, LONGER)
    more = longer.parts[0].shape.width - done(start, LONGER).parts[0].shape.width
    assert more == pytest.approx(wide - start.parts[0].shape.width)


def test_a_place_that_follows_is_nudged():
    nudged = done(button(), {"kind": "move", "parts": ["p1"], "dx": 3, "dy": 0})
    assert nudged.parts[0].x == button().parts[0].x + 3
    assert followed(nudged, "x").offset == followed(button(), "x").offset + 3
    both = done(button(), {"kind": "move", "parts": ["p1", "p2"], "dx": 3, "dy": 0})
    assert followed(both, "x").offset == followed(button(), "x").offset


def test_less_than_the_least_is_refused_and_says_why():
    start = done(button(), {"kind": "set", "changes": [{"path": "parts/p1/follows/0/least", "value": 60}]})
    with pytest.raises(Refused, match="follows “Part” and is at least 60 px"):
        done(start, {"kind": "set", "changes": [{"path": "parts/p1/shape/width", "value": 40}]})


def test_a_canvas_that_follows_grows_by_whole_px_on_both_sides():
    longer = done(button(), LONGER)
    body, canvas = longer.parts[0], longer.canvas
    assert canvas.width == int(canvas.width) > 80
    left, right = body.x - body.shape.width / 2, canvas.width - body.x - body.shape.width / 2
    assert left == pytest.approx(right, abs=1)
    assert left == pytest.approx(5, abs=2)
    back = done(longer, {"kind": "set", "changes": [{"path": "parts/p2/shape/words", "value": "Open"}]})
    assert back.canvas.width == pytest.approx(80, abs=2)
    wider = done(button(), {"kind": "canvas-edges", "left": 4, "right": 4})
    assert done(wider, LONGER).canvas.width == pytest.approx(longer.canvas.width + 8, abs=2)
    ended = done(button(), {"kind": "remove-follow", "part": "canvas", "path": "canvas/width"})
    assert done(ended, LONGER).canvas.width == 80


def test_the_left_and_top_edge_carry_guides_the_reference_and_masks_along():
    masked = part(Box(), solid("#204060"), Mask(id="e2", fitted_x=40, fitted_y=30, moves=False))
    shown = control(masked).evolve(reference=Reference(file=SLOPE, x=4, y=5))
    for since in ("start", "middle", "end"):
        shown = done(shown, {"kind": "add-guide", "axis": "across", "at": 7, "since": since})

    before = guide_places(shown)
    wider = done(shown, {"kind": "canvas-edges", "left": 10, "top": 6, "right": 3})
    assert {name: at + 10 for name, at in before.items()} == pytest.approx(guide_places(wider))
    assert (wider.reference.x, wider.reference.y) == (14, 11)
    assert wider.parts[0].effects[1].shift(wider.parts[0].x, wider.parts[0].y) == (0, 0)


@given(st.floats(2, 60), st.floats(2, 60), st.floats(-50, 50), st.floats(-50, 50), st.integers(0, 359))
def test_every_measure_is_that_of_the_frame_or_of_the_box_around_it(width, height, x, y, turn):
    one = part(Box(width=width, height=height, radius=1.5), x=x, y=y, rotation=turn)
    angle = math.radians(turn)
    across = (abs(width * math.cos(angle)) + abs(height * math.sin(angle))) / 2
    down = (abs(width * math.sin(angle)) + abs(height * math.cos(angle))) / 2
    wanted = {
        "width": width, "height": height, "middle across": x, "middle down": y, "radius": 1.5,
        "left": x - across, "right": x + across, "top": y - down, "bottom": y + down,
    }  # fmt: skip
    assert set(wanted) == set(get_args(Measure))
    for measure, value in wanted.items():
        assert measured(one, measure) == pytest.approx(value, abs=1e-6), measure
    assert measured(part(Round(width=width, height=height), x=x, y=y), "radius") == 0
