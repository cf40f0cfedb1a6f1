"""Delivered SVG as a second renderer (resvg) draws it: within 2 of 255 levels of the PNG, for every effect."""

import io

import numpy as np
import pytest
import resvg_py
from PIL import Image
from pydantic import TypeAdapter

from obrell.core.document.model import Canvas, Control
from obrell.core.document.resolve import resolve
from obrell.core.effects import EFFECTS, AnyEffect
from obrell.core.formats.svg.document import svg
from obrell.core.render.picture import picture
from obrell.core.shapes import Box
from tests.making import KIT, part, solid
from tests.shots import premultiplied

DENSITY = 2
LEVELS = 2
SHARE = 0.99
"""Of the pixels; edges are covered in steps of 1/16 there."""
SMALL_BLURS = {"blur": 10, "drop-shadow": 4}
"""A small Gaussian blur is put together of three means there; ours is held against the formula in `test_blur`."""
DRAWN = sorted(set(EFFECTS) - {"backdrop-blur"})
"""An SVG filter sees only the element it is on: what lies behind frosted glass cannot be blurred."""
FORMS = {
    "inner shadow, hard": {"kind": "inner-shadow", "blur": 0},
    "inner shadow, wide": {"kind": "inner-shadow", "blur": 40},
    "inner shadow, soft": {"kind": "inner-shadow", "falloff": "soft"},
    "drop shadow, far": {"kind": "drop-shadow", "blur": 30},
}
ANY: TypeAdapter[AnyEffect] = TypeAdapter(AnyEffect)


def away(shown):
    """How far the second renderer's picture is from ours, in levels, per pixel."""
    data = resvg_py.svg_to_bytes(svg_string=svg(shown), zoom=DENSITY)
    theirs = premultiplied(np.array(Image.open(io.BytesIO(bytes(data))).convert("RGBA")))
    return np.abs(theirs - premultiplied(picture(shown, DENSITY))).max(axis=2)


def box_with(effect, *, width, height):
    made = ANY.validate_python({"id": "e2", **effect})
    body = part(Box(width=width, height=height, radius=8), solid("#1f8a92"), made, x=60, y=40)
    return resolve(
        KIT.evolve(fit="off"), Control(id="c1", name="C", canvas=Canvas(width=120, height=80), parts=(body,))
    )


@pytest.mark.parametrize("size", [(90, 40), (120, 80)], ids=["inside", "to the edges of the canvas"])
@pytest.mark.parametrize("effect", [*DRAWN, *FORMS])
def test_an_effect_is_drawn_as_in_the_png(effect, size):
    values = FORMS.get(effect, {"kind": effect})
    difference = away(box_with(values, width=size[0], height=size[1]))
    assert np.quantile(difference, SHARE) <= SMALL_BLURS.get(effect, LEVELS)
