"""Deliveries: names, boxes, archives, and files that other programs can read."""

import hashlib
import io
import json
import zipfile

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image

from obrell.core.deliver.bundle import bundle, make
from obrell.core.deliver.manifest import about, entry, manifest
from obrell.core.deliver.names import check_pattern, file_name
from obrell.core.deliver.order import Order, read_order
from obrell.core.deliver.plan import LeftOut, delivered_box, plan
from obrell.core.document.model import Colourway
from obrell.core.document.resolve import resolve
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.effects import DropShadow
from obrell.core.errors import BadValue, Refused, Stopped
from obrell.core.geometry.plane import Rect
from obrell.core.raster.png import encode, encode_quick
from obrell.core.render.picture import device, picture
from obrell.core.shapes import Box
from obrell.core.values.easings import NAMED
from obrell.core.values.readings import Drive, Reading
from obrell.core.values.slugs import slug
from obrell.core.values.touches import TouchesBox
from obrell.core.values.transitions import Timing, Transition
from obrell.samples.wendmere_lock import wendmere_lock
from tests.making import KIT, control, part, resolved, solid

SAMPLE = wendmere_lock()


def archive(order, controls=SAMPLE.controls):
    target = io.BytesIO()
    bundle(SAMPLE, plan(SAMPLE, controls, order), target, lambda *_: True)
    return zipfile.ZipFile(target)


@given(st.integers(1, 9), st.integers(1, 7), st.integers(0, 9), st.sampled_from([encode, encode_quick]))
def test_another_reader_sees_the_same_pixels(width, height, seed, encoder):
    pixels = np.random.default_rng(seed).integers(0, 256, (height, width, 4), np.uint8)
    image = Image.open(io.BytesIO(encoder(pixels)))
    assert np.array_equal(np.array(image), pixels)
    assert image.info["dpi"] == pytest.approx((96, 96), abs=0.1)


def test_the_zip_holds_what_was_planned_and_the_manifest_is_true():
    zipped = archive(Order(densities=(1.0, 2.0)))
    entries = json.loads(zipped.read("manifest.json"))["files"]
    assert [e["name"] for e in entries] == zipped.namelist()[:-1]
    assert len(entries) == 3 * sum((1 + len(one.states)) * len(one.size_ids) for one in SAMPLE.controls)
    for item in entries:
        content = zipped.read(item["name"])
        assert hashlib.sha256(content).hexdigest() == item["sha256"]
        if item["format"] == "png":
            assert Image.open(io.BytesIO(content)).size == (item["width"], item["height"])
    lamp = next(e for e in entries if e["control"] == "Pilot lamp" and e["density"] == 2)
    assert lamp["body"] == {"left": 30, "top": 26, "width": 132, "height": 132}


def test_the_manifest_says_how_controls_change():
    about = {
        one["control"]: one for one in json.loads(archive(Order(densities=(1.0,))).read("manifest.json"))["controls"]
    }
    lamp, level = about["Pilot lamp"], about["Water level"]
    assert lamp["states"] == [{"id": "on", "name": "On", "role": "on"}]
    assert lamp["transition"] == {"duration_ms": 160, "delay_ms": 0, "easing": "ease-out"}
    assert [(one["from"], one["to"], one["duration_ms"]) for one in lamp["transitions"]] == [
        ("rest", "on", 260), ("on", "rest", 520),
    ]  # fmt: skip
    assert level["readings"][0]["to"] == 100
    assert [one["role"] for one in level["states"]] == ["hover", "focus"]


def test_same_kit_same_archive():
    first, second = (archive(Order(densities=(1.5,)), SAMPLE.controls[:5]).fp.getvalue() for _ in range(2))
    assert first == second


def test_a_trimmed_box_is_whole_at_every_density_and_holds_all_ink():
    order = Order(densities=(1.0, 1.5, 2.0), trimmed=True, margin=1)
    for subject in SAMPLE.controls:
        shown = resolve(SAMPLE, subject)
        box = delivered_box([(shown, order.densities)], order)
        for density in order.densities:
            edges = [side * density for side in (box.left, box.top, box.right, box.bottom)]
            assert all(edge == round(edge) for edge in edges)
            whole, cut = picture(shown, density), picture(shown, density, device(box, density))
            assert whole[..., 3].astype(int).sum() == cut[..., 3].astype(int).sum()


