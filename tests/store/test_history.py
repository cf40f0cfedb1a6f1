"""History kept small: earlier documents are packed on each other, come back to the byte, and go when nothing needs
them; a file of an earlier form is brought to this one with all its steps."""

import gzip
import sqlite3
from base64 import b64encode
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from obrell.app import editing
from obrell.core.document.model import Canvas
from obrell.core.edit import read_edit
from obrell.core.errors import Unreadable
from obrell.core.files import content_of, file_id
from obrell.core.shapes import Picture
from obrell.store.kits import Kits, Sender
from obrell.store.packing import packed, unpacked
from tests.making import SLOPE, control, kit, part

EARLIER = Path(__file__).parent / "form_0003.sql.gz"


@pytest.fixture
def kits(tmp_path):
    made = Kits(tmp_path / "kits.db")
    made.add_kit("Kit")
    made.add_control("kit", "Lamp", Canvas(width=400, height=400))
    yield made
    made.close()


def draw(at):
    return {"kind": "draw", "shape": "round", "x0": at, "y0": at, "x1": at + 20, "y1": at + 20}


def move(part, dx):
    return {"kind": "move", "parts": [part], "dx": dx, "dy": 0}


def edit(kits, what, sender=None):
    return editing.edit(kits, "kit", "c1", read_edit(what), sender or Sender()).now.hash


def rows(tmp_path, query):
    with sqlite3.connect(tmp_path / "kits.db") as connection:
        found = connection.execute(query).fetchall()
    connection.close()
    return found


@given(text=st.text(max_size=300), base=st.text(max_size=300))
def test_a_text_comes_back_from_what_differs(text, base):
    assert unpacked(packed(text, base), base) == text


def test_a_packed_text_that_was_damaged_is_unreadable():
    base, other = ("".join(str(number**power) for number in range(90)) for power in (3, 5))
    content = packed(base + " and a lamp", base)
    for harmed in (content[:-5], b"", content[:9] + b"\xff" + content[10:], b"nonsense"):
        with pytest.raises(Unreadable):
            unpacked(harmed, base)
    with pytest.raises(Unreadable):
        unpacked(content, other)


def test_a_step_of_a_large_control_costs_what_changed(kits, tmp_path):
    for number in range(40):
        edit(kits, draw(number * 5))
    kits.close()
    whole = len(rows(tmp_path, "SELECT body FROM documents ORDER BY length(body) DESC")[0][0])
    kits = Kits(tmp_path / "kits.db")
    before = rows(tmp_path, "SELECT sum(length(body)) + sum(length(packed)) FROM documents")[0][0]
    hashes = [edit(kits, move(f"p{number % 40 + 1}", 1)) for number in range(70)]
    after = rows(tmp_path, "SELECT sum(length(body)) + sum(length(packed)) FROM documents")[0][0]
    assert (after - before) / 70 < whole / 20
    assert len(rows(tmp_path, "SELECT hash FROM documents WHERE body != ''")) == 2
    kits.close()
    kits = Kits(tmp_path / "kits.db")
    assert [kits.by_hash(hash_).name for hash_ in hashes] == ["Lamp"] * 70
    for hash_ in reversed(hashes[:-1]):
        kits.undo("kit", "c1")
        assert kits.control("kit", "c1").hash == hash_
    kits.close()


def test_coming_back_to_an_earlier_look_packs_nothing_in_a_circle(kits):
    first = edit(kits, draw(5))
    hashes = [edit(kits, move("p1", dx)) for dx in (3, -3, 4, -4, 3, -3, 5)]
    assert hashes[1] == hashes[3] == first
    seen = []
    while kits.undo("kit", "c1"):
        seen.append(kits.control("kit", "c1").hash)
    assert seen[:-1] == [*reversed(hashes[:-1]), first]


