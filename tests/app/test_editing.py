"""Use cases without a server: edits based on versions, what they add, orders, checks, what is brought in."""

import pytest

from obrell.app import editing, imports
from obrell.app.checking import check_one
from obrell.app.delivering import ordered
from obrell.app.pictures import Wanted, png_of
from obrell.app.previewing import FrameRequest, LastFrame, preview
from obrell.core.edit import read_edit
from obrell.core.errors import ObrellError
from obrell.core.render.cache import PixelCache
from obrell.samples.wendmere_lock import wendmere_lock
from obrell.store.kits import Sender

LOCK = "wendmere-lock"


def move(dx, part="p1"):
    return read_edit({"kind": "move", "parts": [part], "dx": dx, "dy": 0})


def version(kits):
    return kits.control(LOCK, "c1").version


def test_an_edit_says_what_other_windows_did_since_the_version_it_was_based_on(kits):
    based = version(kits)
    editing.edit(kits, LOCK, "c1", move(1), Sender("here", "a", based))
    theirs = editing.edit(kits, LOCK, "c1", move(2, "p2"), Sender("there", "b", based))
    assert [step.window for step in theirs.meanwhile] == ["here"]
    mine = editing.edit(kits, LOCK, "c1", move(1), Sender("here", "c", based + 1))
    assert [step.label for step in mine.meanwhile] == [theirs.label]
    assert not editing.edit(kits, LOCK, "c1", move(1), Sender("here", "d", version(kits))).meanwhile
    assert not editing.edit(kits, LOCK, "c1", move(1), Sender("here", "e")).meanwhile


def test_a_step_that_was_taken_back_is_not_among_them(kits):
    based = version(kits)
    editing.edit(kits, LOCK, "c1", move(1), Sender("there", "a", based))
    kits.undo(LOCK, "c1")
    assert not editing.edit(kits, LOCK, "c1", move(2), Sender("here", "b", based)).meanwhile


def test_what_an_edit_added_is_named(kits):
    drawn = {"kind": "draw", "shape": "round", "x0": 1, "y0": 1, "x1": 30, "y1": 20}
    parts, effect = editing.added(editing.edit(kits, LOCK, "c1", read_edit(drawn)))
    assert parts == (kits.control(LOCK, "c1").control.parts[-1].id,)
    assert effect == ""
    glow = {"kind": "add-effect", "part": "p1", "effect": "outer-glow"}
    parts, effect = editing.added(editing.edit(kits, LOCK, "c1", read_edit(glow)))
    found = next(one for one in kits.control(LOCK, "c1").control.parts if one.id == "p1")
    assert (parts, effect) == ((), next(e.id for e in found.effects if e.kind == "outer-glow"))


def test_a_preview_stores_nothing_and_draws_only_what_differs(kits):
    before = kits.control(LOCK, "c1")
    wish = {"seq": 1, "density": 1, "left": 0, "top": 0, "width": 200, "height": 80}
    last = LastFrame()
    whole = preview(kits, LOCK, "c1", FrameRequest(**wish), last)
    edit = {"kind": "set", "changes": [{"path": "parts/p5/text", "value": "x"}]}
    with pytest.raises(ObrellError):
        preview(kits, LOCK, "c1", FrameRequest(**wish, edit=edit), last)
    nudge = {"kind": "move", "parts": ["p5"], "dx": 1, "dy": 0}
    moved = preview(kits, LOCK, "c1", FrameRequest(**wish, edit=nudge), last)
    assert 0 < moved.box.area < whole.box.area
    assert len(moved.pixels) == 4 * moved.box.area
    assert preview(kits, LOCK, "c1", FrameRequest(**wish, edit=nudge), last).box.empty
    assert kits.control(LOCK, "c1") == before


def test_an_order_holds_its_controls_in_the_kit_s_order(kits):
    assert [one.control.id for one in ordered(kits, LOCK, ["c3", "c1"]).controls] == ["c1", "c3"]
    assert len(ordered(kits, LOCK).controls) == len(wendmere_lock().controls)


def test_a_check_finds_what_was_moved_off_the_canvas(kits):
    assert not [one for one in check_one(kits, LOCK, "c1") if one.kind == "off-canvas"]
    editing.edit(kits, LOCK, "c1", move(900))
    assert [one for one in check_one(kits, LOCK, "c1") if one.kind == "off-canvas"]


def test_a_drawing_is_brought_in_and_what_is_left_out_is_said(kits):
    svg = '<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><rect width="4" height="4"/><video/></svg>'
    brought = imports.drawing(kits, LOCK, svg, "a\nname\x07")
    assert "video" in brought.left_out
    made = editing.edit(kits, LOCK, "c1", brought.edit)
    assert editing.added(made)[0]


def test_pictures_are_the_same_bytes_whatever_is_kept(kits):
    index, control = kits.index(LOCK), kits.control(LOCK, "c1").control
    wanted = Wanted(part="p1", count=2, left=0, top=0, width=60, height=40)
    cache = PixelCache()
    assert png_of(index, control, 1.5, wanted, cache) == png_of(index, control, 1.5, wanted, cache)
    assert png_of(index, control, 1.5, wanted, cache) == png_of(index, control, 1.5, wanted, PixelCache(0))