def pressed_key():
    """A key with a shadow; pressed it lies 1 px lower and casts less of one."""
    key = control(part(Box(width=40, height=20, radius=6), DropShadow(id="e1"), solid("#206040")))
    for edit in (
        {"kind": "add-state", "name": "Pressed"},
        {"kind": "in-states", "states": ["pressed"], "edit": {"kind": "move", "parts": ["p1"], "dx": 0, "dy": 1}},
        {"kind": "in-states", "states": ["pressed"], "edit": {"kind": "set", "changes": [
            {"path": "parts/p1/effects/e1/opacity", "value": 0.1}]}},
    ):  # fmt: skip
        key = applied(read_edit(edit), key, Surroundings())
    return key


def test_all_states_are_delivered_in_one_box_and_registered():
    order = Order(densities=(1.0, 2.0), trimmed=True, formats=("png",))
    files = plan(KIT, (pressed_key(),), order).files
    assert [file.name.split("/")[1] for file in files] == [
        "control.rest.1.png", "control.rest.2.png", "control.pressed.1.png", "control.pressed.2.png",
    ]  # fmt: skip
    rest, down = (np.array(Image.open(io.BytesIO(make(file)))) for file in (files[1], files[3]))
    assert rest.shape == down.shape
    rest, down = (pixels[..., 3] > 250 for pixels in (rest, down))
    assert np.array_equal(np.roll(rest, 2, axis=0), down)
    bodies = [entry(file, b"")["body"] for file in (files[1], files[3])]
    assert [body["top"] for body in bodies] == [bodies[0]["top"], bodies[0]["top"] + 2]
    assert bodies[0] | {"top": 0} == bodies[1] | {"top": 0}
    only = plan(KIT, (pressed_key(),), order.evolve(states=("pressed",))).files
    assert [(file.state, file.pixels) for file in only] == [("pressed", file.pixels) for file in files[2:]]


def test_names_that_leave_the_state_out_are_said():
    planned = plan(KIT, (pressed_key(),), Order(densities=(1.0,), pattern="{control}.{density}", formats=("png",)))
    assert len(planned.files) == 1
    assert "Put {state} and {density} into the name pattern" in planned.left_out[0].words


def test_every_size_has_a_box_of_its_own_and_a_density_the_art_that_is_for_it():
    key = pressed_key()
    for edit in (
        {"kind": "add-size", "name": "Wide", "wider": 20}, {"kind": "add-art", "density": 1},
        {"kind": "in-editions", "editions": ["at-1x"], "edit": {"kind": "set", "changes": [
            {"path": "parts/p1/effects/e1/visible", "value": False}]}},
    ):  # fmt: skip
        key = applied(read_edit(edit), key, Surroundings())
    order = Order(densities=(1.0, 2.0), states=("rest",), trimmed=True)
    planned = plan(KIT, (key,), order)
    names = [file.name.split("/")[1] for file in planned.files]
    ends = ("1.png", "2.png", "svg")
    assert names == [f"control.{size}.rest.{end}" for size in ("regular", "wide") for end in ends]
    small, big, drawn = planned.files[:3]
    assert (big.pixels.width, big.pixels.height) == (2 * small.pixels.width, 2 * small.pixels.height)
    plain = pressed_key()
    effects = (plain.parts[0].effects[0].evolve(visible=False), *plain.parts[0].effects[1:])
    flat = plain.evolve(parts=(plain.parts[0].evolve(effects=effects),))
    for file, want in ((small, flat), (big, plain)):
        pixels = picture(resolve(KIT, want), file.job.density, file.pixels)
        assert np.array_equal(np.array(Image.open(io.BytesIO(make(file)))), pixels)
    assert b"filter" in make(drawn)
    assert planned.files[4].pixels.width == big.pixels.width + 40
    zipped = archive(order, (key,))
    manifest = json.loads(zipped.read("manifest.json"))
    assert [one["size"] for one in manifest["files"]] == ["regular"] * 3 + ["wide"] * 3
    assert manifest["controls"][0]["sizes"] == [
        {"id": "regular", "name": "Regular", "width": key.canvas.width, "height": key.canvas.height},
        {"id": "wide", "name": "Wide", "width": key.canvas.width + 20, "height": key.canvas.height},
    ]  # fmt: skip
    assert manifest["controls"][0]["densities_with_own_art"] == [1]
    clash = plan(KIT, (key,), order.evolve(pattern="{control}.{density}"))
    assert "Put {size} and {density} into the name pattern" in clash.left_out[0].words
    assert {file.size for file in plan(KIT, (key,), order.evolve(sizes=("wide",))).files} == {"wide"}


