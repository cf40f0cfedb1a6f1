"""What the store promises: refused is unchanged, sent twice is done once, one fault takes nothing else along."""

import errno
import os
import sqlite3
import threading
from types import SimpleNamespace
from unittest.mock import Mock

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from sqlalchemy.exc import OperationalError

from obrell.app import editing
from obrell.core.document.model import MAX_DRAWN
from obrell.core.edit import read_edit
from obrell.core.errors import ObrellError, Refused, Unreadable
from obrell.samples.wendmere_lock import wendmere_lock
from obrell.store.database import WAIT_MS, Database
from obrell.store.failures import StoreBusy, StoreDamaged, StoreFailed, StoreFull, StoreGone, in_words
from obrell.store.kits import Kits, Lost, Sender

LOCK = "wendmere-lock"


def sqlite(tmp_path, statement, *values):
    with sqlite3.connect(tmp_path / "kits.db") as connection:
        changed = connection.execute(statement, values).rowcount
    connection.close()
    return changed


def move(dx):
    return read_edit({"kind": "move", "parts": ["p1"], "dx": dx, "dy": 0})


REFUSED = [
    {"kind": "set", "changes": [{"path": "parts/p1/clip", "value": "p1-gone"}, {"path": "parts/p9/x", "value": 1}]},
    {"kind": "set", "changes": [{"path": "next_number", "value": 1}]},
    {"kind": "set", "changes": [{"path": "canvas/width", "value": -4}]},
    {"kind": "flip", "parts": ["gone"]}, {"kind": "scale", "parts": ["gone"], "percent": 50},
    {"kind": "repeat", "parts": ["gone"]}, {"kind": "common-guides", "parts": ["gone"]},
    {"kind": "move", "parts": ["p1"], "dx": 16384, "dy": 16384},
]  # fmt: skip


@pytest.mark.parametrize("edit", REFUSED, ids=lambda edit: edit["kind"])
def test_what_is_refused_is_not_stored(kits, edit):
    before = kits.control(LOCK, "c1")
    editing.edit(kits, LOCK, "c1", move(1))
    moved = kits.control(LOCK, "c1")
    with pytest.raises(ObrellError):
        editing.edit(kits, LOCK, "c1", read_edit(edit))
    assert kits.control(LOCK, "c1") == moved != before
    assert len(kits.history(LOCK, "c1").shown) == 1


@pytest.mark.parametrize("values", [{"count": 500}, {"count": 14, "last_size": 10, "across": 4000},
                                    {"way": "rings", "count": 60, "step": 4000}])  # fmt: skip
def test_a_repeat_that_cannot_be_drawn_is_not_stored(kits, values):
    made = editing.edit(kits, LOCK, "c1", read_edit({"kind": "repeat", "parts": ["p1", "p2"]}))
    repeat = made.after.parts[[p.shape.kind for p in made.after.parts].index("repeat")].id
    before = kits.control(LOCK, "c1")
    changes = [{"path": f"parts/{repeat}/shape/{name}", "value": value} for name, value in values.items()]
    if values["count"] == 500:
        changes.append({"path": f"parts/{repeat}/shape/across", "value": 60.0})
    with pytest.raises(Refused, match=r"fewer copies|cannot be drawn"):
        editing.edit(kits, LOCK, "c1", read_edit({"kind": "set", "changes": changes}))
    assert kits.control(LOCK, "c1") == before
    assert MAX_DRAWN >= 4000


def test_an_edit_that_is_sent_again_is_done_once_and_answered_alike(kits):
    first = editing.edit(kits, LOCK, "c1", move(2), Sender("w1", "id-1"))
    editing.edit(kits, LOCK, "c1", move(3), Sender("w2", "id-2"))
    again = editing.edit(kits, LOCK, "c1", move(2), Sender("w1", "id-1"))
    assert (again.label, again.before, again.after) == (first.label, first.before, first.after)
    assert again.now.control.parts[0].x == wendmere_lock().controls[0].parts[0].x + 5
    assert kits.undo(LOCK, "c1", Sender("w1", "id-3")).window == "w2"
    assert kits.undo(LOCK, "c1", Sender("w1", "id-3")).label.startswith("Moved")
    assert kits.control(LOCK, "c1").control == first.after


SENT = st.lists(st.tuples(st.integers(1, 3), st.integers(1, 9)), min_size=1, max_size=5)


