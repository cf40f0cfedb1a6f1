"""Where a control is touched: from its body or of its own, in the manifest and never in a picture."""

import numpy as np
import pytest

from obrell.core.deliver.manifest import about, entry
from obrell.core.deliver.order import Order
from obrell.core.deliver.plan import plan
from obrell.core.document.model import Control
from obrell.core.document.resolve import resolve
from obrell.core.document.touching import touch_data, touch_outline
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.edit.admission import check_drawable
from obrell.core.errors import BadValue, ObrellError, Refused
from obrell.core.geometry.svgdata import read_path_data
from obrell.core.interchange.kit_file import kit_from, write_kit
from obrell.core.render.picture import picture
from obrell.core.shapes import Box, Round, Text
from tests.making import KIT, control, kit, part, solid

INK = solid("#204060")
KEY = control(part(Box(width=40, height=20), INK, x=40, y=30), part(Text(words="On"), solid("#ffffff"), x=40, y=30))


def done(where: Control, **edit) -> Control:
    return applied(read_edit(edit), where, Surroundings.of(KIT))


def touched(**touch) -> Control:
    return done(KEY, kind="set", changes=[{"path": "touch", "value": touch}])


def sides(where: Control) -> tuple[float, ...]:
    box = touch_outline(where).bounds()
    return box.left, box.top, box.right, box.bottom


@pytest.mark.parametrize(
    ("touch", "expected"),
    [
        (None, (20, 20, 60, 40)),
        ({"kind": "body", "by": 8}, (12, 12, 68, 48)),
        ({"kind": "body", "by": -3}, (23, 23, 57, 37)),
        ({"kind": "box", "x": 40, "y": 30, "width": 44, "height": 48, "radius": 6}, (18, 6, 62, 54)),
        ({"kind": "round", "x": 40, "y": 30, "width": 60, "height": 50}, (10, 5, 70, 55)),
        ({"kind": "outline", "data": "M10 10H50V40H10Z", "by": 2}, (8, 8, 52, 42)),
    ],
)
def test_what_is_touched_is_the_body_or_what_was_said(touch, expected):
    where = KEY if touch is None else touched(**touch)
    assert sides(where) == pytest.approx(expected, abs=1e-3)
    assert bool(touch_data(where)) == (touch is not None)


def test_it_is_where_a_part_lay_and_the_same_in_all_states():
    where = done(KEY, kind="touch-as", part="p1")
    moved = done(where, kind="move", parts=["p1"], dx=9, dy=0)
    assert sides(moved) == pytest.approx((20, 20, 60, 40))
    grown = done(touched(kind="body", by=4), kind="start-state", start="pressed")
    assert sides(grown) == pytest.approx((16, 16, 64, 44))
    assert kit_from(write_kit(kit(where))).controls == (where,)


@pytest.mark.parametrize(
    ("form", "expected"), [("body", (12, 12, 68, 48)), ("box", (12, 12, 68, 48)), ("round", (12, 12, 68, 48))]
)
def test_it_begins_somewhat_larger_than_the_body(form, expected):
    assert sides(done(KEY, kind="begin-touch", form=form)) == pytest.approx(expected, abs=1e-3)
    bare = done(control(), kind="begin-touch", form="box")
    assert sides(bare) == pytest.approx((0, 0, bare.canvas.width, bare.canvas.height))


def test_it_is_never_seen():
    assert np.array_equal(picture(resolve(KIT, touched(kind="body", by=9)), 2.0), picture(resolve(KIT, KEY), 2.0))


@pytest.mark.parametrize("trimmed", [False, True])
def test_the_manifest_says_where_it_is_in_every_file(trimmed):
    where = done(touched(kind="body", by=8), kind="start-state", start="pressed")
    for file in plan(KIT, (where,), Order(densities=(1.0, 3.0), trimmed=trimmed)).files:
        told, density = entry(file, b""), file.job.density
        lower = density if told["state"] == "pressed" else 0
        assert told["touch"]["left"] == pytest.approx(told["body"]["left"] - 8 * density, abs=1)
        assert told["touch"]["top"] == pytest.approx(told["body"]["top"] - lower - 8 * density, abs=1)
        assert (told["touch"]["width"], told["touch"]["height"]) == pytest.approx((56 * density, 36 * density))
    box = read_path_data(about(where)["touch"]).bounds()
    assert (box.left, box.top, box.width, box.height) == pytest.approx((12, 12, 56, 36), abs=1e-3)
    assert "touch" not in about(KEY)


@pytest.mark.parametrize(
    ("touch", "words"),
    [
        ({"kind": "body", "by": 1000}, "Touch area|By"),
        ({"kind": "star"}, "Touch area"),
        ({"kind": "box", "x": 1, "y": 1, "width": 0, "height": 4}, "Touch area|Width"),
        ({"kind": "outline", "data": "M0 0 Lx"}, "cannot be read"),
    ],
)
def test_what_cannot_be_touched_is_refused(touch, words):
    with pytest.raises((BadValue, Refused), match=words):
        check_drawable(KIT, touched(**touch), KEY)


def test_a_control_without_a_body_is_touched_nowhere():
    bare = control(part(Round(width=9, height=9)))
    assert touch_outline(bare).bounds().empty
    with pytest.raises(ObrellError, match=r"not here|no longer|gone"):
        done(bare, kind="touch-as", part="p9")
