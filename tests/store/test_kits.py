"""The store: every edit saved with its history, undone and redone to the same bytes."""

import sqlite3

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from obrell.app import editing
from obrell.core.document.model import Canvas
from obrell.core.edit import read_edit
from obrell.core.errors import NoSuchThing
from obrell.samples.wendmere_lock import wendmere_lock
from obrell.store.failures import StoreFailed
from obrell.store.kits import Kits

LOCK = "wendmere-lock"


def set_blur(value):
    return read_edit({"kind": "set", "changes": [{"path": "parts/p1/effects/e1/blur", "value": value}]})


def test_a_kit_comes_out_as_it_went_in(kits):
    assert kits.export_kit(LOCK) == wendmere_lock()
    assert kits.import_kit(wendmere_lock()) == "wendmere-lock-2"


EDITS = st.sampled_from([
    {"kind": "set", "changes": [{"path": "parts/p1/effects/e1/blur", "value": 3}]},
    {"kind": "move", "parts": ["p1", "p2"], "dx": 2, "dy": -1},
    {"kind": "draw", "shape": "round", "x0": 1, "y0": 1, "x1": 30, "y1": 20},
    {"kind": "duplicate", "parts": ["p2"]},
    {"kind": "add-effect", "part": "p1", "effect": "outline"},
    {"kind": "reverse-stops", "path": "parts/p1/effects/e3/fill"},
    {"kind": "canvas-edges", "left": 3, "bottom": 2},
    {"kind": "group", "parts": ["p2", "p3"]},
    {"kind": "combine", "parts": ["p2", "p4"], "mode": "difference"},
    {"kind": "repeat", "parts": ["p5"], "way": "around"},
    {"kind": "reorder", "part": "p1", "to": "p5"},
])  # fmt: skip


@settings(max_examples=15)
@given(edits=st.lists(EDITS, min_size=1, max_size=6))
def test_any_edits_undone_give_the_same_bytes_and_redone_too(edits, tmp_path_factory):
    kits = Kits(tmp_path_factory.mktemp("db") / "kits.db")
    kits.import_kit(wendmere_lock())
    hashes = [kits.control(LOCK, "c1").hash]
    for edit in edits:
        hashes.append(editing.edit(kits, LOCK, "c1", read_edit(edit)).now.hash)
    steps = len(kits.history(LOCK, "c1").shown)
    seen = [hashes[-1]]
    while kits.undo(LOCK, "c1"):
        seen.append(kits.control(LOCK, "c1").hash)
    assert len(seen) == steps + 1
    assert seen[-1] == hashes[0]
    while kits.redo(LOCK, "c1"):
        seen.pop()
        assert kits.control(LOCK, "c1").hash == seen[-1]
    assert kits.control(LOCK, "c1").hash == hashes[-1]


def test_history_survives_a_restart(kits, tmp_path):
    editing.edit(kits, LOCK, "c1", set_blur(3))
    again = Kits(tmp_path / "kits.db")
    step = again.undo(LOCK, "c1")
    assert step.label == "Blur of drop shadow 2 on Collar: 12 px → 3 px"
    assert again.control(LOCK, "c1").control == wendmere_lock().controls[0]


def test_a_later_edit_is_applied_to_the_newest_version(kits):
    editing.edit(kits, LOCK, "c1", set_blur(3))
    move = read_edit({"kind": "move", "parts": ["p2"], "dx": 5, "dy": 0})
    merged = editing.edit(kits, LOCK, "c1", move).now.control
    assert merged.parts[0].effects[0].blur == 3
    assert merged.parts[1].x == wendmere_lock().controls[0].parts[1].x + 5


def test_a_new_edit_ends_what_could_be_redone(kits):
    editing.edit(kits, LOCK, "c1", set_blur(3))
    kits.undo(LOCK, "c1")
    editing.edit(kits, LOCK, "c1", set_blur(5))
    assert kits.redo(LOCK, "c1") is None
    assert len(kits.history(LOCK, "c1").shown) == 1


def test_an_edit_that_changes_nothing_is_no_step(kits):
    before = kits.control(LOCK, "c1")
    assert editing.edit(kits, LOCK, "c1", set_blur(12)).now == before
    assert kits.history(LOCK).shown == ()


def test_the_wall_takes_back_the_newest_step_of_all(kits):
    new = kits.add_control(LOCK, "Horn", Canvas(width=100, height=100))
    editing.edit(kits, LOCK, "c2", read_edit({"kind": "set", "changes": [{"path": "name", "value": "Lamp"}]}))
    kits.remove_control(LOCK, "c1")
    with pytest.raises(NoSuchThing, match="Undo on the Wall"):
        editing.edit(kits, LOCK, "c1", set_blur(3))
    assert kits.undo(LOCK).label == "Removed control “Raise sluice”"
    assert kits.index(LOCK).order == (*(control.id for control in wendmere_lock().controls), new)
    kits.undo(LOCK)
    assert kits.control(LOCK, "c2").control.name == "Pilot lamp"
    kits.undo(LOCK)
    assert kits.undo(LOCK) is None
    assert [kits.redo(LOCK).label for _ in range(3)][-1] == "Removed control “Raise sluice”"


def test_controls_are_copied_and_reordered(kits):
    copy = kits.duplicate_control(LOCK, "c2")
    kits.move_control(LOCK, copy, 0)
    assert kits.controls(LOCK)[0].control.name == "Pilot lamp copy"
    kits.move_control(LOCK, copy, 99)
    assert kits.index(LOCK).order[-1] == copy


def test_a_removed_kit_can_be_brought_back(kits):
    kits.set_removed(LOCK, True)
    with pytest.raises(NoSuchThing):
        kits.index(LOCK)
    kits.set_removed(LOCK, False)
    assert kits.export_kit(LOCK) == wendmere_lock()


def test_a_full_disk_is_said_in_words_and_nothing_is_lost(kits, tmp_path, monkeypatch):
    with kits._database.engine.connect() as connection:
        pages = connection.exec_driver_sql("PRAGMA page_count").scalar()
    before = kits.export_kit(LOCK)
    from sqlalchemy import event

    event.listen(kits._database.engine, "connect", lambda c, _: c.execute(f"PRAGMA max_page_count={pages}"))
    kits._database.engine.dispose()
    with pytest.raises(StoreFailed, match="disk is full"):
        for count in range(400):
            editing.edit(kits, LOCK, "c1", set_blur(1 + count / 100))
    assert kits.export_kit(LOCK).controls[1:] == before.controls[1:]
    assert sqlite3.connect(tmp_path / "kits.db").execute("PRAGMA integrity_check").fetchone() == ("ok",)


def test_the_migrations_make_the_tables_that_the_models_describe(kits):
    from alembic.autogenerate import compare_metadata
    from alembic.migration import MigrationContext

    from obrell.store.tables import Base

    with kits._database.engine.connect() as connection:
        assert compare_metadata(MigrationContext.configure(connection), Base.metadata) == []