@settings(max_examples=5)
@given(edits=SENT)
def test_two_windows_that_send_again_at_random_end_up_with_each_edit_once(edits, tmp_path_factory):
    kits = Kits(tmp_path_factory.mktemp("db") / "kits.db")
    kits.import_kit(wendmere_lock())

    def send(window):
        for number, (times, by) in enumerate(edits):
            for _ in range(times):
                editing.edit(kits, LOCK, "c1", move(by), Sender(window, f"{window}-{number}"))

    threads = [threading.Thread(target=send, args=[name]) for name in ("a", "b")]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    wanted = wendmere_lock().controls[0].parts[0].x + 2 * sum(by for _, by in edits)
    assert kits.control(LOCK, "c1").control.parts[0].x == pytest.approx(wanted)
    kits.close()


def test_undo_goes_on_beyond_what_the_list_shows(kits):
    for number in range(260):
        editing.edit(kits, LOCK, "c3", move(1 if number % 2 else -1))
    for _ in range(230):
        kits.undo(LOCK, "c3")
    steps = kits.history(LOCK, "c3")
    assert steps.can_undo
    assert steps.can_redo
    assert (steps.undone, steps.older) == (180, 0)
    assert [step.undone for step in steps.shown] == [True] * 50 + [False] * 30
    assert [step.number for step in steps.shown] == sorted((s.number for s in steps.shown), reverse=True)


@pytest.mark.parametrize("body", ["{", "{}", '{"name": "Horn"}', "null", "[" * 5000])
def test_a_damaged_control_is_shown_as_such_and_harms_no_other(kits, tmp_path, body):
    editing.edit(kits, LOCK, "c3", move(1))
    head = kits.control(LOCK, "c3").hash
    kits.close()
    sqlite(tmp_path, "UPDATE documents SET body = ? WHERE hash = ?", body, head)
    again = Kits(tmp_path / "kits.db")
    with pytest.raises(Unreadable, match="versions before it are kept"):
        again.control(LOCK, "c3")
    lost = [found for found in again.shelf(LOCK) if isinstance(found, Lost)]
    assert [found.id for found in lost] == ["c3"]
    assert len(again.export_kit(LOCK).controls) == len(wendmere_lock().controls) - 1
    tiles = {tile.id: tile for tile in again.tiles(LOCK)}
    assert tiles["c3"].words
    assert tiles["c3"].name == lost[0].name == ("Horn" if "Horn" in body else "Log entry")
    assert tiles["c1"].name == "Raise sluice"
    assert again.undo(LOCK, "c3").label.startswith("Moved")
    assert again.control(LOCK, "c3").control.name == "Log entry"
    again.remove_control(LOCK, "c3")


def test_a_document_that_is_gone_can_be_undone(kits, tmp_path):
    editing.edit(kits, LOCK, "c3", move(1))
    head = kits.control(LOCK, "c3").hash
    kits.close()
    with sqlite3.connect(tmp_path / "kits.db") as connection:
        connection.execute("PRAGMA foreign_keys=OFF")
        connection.execute("DELETE FROM documents WHERE hash = ?", (head,))
    connection.close()
    again = Kits(tmp_path / "kits.db")
    with pytest.raises(Unreadable, match="undo goes back"):
        again.control(LOCK, "c3")
    assert again.tiles(LOCK)
    again.undo(LOCK, "c3")
    assert again.control(LOCK, "c3").control.name == "Log entry"


def test_a_locked_database_is_waited_for_and_then_said(kits, tmp_path, monkeypatch):
    other = sqlite3.connect(tmp_path / "kits.db", isolation_level=None)
    other.execute("BEGIN IMMEDIATE")
    monkeypatch.setattr("obrell.store.database.WAIT_MS", 50)
    kits._database.engine.dispose()
    with pytest.raises(StoreBusy, match="Another program is using"):
        editing.edit(kits, LOCK, "c1", move(1))
    assert kits.control(LOCK, "c1").control == wendmere_lock().controls[0]
    other.execute("ROLLBACK")
    other.close()
    assert editing.edit(kits, LOCK, "c1", move(1)).label
    assert WAIT_MS <= 5000


