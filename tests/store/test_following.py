"""Copies that follow their original, in the store: with every edit, taken back and done again, and named when they
could not."""

import sqlite3

from hypothesis import given, settings
from hypothesis import strategies as st

from obrell.app import copying, editing
from obrell.core.edit import read_edit
from obrell.core.edit.variants import Variant
from obrell.samples.wendmere_lock import wendmere_lock
from obrell.store.kits import Kits

LOCK = "wendmere-lock"


def copy(kits, of="c1", name="Copy"):
    (new,) = copying.copies(kits, LOCK, of, [Variant(name=name)], follow=True)
    return new


def set_to(kits, control, path, value):
    change = {"kind": "set", "changes": [{"path": path, "value": value}]}
    return editing.edit(kits, LOCK, control, read_edit(change)).now


def x_of(kits, control):
    return next(part.x for part in kits.control(LOCK, control).control.parts if part.id == "p2")


def test_copies_and_their_copies_follow_every_edit_and_what_is_taken_back(kits):
    first = copy(kits)
    second, plain = copy(kits, first), kits.duplicate_control(LOCK, "c2")
    start, still = x_of(kits, "c1"), x_of(kits, plain)
    led = set_to(kits, "c1", "parts/p2/x", 77).led
    assert [one.control for one in led] == [first, second]
    assert [x_of(kits, one) for one in ("c1", first, second, plain)] == [77, 77, 77, still]
    assert kits.history(LOCK, second).shown[0].label.startswith("Followed “Raise sluice”: Place across of")
    assert [one.control for one in kits.undo(LOCK, "c1").led] == [first, second]
    assert [x_of(kits, one) for one in ("c1", first, second)] == [start] * 3
    kits.redo(LOCK, "c1")
    assert [x_of(kits, one) for one in ("c1", first, second)] == [77] * 3


def test_one_press_on_the_wall_takes_an_edit_back_everywhere(kits):
    first, start = copy(kits), x_of(kits, "c1")
    set_to(kits, "c1", "parts/p2/x", 77)
    assert kits.history(LOCK).shown[0].control == "c1"
    assert kits.undo(LOCK).control == "c1"
    assert x_of(kits, first) == x_of(kits, "c1") == start


def test_what_a_copy_takes_back_is_its_own_and_stays(kits):
    first, start = copy(kits), x_of(kits, "c1")
    set_to(kits, "c1", "parts/p2/x", 77)
    kits.undo(LOCK, first)
    assert (x_of(kits, first), x_of(kits, "c1")) == (start, 77)
    set_to(kits, "c1", "parts/p2/x", 80)
    assert x_of(kits, first) == start


def test_a_copy_that_stops_or_cannot_follow_stays_as_it_is_and_is_named(kits):
    first, second = copy(kits), copy(kits, name="Other")
    editing.edit(kits, LOCK, first, read_edit({"kind": "leave-original"}))
    start = x_of(kits, first)
    grouped = editing.edit(kits, LOCK, "c1", read_edit({"kind": "group", "parts": ["p2", "p3"]}))
    group = next(part.id for part in grouped.after.parts if part.shape.kind == "group")
    drawn = editing.edit(kits, LOCK, second, read_edit({"kind": "duplicate", "parts": ["p2"]}))
    assert any(part.within == group and part.id not in ("p2", "p3") for part in drawn.after.parts)
    before = kits.control(LOCK, second)
    led = editing.edit(kits, LOCK, "c1", read_edit({"kind": "take-apart", "part": group})).now.led
    assert [(one.control, "Other could not follow" in one.words) for one in led] == [(second, True)]
    assert kits.control(LOCK, second) == before
    assert x_of(kits, first) == start
    kits.undo(LOCK, first)
    set_to(kits, "c1", "parts/p2/x", 12)
    assert x_of(kits, first) == 12, "taken back, it follows again"


