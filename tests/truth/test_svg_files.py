"""SVG files as people have them: what is read looks as Chromium shows the file, and nothing is left out."""

import base64
import math

import numpy as np
import pytest

from obrell.core.document.model import Canvas, Control
from obrell.core.document.resolve import resolve
from obrell.core.icons import icon_names, icon_paths
from obrell.core.interchange.svg.reader import read_svg
from obrell.core.render.picture import picture
from tests.making import KEEPER, KIT
from tests.shots import premultiplied, shot_of
from tests.truth.svg_files import FILES, NS

MEAN, FAR, SHARE = 1.2, 40, 0.016
"""The mean of all differences, and the share of pixels that may differ by more than ``FAR`` levels: along the edges of
clips and of repeated gradients, which Chromium does not smooth as we do."""
UNFITTED = KIT.evolve(fit="off")


@pytest.fixture(scope="module")
def window(chromium):
    page = chromium.new_context(viewport={"width": 480, "height": 400}).new_page()
    yield page
    page.context.close()


def shown(window, text, width, height):
    data = base64.b64encode(text.encode()).decode()
    window.set_content(f'<style>*{{margin:0}}img{{display:block}}</style><img src="data:image/svg+xml;base64,{data}">')
    window.wait_for_function("document.images[0].complete")
    return premultiplied(np.array(shot_of(window, omit_background=True)))[:height, :width]


def drawn(text):
    read = read_svg(text)
    for content in read.files:
        KEEPER.keep(content)
    size = Canvas(width=round(read.width), height=round(read.height))
    return premultiplied(
        picture(resolve(UNFITTED, Control(id="c1", name="C", canvas=size, parts=read.parts)), 1.0)
    ), read


def check_alike(window, text):
    got, read = drawn(text)
    want = shown(window, text, got.shape[1], got.shape[0])
    away = np.abs(got - want)
    assert away.mean() <= MEAN
    assert (away.max(axis=2) > FAR).mean() <= SHARE
    assert not read.left_out


@pytest.mark.parametrize("name", FILES)
def test_files_look_as_they_do_in_a_browser(window, name):
    check_alike(window, FILES[name])


ICONS = icon_names()


@pytest.mark.parametrize("start", range(0, len(ICONS), 120))
def test_icons_are_read(window, start):
    names = ICONS[start : start + 120]
    columns = 12
    cells = "".join(
        f'<svg x="{40 * (n % columns)}" y="{40 * (n // columns)}" width="36" height="36" viewBox="0 0 24 24">'
        + "".join(f'<path d="{data}"/>' for data in icon_paths(name)) + "</svg>"
        for n, name in enumerate(names)
    )  # fmt: skip
    style = 'fill="none" stroke="#147" stroke-width="2" stroke-linecap="round" stroke-linejoin="round"'
    height = 40 * math.ceil(len(names) / columns)
    check_alike(window, f'<svg {NS} width="480" height="{height}" {style}>{cells}</svg>')


def test_the_files_are_many_and_each_shows_something():
    assert len(FILES) > 250
    assert all(drawn(text)[0].any() for text in list(FILES.values())[::12])
