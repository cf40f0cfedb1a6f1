"""Panels: what can be done to them, what stands on them, their pixels, their sources and reach."""

from __future__ import annotations

import math
from string import ascii_uppercase

import numpy as np
import pytest

from obrell.core.document.model import Control, State
from obrell.core.document.resolve import resolve
from obrell.core.document.value_paths import value_at
from obrell.core.edit.panels import read_panel_edit
from obrell.core.errors import BadValue, Refused
from obrell.core.render.picture import box_around, picture
from obrell.core.shapes import Box, Round, Text
from obrell.core.trial.composing import Seen, composed, ground_of
from obrell.core.trial.instances import behaviour_of, instance, looks_of, piece_of, standing_of
from obrell.core.trial.screen import place_of, screen_of
from obrell.core.trial.sources import moved, series_of
from obrell.core.trial.starts import STARTS, begun
from obrell.core.values.differences import Other
from obrell.core.values.paints import Solid
from obrell.core.values.panels import MAX_PLACEMENTS, Fixture, Panel, Placement
from obrell.core.values.readings import Drive, Reading
from obrell.core.values.sources import Recorded, Row, Source, Steps, Switches, Turns, Wave
from tests.making import KIT, control, part, solid

KEY = control(
    part(Box(width=40, height=20), solid("#204060"), id="p1"), part(Text(words="Go"), solid("#ffffff"), id="p2")
).evolve(states=tuple(State(id=name, name=name.title()) for name in ("hover", "pressed", "on")))
TURN = Drive(path="parts/p1/rotation", start=-135, end=135)
KNOB = control(part(Round(width=40, height=40), solid("#808080"), id="p1")).evolve(
    id="knob", readings=(Reading(id="level", name="Level", drives=(TURN,)),)
)
CONTROLS = {"key": KEY.evolve(id="key"), "knob": KNOB}
BARE = Panel(id="p", name="Panel", width=200, height=120, ground=Solid(colour="#336699"))


def done(panel: Panel, **edit) -> Panel:
    return read_panel_edit(edit).apply(panel, CONTROLS)


def said(panel: Panel, **edit) -> str:
    return read_panel_edit(edit).label(panel, CONTROLS)


BUTTON = Fixture(id="f1", kind="button", x=20, y=30, width=100, height=40, words="Send it")
SET = done(done(BARE, kind="put", control="key", x=10, y=20), kind="put", control="knob", x=100, y=20)


def test_controls_are_put_moved_copied_and_taken_away():
    assert [(one.id, one.control, one.x) for one in SET.placements] == [("i1", "key", 10), ("i2", "knob", 100)]
    there = done(SET, kind="move", placements=["i1", "i2"], dx=-3, dy=4)
    assert [(one.x, one.y) for one in there.placements] == [(7, 24), (97, 24)]
    twice = done(there, kind="copy", placements=["i1"])
    assert [(one.id, one.x, one.y) for one in twice.placements][-1] == ("i3", 23, 40)
    assert [one.id for one in done(twice, kind="remove", placements=["i1", "i3"]).placements] == ["i2"]
    assert said(SET, kind="move", placements=["i1"], dx=1, dy=0) == f"Moved “{KEY.name}” by 1, 0"


def test_an_id_is_never_given_twice():
    gone = done(SET, kind="remove", placements=["i2"])
    assert done(gone, kind="put", control="key", x=0, y=0).placements[-1].id == "i3"


def test_the_order_from_back_to_front_is_changed():
    assert [one.id for one in done(SET, kind="reorder", placement="i1", to="front").placements] == ["i2", "i1"]
    assert [one.id for one in done(SET, kind="reorder", placement="i2", to="back").placements] == ["i2", "i1"]


def test_controls_are_lined_up_by_where_they_are_touched():
    # The key's body reaches from 20 to 60 across and from 20 to 40 down on its canvas, the knob's to 50.
    lined = done(SET, kind="align", placements=["i1", "i2"], axis="across", edge="start")
    assert [one.x for one in lined.placements] == [10, 10]
    lined = done(SET.evolve(placements=(SET.placements[0].evolve(y=50), SET.placements[1])), kind="align",
                 placements=["i1", "i2"], axis="down", edge="end")  # fmt: skip
    assert [one.y + bottom for one, bottom in zip(lined.placements, (40, 50), strict=True)] == [90, 90]
    middle = done(SET, kind="align", placements=["i1"], axis="across", edge="middle", to="screen")
    assert middle.placements[0].x + 40 == 100
    assert said(SET, kind="align", placements=["i1"], axis="across", edge="middle", to="screen").endswith(": centre")


