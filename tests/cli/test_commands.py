"""The command line gives the same files as the interface, byte for byte."""

import gc
import json
import os
import signal
import sqlite3
import subprocess
import sys
import tempfile
from pathlib import Path

import pytest
from PIL import Image
from typer.testing import CliRunner

from obrell.app import editing
from obrell.cli.main import app
from obrell.cli.starting import uncollected
from obrell.core.deliver.bundle import make
from obrell.core.deliver.order import Order
from obrell.core.deliver.plan import plan
from obrell.core.disk.scratch import MARKER, PREFIX
from obrell.core.document.editions import in_editions
from obrell.core.document.model import Canvas
from obrell.core.document.resolve import resolve
from obrell.core.document.transitions import moment
from obrell.core.edit import read_edit
from obrell.core.errors import ObrellError
from obrell.core.interchange.kit_file import write_kit
from obrell.core.interchange.palettes.tokens import tokens
from obrell.core.raster.png import encode
from obrell.core.render.between import draw_between
from obrell.core.render.compose import Frame, canvas_box
from obrell.core.render.picture import picture
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


def test_colourways_are_delivered_and_rendered_by_their_names(run, tmp_path):
    chosen = ("--control", "Raise sluice", "--density", "2", "--format", "png", "--state", "rest")
    run(
        "deliver", "wendmere-lock", "--out", str(tmp_path), *chosen, "--colourway", "Day", "--colourway", "Night watch"
    )
    kit = wendmere_lock()
    order = Order(controls=("c1",), densities=(2.0,), formats=("png",), colourways=("day", "night-watch"),
                  states=("rest",))  # fmt: skip
    day, night = plan(kit, kit.controls, order).files
    assert [day.name, night.name] == [
        f"wendmere-lock/raise-sluice.{way}.rest.2.png" for way in ("day", "night-watch")
    ]  # fmt: skip
    assert (tmp_path / night.name).read_bytes() == make(night) != make(day) == (tmp_path / day.name).read_bytes()
    listed = json.loads((tmp_path / "manifest.json").read_text())["files"]
    assert [entry["colourway"] for entry in listed] == ["day", "night-watch"]
    alone = order.evolve(colourways=("night-watch",))
    assert plan(kit, kit.controls, alone).files[0].name == "wendmere-lock/raise-sluice.night-watch.rest.2.png"
    out = tmp_path / "night.png"
    run("render", "wendmere-lock", "c1", "--density", "2", "--colourway", "night-watch", "--out", str(out))
    assert out.read_bytes() == make(night)


def test_states_are_delivered_and_rendered_by_their_names(run, tmp_path):
    kits = Kits(tmp_path / "kits.db")
    editing.edit(kits, "wendmere-lock", "c1", read_edit({"kind": "add-state", "name": "On"}))
    for name in ("Hover", "On"):
        fade = {"kind": "set", "changes": [{"path": f"parts/p{2 if name == 'On' else 3}/opacity", "value": 0.5}]}
        edit = {"kind": "in-states", "states": [name.lower()], "edit": fade}
        editing.edit(kits, "wendmere-lock", "c1", read_edit(edit))
    chosen = ("--control", "Raise sluice", "--density", "1", "--format", "png")
    run("deliver", "wendmere-lock", "--out", str(tmp_path / "out"), *chosen, "--state", "Hover", "--state", "rest")
    folder = tmp_path / "out" / "wendmere-lock"
    assert sorted(file.name for file in folder.iterdir()) == ["raise-sluice.hover.1.png", "raise-sluice.rest.1.png"]
    out = tmp_path / "one.png"
    run("render", "wendmere-lock", "Raise sluice", "--out", str(out), "--state", "hover")
    assert out.read_bytes() == (folder / "raise-sluice.hover.1.png").read_bytes()
    run("render", "wendmere-lock", "Raise sluice", "--out", str(out), "--state", "On + hover")
    both = resolve(wendmere_lock(), kits.control("wendmere-lock", "c1").control, "on+hover")
    assert out.read_bytes() == encode(picture(both, 1.0))


def test_swatches_are_written_edited_elsewhere_and_read_again(run, tmp_path):
    out = tmp_path / "tokens.json"
    assert "8 swatches" in run("swatches", "write", "Wendmere Lock", str(out))
    assert out.read_text() == tokens(wendmere_lock().settings())
    out.write_text(out.read_text().replace("#1f8a92", "#a05020"))
    assert "Brought in 8 swatches" in run("swatches", "read", "wendmere-lock", str(out))
    run("swatches", "write", "wendmere-lock", str(tmp_path / "kit.css"))
    assert "--tarn: #a05020;" in (tmp_path / "kit.css").read_text()


def test_one_control_is_rendered_as_it_is_delivered(run, tmp_path):
    kit = wendmere_lock()
    lamp = tuple(control for control in kit.controls if control.name == "Pilot lamp")
    files = {
        (f.size, f.format.kind): f for f in plan(kit, lamp, Order(densities=(3.0,), states=("rest",))).files
    }  # fmt: skip
    for size, form in (("Regular", "png"), ("Regular", "svg"), ("small", "png"), ("Small", "svg")):
        out = tmp_path / f"lamp.{form}"
        run("render", "wendmere-lock", "Pilot lamp", "--density", "3", "--size", size, "--out", str(out))
        assert out.read_bytes() == make(files[size.lower(), form])


