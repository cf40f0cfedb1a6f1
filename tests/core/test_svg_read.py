"""Reading SVG: what becomes which part, and what hostile files come to."""

import time

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.document.model import Control
from obrell.core.edit import Surroundings, read_edit
from obrell.core.edit.insert import InsertParts
from obrell.core.errors import BadDocument, TooLarge
from obrell.core.geometry.affine import Affine
from obrell.core.geometry.plane import NOWHERE
from obrell.core.geometry.svgdata import path_data, read_path_data, valid_beginning
from obrell.core.icons import find_icons, icon_names
from obrell.core.interchange.svg.colours import colour_of
from obrell.core.interchange.svg.lengths import length
from obrell.core.interchange.svg.reader import read_svg
from obrell.core.interchange.svg.shapes import path_from_data
from obrell.core.interchange.svg.transforms import BadTransform, transform
from obrell.core.raster.coverage import rasterise
from obrell.core.raster.layers import PixelBox
from obrell.core.shapes import Icon
from tests.making import SHAPES_TRIED

NS = 'xmlns="http://www.w3.org/2000/svg"'


def svg(inside, more='viewBox="0 0 80 60"'):
    return f"<svg {NS} {more}>{inside}</svg>"


def test_parts_keep_their_kinds_names_and_groups():
    drawing = read_svg(svg('<g id="Key"><rect id="Body" width="20" height="10"/><circle r="5" cx="9" cy="9"/></g>'))
    assert [(p.name, p.shape.kind) for p in drawing.parts] == [("Body", "box"), ("Circle", "round"), ("Key", "group")]
    assert [p.within for p in drawing.parts] == [drawing.parts[2].id] * 2 + [None]
    put = InsertParts(parts=drawing.parts).apply(Control(id="c1", name="C"), Surroundings())
    assert {p.within for p in put.parts} == {None, put.parts[-1].id}
    assert read_edit({"kind": "insert", "parts": [p.model_dump() for p in drawing.parts]}).parts == drawing.parts


def test_what_is_not_understood_is_named():
    parts = '<rect width="9" height="9" filter="url(#f)"/><path d="M0 0h9" stroke="#000" marker-end="url(#m)"/>'
    words = "<text font-family='Nowhere'>a</text>"
    read = read_svg(svg(parts + words * 2 + '<image width="9" height="9" href="x.png"/><script/><hatch/>'))
    assert read.left_out == {
        "filter": 1, "marker": 1, "text in Nowhere, which is not in the kit": 2, "image outside of the file": 1,
        "script": 1, "hatch": 1,
    }  # fmt: skip
    with pytest.raises(BadDocument, match="It holds only: text in Nowhere"):
        read_svg(svg(words))


def test_words_stand_on_their_baseline_in_a_font_that_is_there():
    style = "<style>text{font-family:Nope,'Hanken Grotesk',serif;font-size:12px}.b{font-weight:bold;fill:#f00}</style>"
    read = read_svg(
        svg(style + '<text x="40" y="30" text-anchor="middle">  Open <tspan class="b">the gate</tspan>\n</text>')
    )
    (text,) = read.parts
    assert (text.shape.words, text.shape.font, text.shape.size, text.shape.align) == (
        "Open the gate", "Hanken Grotesk", 12, "middle"
    )  # fmt: skip
    assert text.y + text.shape.baseline() == pytest.approx(30)
    assert [(run.start, run.end, run.weight, run.colour) for run in text.shape.runs] == [(5, 13, 700, "#ff0000")]
    turned = read_svg(svg(style + '<text transform="translate(40 30) rotate(90) scale(2)">Up</text>')).parts[0]
    assert (turned.rotation, turned.shape.size) == (90, 24)
    assert turned.x - turned.shape.baseline() == pytest.approx(40)


def test_masks_and_clips_stay_with_what_they_cut_wherever_it_is_put():
    mask = '<mask id="m"><circle cx="20" cy="20" r="9" fill="#fff"/></mask>'
    parts = read_svg(svg(mask + '<rect width="40" height="40" mask="url(#m)"/>')).parts
    put = InsertParts(parts=parts).apply(Control(id="c1", name="C"), Surroundings())
    again = InsertParts(parts=parts).apply(put, Surroundings())
    for control in (put, again):
        masked = masked_in(control)
        effect = masked.effects[-1]
        cover = next(p for p in control.parts if p.id == effect.cover.part)
        assert effect.shift(masked.x, masked.y) == (0, 0)
        assert (cover.x, cover.y) == (masked.x, masked.y)
    ids = [part.id for part in put.parts if part.within]
    moved = masked_in(read_edit({"kind": "move", "parts": ids, "dx": 5, "dy": 0}).apply(put, Surroundings()))
    assert moved.x == masked_in(put).x + 5
    assert moved.effects[-1].shift(moved.x, moved.y) == (0, 0)