def test_three_get_equal_gaps():
    three = done(SET, kind="put", control="key", x=300, y=20)
    spaced = done(three, kind="space", placements=["i1", "i2", "i3"], axis="across")
    sides = [(one.x + 20, one.x + 60) for one in spaced.placements]
    assert sides[1][0] - sides[0][1] == sides[2][0] - sides[1][1]
    with pytest.raises(Refused, match="need three"):
        done(SET, kind="space", placements=["i1", "i2"], axis="across")
    with pytest.raises(Refused, match="nothing to put in line"):
        read_panel_edit({"kind": "align", "placements": ["i1"], "axis": "down", "edge": "end"}).apply(SET, {})


def test_what_is_taken_away_is_moved_by_no_source_any_more():
    moves = (Turns(placement="i2", reading="level"), Switches(placement="i1", than=3))
    panel = SET.evolve(sources=(Source(id="s", name="s", moves=moves),))
    assert done(panel, kind="remove", placements=["i2"]).sources[0].moves == moves[1:]


def test_a_place_is_filled_again_and_forgets_what_was_said_of_the_old_one():
    panel = done(done(SET, kind="words", placement="i1", part="p2", text="Stop"), kind="refill", placement="i1",
                 control="knob")  # fmt: skip
    assert (panel.placements[0].control, panel.placements[0].words) == ("knob", {})


def test_a_plain_button_becomes_a_control_about_its_middle_with_its_words():
    panel = done(BARE.evolve(fixtures=(BUTTON,)), kind="swap", fixture="f1", control="key")
    (placement,) = panel.placements
    # The body's middle is 40, 30 of its canvas; the button's is 70, 50.
    assert (placement.x, placement.y, placement.words) == (30, 20, {"p2": "Send it"})
    assert not panel.fixtures
    narrow = done(BARE.evolve(fixtures=(BUTTON.evolve(width=30),)), kind="swap", fixture="f1", control="key")
    (wide,) = narrow.placements
    assert wide.x + 20 == BUTTON.x
    title = BARE.evolve(fixtures=(BUTTON.evolve(kind="title"),))
    with pytest.raises(Refused, match="Only a plain button"):
        done(title, kind="swap", fixture="f1", control="key")


def test_what_the_screen_itself_shows_is_moved_and_removed_with_controls_and_alone():
    panel = SET.evolve(fixtures=(BUTTON, BUTTON.evolve(id="f2", kind="title")))
    moved = done(panel, kind="move", placements=["i1", "f1"], dx=5, dy=-6)
    assert [(one.x, one.y) for one in (*moved.placements, *moved.fixtures)] == [
        (15, 14),
        (100, 20),
        (25, 24),
        (20, 30),
    ]
    left = done(panel, kind="remove", placements=["i2", "f2"])
    assert [one.id for one in (*left.placements, *left.fixtures)] == ["i1", "f1"]
    for edit, words in (
        ({"kind": "move", "placements": ["f2"], "dx": 1, "dy": 0}, "Moved the title “Send it” by 1, 0"),
        ({"kind": "move", "placements": ["i1", "f2"], "dx": 1, "dy": 0}, "Moved 2 things by 1, 0"),
        ({"kind": "remove", "placements": ["i1", "i2"]}, "Removed 2 controls from “Panel”"),
        ({"kind": "set", "path": "fixtures/f2/words", "value": "x"}, "Words of the title “Send it”"),
    ):
        assert read_panel_edit(edit).label(panel, CONTROLS) == words
    with pytest.raises(Refused, match="no longer on the panel"):
        done(panel, kind="copy", placements=["f1"])


def test_words_of_its_own_are_seen_there_and_nowhere_else():
    panel = done(SET, kind="words", placement="i1", part="p2", text=" Stop ")
    shown = instance(CONTROLS["key"], panel.placements[0], 1)
    assert value_at(shown, "parts/p2/shape/words") == "Stop"
    assert value_at(KEY, "parts/p2/shape/words") == "Go"
    assert done(panel, kind="words", placement="i1", part="p2", text="").placements[0].words == {}
    assert done(panel, kind="words", placement="i1", part="p2", text="Go").placements[0].words == {}


def test_a_number_begins_between_its_ends():
    panel = done(SET, kind="number", placement="i2", reading="level", text="30*2")
    assert standing_of(KNOB, panel.placements[1]).number == 60
    assert standing_of(KNOB, panel.placements[1]).share == pytest.approx(0.6)
    with pytest.raises(BadValue, match="0 to 100; 120"):
        done(SET, kind="number", placement="i2", reading="level", text="120")