def test_sizes_and_art_for_a_density_are_delivered_by_their_names(run, tmp_path):
    chosen = ("--format", "png", "--state", "rest", "--density", "1", "--density", "2")
    run("deliver", "wendmere-lock", "--control", "Pilot lamp", "--size", "Small", *chosen, "--out", str(tmp_path))
    named = sorted(file.name for file in (tmp_path / "wendmere-lock").iterdir())
    assert named == ["pilot-lamp.small.rest.1.png", "pilot-lamp.small.rest.2.png"]
    assert Image.open(tmp_path / "wendmere-lock" / named[1]).size == (72, 72)
    horn = next(one for one in wendmere_lock().controls if one.name == "Horn")
    for density, art in ((1.0, ("at-1x",)), (2.0, ())):
        out = tmp_path / "horn.png"
        run("render", "wendmere-lock", "Horn", "--density", str(density), "--out", str(out))
        shown = resolve(wendmere_lock(), in_editions(horn, art))
        assert out.read_bytes() == encode(picture(shown, density), density)
    with pytest.raises(ObrellError, match="“Horn” has no size “Small”"):
        run("render", "wendmere-lock", "Horn", "--size", "Small", "--out", str(tmp_path / "x.png"))
    with pytest.raises(ObrellError, match="No control of this kit has a size “Huge”"):
        run("deliver", "wendmere-lock", "--size", "Huge", "--out", str(tmp_path))


def test_frames_of_a_part_of_a_reading_are_delivered(run, tmp_path):
    run("deliver", "wendmere-lock", "--control", "Water level", "--format", "png", "--density", "1", "--frames", "3",
        "--stretch", "level=20..60", "--out", str(tmp_path))  # fmt: skip
    told = json.loads((tmp_path / "manifest.json").read_text())["files"]
    assert [one["readings"] for one in told if one["state"] == "rest"] == [{"level": 20}, {"level": 40}, {"level": 60}]
    with pytest.raises(ObrellError, match="no part of a reading"):
        run("deliver", "wendmere-lock", "--stretch", "level=20", "--out", str(tmp_path))


def test_a_moment_between_two_states_is_rendered(run, tmp_path):
    kit = wendmere_lock()
    lamp = next(one for one in kit.controls if one.name == "Pilot lamp")
    way = ("render", "wendmere-lock", "Pilot lamp", "--came", "rest", "--state", "On")
    for after, where in ((0, "rest"), (130, ""), (260, "on")):
        out = tmp_path / "lamp.png"
        run(*way, "--after", str(after), "--out", str(out))
        there = moment(kit, lamp, "rest", "on", after)
        frame = Frame(1.0, canvas_box(there.first, 1.0))
        assert out.read_bytes() == encode(draw_between(there, frame))
        assert not where or out.read_bytes() == encode(picture(resolve(kit, lamp, where), 1.0))
    with pytest.raises(ObrellError, match="only a picture can show"):
        run(*way, "--after", "130", "--out", str(tmp_path / "lamp.svg"))
    run(*way, "--after", "900", "--out", str(tmp_path / "lamp.svg"))
    with pytest.raises(ObrellError, match="no state “floating”"):
        run(*way[:3], "--came", "floating", "--out", str(tmp_path / "lamp.png"))


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


@pytest.mark.parametrize(
    ("arguments", "words"),
    [
        (["render", "wendmere-lock", "c1", "--out", "lamp.jpg"], ".png or .svg"),
        (["render", "wendmere-lock", "c1", "--out", "lamp.png", "--density", "nan"], "is not a number"),
        (["render", "wendmere-lock", "c1", "--out", "lamp.png", "--density", "0"], "0.25 or more"),
        (["render", "wendmere-lock", "c1", "--out", "/dev/full/lamp.png"], "/dev/full"),
        (["render", "wendmere-lock", "none", "--out", "lamp.png"], "no control"),
        (["deliver", "wendmere-lock", "--out", "files", "--density", "nan"], "is not a number"),
        (["deliver", "wendmere-lock", "--out", "files", "--density", "1e308"], "is not a number"),
        (["deliver", "wendmere-lock", "--out", "files", "--density", "99999999"], "8 or less"),
        (["deliver", "wendmere-lock", "--out", "files", "--frames", "1.5"], "is not a whole number"),
        (["render", "wendmere-lock", "c1", "--out", "lamp.png", "--came", "rest", "--after", "nan"], "not a number"),
        (["render", "wendmere-lock", "c1", "--out", "lamp.png", "--came", "rest", "--after", "-1"], "less than 0 ms"),
        (["serve", "--port", "abc"], "is not a number"),
        (["deliver", "wendmere-lock", "--out", "files", "--pattern", "...{density}/{control}"], "no name of its own"),
        (["deliver", "wendmere-lock", "--out", "/proc/files"], "/proc/files"),
        (["kit", "export", "wendmere-lock", "/proc/kit.json"], "/proc/kit.json"),
        (["serve", "--port", "99999"], "There is no port 99999"),
        (["backup", "/proc/copy.db"], "could not be written"),
        (["check", "wendmere-lock", "--control", "none"], "no control"),
    ],
    ids=lambda value: " ".join(value)[:40] if isinstance(value, list) else "",
)  # fmt: skip
def test_what_cannot_be_done_is_said_and_no_traceback_is_shown(data, tmp_path, arguments, words):
    done = command(data, tmp_path, *arguments)
    assert done.returncode != 0
    assert "Traceback" not in done.stderr
    assert "Input should" not in done.stderr
    assert words in " ".join(done.stderr.replace("│", " ").split())
    assert not list(tmp_path.rglob("*.part"))
    assert not list(tmp_path.rglob(".*.part"))


