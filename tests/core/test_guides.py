"""Guides: where they come to lie, what moves and removes them, and what each step is called."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.document.guides import guide_places
from obrell.core.document.model import MAX_GUIDES
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.errors import NoSuchThing, Refused
from obrell.core.shapes import Box
from tests.making import control, part, solid

BOX = part(Box(width=20, height=10), solid("#204060"), x=40, y=35)
START = control(BOX, width=120, height=90)


def done(start, *edits):
    for edit in edits:
        start = applied(read_edit(edit), start, Surroundings())
    return start


def places(shown, axis):
    found = guide_places(shown)
    return sorted(found[one.id] for one in shown.guides if one.axis == axis)


def guide(at, axis="across", **values):
    return {"kind": "add-guide", "axis": axis, "at": at, **values}


@given(st.integers(40, 300), st.integers(40, 300), st.integers(0, 15))
def test_guides_along_the_canvas_lie_on_its_edges_middles_and_margins(width, height, margin):
    start = control(width=width, height=height)
    start = start.evolve(canvas=start.canvas.evolve(margin=margin))
    shown = done(start, {"kind": "common-guides"})
    for axis, length in (("across", width), ("down", height)):
        assert places(shown, axis) == sorted({0, margin, length / 2, length - margin, length})
    assert done(shown, {"kind": "common-guides"}).guides == shown.guides
    assert len({one.id for one in shown.guides}) == len(shown.guides)


def test_guides_along_parts_lie_on_their_edges_and_middles():
    shown = done(START, {"kind": "common-guides", "parts": ["p1"]})
    assert places(shown, "across") == [30, 40, 50]
    assert places(shown, "down") == [30, 35, 40]


@given(st.floats(-100, 100), st.floats(-50, 50), st.sampled_from(["across", "down"]))
def test_a_guide_goes_as_far_as_it_is_moved_or_to_whole_tens(at, by, axis):
    shown = done(START, guide(at, axis), guide(at + 7, axis))
    moved = done(shown, {"kind": "move-guide", "guide": shown.guides[0].id, "by": by})
    assert places(moved, axis) == pytest.approx(sorted([at + by, at + 7]))
    tens = done(shown, {"kind": "move-guide", "guide": shown.guides[0].id, "by": by, "constrained": True})
    assert places(tens, axis) == pytest.approx(sorted([round((at + by) / 10) * 10, at + 7]))


@pytest.mark.parametrize(("axis", "other"), [("across", 120 - 13), ("down", 90 - 13)])
def test_a_guide_has_its_mirror_image_when_asked(axis, other):
    assert places(done(START, guide(13, axis, centred=True)), axis) == [13, other]
    assert places(done(START, guide(13, axis, since="end", centred=True)), axis) == [-13, other + 26]


def test_what_is_locked_stays_and_what_is_gone_is_said():
    shown = done(START, guide(10), guide(20), {"kind": "show-guides", "locked": True}, guide(30))
    with pytest.raises(Refused, match="This guide is locked"):
        done(shown, {"kind": "move-guide", "guide": shown.guides[0].id, "by": 1})
    assert places(done(shown, {"kind": "remove-guides"}), "across") == [10, 20]
    assert places(done(shown, {"kind": "remove-guides", "guide": shown.guides[0].id}), "across") == [20, 30]
    for edit in ({"kind": "remove-guides", "guide": "g77"}, {"kind": "move-guide", "guide": "g77", "by": 1}):
        with pytest.raises(NoSuchThing, match="That guide is no longer there"):
            done(shown, edit)


def test_no_more_guides_than_a_control_can_have():
    full = done(START, *(guide(at) for at in range(MAX_GUIDES)))
    assert len(full.guides) == MAX_GUIDES
    assert done(full, guide(3)) == full, "there is one already"
    with pytest.raises(Refused, match=f"at most {MAX_GUIDES} guides"):
        done(full, guide(0.5))


@pytest.mark.parametrize(("edit", "words"), [
    (guide(12.5, "down"), "Put a guide at 12.5 px down"),
    ({"kind": "common-guides"}, "Put guides along the canvas"),
    ({"kind": "common-guides", "parts": ["p1"]}, "Put guides along the selection"),
    ({"kind": "move-guide", "guide": "g1", "by": 1}, "Moved a guide"),
    ({"kind": "remove-guides"}, "Removed the guides"),
    ({"kind": "remove-guides", "guide": "g1"}, "Removed a guide"),
    ({"kind": "show-guides", "visible": True}, "Showed the guides"),
    ({"kind": "show-guides", "visible": False}, "Hid the guides"),
    ({"kind": "show-guides", "locked": True}, "Locked the guides"),
    ({"kind": "show-guides", "locked": False}, "Unlocked the guides"),
])  # fmt: skip
def test_each_step_is_called_what_it_does(edit, words):
    assert read_edit(edit).label(START) == words
