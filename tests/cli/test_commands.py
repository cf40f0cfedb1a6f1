"""The command line gives the same files as the interface, byte for byte."""

import json

import pytest
from typer.testing import CliRunner

from obrell.cli.main import app
from obrell.core.deliver.bundle import make
from obrell.core.deliver.order import Order
from obrell.core.deliver.plan import plan
from obrell.core.errors import ObrellError
from obrell.core.interchange.kit_file import write_kit
from obrell.samples.wendmere_lock import wendmere_lock
from obrell.store.kits import Kits


@pytest.fixture
def run(tmp_path):
    data = tmp_path / "kits.db"
    Kits(data).import_kit(wendmere_lock())

    def call(*words):
        result = CliRunner().invoke(app, [*words, "--data", str(data)], catch_exceptions=False)
        assert result.exit_code == 0, result.output
        return result.stdout

    return call


def test_a_delivery_has_the_bytes_of_the_plan(run, tmp_path):
    run("deliver", "Wendmere Lock", "--out", str(tmp_path / "out"), "--density", "1", "--density", "2")
    kit = wendmere_lock()
    files = plan(kit, kit.controls, Order(densities=(1.0, 2.0))).files
    for file in files:
        assert (tmp_path / "out" / file.name).read_bytes() == make(file)
    listed = json.loads((tmp_path / "out" / "manifest.json").read_text())["files"]
    assert [entry["name"] for entry in listed] == [file.name for file in files]


def test_one_control_is_rendered_as_it_is_delivered(run, tmp_path):
    kit = wendmere_lock()
    lamp = tuple(control for control in kit.controls if control.name == "Pilot lamp")
    files = {f.format: f for f in plan(kit, lamp, Order(densities=(3.0,))).files}
    for form, density in (("png", "3"), ("svg", "3")):
        out = tmp_path / f"lamp.{form}"
        run("render", "wendmere-lock", "Pilot lamp", "--density", density, "--out", str(out))
        assert out.read_bytes() == make(files[form])


def test_kits_go_out_and_come_back(run, tmp_path):
    file = tmp_path / "kit.json"
    run("kit", "export", "wendmere-lock", str(file))
    assert file.read_bytes() == write_kit(wendmere_lock())
    assert run("kit", "import", str(file)).strip() == "wendmere-lock-2"


def test_the_schema_is_json():
    assert json.loads(CliRunner().invoke(app, ["schema"]).stdout)["title"] == "Kit"


def test_what_does_not_exist_is_said_in_words(run):
    with pytest.raises(ObrellError, match="There is no kit “Nowhere”"):
        run("deliver", "Nowhere", "--out", "x")
