"""Whatever is brought in is answered, in words, within the time and memory that it may take."""

import os
import time

import pytest

from obrell.core.aside import MEGABYTES, SECONDS, aside, patience
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.edit.admission import check_drawable
from obrell.core.edit.insert import InsertParts
from obrell.core.errors import ObrellError, TooLarge
from obrell.core.interchange.fonts import read_font
from obrell.core.interchange.kit_file import read_kit
from obrell.core.interchange.pictures import read_picture
from obrell.core.interchange.svg.reader import read_svg
from tests.hostile.making import nth
from tests.making import KIT, control

COUNT = int(os.environ.get("OBRELL_HOSTILE", "100"))
"""How many files of each kind; ``make soak`` asks for more."""
BATCH = 50


def brought_in(kind: str, content: bytes) -> None:
    """As the application does, up to where it would be stored."""
    if kind == "font":
        read_font(content)
    elif kind == "picture":
        kept = read_picture(content)
        assert read_picture(kept) == kept
    elif kind == "svg":
        parts = read_svg(content.decode("utf-8", "replace")).parts
        start = control()
        check_drawable(KIT, applied(InsertParts(parts=parts), start, Surroundings()), start)
    else:
        kit = read_kit(content)
        for one in kit.controls:
            check_drawable(kit, one)


@pytest.mark.parametrize("first", range(0, COUNT, BATCH))
@pytest.mark.parametrize("kind", ["svg", "font", "picture", "kit"])
def test_every_hostile_file_is_answered(kind, first):
    for number in range(first, min(first + BATCH, COUNT)):
        content = nth(kind, number)
        before = time.process_time()
        try:
            brought_in(kind, content)
        except ObrellError as error:
            words = str(error)
            assert words[0].isupper() or words[0] in "“{", (number, words)
            assert not any(inner in words for inner in ("input", "Input", "pattern", "pydantic")), (number, words)
        spent = time.process_time() - before
        assert spent < SECONDS, (number, spent)


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
    assert time.process_time() - before < 1