def harmed(data, harm):
    if harm == "folder":
        data.unlink()
        data.mkdir()
    elif harm == "cut":
        data.write_bytes(data.read_bytes()[:9000])
    else:
        data.write_text("fish")


@pytest.mark.parametrize(
    ("harm", "words"), [("folder", "is a folder"), ("cut", "is cut off"), ("none", "is not a database")]
)
def test_a_database_that_is_none_is_refused_in_words(data, tmp_path, harm, words):
    harmed(data, harm)
    done = command(data, tmp_path, "render", "wendmere-lock", "c1", "--out", "lamp.png")
    assert done.returncode == 1
    assert "Traceback" not in done.stderr
    assert "Input should" not in done.stderr
    assert words in " ".join(done.stderr.split())


def test_one_damaged_control_does_not_keep_the_others_from_being_delivered(data, tmp_path):
    with sqlite3.connect(data) as connection:
        changed = "UPDATE documents SET body = '{}' WHERE hash = (SELECT head FROM controls WHERE id = 'c3')"
        connection.execute(changed)
    connection.close()
    done = command(data, tmp_path, "deliver", "wendmere-lock", "--out", "files", "--density", "1", "--format", "png",
                   "--state", "rest")  # fmt: skip
    assert done.returncode == 1
    assert "Left out" in done.stderr
    assert len(list((tmp_path / "files").rglob("*.png"))) == 14
    assert "left_out" in (tmp_path / "files" / "manifest.json").read_text()


def test_a_server_that_is_told_to_end_leaves_one_whole_file_and_nothing_else(server, tmp_path):
    own = f'"pid": {server.pid},'
    (marker,) = [one for one in Path(tempfile.gettempdir()).glob(f"{PREFIX}*/{MARKER}") if own in one.read_text()]
    server.end(signal.SIGTERM)
    assert not marker.parent.exists()
    assert not server.data.with_name("kits.db-wal").exists()
    copy = tmp_path / "mailed.db"
    copy.write_bytes(server.data.read_bytes())
    assert len(Kits(copy).controls("wendmere-lock")) == 13


@pytest.fixture
def data(tmp_path, sample):
    copy = tmp_path / "data" / "kits.db"
    copy.parent.mkdir()
    Kits(sample).backup(copy)
    return copy


def command(data, folder, *arguments):
    """The command line as a process of its own."""
    code = "from obrell.cli import main; main()"
    environment = os.environ | {"OBRELL_DATA": str(data), "COLUMNS": "300"}
    return subprocess.run(
        [sys.executable, "-c", code, *arguments], capture_output=True, text=True,
        cwd=folder, env=environment, check=False,
    )  # fmt: skip


def test_what_is_found_is_said_and_told_by_the_exit_code(tmp_path):
    data, runner = str(tmp_path / "kits.db"), CliRunner()
    kits = Kits(tmp_path / "kits.db")
    kit = kits.add_kit("Checked")
    fine, cut = (kits.add_control(kit, name, Canvas(width=40, height=40)) for name in ("Fine", "Cut"))
    draw = {"kind": "draw", "shape": "box", "x0": 1, "y0": 1, "x1": 39, "y1": 39}
    outline = {"kind": "add-effect", "part": "p1", "effect": "outline"}
    outside = {"kind": "set", "changes": [
        {"path": "parts/p1/effects/e2/place", "value": "outside"}, {"path": "parts/p1/effects/e2/width", "value": 5},
    ]}  # fmt: skip
    for edit in (draw, outline, outside):
        editing.edit(kits, kit, cut, read_edit(edit))
    editing.edit(kits, kit, fine, read_edit(draw))
    ran = runner.invoke(app, ["check", "Checked", "--data", data])
    assert (ran.exit_code, ran.stdout) == (1, "Cut: The canvas cuts the outline of Box.\n")
    assert runner.invoke(app, ["check", "Checked", "--control", "Fine", "--data", data]).exit_code == 0


def test_modules_are_read_without_collecting_and_what_they_made_stays():
    with uncollected():
        assert not gc.isenabled()
        made = [[] for _ in range(3)]
    assert gc.isenabled()
    assert not any(found is one for one in made for found in gc.get_objects())
    with pytest.raises(ValueError, match="no"), uncollected():
        raise ValueError("no")
    assert gc.isenabled()