REFUSED = [
    ({"kind": "put", "control": "gone", "x": 0, "y": 0}, "no longer in the kit"),
    ({"kind": "move", "placements": ["i9"], "dx": 1, "dy": 1}, "no longer on the panel"),
    ({"kind": "move", "placements": [], "dx": 1, "dy": 1}, "."),
    ({"kind": "remove", "placements": ["i1", "i9"]}, "no longer on the panel"),
    ({"kind": "copy", "placements": ["i9"]}, "no longer on the panel"),
    ({"kind": "refill", "placement": "i1", "control": "gone"}, "no longer in the kit"),
    ({"kind": "number", "placement": "i1", "reading": "level", "text": "3"}, "no such reading"),
    ({"kind": "type", "path": "width", "text": "wide"}, "."),
    ({"kind": "type", "path": "width", "text": "5000"}, "."),
    ({"kind": "type", "path": "name", "text": "4"}, "not a number"),
    ({"kind": "set", "path": "placements/i1/id", "value": "i2"}, "not set directly"),
    ({"kind": "set", "path": "placements/i1/control", "value": "knob"}, "not set directly"),
    ({"kind": "set", "path": "placements", "value": []}, "not set directly"),
    ({"kind": "set", "path": "fixtures/f1/id", "value": "f2"}, "not set directly"),
    ({"kind": "set", "path": "fixtures/f1/words", "value": "gone"}, "."),
    ({"kind": "set", "path": "bezel", "value": "sometimes"}, "."),
    ({"kind": "add-move", "source": "s", "move": {"kind": "reading", "placement": "i1", "reading": "level"}},
     "no such reading"),
    ({"kind": "add-move", "source": "s", "move": {"kind": "on", "placement": "i2"}}, "no state to be on"),
    ({"kind": "add-move", "source": "s", "move": {"kind": "reading", "placement": "i2", "reading": "level"}},
     "moves that already"),
    ({"kind": "add-source", "name": "S"}, "called “S” already"),
    ({"kind": "remove-move", "source": "s", "at": 4}, "no longer on the panel"),
    ({"kind": "steps", "source": "s", "text": "1 2"}, "Only a source that goes in steps"),
    ({"kind": "record", "source": "s", "rows": [{"time": 2, "value": 1}, {"time": 1, "value": 1}]}, "go up"),
]  # fmt: skip


@pytest.mark.parametrize(("edit", "words"), REFUSED)
def test_what_cannot_be_is_refused_in_words(edit, words):
    panel = SET.evolve(sources=(Source(id="s", name="s", moves=(Turns(placement="i2", reading="level"),)),))
    with pytest.raises(Refused, match=words) as refusal:
        done(panel, **edit)
    assert str(refusal.value)[0] in f"“{ascii_uppercase}"


def test_five_hundred_stand_on_a_panel_and_no_more():
    many = BARE.evolve(placements=tuple(Placement(id=f"i{n}", control="key") for n in range(MAX_PLACEMENTS)))
    with pytest.raises(Refused, match="at most 500"):
        done(many, kind="put", control="key", x=0, y=0)


def test_sources_are_begun_changed_and_typed():
    panel = done(SET, kind="add-source", name="upper pound")
    assert panel.sources[0].id == "upper-pound"
    panel = done(panel, kind="course", source="upper-pound", course="steps")
    panel = done(panel, kind="steps", source="upper-pound", text="1, 2*4 3")
    panel = done(panel, kind="type", path="sources/upper-pound/course/every", text="0.5")
    assert panel.sources[0].course == Steps(values=(1, 8, 3), every=0.5)
    move = {"kind": "on", "placement": "i1", "when": "below", "than": 2}
    panel = done(panel, kind="add-move", source="upper-pound", move=move)
    panel = done(panel, kind="set-move", source="upper-pound", at=0, than="2.5")
    assert moved(panel.sources[0], 0.2) == [("i1", "", 1.0)]
    assert moved(panel.sources[0], 0.7) == [("i1", "", 0.0)]
    assert not done(panel, kind="remove-source", source="upper-pound").sources


def test_courses_are_what_they_say():
    wave = series_of(Wave(low=2, high=6, period=8))
    assert [wave.at(time) for time in (0, 2, 4, 6, 8, 18)] == pytest.approx([4, 6, 4, 2, 4, 6])
    assert max(abs(wave.at(t / 100) - (4 + 2 * math.sin(t / 100 * math.pi / 4))) for t in range(800)) < 4 / 5000
    rows = (Row(time=5, value=1), Row(time=6, value=3), Row(time=10, value=-1))
    recorded = series_of(Recorded(rows=rows))
    assert [recorded.at(time) for time in (0, 0.5, 1, 3, 4.5)] == pytest.approx([1, 2, 3, 1, -0.5])
    assert series_of(Recorded(rows=rows[:1])).at(77) == 1