def masked_in(control):
    return [part for part in control.parts if any(effect.kind == "mask" for effect in part.effects)][-1]


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
    "style": svg("<style>" + ":is(" * 3000 + "</style>"),
    "selectors": svg("<style>" + "a b c d e f g h,*" * 20_000 + "{fill:red}</style>" + "<g/>" * 15_000),
    "variables": svg("<style>g{--a:var(--b)var(--b);--b:var(--a)var(--a);fill:var(--a)}</style>" + "<g/>" * 99),
    "masks": svg(
        "".join(f'<mask id="m{n}"><g mask="url(#m{n + 1})"><g mask="url(#m{n + 1})"/></g></mask>' for n in range(40))
        + '<g mask="url(#m0)"/>'
    ),
    "clips": svg(
        "".join(
            f'<clipPath id="c{n}" clip-path="url(#c{n})"><rect width="9" height="9" clip-path="url(#c{n + 1})"/>'
            f'<rect width="9" height="9" clip-path="url(#c{n + 1})"/></clipPath>'
            for n in range(40)
        )
        + '<text clip-path="url(#c0)">a</text>'
    ),
}


@pytest.mark.parametrize("name", HOSTILE)
def test_hostile_files_are_refused_in_words_and_soon(name):
    start = time.monotonic()
    with pytest.raises((BadDocument, TooLarge)) as refused:
        read_svg(HOSTILE[name])
    assert str(refused.value)[0].isupper()
    assert time.monotonic() - start < 20


def test_path_data_comes_back():
    window = PixelBox(-60, -60, 60, 60)
    for kind, shape in SHAPES_TRIED.items():
        there, back = shape.path(), read_path_data(path_data(shape.path()))
        areas = [float(rasterise(path.rows, window).values.sum(dtype=np.float64)) for path in (there, back)]
        assert areas[0] == pytest.approx(areas[1], rel=5e-4), kind


def test_transforms_colours_and_numbers_are_read_as_the_standards_say():
    turned = transform("translate(10, 5) rotate(90) scale(2)", NOWHERE)
    assert turned.apply(3, 0) == pytest.approx((10, 11))
    assert transform("rotate(90 5 5)", NOWHERE).apply(5, 0) == pytest.approx((10, 5))
    with pytest.raises(BadTransform):
        transform("matrix(1 2)", NOWHERE)
    assert Affine(2, 0, 0, 3).scale() == pytest.approx(6**0.5)
    assert colour_of("rgb(255 0 0 / 50%)") == ("#ff0000", 0.5)
    assert colour_of("rgba(100%, 0%, 20%, 0.2)") == ("#ff0033", 0.2)
    assert colour_of("rgb(1 2)") is None
    assert colour_of("hsl(120, 100%, 50%)") == ("#00ff00", 1.0)
    assert [length(t) for t in ("3pt", "1in", "-.5e1", "inf", "")] == [4, 96, -5, 0, 0]


@pytest.mark.parametrize(
    ("wrong", "right"),
    [
        ("M0 0L10 10 20 20 30", "M0 0L10 10 20 20"), ("M0 0 L10 10 # L20 20", "M0 0L10 10"), ("L10 10", ""),
        ("M0 0a1 1 0 00.5.5 1 1 0 01", "M0 0a1 1 0 0 0 .5 .5"), ("M0 0h10 5v", "M0 0h10 5"), ("M0 0L", "M0 0"),
        ("M0 0L9 9Z5", "M0 0L9 9Z"), ("M1 2C3 4 5 6 7 8 9", "M1 2C3 4 5 6 7 8"), ("", ""),
    ],
)  # fmt: skip
def test_the_valid_beginning_of_a_path_is_drawn(wrong, right):
    assert path_from_data(wrong) == read_path_data(right)


@given(st.lists(st.sampled_from(["M1 2", "l3-4", "h5", "c1 2 3 4 5 6", "a1 2 0 01 5 6", "q1 2 3 4", "z"]), max_size=6))
def test_a_valid_path_is_its_own_beginning(pieces):
    text = "M0 0" + "".join(pieces)
    assert read_path_data(valid_beginning(text)) == read_path_data(text)


def test_of_many_stops_those_stay_that_make_the_ramp():
    marks = [(place / 300, "#ff0000" if place < 200 else "#0000ff") for place in range(301)]
    stops = "".join(f'<stop offset="{place}" stop-color="{colour}"/>' for place, colour in marks)
    read = read_svg(svg(f'<linearGradient id="g">{stops}</linearGradient><path d="M0 0h9v9z" fill="url(#g)"/>'))
    kept = read.parts[0].effects[0].fill.stops
    assert len(kept) == 64
    assert [one.colour for one in kept if 0.66 < one.position < 0.67] == ["#ff0000", "#0000ff"]
    assert (kept[0].position, kept[-1].position) == (0, 1)
    assert read.left_out == {"gradient stop that changes little": 301 - 64}


def test_what_a_style_sheet_holds_and_is_not_read_is_said():
    sheet = "@container (width > 1px){rect{fill:red}}@font-face{}rect{fill:color-mix(in hwb, red, blue)}"
    assert read_svg(svg(f"<style>{sheet}</style><path d='M0 0h9v9z'/>")).left_out == {
        "@container in a style sheet": 1, "colour color-mix(in hwb, red, blue)": 1,
    }  # fmt: skip


@pytest.mark.parametrize(
    ("text", "words"), [("hello", "there is text that is not XML"), ("<svg><g></svg>", "closed by the tag of another")]
)
def test_broken_xml_is_refused_in_plain_words(text, words):
    with pytest.raises(BadDocument, match=words):
        read_svg(text)


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