def test_a_damaged_earlier_document_takes_no_later_one_along(kits, tmp_path):
    hashes = [edit(kits, draw(5)), *(edit(kits, move("p1", dx)) for dx in (1, 2))]
    with sqlite3.connect(tmp_path / "kits.db") as connection:
        harmed = connection.execute("UPDATE documents SET packed = x'00' WHERE packed IS NOT NULL").rowcount
    connection.close()
    assert harmed >= 2
    hashes += [edit(kits, move("p1", dx)) for dx in (3, 4)]
    again = Kits(tmp_path / "kits.db")
    with pytest.raises(Unreadable):
        again.by_hash(hashes[0])
    assert [again.by_hash(hash_).parts[0].x for hash_ in hashes[2:]] == [18, 21, 25]
    again.close()


def test_two_kits_with_the_same_control_do_not_pack_it_under_each_other(kits):
    edit(kits, draw(5))
    other = kits.import_kit(kits.export_kit("kit"))
    edit(kits, move("p1", 2))
    assert kits.tiles(other)[0].name == "Lamp"
    assert kits.control(other, "c1").control.parts[0].x == 15


def test_what_was_undone_and_given_up_goes(kits, tmp_path):
    first = edit(kits, draw(5))
    given_up = [edit(kits, move("p1", dx), Sender("w", f"i{dx}")) for dx in (1, 2, 3)]
    for _ in given_up:
        kits.undo("kit", "c1")
    edit(kits, move("p1", 9))
    there = {hash_ for (hash_,) in rows(tmp_path, "SELECT hash FROM documents")}
    assert first in there
    assert not there & set(given_up)
    again = Kits(tmp_path / "kits.db")
    editing.edit(again, "kit", "c1", read_edit(move("p1", 2)), Sender("w", "i2"))
    assert again.control("kit", "c1").control.parts[0].x == 24


def test_a_file_of_an_earlier_form_keeps_every_step(tmp_path):
    with sqlite3.connect(tmp_path / "kits.db") as connection:
        connection.executescript(gzip.decompress(EARLIER.read_bytes()).decode())
        query = "SELECT hash, body FROM documents"
        texts = dict(connection.execute(query).fetchall())
        steps = connection.execute("SELECT before, after FROM steps WHERE control != '' ORDER BY number").fetchall()
        head = connection.execute("SELECT head FROM controls").fetchone()[0]
    connection.close()
    kits = Kits(tmp_path / "kits.db")
    assert kits.control("wendmere-lock", "c1").hash == head
    while kits.redo("wendmere-lock", "c1"):
        pass
    for before, after in reversed(steps):
        assert kits.control("wendmere-lock", "c1").hash == after
        kits.undo("wendmere-lock", "c1")
        assert kits.control("wendmere-lock", "c1").hash == before
    kits.close()
    size = sum(len(text) for text in texts.values())
    stored = rows(tmp_path, "SELECT sum(length(body)) + sum(length(packed)) FROM documents")[0][0]
    assert stored < size / 5


@pytest.mark.parametrize("damaged", [False, True])
def test_files_of_an_earlier_database_are_kept_by_the_documents_that_need_them(tmp_path, damaged):
    used, unused = content_of(SLOPE), b"needed by none"
    texts = {file_id(content): b64encode(content).decode() for content in (used, unused)}
    kits = Kits(tmp_path / "kits.db")
    drawn = control(part(Picture(file=SLOPE)))
    kits.import_kit(kit(drawn, drawn.evolve(id="c2", parts=())).evolve(files=texts))
    editing.edit(kits, "test-kit", "c1", read_edit({"kind": "remove", "parts": ["p1"]}))
    kits.close()
    with sqlite3.connect(tmp_path / "kits.db") as connection:
        connection.execute("DROP TABLE file_uses")
        connection.execute("INSERT INTO files VALUES (?, ?)", (file_id(unused), unused))
        connection.execute("UPDATE alembic_version SET version_num = '0007'")
        if damaged:
            connection.execute("UPDATE documents SET packed = x'00' WHERE packed IS NOT NULL")
    connection.close()
    again = Kits(tmp_path / "kits.db")
    assert again.file(SLOPE) == used
    assert again.file(file_id(unused)) == (unused if damaged else None)
    again.undo("test-kit", "c1")
    assert damaged or again.control("test-kit", "c1").control == drawn