def test_what_is_said_of_a_control_comes_from_its_states_and_readings():
    placed = Placement(id="i", control="c")
    assert behaviour_of(KEY, placed) == "toggle"
    assert behaviour_of(KNOB, placed) == "knob"
    assert behaviour_of(KEY, placed.evolve(acts="lamp")) == "lamp"
    assert behaviour_of(control(), placed) == "momentary"
    piece = piece_of(KNOB, placed)
    assert piece.grip is not None
    assert (piece.grip.x, piece.grip.y, piece.grip.sweep) == (40, 30, 270)
    slides = KNOB.readings[0].evolve(drives=(Drive(path="parts/p1/x", start=30, end=90),))
    line = piece_of(KNOB.evolve(readings=(slides,)), placed).grip
    assert line is not None
    assert (line.x, line.y, line.dx, line.dy) == (30, 30, 60, 0)


def test_a_look_is_what_a_control_has_of_what_happens_to_it():
    looks = looks_of(KEY)
    assert (looks["//"], looks["/pressed/"], looks["on//"], looks["on/pressed/focus"]) == (
        "rest", "pressed", "on", "on+pressed",
    )  # fmt: skip
    both = KEY.evolve(states=(*KEY.states, State(id="lit-down", name="Lit, down", of=("on", "pressed"))))
    assert looks_of(both)["on/pressed/"] == "lit-down"
    latched = control().evolve(states=(State(id="latched", name="Latched"),))
    assert looks_of(latched)["on/pressed/"] == "latched"
    assert looks_of(control())["on/hover/focus"] == "rest"


def test_the_screen_is_its_ground_with_the_delivered_pictures_over_it():
    pressed = KEY.evolve(states=tuple(
        one.evolve(differences=(Other(path="parts/p1/x", value=44.5),)) if one.id == "pressed" else one
        for one in KEY.states
    ))  # fmt: skip
    shown = Seen(pressed, 30, 20, "day", "pressed")
    made = composed(KIT, BARE, [shown], 2)
    assert made.shape == (240, 400, 3)
    assert tuple(made[0, 0]) == (0x33, 0x66, 0x99)
    over = picture(resolve(KIT, pressed, "pressed"), 2).astype(np.float64)
    under = ground_of(KIT, BARE, 2)[40:160, 60:220].astype(np.float64)
    alpha = over[:, :, 3:] / 255
    wanted = np.floor(over[:, :, :3] * alpha + under * (1 - alpha) + 0.5)
    assert np.abs(made[40:160, 60:220] - wanted).max() <= 1
    outside = made.astype(int) - ground_of(KIT, BARE, 2)
    outside[40:160, 60:220] = 0
    assert not outside.any()


@pytest.mark.parametrize("place", [(-30, -20), (180, 110), (500, 500), (-200, 0)])
def test_what_lies_beyond_the_screen_is_cut_off(place):
    assert composed(KIT, BARE, [Seen(KEY, *place, "day")], 1).shape == (120, 200, 3)


@pytest.mark.parametrize("start", STARTS)
def test_every_panel_to_begin_with_is_drawn(start):
    panel = begun(start, "p", "P")
    screen = ground_of(KIT, panel, 1)
    assert screen.shape == (round(panel.height), round(panel.width), 3)
    assert not panel.fixtures or len(np.unique(screen.reshape(-1, 3), axis=0)) > 20
    assert isinstance(instance(KEY, Placement(id="i", control="c"), panel.density), Control)


@pytest.mark.parametrize("start", ["form", "phone"])
def test_words_of_a_screen_are_seen_within_the_place_that_is_said(start):
    panel = begun(start, "p", "P")
    whole = ground_of(KIT, panel, 1)
    for one in (fixture for fixture in panel.fixtures if fixture.kind in ("title", "text")):
        without = panel.evolve(fixtures=tuple(other for other in panel.fixtures if other is not one))
        seen, place = box_around((ground_of(KIT, without, 1) != whole).any(axis=2)), place_of(screen_of(panel), one)
        # Edges are fitted to whole px.
        assert place.left - 2 <= seen.left <= seen.right <= place.right + 2
        assert place.top - 2 <= seen.top <= seen.bottom <= place.bottom + 2
        assert seen.width > 0.9 * place.width - 4
