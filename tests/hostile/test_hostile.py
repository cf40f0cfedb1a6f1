"""Whatever is brought in is answered, in words, within the time and memory that it may take."""

import os
import time

import pytest

from obrell.core.aside import MEGABYTES, SECONDS, aside, patience
from obrell.core.door import READERS, reads
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.edit.admission import check_drawable
from obrell.core.edit.insert import InsertParts
from obrell.core.errors import BadDocument, Broke, ObrellError, TooLarge
from obrell.core.interchange.pictures import read_picture
from obrell.web import rooms
from tests.hostile.bringing import Places, request_for
from tests.hostile.making import SOUND_TEXTS, nth
from tests.making import KIT, control
from tests.web.house import House

COUNT = int(os.environ.get("OBRELL_HOSTILE", "300"))
"""How many files of each kind; ``make soak`` asks for more."""
BATCH = 50
ROUTED = max(4, COUNT // 25)
"""How many of each kind are brought in through the routes, the worst first."""
HELD_S, HELD_S_PER_MB = 0.25, 0.01
"""How long the server may be held by one of them, seconds of its processor time on a slow machine; the rest is the
process's aside."""
INNER = ("input", "Input", "pattern", "pydantic", "Errno", "column 0")
"""Words of those who are asked for help, not of those who help."""
assert rooms.router.routes, "all readers are registered"
KINDS = sorted(READERS)


def brought_in(kind: str, content: bytes) -> None:
    """As the application does, up to where it would be stored."""
    texts = kind == "svg" or kind in ("colour", "gradient")
    read = READERS[kind](content.decode("utf-8", "replace") if texts else content, *([{}] if kind == "svg" else []))
    if kind == "picture":
        assert read_picture(read) == read
    elif kind == "svg":
        start = control()
        check_drawable(KIT, applied(InsertParts(parts=read[0].parts), start, Surroundings()), start)


@pytest.mark.parametrize("first", range(0, COUNT, BATCH))
@pytest.mark.parametrize("kind", KINDS)
def test_every_hostile_file_is_answered(kind, first):
    for number in range(first, min(first + BATCH, COUNT)):
        content = nth(kind, number)
        most = HELD_S + HELD_S_PER_MB * len(content) / 1e6
        spent = answered(kind, number, content)
        # Once more, for what else the interpreter did meanwhile is not the file's.
        assert kind == "svg" or spent < most or answered(kind, number, content) < most, (number, spent)


def answered(kind: str, number: int, content: bytes) -> float:
    """Bring something in; how long that held this thread, seconds of processor time."""
    before = time.thread_time()
    try:
        brought_in(kind, content)
    except Broke:
        pytest.fail(f"nobody foresaw {kind} {number}: {content[:200]!r}")
    except ObrellError as error:
        words = str(error)
        assert words[0].isupper() or words[0] in "“{", (number, words)
        assert not any(inner in words for inner in INNER), (number, words)
    return time.thread_time() - before


@pytest.fixture(scope="module")
def house(tmp_path_factory):
    made = House(tmp_path_factory.mktemp("hostile"))
    yield made
    made.close()


def sent(house: House, kind: str, content: bytes):
    """The answer to what is brought in as a page does it."""
    at = Places(f"/kits/{house.kit}", house.bench, house.panel, house.source, house.fill)
    address, media, body = request_for(kind, content, at)
    return house.client.post(address, content=body, headers={"content-type": media})


@pytest.mark.parametrize("kind", KINDS)
def test_what_is_refused_is_not_stored_and_what_is_taken_in_can_be_shown(house, kind):
    for number in range(ROUTED):
        before = house.stored()
        answer = sent(house, kind, nth(kind, number))
        assert answer.status_code < 500, (number, answer.text[:300])
        if answer.status_code >= 400:
            assert house.stored() == before, number
    house.check_all()


@pytest.mark.parametrize("kind", sorted(SOUND_TEXTS))
def test_what_is_sound_is_read(kind):
    for content in SOUND_TEXTS[kind]:
        assert READERS[kind](content.decode() if kind in ("colour", "gradient") else content)


@reads("test", "Reading this", most=10, words="Ten are the most.")
def fails(content: bytes) -> bytes:
    if content == b"no":
        raise BadDocument("No.")
    return content[3:] if content[0] else bytes(1 // content[0])


def test_the_door_is_the_only_way_in():
    assert READERS.pop("test") is fails
    assert set(READERS) == set(KINDS)
    with pytest.raises(TooLarge, match="Ten are"):
        fails(bytes(11))


def sleep_busily(seconds: float) -> None:
    end = time.process_time() + seconds
    while time.process_time() < end:
        pass


def take(megabytes: int) -> int:
    return len(bytearray(megabytes << 20))


def test_what_takes_too_long_or_too_much_is_ended_and_the_next_is_done():
    with patience(0.2), pytest.raises(TooLarge, match="This takes longer"):
        aside("This", sleep_busily, 60.0)
    with pytest.raises(TooLarge, match="more memory"):
        aside("This", take, MEGABYTES + 200)
    assert aside("This", take, 10) == 10 << 20
    with pytest.raises(TooLarge, match="damaged"):
        aside("This", os._exit, 3)
    assert aside("This", abs, -3) == 3


def test_worst_edits_are_refused_within_their_time():
    start = applied(
        read_edit({"kind": "draw", "shape": "box", "x0": 1, "y0": 1, "x1": 70, "y1": 50}), control(), Surroundings()
    )
    part = start.parts[0].id
    outlined = applied(read_edit({"kind": "add-effect", "part": part, "effect": "outline"}), start, Surroundings())
    effect = outlined.parts[0].effects[-1].id
    values = [{"path": f"parts/{part}/effects/{effect}/{name}", "value": 0.01} for name in ("dash", "gap")]
    dashed = applied(read_edit({"kind": "set", "changes": values}), outlined, Surroundings())
    before = time.process_time()
    with pytest.raises(ObrellError, match="dashes"):
        check_drawable(KIT, dashed, outlined)
    assert time.process_time() - before < SECONDS
