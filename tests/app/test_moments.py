"""Moments of a transition: the stage, the strip and the core show the same."""

import io

import numpy as np
import pytest
from PIL import Image

from obrell.app import editing
from obrell.app.pictures import Wanted, png_of
from obrell.app.previewing import FrameRequest, LastFrame, preview
from obrell.core.document.transitions import moment
from obrell.core.edit import read_edit
from obrell.core.errors import NoSuchThing
from obrell.core.render.between import draw_between
from obrell.core.render.cache import PixelCache
from obrell.core.render.compose import Frame, canvas_box

LOCK = "wendmere-lock"
TIMES = (0.0, 40.0, 130.0, 260.0, 900.0)


def frame(kits, last=None, **more):
    wanted = {"seq": 1, "density": 1, "exact": True, "left": 0, "top": 0, "width": 640, "height": 400, "state": "on"}
    return preview(kits, LOCK, "c2", FrameRequest.model_validate(wanted | more), last or LastFrame())


@pytest.mark.parametrize("time", TIMES)
def test_stage_and_strip_show_the_moment_that_the_core_draws(kits, time):
    index, lamp = kits.index(LOCK), kits.control(LOCK, "c2").control
    there = moment(index, lamp, "rest", "on", time)
    wanted = draw_between(there, Frame(1.0, canvas_box(there.first, 1.0)))
    strip = png_of(index, lamp, 1.0, Wanted(state="on", came="rest", time=time), PixelCache())
    assert np.array_equal(np.array(Image.open(io.BytesIO(strip))), wanted)
    seen = frame(kits, came="rest", time=time)
    assert np.array_equal(np.frombuffer(seen.pixels, np.uint8).reshape(wanted.shape), wanted)


def test_after_a_moment_the_state_itself_is_drawn_whole(kits):
    last = LastFrame()
    frame(kits, last, came="rest", time=60)
    after, fresh = frame(kits, last), frame(kits)
    assert after.pixels == fresh.pixels
    assert after.box == fresh.box


def test_an_edit_of_the_timing_is_seen_before_it_is_kept(kits):
    edit = {
        "kind": "set",
        "changes": [{"path": "transitions/rest-to-on/easing", "value": {"kind": "steps", "count": 1}}],
    }
    before = kits.control(LOCK, "c2")
    tried, as_rest = frame(kits, came="rest", time=130, edit=edit), frame(kits, state="rest")
    assert tried.pixels == as_rest.pixels
    assert kits.control(LOCK, "c2") == before
    editing.edit(kits, LOCK, "c2", read_edit(edit))
    assert frame(kits, came="rest", time=130).pixels == as_rest.pixels


def test_what_came_from_a_state_that_is_gone_is_what_it_is(kits):
    assert frame(kits, came="lit", time=60).pixels == frame(kits).pixels
    with pytest.raises(NoSuchThing, match="no state"):
        png_of(kits.index(LOCK), kits.control(LOCK, "c2").control, 1.0, Wanted(state="on", came="lit"), PixelCache())
