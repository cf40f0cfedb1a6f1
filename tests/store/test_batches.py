"""What is done to a kit and several of its controls together: one step, taken back whole wherever that is asked."""

import sqlite3

import pytest

from obrell.app import editing, swatches
from obrell.core.document.resolve import resolve
from obrell.core.document.swatch_uses import uses
from obrell.core.edit import read_edit
from obrell.core.edit.swatches import coloured, with_swatch
from obrell.samples.wendmere_lock import unlinked_lock
from obrell.store.kits import Changed, Kits, Plan

LOCK = "wendmere-lock"


@pytest.fixture
def kits(tmp_path):
    made = Kits(tmp_path / "kits.db")
    made.import_kit(unlinked_lock())
    made.change_index(LOCK, lambda index: with_swatch(index, "rush", "#7a8b3c")[0], "Added")
    for control in ("c1", "c5"):
        follow(kits=made, control=control)
    yield made
    made.close()


def set_to(kits, control, path, value):
    change = {"kind": "set", "changes": [{"path": path, "value": value}]}
    return editing.edit(kits, LOCK, control, read_edit(change)).now


def follow(kits, control, swatch="rush"):
    set_to(kits, control, "ground", {"kind": "solid", "colour": {"swatch": swatch, "tint": 20}})


def ground(kits, control):
    return kits.control(LOCK, control).control.ground.colour


def shown(kits, control):
    return resolve(kits.index(LOCK), kits.control(LOCK, control).control).control.ground.colour


def names(kits):
    return [swatch.id for swatch in kits.index(LOCK).swatches]


def test_tiles_know_what_their_controls_follow_without_reading_them(kits):
    assert {tile.id: tile.uses["rush"] for tile in kits.tiles(LOCK) if "rush" in tile.uses} == {"c1": 1, "c5": 1}
    for tile in kits.tiles(LOCK):
        assert tile.uses == uses(kits.control(LOCK, tile.id).control)
    kits.undo(LOCK, "c5")
    assert [tile.id for tile in kits.tiles(LOCK) if "rush" in tile.uses] == ["c1"]


def test_a_removed_swatch_leaves_its_colours_and_one_undo_brings_all_of_it_back(kits):
    before = [shown(kits, one) for one in ("c1", "c5")]
    swatches.remove(kits, LOCK, "rush")
    assert "rush" not in names(kits)
    assert [ground(kits, one) for one in ("c1", "c5")] == before
    step = kits.history(LOCK).shown[0]
    assert step.label == "Removed the swatch “rush”"
    assert kits.undo(LOCK).label == step.label
    assert "rush" in names(kits)
    assert ground(kits, "c1").swatch == ground(kits, "c5").swatch == "rush"
    kits.redo(LOCK)
    assert [ground(kits, one) for one in ("c1", "c5")] == before


def test_its_followers_follow_another_swatch_as_they_did(kits):
    swatches.remove(kits, LOCK, "rush", "brass")
    assert (ground(kits, "c1").swatch, ground(kits, "c1").tint) == ("brass", 20)


def test_taken_back_on_one_control_it_is_taken_back_on_all(kits):
    swatches.remove(kits, LOCK, "rush")
    step = kits.undo(LOCK, "c5")
    assert step.of_kit
    assert [led.control for led in step.led] == ["c1"]
    assert ground(kits, "c1").swatch == "rush"
    assert "rush" in names(kits)


def test_what_was_done_since_stays_when_it_is_taken_back(kits):
    swatches.remove(kits, LOCK, "rush")
    set_to(kits, "c1", "name", "Heave")
    kits.change_index(LOCK, lambda index: coloured(index, "tarn", "#224466"), "Another tarn")
    kits.undo(LOCK, "c5")
    assert kits.control(LOCK, "c1").control.name == "Heave"
    assert ground(kits, "c1").swatch == "rush"
    assert {one.id: one.colour for one in kits.index(LOCK).swatches}["tarn"] == "#224466"


def test_a_new_edit_of_one_of_them_ends_what_could_be_done_again(kits):
    swatches.remove(kits, LOCK, "rush")
    kits.undo(LOCK)
    set_to(kits, "c1", "name", "Heave")
    assert not kits.history(LOCK, "c5").can_redo
    assert not kits.history(LOCK).can_redo


@pytest.mark.parametrize("of_kit", [True, False])
def test_it_is_planned_anew_when_the_kit_or_a_control_has_changed_meanwhile(kits, of_kit):
    given = []

    def plan(index, controls):
        given.append((index.swatches[0].colour, controls[0].control.name))
        if len(given) == 1 and of_kit:
            kits.change_index(LOCK, lambda index: coloured(index, "tarn", "#224466"), "Another tarn")
        elif len(given) == 1:
            set_to(kits, "c1", "name", "Heave")
        changed = [Changed(one, "Still", one.control.evolve(stands="dark")) for one in controls[1:2]]
        return Plan("Still", index.evolve(name="Still"), changed)

    label, saved = kits.change_kit(LOCK, plan)
    assert (label, [one.control.id for one in saved]) == ("Still", [kits.controls(LOCK)[1].control.id])
    assert kits.index(LOCK).name == "Still"
    now = (kits.index(LOCK).swatches[0].colour, kits.control(LOCK, "c1").control.name)
    assert given == [given[0], now]
    assert now != given[0]
    assert [step.label for step in kits.history(LOCK).shown].count("Still") == 1


def test_swatches_of_an_earlier_database_are_counted(tmp_path, kits):
    with sqlite3.connect(tmp_path / "kits.db") as connection:
        now = dict(connection.execute("SELECT id, swatches FROM controls"))
        connection.execute("DROP INDEX ix_steps_batch")
        connection.execute("DROP TABLE file_uses")
        for table, name in (("controls", "swatches"), ("steps", "batch"), ("steps", "panel")):
            connection.execute(f"ALTER TABLE {table} DROP COLUMN {name}")
        connection.execute("UPDATE alembic_version SET version_num = '0005'")
    connection.close()
    kits.close()
    again = Kits(tmp_path / "kits.db")
    with sqlite3.connect(tmp_path / "kits.db") as connection:
        assert dict(connection.execute("SELECT id, swatches FROM controls")) == now
    connection.close()
    again.close()