def test_all_that_a_program_is_told_of_a_control_and_of_a_file():
    key = applied(read_edit({"kind": "add-size", "name": "Wide", "wider": 20}), pressed_key(), Surroundings())
    key = key.evolve(
        timing=Timing(duration=120, delay=10, easing=NAMED["linear"]),
        transitions=(Transition(start="rest", end="pressed", duration=80),),
        readings=(Reading(
            id="level", name="Level", start=-5, end=50, step=0.5, value=20, unit="m",
            drives=(Drive(path="parts/p1/rotation", start=0, end=9),),
        ),),
        touch=TouchesBox(x=40, y=30, width=60, height=44),
    )  # fmt: skip
    outline = "M10 8 L70 8 L70 52 L10 52 L10 8 Z"
    assert about(key) == {
        "control": "Control",
        "touch": outline,
        "sizes": [
            {"id": "regular", "name": "Regular", "width": 80, "height": 60, "touch": outline},
            {"id": "wide", "name": "Wide", "width": 100, "height": 60, "touch": outline},
        ],
        "states": [{"id": "pressed", "name": "Pressed", "role": "pressed"}],
        "transition": {"duration_ms": 120, "delay_ms": 10, "easing": "linear"},
        "transitions": [
            {"from": "rest", "to": "pressed", "duration_ms": 80, "delay_ms": 0, "easing": "ease-out"}
        ],
        "readings": [
            {"id": "level", "name": "Level", "from": -5, "to": 50, "step": 0.5, "begins": 20, "unit": "m"}
        ],
    }  # fmt: skip
    night = KIT.evolve(colourways=(Colourway(id="night", name="Night"),))
    order = Order(
        densities=(2.0,), formats=("png",), states=("pressed",), sizes=("wide",), colourways=("day", "night")
    )
    (day, other) = plan(night, (key,), order).files
    told = entry(other, b"content")
    assert told == {
        "name": "test-kit/control.wide.night.pressed.2.png", "control": "Control", "size": "wide",
        "colourway": "night", "state": "pressed", "state_name": "Pressed", "role": "pressed",
        "format": "png", "density": 2,
        "width": 200, "height": 120, "body": told["body"],
        "touch": {"left": 20, "top": 16, "width": 120, "height": 88},
        "sha256": hashlib.sha256(b"content").hexdigest(),
    }  # fmt: skip
    assert entry(day, b"")["colourway"] == "day"
    frames = plan(KIT, (key,), order.evolve(frames=3, colourways=("day",))).files
    assert [entry(one, b"")["readings"] for one in frames] == [{"level": -5}, {"level": 22.5}, {"level": 50}]
    plain = plan(KIT, (pressed_key(),), Order(densities=(1.0,), formats=("png",), states=("rest",))).files[0]
    assert set(entry(plain, b"")) == {
        "name", "control", "state", "format", "density", "width", "height", "body", "sha256",
    }  # fmt: skip
    planned = plan(KIT, (pressed_key(),), Order(densities=(2.0,)))
    assert json.loads(manifest(KIT, planned, [], [LeftOut("a.png", "Too large.")])) == {
        "kit": KIT.name, "files": [],
        "controls": [about(pressed_key())],
        "left_out": [{"name": "a.png", "why": "Too large."}],
    }  # fmt: skip


def test_pictures_of_a_part_of_a_reading_begin_and_end_there():
    turned = control(part(Box(width=40, height=4), solid("#206040")))
    turned = applied(read_edit({"kind": "add-reading", "name": "Level"}), turned, Surroundings())
    order = Order(formats=("png",), densities=(1.0,), frames=4, stretches=({"reading": "level", "start": 20.0},))
    at = [dict(file.readings)["level"] for file in plan(KIT, (turned,), order).files]
    assert at == pytest.approx([20, 20 + 80 / 3, 20 + 160 / 3, 100])
    back = order.evolve(stretches=({"reading": "level", "start": 80, "end": 20}, {"reading": "other", "end": 9000}))
    assert [dict(file.readings)["level"] for file in plan(KIT, (turned,), back).files] == [80, 60, 40, 20]
    beyond = plan(KIT, (turned,), order.evolve(stretches=({"reading": "level", "end": 120},)))
    assert not beyond.files
    assert beyond.left_out[0].words == "Level goes from 0 to 100; 120 is outside of that."


