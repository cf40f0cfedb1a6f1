"""Panels of a kit are saved as they are made; each has a history of its own."""

import pytest

from obrell.app import trial
from obrell.app.trial import LastScreen, PieceSeen, ScreenRequest, look_at, opened
from obrell.core.edit.kits import panel_of
from obrell.core.edit.panels import read_panel_edit
from obrell.core.errors import NoSuchThing, Refused
from obrell.core.interchange.kit_file import kit_from, write_kit
from obrell.core.render.cache import PixelCache
from obrell.core.trial.conditions import Conditions
from obrell.samples.wendmere_lock import wendmere_lock
from obrell.store.kits import Kits, Sender

LOCK = "wendmere-lock"


@pytest.fixture
def kits(tmp_path):
    made = Kits(tmp_path / "kits.db")
    made.import_kit(wendmere_lock())
    yield made
    made.close()


def done(kits, panel, sender=None, **edit):
    read = read_panel_edit(edit)
    return (trial.change(kits, LOCK, panel, read, sender) if sender else trial.change(kits, LOCK, panel, read)).label


def places(kits, panel):
    return [(one.id, one.x, one.y) for one in panel_of(kits.index(LOCK), panel).placements]


def test_an_edit_is_saved_taken_back_and_done_again(kits):
    before = places(kits, "touch-panel")
    words = done(kits, "touch-panel", kind="move", placements=["i1"], dx=5, dy=0)
    assert words == "Moved “Raise sluice” by 5, 0"
    after = places(kits, "touch-panel")
    assert after[0] == ("i1", before[0][1] + 5, before[0][2])
    assert kits.undo(LOCK, panel="touch-panel").label == words
    assert places(kits, "touch-panel") == before
    kits.redo(LOCK, panel="touch-panel")
    assert places(kits, "touch-panel") == after
    assert kits.undo(LOCK, panel="phone-sheet") is None


def test_what_is_taken_back_on_one_panel_leaves_the_others(kits):
    done(kits, "touch-panel", kind="move", placements=["i1"], dx=5, dy=0)
    done(kits, "phone-sheet", kind="remove", placements=["i1"])
    kits.change_index(LOCK, lambda index: index.evolve(name="Other"), "Renamed")
    kits.undo(LOCK, panel="touch-panel")
    assert [one[0] for one in places(kits, "phone-sheet")] == ["i2", "i3"]
    assert kits.index(LOCK).name == "Other"
    assert places(kits, "touch-panel")[0][1] == 53
    done(kits, "phone-sheet", kind="move", placements=["i2"], dx=1, dy=0)
    kits.redo(LOCK, panel="touch-panel")
    assert places(kits, "touch-panel")[0][1] == 58


def test_what_is_sent_twice_is_done_once(kits):
    sender = Sender("window", "id-1")
    for _ in range(2):
        assert done(kits, "empty-screen", sender, kind="put", control="c1", x=10, y=10).startswith(
            "Put “Raise sluice”"
        )
    assert len(places(kits, "empty-screen")) == 1


def test_a_refused_edit_is_not_stored(kits):
    before = kits.index_hash(LOCK)
    with pytest.raises(Refused):
        done(kits, "touch-panel", kind="type", path="width", text="-4")
    assert kits.index_hash(LOCK) == before
    assert not kits.history(LOCK, panel="touch-panel").can_undo


def test_panels_are_added_copied_and_removed_with_the_kit(kits):
    new = trial.add(kits, LOCK, "form", " ")
    assert panel_of(kits.index(LOCK), new).name == "Form page"
    copy = trial.duplicate(kits, LOCK, "touch-panel")
    assert [one.id for one in kits.index(LOCK).panels][:2] == ["touch-panel", copy]
    assert places(kits, copy) == places(kits, "touch-panel")
    trial.remove(kits, LOCK, copy)
    with pytest.raises(NoSuchThing):
        opened(kits, LOCK, copy)
    kits.undo(LOCK)
    assert opened(kits, LOCK, copy).panel.name == "Touch panel copy"


def test_a_kit_file_has_its_panels(kits):
    there = kit_from(write_kit(kits.export_kit(LOCK)))
    assert there.panels == kits.index(LOCK).panels


def test_the_place_of_a_removed_control_stays_and_is_filled_again(kits):
    kits.remove_control(LOCK, "c3")
    here = opened(kits, LOCK, "touch-panel")
    assert "c3" not in here.stored
    place = next(one for one in here.panel.placements if one.control == "c3")
    done(kits, "touch-panel", kind="refill", placement=place.id, control="c7")
    assert "c7" in [one.control for one in opened(kits, LOCK, "touch-panel").panel.placements]


def test_only_what_changed_on_a_screen_is_sent_again_also_under_conditions(kits):
    last = LastScreen(PixelCache())
    far = Conditions(distance=2)
    first = look_at(kits, LOCK, "touch-panel", ScreenRequest(seq=1, density=1, conditions=far), last)
    assert first.pixels.shape == (600, 600, 3)
    assert look_at(kits, LOCK, "touch-panel", ScreenRequest(seq=2, density=1, conditions=far), last).box.empty
    pressed = ScreenRequest(seq=3, density=1, conditions=far, pieces=(PieceSeen(id="i1", state="pressed"),))
    part = look_at(kits, LOCK, "touch-panel", pressed, last)
    # The canvas of the key, and as far around it as the eye blurs.
    assert part.box.left >= 53 - 20
    assert part.box.right <= 53 + 212 + 20
    whole = look_at(kits, LOCK, "touch-panel", pressed, LastScreen(PixelCache()))
    made = first.pixels.copy()
    made[part.box.top : part.box.bottom, part.box.left : part.box.right] = part.pixels
    assert abs(made.astype(int) - whole.pixels).max() <= 1
