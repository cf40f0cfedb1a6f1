"""A panel as one page, and under all conditions: what has to be in it, and that it is what the renderer makes."""

from __future__ import annotations

import io

import numpy as np
import pytest
from PIL import Image

from obrell.core.document.model import State
from obrell.core.document.resolve import resolve
from obrell.core.document.transitions import moments
from obrell.core.errors import TooLarge
from obrell.core.render.between import draw_between
from obrell.core.render.compose import Frame, canvas_box
from obrell.core.render.picture import picture
from obrell.core.shapes import Box, Text
from obrell.core.trial.composing import Seen, composed
from obrell.core.trial.conditions import Conditions, seen_under
from obrell.core.trial.contact import GAP_PX, NARROWEST_PX, combinations, contact_sheet
from obrell.core.trial.operating import Now, Piece, shown_as
from obrell.core.trial.playing import MAX_TALL_PX, check_frames, frame_count
from obrell.core.trial.sharing import pictured, reached, smallest
from obrell.core.values.differences import Other
from obrell.core.values.panels import Panel, Placement
from obrell.core.values.readings import Drive, Reading
from tests.making import KIT, control, part, solid

SUNK = State(id="pressed", name="Pressed", differences=(Other(path="parts/p1/y", value=32.0),))
COUNT = Reading(id="count", name="Count", end=4, drives=(Drive(path="parts/p2/shape/words", format="{}"),))
KEY = control(part(Box(width=40, height=24), solid("#204060")), part(Text(words="0"), solid("#ffffff"))).evolve(
    states=(SUNK, State(id="on", name="On")), readings=(COUNT,)
)
PLACED = Placement(id="i1", control="c1", acts="counter")


def pixels(content: bytes) -> np.ndarray:
    return np.array(Image.open(io.BytesIO(content)).convert("RGBA"))


def seen(picture: np.ndarray) -> np.ndarray:
    """What can be seen: what is fully clear has no colour."""
    return np.where(picture[..., 3:] > 0, picture, 0)


def test_the_smallest_form_keeps_every_pixel_that_can_be_seen():
    drawn = picture(resolve(KIT, KEY), 2)
    assert np.array_equal(seen(pixels(smallest(drawn))), seen(drawn))


def test_all_that_can_be_reached_is_pictured_and_nothing_else():
    made = pictured(KIT, KEY, PLACED, 1)
    assert set(made.looks) == {"rest", "pressed"}
    assert set(pictured(KIT, KEY, PLACED.evolve(acts="toggle"), 1).looks) == {"rest", "pressed", "on", "on+pressed"}
    assert set(pictured(KIT, KEY, PLACED.evolve(acts="lamp"), 1).looks) == {"rest"}
    assert set(pictured(KIT, KEY, PLACED.evolve(acts="lamp"), 1, switched=True).looks) == {"rest", "on"}
    assert set(pictured(KIT, KEY, PLACED.evolve(disabled=True), 1).looks) == {"rest"}


def test_a_number_in_its_place_over_a_look_is_that_look_at_that_number():
    made = pictured(KIT, KEY, PLACED, 2)
    assert made.numbers is not None
    assert made.numbers.values == (0, 1, 2, 3, 4)
    left, top, width, height = made.numbers.box
    for state, look in made.looks.items():
        strip = pixels(made.numbers.strips[state])
        assert strip.shape[:2] == (height * 5, width)
        for number in range(5):
            whole = pixels(look)
            whole[top : top + height, left : left + width] = strip[number * height : (number + 1) * height]
            wanted = picture(resolve(KIT, KEY, state, readings=(("count", float(number)),)), 2)
            assert np.array_equal(seen(whole), seen(wanted))


def test_frames_are_carried_along_where_fading_would_be_seen_and_only_there():
    made = pictured(KIT, KEY, PLACED, 2)
    frames = made.frames["rest>pressed"]
    left, top, width, height = frames.box
    strip = pixels(frames.strip)
    assert strip.shape[:2] == (height * frames.count, width)
    for number, there in enumerate(moments(KIT, KEY, "rest", "pressed", frames.count)):
        whole = draw_between(there, Frame(2, canvas_box(there.first, 2)))
        wanted = whole[top : top + height, left : left + width]
        assert np.array_equal(seen(strip[number * height : (number + 1) * height]), seen(wanted))
    paler = State(id="pressed", name="Pressed", differences=(Other(path="parts/p1/opacity", value=0.5),))
    assert pictured(KIT, KEY.evolve(states=(paler,)), PLACED, 2).frames == {}
    assert pictured(KIT, KEY, PLACED, 2, most=0).frames == {}


def test_timings_begin_at_nothing_and_end_at_all():
    timings = pictured(KIT, KEY, PLACED, 1).timings
    whole, way = timings[""]
    assert (whole, way[0], way[-1], len(way)) == (160, 0, 1, 25)


def test_what_is_held_long_is_reached_too():
    ways = {shown_as(piece, now) for piece in (Piece("hold to confirm"),) for now in reached(piece, Now())}
    assert {"on/pressed/", "on//", "/pressed/focus"} <= ways


def test_frames_of_a_transition_end_where_it_does():
    assert frame_count(KEY, "rest", "pressed", 1) == 10
    ends = list(moments(KIT, KEY, "rest", "pressed", 10))
    assert ends[-1].only is not None
    assert ends[-1].only.control == resolve(KIT, KEY, "pressed").control
    tall = control(width=40, height=4000)
    assert frame_count(tall, "rest", "pressed", 2) == MAX_TALL_PX // 8000
    with pytest.raises(TooLarge, match="too tall"):
        check_frames(10, 4000)


def test_a_contact_sheet_holds_the_screen_under_every_combination():
    panel = Panel(id="p", name="P", width=90, height=60, across=30)
    screen = composed(KIT, panel, [Seen(KEY, 5, 0, "day")], 1)
    chosen = Conditions(sun=500, distance=1)
    sheet = contact_sheet(KIT, panel, screen, 1, chosen)
    each = list(combinations(chosen))
    assert len(each) == len({words for words, _ in each}) == 30
    assert {one.sun for _, one in each} == {0, 500}
    for at, (_, one) in enumerate(each):
        x, y = GAP_PX + at % 5 * (NARROWEST_PX + GAP_PX), GAP_PX + at // 5 * (60 + 26 + GAP_PX)
        assert np.array_equal(sheet[y : y + 60, x : x + 90], seen_under(one, screen, panel.millimetre))