def test_trimming_an_empty_canvas_or_to_odd_densities_is_refused():
    with pytest.raises(Refused, match="nothing on its canvas"):
        delivered_box([(resolved(), (1.0,))], Order(trimmed=True))
    with pytest.raises(Refused, match="No trimmed box"):
        shown = resolved(part(Box(), solid("#000000")))
        delivered_box([(shown, (1.37,))], Order(densities=(1.37,), trimmed=True))


def test_what_lies_off_the_canvas_is_never_delivered():
    shown = resolved(part(Box(width=200, height=20), DropShadow(id="e1"), solid("#ff0000")))
    pixels = picture(shown, 1.0, device(Rect(-10, -10, 90, 70), 1.0))
    assert pixels[:, :10].max() == pixels[:, 90:].max() == 0
    assert pixels[40, 10, 3] == 255


@pytest.mark.parametrize(
    ("pattern", "name"),
    [
        ("{kit}/{control}.{state}.{density}", "lock/raise.rest.1.5.png"),
        ("{control}-{density}", "raise-1.5.png"),
        ("out/{density}/{control}", "out/1.5/raise.png"),
    ],
)
def test_names_by_pattern(pattern, name):
    words = {"kit": "lock", "control": "raise", "state": "rest", "density": "1.5"}
    assert file_name(check_pattern(pattern), words, "png") == name


def test_a_word_without_a_value_goes_with_the_sign_before_it():
    words = {"kit": "lock", "control": "raise", "state": "rest", "density": ""}
    assert file_name("{kit}/{control}.{state}.{density}", words, "svg") == "lock/raise.rest.svg"


@pytest.mark.parametrize(
    "pattern",
    ["", "../{control}", "/{control}", "{control}/", "{weight}/{control}", "fixed", "{control}\nx", "a" * 300],
)
def test_names_that_could_lead_elsewhere_are_refused(pattern):
    with pytest.raises(BadValue):
        read_order({"pattern": pattern})


def test_two_files_never_share_a_name():
    several = plan(SAMPLE, SAMPLE.controls[:1], Order(pattern="{control}", formats=("png",), states=("rest",)))
    assert [file.job.density for file in several.files] == [1.0]
    assert len(several.left_out) == 1
    assert "Put {density} into the name pattern" in several.left_out[0].words
    lamp = control(part(Box(), solid("#000000"))).evolve(name="Lamp")
    both = plan(KIT, (lamp, lamp.evolve(id="c9", name="lamp!")), Order(densities=(1.0,)))
    assert {file.control for file in both.files} == {lamp.id}
    assert both.left_out[0].name == "lamp!"
    assert "“Lamp” has files of the same names" in both.left_out[0].words
    assert slug("Écluse № 3", "c1") == "ecluse-no-3"
    assert slug("水", "c1") == "c1"


def test_a_delivery_can_be_stopped():
    with pytest.raises(Stopped):
        bundle(SAMPLE, plan(SAMPLE, SAMPLE.controls, Order()), io.BytesIO(), lambda made, _: made < 2)


def test_a_picture_too_large_is_refused_before_anything_is_made():
    wide = control(part(Box(), solid("#000000")), width=4000, height=4000)
    planned = plan(KIT, (wide,), Order(densities=(1.0, 4.0), formats=("png",)))
    assert [file.job.density for file in planned.files] == [1.0]
    assert planned.left_out[0].name.endswith("at 4×")
    assert "too many" in planned.left_out[0].words
    with pytest.raises(Refused, match="at least one"):
        plan(KIT, (), Order())


def test_svg_is_self_contained_and_names_are_escaped():
    odd = control(part(Box(), solid("#ff0000"))).evolve(name="<& ok>")
    (file,) = plan(KIT, (odd,), Order(formats=("svg",))).files
    text = make(file).decode()
    assert "<title>&lt;&amp; ok&gt;</title>" in text
    for subject in SAMPLE.controls:
        order = Order(formats=("svg",), states=("rest",), sizes=("regular",))
        (file,) = plan(SAMPLE, (subject,), order).files
        text = make(file).decode()
        assert text.count("<image") == text.count('href="data:image/png;base64,')
        assert "<text" not in text
        assert text.count("://") == text.count('xmlns="http://') == 1