def test_kin_and_tiles_say_what_follows_what(kits):
    first = copy(kits)
    second = copy(kits, first, "Second")
    kin = kits.kin(LOCK, kits.control(LOCK, first).control)
    assert (kin.original, kin.copies, kin.gone) == (("c1", "Raise sluice"), ((second, "Second"),), False)
    told = {tile.id: tile.original for tile in kits.tiles(LOCK) if tile.original}
    assert told == {first: "Raise sluice", second: "Copy"}
    kits.remove_control(LOCK, "c1")
    kin = kits.kin(LOCK, kits.control(LOCK, first).control)
    assert (kin.original, kin.gone) == (None, True)
    assert {tile.id: tile.original for tile in kits.tiles(LOCK) if tile.original} == {second: "Copy"}
    again = kits.import_kit(kits.export_kit(LOCK))
    assert kits.kin(again, kits.control(again, second).control).original == (first, "Copy")


def test_an_edit_that_changes_nothing_is_no_step_though_its_text_was_written_by_an_earlier_form(kits, tmp_path):
    steps = len(kits.history(LOCK, "c1").shown)
    with sqlite3.connect(tmp_path / "kits.db") as connection:
        connection.execute("UPDATE documents SET body = replace(body, '\"original\":null,', '')")
    other = Kits(tmp_path / "kits.db")
    set_to(other, "c1", "parts/p2/x", x_of(other, "c1"))
    assert len(other.history(LOCK, "c1").shown) == steps
    other.close()


def test_controls_of_a_file_that_follow_each_other_in_a_circle_come_to_an_end(kits):
    one = wendmere_lock().controls[0]
    circle = (one.evolve(original="c99"), one.evolve(id="c99", original="c1"), one.evolve(id="c98", original="c98"))
    kit = kits.import_kit(wendmere_lock().evolve(controls=circle))
    change = read_edit({"kind": "set", "changes": [{"path": "parts/p2/x", "value": 5}]})
    assert [led.control for led in editing.edit(kits, kit, "c1", change).now.led] == ["c99"]
    assert editing.edit(kits, kit, "c98", change).now.led == ()
    assert {stored.control.parts[1].x for stored in kits.controls(kit)} == {5}


def test_what_was_taken_back_in_a_copy_is_done_again_after_its_original_was_stepped_too(kits):
    first = copy(kits)
    set_to(kits, "c1", "parts/p2/x", 77)
    set_to(kits, first, "parts/p1/x", 33)
    whole = {one: kits.control(LOCK, one).control for one in ("c1", first)}
    for way in (kits.undo, kits.undo, kits.redo, kits.redo):
        assert way(LOCK) is not None
    assert {one: kits.control(LOCK, one).control for one in whole} == whole


def test_a_step_is_done_again_on_top_of_what_the_original_became_meanwhile(kits):
    first = copy(kits)
    set_to(kits, first, "parts/p1/x", 33)
    kits.undo(LOCK, first)
    set_to(kits, "c1", "parts/p2/x", 80)
    assert kits.redo(LOCK, first).label.startswith("Place across of")
    assert [part.x for part in kits.control(LOCK, first).control.parts[:2]] == [33, 80]
    kits.undo(LOCK)
    assert x_of(kits, first) == x_of(kits, "c1") != 80


OPS = st.lists(
    st.tuples(st.sampled_from(["edit", "undo", "redo"]), st.sampled_from(["c1", "copy", ""]), st.integers(0, 9)),
    max_size=10,
)


@settings(max_examples=25)
@given(ops=OPS)
def test_whatever_is_done_in_whichever_order_all_taken_back_on_the_wall_is_the_beginning(ops, tmp_path_factory):
    """An original and a copy are edited at places of their own, and stepped by themselves and on the Wall."""
    kits = Kits(tmp_path_factory.mktemp("db") / "kits.db")
    kits.import_kit(wendmere_lock())
    (name,) = copying.copies(kits, LOCK, "c1", [Variant(name="Copy")], follow=True)
    start = [kits.control(LOCK, one).control for one in ("c1", name)]
    for what, where, value in ops:
        control = {"c1": "c1", "copy": name, "": ""}[where]
        if what == "edit" and control:
            set_to(kits, control, f"parts/{'p2' if control == 'c1' else 'p1'}/x", 40 + value)
        elif what != "edit" and control != name:
            (kits.undo if what == "undo" else kits.redo)(LOCK, control)
    assert x_of(kits, name) == x_of(kits, "c1"), "what is not its own follows"
    while any(not step.undone and step.control for step in kits.history(LOCK).shown):
        kits.undo(LOCK)
    assert [kits.control(LOCK, one).control for one in ("c1", name)] == start
    kits.close()
