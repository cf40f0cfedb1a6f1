"""Operating: what comes of presses, keys and turns, in words and numbers; and the script in the browser, which carries
out the same tables, on the same events."""

from __future__ import annotations

import json
import random
import shutil
import subprocess
from dataclasses import asdict
from pathlib import Path
from typing import Any, get_args

import pytest

from obrell.core.trial.operating import TABLES, Event, Grip, Now, Piece, Scale, operate, rules, shown_as, step
from obrell.core.trial.sources import moved, table_of
from obrell.core.values.panels import Behaviour
from obrell.core.values.sources import Chance, Recorded, Row, Source, Steady, Steps, Switches, Turns, Wave

PERCENT = Scale(0, 100, 1)
AROUND = Grip("around", 50, 50, sweep=270)
ALONG = Grip("along", 10, 20, dx=80, dy=0, far=True)
SCRIPT = Path(__file__).parents[1] / "scripts" / "run" / "operating.mjs"


def ran(piece: Piece, *events: tuple[str, float] | tuple[str, float, float, float], now: Now | None = None):
    """How a piece stands after events, and all that was said: kinds, times, and places."""
    now, said = now or Now(), []
    for kind, time, *place in events:
        x, y = place if len(place) == 2 else (0.0, 0.0)
        came = step(piece, now, Event(time, kind, x, y, amount=place[0] if len(place) == 1 else 0.0))
        now = came.now
        said += came.said
    return now, said


PRESS = (("enter", 0), ("press", 10), ("release", 90))


def test_a_momentary_one_is_clicked_and_is_seen_hovered_over_and_pressed():
    piece = Piece("momentary")
    now, said = ran(piece, *PRESS[:2])
    assert (shown_as(piece, now), said) == ("/pressed/", ["pressed"])
    now, said = ran(piece, *PRESS)
    assert (shown_as(piece, now), said) == ("/hover/", ["pressed", "clicked"])


def test_dragged_off_and_released_outside_nothing_is_done():
    now, said = ran(Piece("toggle"), *PRESS[:2], ("leave", 40), ("release", 90))
    assert not now.on
    assert said == ["pressed", "dragged off", "released outside"]
    assert shown_as(Piece("toggle"), now) == "//"


def test_dragged_off_and_back_it_is_done():
    now, said = ran(Piece("toggle"), *PRESS[:2], ("leave", 40), ("enter", 60), ("release", 90))
    assert now.on
    assert said == ["pressed", "dragged off", "came back", "on"]


def test_away_from_the_pointer_it_looks_untouched():
    now, _ = ran(Piece("momentary"), *PRESS[:2], ("leave", 40))
    assert shown_as(Piece("momentary"), now) == "//"


def test_two_presses_soon_after_each_other_are_a_double_press_and_a_third_is_not():
    times = (("press", 0), ("release", 50), ("press", 200), ("release", 250), ("press", 300), ("release", 350))
    _, said = ran(Piece("momentary"), *times)
    assert said == ["pressed", "clicked", "pressed", "clicked", "pressed twice", "pressed", "clicked"]


def test_what_is_held_is_confirmed_after_its_time_and_not_before():
    piece = Piece("hold to confirm", hold=800)
    now, said = ran(piece, ("press", 0), ("tick", 799), ("release", 799))
    assert not now.on
    assert said == ["pressed", "released too early"]
    now, said = ran(piece, ("press", 0), ("tick", 799), ("tick", 800), ("tick", 2000), ("release", 2001))
    assert now.on
    assert said == ["pressed", "confirmed", "released"]


def test_keys_press_too_and_escape_gives_up():
    now, said = ran(Piece("toggle"), ("focus", 0), ("key", 10), ("unkey", 60))
    assert now.on
    assert shown_as(Piece("toggle"), now) == "on//focus"
    assert said == ["pressed by key", "on"]
    now, said = ran(Piece("toggle"), ("key", 10), ("escape", 60), ("unkey", 80))
    assert not now.on
    assert said == ["pressed by key", "given up"]


def test_of_a_group_one_is_on():
    pieces = {name: Piece("one of a group", group="gates" if name != "c" else "lights") for name in "abc"}
    standing = {"a": Now(on=True), "b": Now(), "c": Now(on=True)}
    for kind in ("press", "release"):
        standing, said = operate(pieces, standing, "b", Event(0, kind))
    assert [standing[name].on for name in "abc"] == [False, True, True]
    assert said == (("b", "chosen"), ("a", "off"))


