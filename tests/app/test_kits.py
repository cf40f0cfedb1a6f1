"""Kits that come from outside are held to the rules of edits, and what was stored before them takes nothing along."""

import math

import pytest
from starlette.testclient import TestClient
from typer.testing import CliRunner

from obrell.app.checking import check
from obrell.app.trial import opened
from obrell.cli.main import app as cli
from obrell.core.document.model import Control
from obrell.core.document.states import in_state
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.edit.admission import check_drawable
from obrell.core.errors import BadDocument, Refused
from obrell.core.interchange.kit_file import write_kit
from obrell.core.shapes import Box
from obrell.core.trial.kits import read_kit
from obrell.core.values.panels import Panel, Placement
from obrell.core.values.touches import TouchesOutline
from obrell.samples.wendmere_lock import wendmere_lock
from obrell.store.kits import Kits
from obrell.web.app import create_app
from tests.making import control, kit, part, solid

WHOLE = write_kit(wendmere_lock())


def star(points: int) -> str:
    """An outline whose edges all cross each other."""
    at = [(40 + 30 * math.cos(2.9 * n), 30 + 25 * math.sin(2.9 * n)) for n in range(points)]
    return "M" + " ".join(f"{x:.1f} {y:.1f}" for x, y in at) + "Z"


def starred() -> Control:
    """A control with a touch area that no edit could have given it."""
    return control(part(Box(), solid("#20303a"))).evolve(name="Star", touch=TouchesOutline(data=star(3500), by=4))


def test_a_kit_file_is_held_to_the_rules_of_edits():
    with pytest.raises(Refused, match="cannot be drawn"):
        check_drawable(kit(), starred())
    with pytest.raises(BadDocument, match="The control “Star” of this kit cannot be drawn"):
        read_kit(write_kit(kit(control().evolve(id="c2"), starred())))


def test_a_kit_file_is_not_read_again_to_be_stored(tmp_path):
    kits = Kits(tmp_path / "kits.db")
    new = kits.import_texts(read_kit(WHOLE))
    assert kits.export_kit(new) == wendmere_lock()
    other = Kits(tmp_path / "other.db")
    other.import_kit(wendmere_lock())
    assert kits.tiles(new) == other.tiles(new)
    assert kits.index_hash(new) == other.index_hash(new)


def test_a_panel_goes_on_without_what_cannot_be_shown(tmp_path):
    kits = Kits(tmp_path / "kits.db")
    places = tuple(Placement(id=f"i{n}", control=f"c{n}") for n in (1, 2, 3))
    fine = control(part(Box(), solid("#20303a"))).evolve(id="c2")
    kits.import_kit(kit(starred(), fine).evolve(panels=(Panel(id="panel", name="Panel", placements=places),)))
    here = opened(kits, "test-kit", "panel")
    assert list(here.stored) == ["c2"]
    assert list(here.broken) == ["c1"]
    assert here.broken["c1"].startswith("“Star” cannot be shown.")
    found = list(check(here.index.settings(), [one.control for one in kits.controls("test-kit")]))
    assert [(one.name, finding.severity) for one, finding in found if finding.kind == "undrawable"] == [
        ("Star", "wrong")
    ]
    client = TestClient(create_app(tmp_path / "kits.db"), base_url="http://127.0.0.1:8420")
    page = client.get("/kits/test-kit/trial/panel")
    assert page.status_code == 200
    assert "“Star” cannot be shown." in page.text
    assert "1 place on this panel" in " ".join(page.text.split())
    assert client.get("/kits/test-kit/trial/panel/page.html").status_code == 200
    ran = CliRunner().invoke(cli, ["check", "test-kit", "--data", str(tmp_path / "kits.db")])
    assert ran.exit_code == 1
    assert "Star:" in ran.stdout


def test_a_look_made_of_states_with_long_names_is_drawn():
    names = ("Held down by the keeper of the upper lock", "Lit by the lamps along the towing path there")
    made = control(part(Box(), solid("#20303a")))
    for name in names:
        made = applied(read_edit({"kind": "add-state", "name": name}), made, Surroundings())
    both = "+".join(state.id for state in made.states)
    assert len(" + ".join(names)) > 80
    assert in_state(made, both).parts == made.parts