def test_a_database_that_is_moved_away_is_not_written_into(kits, tmp_path):
    (tmp_path / "kits.db").rename(tmp_path / "away.db")
    with pytest.raises(StoreGone, match="moved or removed"):
        editing.edit(kits, LOCK, "c1", move(1))
    assert kits.control(LOCK, "c1").control.name == "Raise sluice"
    (tmp_path / "away.db").rename(tmp_path / "kits.db")
    editing.edit(kits, LOCK, "c1", move(1))
    assert len(kits.history(LOCK, "c1").shown) == 1


def cut(path):
    path.write_bytes(path.read_bytes()[: path.stat().st_size // 2])


def later(path):
    with sqlite3.connect(path) as connection:
        connection.execute("UPDATE alembic_version SET version_num = '9999'")
    connection.close()


def foreign(path):
    path.unlink()
    with sqlite3.connect(path) as connection:
        connection.execute("CREATE TABLE fish (name TEXT)")
    connection.close()


def folder(path):
    path.unlink()
    path.mkdir()


@pytest.mark.parametrize(
    ("harm", "words"),
    [
        (cut, "is cut off"), (later, "later Obrell"), (foreign, "another program"), (folder, "is a folder"),
        (lambda path: path.write_bytes(b"fish" * 99), "is not a database"),
        (lambda path: path.write_bytes(path.read_bytes()[:4096] + os.urandom(path.stat().st_size - 4096)), "damaged"),
    ],
)  # fmt: skip
def test_a_file_that_cannot_be_opened_is_refused_in_words(tmp_path, harm, words):
    path = tmp_path / "kits.db"
    Kits(path).close()
    harm(path)
    before = path.read_bytes() if path.is_file() else b""
    with pytest.raises(StoreFailed, match=words):
        Database(path)
    assert (path.read_bytes() if path.is_file() else b"") == before


def test_a_backup_is_whole_while_others_write_and_the_file_is_whole_when_closed(kits, tmp_path):
    editing.edit(kits, LOCK, "c1", move(1))
    kits.backup(tmp_path / "copies" / "copy.db")
    editing.edit(kits, LOCK, "c1", move(1))
    copy = Kits(tmp_path / "copies" / "copy.db")
    assert len(copy.history(LOCK, "c1").shown) == 1
    with pytest.raises(StoreFailed, match="could not be written"):
        kits.backup(tmp_path / "kits.db" / "no")
    kits.close()
    assert not (tmp_path / "kits.db-wal").exists() or (tmp_path / "kits.db-wal").stat().st_size == 0
    assert issubclass(StoreDamaged, StoreFailed)


NOT_CONTROLS = (
    "kits",
    "controls",
    "alembic_version",
    "sqlite_schema",
    "sqlite_autoindex_documents_1",
    "sqlite_autoindex_kits_1",
    "sqlite_autoindex_controls_1",
    "sqlite_autoindex_alembic_version_1",
    "ix_controls_original",
)
"""What is needed to find any control at all."""


def test_a_damaged_page_closes_what_lies_on_it_and_nothing_else(tmp_path):
    """Every page of the file overwritten in turn: the Wall, the export and the history go on, with all controls but
    those that lie there, and what is said is about the damage."""
    kits = Kits(tmp_path / "sound.db")
    kits.import_kit(wendmere_lock())
    kits.close()
    whole, size = (tmp_path / "sound.db").read_bytes(), 4096
    with sqlite3.connect(tmp_path / "sound.db") as connection:
        pages = connection.execute("SELECT pageno, name, ncell FROM dbstat").fetchall()
    connection.close()
    hurt, words = 0, {}
    for page, owner, rows in pages:
        path = tmp_path / f"{page}.db"
        path.write_bytes(whole[: (page - 1) * size] + os.urandom(size) + whole[page * size :])
        try:
            kits = Kits(path)
            tiles, shelf, steps = kits.tiles(LOCK), kits.shelf(LOCK), kits.history(LOCK)
            exported = kits.export_kit(LOCK)
        except (StoreDamaged, Unreadable) as error:
            words[owner] = str(error)
            continue
        lost = {one.id for one in shelf if isinstance(one, Lost)}
        assert lost == {tile.id for tile in tiles if tile.words}
        assert len(tiles) == len(shelf) == 13
        assert len(exported.controls) == 13 - len(lost)
        assert len(lost) <= max(1, rows)
        assert owner != "ix_steps_scope" or steps.damaged
        hurt += len(lost)
        kits.close()
    assert hurt > 10
    assert all("damaged" in said for said in words.values())
    assert set(words) <= {*NOT_CONTROLS, "documents"}


def test_a_log_that_is_removed_is_noticed_and_nothing_that_was_saved_is_lost(kits, tmp_path):
    editing.edit(kits, LOCK, "c1", move(1))
    (tmp_path / "kits.db-wal").unlink()
    with pytest.raises(StoreGone, match=r"kits.db-wal .* was removed .* All that was saved is in the database"):
        editing.edit(kits, LOCK, "c1", move(1))
    assert "removed" in kits.trouble()
    assert len(kits.history(LOCK, "c1").shown) == 1
    # As after a kill: nothing is tidied up.
    (tmp_path / "copy.db").write_bytes((tmp_path / "kits.db").read_bytes())
    assert len(Kits(tmp_path / "copy.db").history(LOCK, "c1").shown) == 1
    with pytest.raises(StoreGone):
        editing.edit(kits, LOCK, "c1", move(1))


def test_a_log_that_is_replaced_leaves_a_copy_of_what_was_saved(kits, tmp_path):
    editing.edit(kits, LOCK, "c1", move(1))
    (tmp_path / "kits.db-wal").unlink()
    (tmp_path / "kits.db-wal").write_bytes(b"")
    with pytest.raises(StoreGone, match=r"in kits-rescued\.db, which is a copy"):
        editing.edit(kits, LOCK, "c1", move(1))
    assert len(Kits(tmp_path / "kits-rescued.db").history(LOCK, "c1").shown) == 1


def test_an_edit_whose_log_is_removed_while_it_is_saved_is_not_acknowledged(kits, tmp_path):
    with pytest.raises(StoreGone), kits._database.writing():
        (tmp_path / "kits.db-wal").unlink()


def test_a_full_disk_is_said_as_one(tmp_path, monkeypatch):
    monkeypatch.setattr("shutil.disk_usage", lambda path: SimpleNamespace(free=0))
    failed = sqlite3.OperationalError("unable to open database file")
    monkeypatch.setattr(Database, "_migrate", Mock(side_effect=OperationalError("", {}, failed)))
    with pytest.raises(StoreFull, match=r"the disk is full\. Make room"):
        Database(tmp_path / "kits.db")
    monkeypatch.setattr("shutil.disk_usage", lambda path: SimpleNamespace(free=10**9))
    with pytest.raises(StoreFailed, match="may not be written to"):
        Database(tmp_path / "kits.db")
    no_room = OSError(errno.ENOSPC, "No space left on device")
    monkeypatch.setattr("obrell.store.database.new_file", Mock(side_effect=no_room))
    with pytest.raises(StoreFull, match="the disk is full"):
        Database(tmp_path / "other.db")


def said_by_the_driver(code):
    error = sqlite3.OperationalError("disk I/O error")
    error.sqlite_errorcode = code
    return OperationalError("SELECT full, locked FROM readonly", {}, error)


@pytest.mark.parametrize(
    ("code", "kind", "words"),
    [
        (sqlite3.SQLITE_BUSY, StoreBusy, "Another program"),
        (sqlite3.SQLITE_BUSY_SNAPSHOT, StoreBusy, "Another program"),
        (sqlite3.SQLITE_FULL, StoreFull, "the disk is full"),
        (sqlite3.SQLITE_READONLY, StoreFailed, "may not be written to"),
        (sqlite3.SQLITE_CORRUPT, StoreDamaged, "damaged at this place"),
        (sqlite3.SQLITE_CORRUPT_INDEX, StoreDamaged, "damaged at this place"),
        (sqlite3.SQLITE_IOERR_WRITE, StoreFailed, "may not be written to"),
    ],
)  # fmt: skip
def test_what_the_driver_says_becomes_words_that_fit(tmp_path, code, kind, words):
    made = in_words(said_by_the_driver(code), tmp_path / "kits.db")
    assert type(made) is kind
    assert words in str(made)


def test_a_text_that_cannot_be_decoded_is_damage(tmp_path):
    said = sqlite3.OperationalError("Could not decode to UTF-8 column 'body' with text 'x'")
    assert type(in_words(OperationalError("", {}, said), tmp_path / "kits.db")) is StoreDamaged