def test_a_knob_is_turned_around_its_centre():
    piece = Piece("knob", PERCENT, AROUND)
    # From straight up a quarter to the right: 90 of 270 degrees.
    events = (("press", 0, 50.0, 10.0), ("move", 10, 90.0, 50.0), ("release", 20, 90.0, 50.0))
    now, said = ran(piece, *events, now=Now(number=20, share=0.2))
    assert now.number == pytest.approx(20 + 100 * 90 / 270, abs=0.5)
    assert said == ["turned to 53"]


def test_a_knob_stops_at_its_ends_and_goes_over_the_top_without_a_jump():
    piece = Piece("knob", PERCENT, AROUND)
    places = [(50.0, 10.0), (10.0, 50.0), (50.0, 90.0), (90.0, 50.0), (50.0, 10.0)]
    start, moves = ("press", 0, 10.0, 45.0), [("move", 1, *place) for place in places]
    now, _ = ran(piece, start, *moves, now=Now(number=60, share=0.6))
    # Up, then back by the left and below to the right and up: less and less, and stays at the end.
    assert now.number == 0


def test_a_slider_comes_to_the_pointer_and_its_thumb_keeps_where_it_is_held():
    piece = Piece("slider", PERCENT, ALONG)
    far, _ = ran(piece, ("press", 0, 70.0, 22.0))
    assert far.number == 75
    near, _ = ran(piece, ("press", 0, 20.0, 22.0), ("move", 5, 60.0, 90.0))
    assert near.number == 50


def test_arrows_go_by_steps_ends_by_keys_and_nothing_beyond():
    piece = Piece("knob", Scale(100, 0, 0.5), AROUND)
    start = Now(number=62, share=0.38)
    assert ran(piece, ("turn", 0, 1.0), now=start) == (start.__class__(number=61.5, share=0.385), ["turned to 61.5"])
    assert ran(piece, ("end", 0, 1.0), now=start)[0].number == 0
    now, said = ran(piece, ("end", 0, 0.0), ("turn", 0, -3.0), now=start)
    assert (now.number, said) == (100, ["turned to 100"])


def test_a_counter_counts_and_begins_anew():
    piece = Piece("counter", Scale(0, 3, 1))
    now, said = Now(number=2, share=2 / 3), []
    for _ in range(3):
        now, words = ran(piece, ("press", 0), ("release", 900), now=now)
        said += words[1:]
    assert said == ["counted to 3", "counted to 0", "counted to 1"]


def test_what_is_disabled_or_only_shows_something_is_not_operated():
    for piece in (Piece("toggle", disabled=True), Piece("lamp"), Piece("meter", PERCENT)):
        now, said = ran(piece, *PRESS, ("key", 100), ("turn", 100, 1.0))
        assert (now.on, now.number, now.phase, said) == (False, 0, "up", [])
    assert shown_as(Piece("toggle", disabled=True), Now(on=True, over=True)) == "on/disabled/"


def test_a_source_moves_what_no_hand_holds():
    piece = Piece("knob", PERCENT, AROUND)
    assert ran(piece, ("set", 0, 140.0))[0].number == 100
    held, _ = ran(piece, ("press", 0, 50.0, 10.0), ("set", 0, 40.0))
    assert held.number == 0
    now, said = ran(Piece("lamp", disabled=True), ("light", 0, 1.0), ("light", 5, 1.0), ("light", 9, 0.0))
    assert said == ["on", "off"]
    assert not now.on


