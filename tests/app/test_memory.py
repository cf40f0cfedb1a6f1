"""Who may draw when: no more at once than there is room for, and frames first."""

import threading

import pytest

from obrell.app import memory
from obrell.app.memory import Gate


@pytest.fixture
def clock(monkeypatch):
    now = [100.0]
    monkeypatch.setattr(memory.time, "monotonic", lambda: now[0])
    return now


def in_time(gate, pixels):
    """Whether a drawing of that size gets in while the others are in."""
    entered = threading.Event()

    def draw():
        with gate.room(pixels):
            entered.set()

    thread = threading.Thread(target=draw, daemon=True)
    thread.start()
    return entered, thread


def test_a_stage_that_is_drawn_keeps_one_place_for_a_moment(clock):
    gate = Gate(100)
    with gate.room(10):
        gate.frame()
        assert not gate._free(10)
        clock[0] += memory.FRAMES_S
        assert gate._free(10)
        with gate.room(10):
            assert not gate._free(10)


def test_where_there_is_one_place_drawings_get_in_all_the_same(clock):
    gate = Gate(100, places=1)
    gate.frame()
    with gate.room(10):
        assert not gate._free(10)
    assert gate._free(10)


def test_a_drawing_waits_until_there_is_room_for_its_pixels():
    gate = Gate(100)
    with gate.room(80):
        entered, thread = in_time(gate, 30)
        assert not gate._free(30)
    thread.join(10)
    assert entered.is_set()


def test_one_that_is_larger_than_all_room_goes_in_alone():
    gate = Gate(100)
    with gate.room(5000):
        assert not gate._free(1)
    assert gate._free(100)
