"""Reading SVG: what becomes which part, and what hostile files come to."""

import time

import numpy as np
import pytest

from obrell.core.document.model import Control
from obrell.core.edit import Surroundings, read_edit
from obrell.core.edit.insert import InsertParts
from obrell.core.errors import BadDocument, TooLarge
from obrell.core.geometry.affine import Affine, read_transform
from obrell.core.geometry.svgdata import path_data, read_path_data
from obrell.core.icons import find_icons, icon_names
from obrell.core.interchange.svg_paint import colour_of, number_of
from obrell.core.interchange.svg_read import read_svg
from obrell.core.raster.coverage import cover
from obrell.core.raster.layers import Box as DeviceBox
from obrell.core.shapes import Icon
from tests.making import SHAPES_TRIED

NS = 'xmlns="http://www.w3.org/2000/svg"'


def svg(inside, more='viewBox="0 0 80 60"'):
    return f"<svg {NS} {more}>{inside}</svg>"


def test_parts_keep_their_kinds_names_and_groups():
    drawing = read_svg(svg('<g id="Key"><rect id="Body" width="20" height="10"/><circle r="5" cx="9" cy="9"/></g>'))
    assert [(p.name, p.shape.kind) for p in drawing.parts] == [("Body", "box"), ("Circle", "round"), ("Key", "group")]
    assert [p.within for p in drawing.parts] == ["p3", "p3", None]
    put = InsertParts(parts=drawing.parts).apply(Control(id="c1", name="C"), Surroundings())
    assert {p.within for p in put.parts} == {None, put.parts[-1].id}
    assert read_edit({"kind": "insert", "parts": [p.model_dump() for p in drawing.parts]}).parts == drawing.parts


def test_what_is_not_understood_is_named():
    drawing = read_svg(svg('<rect width="9" height="9"/><text>a</text><text>b</text><image href="x.png"/><script/>'))
    assert drawing.left_out == {"text": 2, "image": 1, "script": 1}
    with pytest.raises(BadDocument, match="It holds only: text"):
        read_svg(svg("<text>a</text>"))


BOMB = "<!DOCTYPE x [" + "".join(f'<!ENTITY e{n} "{f"&e{n - 1};" * 9 if n else "ha"}">' for n in range(9)) + "]>"
HOSTILE = {
    "entities": BOMB + svg("<text>&e8;</text>"),
    "outside": f'<!DOCTYPE svg SYSTEM "file:///etc/passwd">{svg("")}',
    "broken": "<svg><rect",
    "not svg": "<html></html>",
    "elements": svg("<g/>" * 100_000),
    "deep": svg("<g>" * 500 + "</g>" * 500),
    "nan": svg('<rect width="NaN" height="1e999"/><path d="M0 0L1e300 1e300z"/>'),
    "data": svg('<path d="M0 0 L hello"/>'),
    "circle": svg('<g id="a"><use href="#a"/></g>'),
    "doubling": svg("".join(f'<g id="g{n}"><use href="#g{n + 1}"/><use href="#g{n + 1}"/></g>' for n in range(40))),
    "transform": svg('<rect width="9" height="9" transform="matrix(1 2)"/>'),
}


@pytest.mark.parametrize("name", HOSTILE)
def test_hostile_files_are_refused_in_words_and_soon(name):
    start = time.monotonic()
    with pytest.raises((BadDocument, TooLarge)) as refused:
        read_svg(HOSTILE[name])
    assert str(refused.value)[0].isupper()
    assert time.monotonic() - start < 20


def test_path_data_comes_back():
    window = DeviceBox(-60, -60, 60, 60)
    for kind, shape in SHAPES_TRIED.items():
        there, back = shape.path(), read_path_data(path_data(shape.path()))
        areas = [float(cover(path.rows, window).values.sum(dtype=np.float64)) for path in (there, back)]
        assert areas[0] == pytest.approx(areas[1], rel=5e-4), kind


def test_transforms_colours_and_numbers_are_read_as_the_standards_say():
    turned = read_transform("translate(10, 5) rotate(90) scale(2)")
    assert turned.apply(3, 0) == pytest.approx((10, 11))
    assert read_transform("rotate(90 5 5)").apply(5, 0) == pytest.approx((10, 5))
    assert Affine(2, 0, 0, 3).scale() == pytest.approx(6**0.5)
    assert colour_of("rgb(255 0 0 / 50%)") == ("#ff0000", 128 / 255)
    assert colour_of("rgba(100%, 0%, 20%, 0.2)") == ("#ff0033", 0.2)
    assert colour_of("rgb(1 2)") is None
    assert colour_of("hsl(120, 100%, 50%)") == ("#00ff00", 1.0)
    assert [number_of(t) for t in ("3pt", "1in", "-.5e1", "inf", "")] == [4, 96, -5, 0, 0]


def test_icons_are_many_and_found_by_name_and_tag():
    assert len(icon_names()) >= 300
    assert find_icons("bell")[0].startswith("bell")
    assert "ship" in find_icons("boat")
    assert find_icons("no such thing at all") == []
    assert Icon(icon="nothing").problem() == "There is no icon called “nothing”."
    for name in icon_names()[::60]:
        assert not Icon(icon=name).path().bounds().empty


def test_a_drawing_is_as_large_as_it_says_and_as_clear():
    (box,) = read_svg(svg('<rect width="12" height="6" fill="#ff000080"/>', 'viewBox="0 0 24 24" width="48px"')).parts
    assert (box.shape.width, box.shape.height, box.x) == (24, 12, 12)
    assert box.effects[0].opacity == pytest.approx(128 / 255)