def a_trace(chance: random.Random) -> dict[str, Any]:
    """Pieces of all kinds and what happens to them, in no sensible order."""
    behaviours: tuple[Behaviour, ...] = get_args(Behaviour)
    pieces: dict[str, Piece] = {}
    for number in range(6):
        scale = chance.choice((None, PERCENT, Scale(10, -4, 0.3), Scale(0, 19, 1)))
        grip = chance.choice((AROUND, ALONG, Grip("around", 3, 4, sweep=-200), Grip("along", dy=-200.0)))
        pieces[f"i{number}"] = Piece(
            chance.choice(behaviours), scale, grip if scale and chance.random() < 0.9 else None,
            chance.choice(("a", "b")), chance.choice((300.0, 800.0)), chance.random() < 0.1,
        )  # fmt: skip
    kinds = ("enter", "leave", "press", "release", "cancel", "key", "unkey", "escape", "focus", "blur", "move", "move",
             "turn", "end", "set", "light", "tick", "tick")  # fmt: skip
    events, time = [], 0.0
    for _ in range(120):
        time += chance.choice((0, 16, 120, 500))
        kind = chance.choice(kinds)
        amount = chance.choice((0.0, 1.0)) if kind == "end" else round(chance.uniform(-5, 120), 2)
        place = {"x": round(chance.uniform(-20, 140), 1), "y": round(chance.uniform(-20, 140), 1)}
        events.append({"id": f"i{chance.randrange(6)}", "time": time, "kind": kind, "amount": amount} | place)
    numbers = {
        name: (number := chance.choice((one.scale.start, one.scale.end)) if one.scale else 0.0,
               one.scale.share(number) if one.scale else 0.0)
        for name, one in pieces.items()
    }  # fmt: skip
    return {"pieces": pieces, "numbers": numbers, "events": events}


def here(trace: dict[str, Any]) -> list[dict[str, Any]]:
    """What comes of a trace in Python."""
    pieces = trace["pieces"]
    standing = {name: Now(number=number, share=share) for name, (number, share) in trace["numbers"].items()}
    came = []
    for event in trace["events"]:
        values = {name: value for name, value in event.items() if name != "id"}
        standing, said = operate(pieces, standing, event["id"], Event(**values))
        came.append({
            "after": {name: asdict(now) for name, now in standing.items()}, "said": [list(one) for one in said],
            "looks": {name: shown_as(pieces[name], now) for name, now in standing.items()},
        })  # fmt: skip
    return came


@pytest.fixture(scope="module")
def both() -> dict[str, Any]:
    """Traces, and what comes of them here and in the script."""
    node = shutil.which("node")
    assert node, "node is needed to run the script"
    chance = random.Random(20)
    traces = [a_trace(chance) for _ in range(150)]
    courses = [
        Steady(value=3), Wave(low=-2, high=9, period=3.3), Wave(form="triangle"), Steps(values=(1, 5, 2), every=0.7),
        Chance(seed=9, every=0.31), Recorded(rows=(Row(time=2, value=1), Row(time=3, value=4), Row(time=9, value=-2))),
    ]  # fmt: skip
    moves = (
        Turns(placement="i1", reading="level"), Switches(placement="i2", than=2),
        Switches(placement="i3", when="below", than=2),
    )  # fmt: skip
    sources = [Source(id="s", name="s", course=one, moves=moves) for one in courses]
    times = [0.0, 0.1, 0.69, 0.7, 1.4, 2.0999, 3.3, 7.77, 123.456, 4000.25]
    sent = {
        "rules": rules(), "sources": [table_of(one) for one in sources], "times": times,
        "traces": [one | {"pieces": {name: asdict(piece) for name, piece in one["pieces"].items()}} for one in traces],
    }  # fmt: skip
    answer = subprocess.run([node, str(SCRIPT)], input=json.dumps(sent), capture_output=True, text=True, check=True)
    there = json.loads(answer.stdout)
    return {"traces": traces, "there": there, "sources": sources, "times": times}


def test_the_script_does_what_the_core_does_on_the_same_events(both):
    said = 0
    for trace, there in zip(both["traces"], both["there"]["ran"], strict=True):
        for mine, theirs in zip(here(trace), there, strict=True):
            said += len(mine["said"])
            assert mine["said"] == theirs["said"]
            assert mine["looks"] == theirs["looks"]
            for name, now in mine["after"].items():
                assert theirs["after"][name] == pytest.approx(now, abs=1e-9)
    assert said > 1500, "hardly anything happened in these traces"


def test_the_script_reads_sources_as_the_core_does(both):
    for source, there in zip(both["sources"], both["there"]["did"], strict=True):
        for time, did in zip(both["times"], there, strict=True):
            here = moved(source, time)
            assert [one[:2] for one in did] == [list(one[:2]) for one in here]
            assert [one[2] for one in did] == pytest.approx([one[2] for one in here], abs=1e-9)


def test_every_behaviour_has_a_table_whose_phases_can_be_left():
    assert set(TABLES) == set(get_args(Behaviour))
    for table in TABLES.values():
        reached = {"up", *(phase for row in table.rows.values() for phase, _ in row.values())}
        assert set(table.rows) in (set(), reached)
