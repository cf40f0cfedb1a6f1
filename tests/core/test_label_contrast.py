"""Contrast on the pixels that are really there, against closed forms."""

import colorsys

import pytest

from obrell.core.colour.contrast import contrast
from obrell.core.colour.spaces import to_hex
from obrell.core.document.resolve import resolve
from obrell.core.effects import Paint
from obrell.core.effects.kinds.mask import FADE
from obrell.core.render.label_contrast import label_contrast, label_contrasts, plainly
from obrell.core.render.readable_field import readable_field
from obrell.core.shapes import Box, Text
from obrell.core.values.paints import Linear, Stop
from obrell.samples.wendmere_lock import wendmere_lock
from tests.making import KIT, control, part, solid


def label(colour, words="HI", **values):
    return part(Text(words=words, size=20), solid(colour), id="p2", **values)


def shown(*parts):
    return resolve(KIT, control(*parts, width=160, height=60))


def body(colour, **values):
    return part(Box(width=150, height=50), solid(colour), x=80, **values)


@pytest.mark.parametrize(("own", "behind"), [("#ffffff", "#000000"), ("#ffffff", "#1f8a92"), ("#333333", "#777777")])
def test_on_one_colour_it_is_that_of_the_two_colours(own, behind):
    found = label_contrast(shown(body(behind), label(own, x=60)), "p2")
    assert found.ratio == pytest.approx(contrast(own, behind), rel=0.02)


def test_on_a_gradient_the_letter_on_the_lightest_place_is_the_weakest():
    ends = Stop(position=0, colour="#000000"), Stop(position=1, colour="#dddddd")
    across = solid("#000000").evolve(fill=Linear(stops=ends, angle=90))
    whole = shown(part(Box(width=150, height=50), across, x=80), label("#ffffff", "IIIIIIII", x=80))
    found = label_contrast(whole, "p2")
    right = whole.tree.all["p2"].part
    frame = right.shape.frame()
    assert found.box.right > right.x + frame.left + frame.width * 0.8
    assert found.ratio < contrast("#ffffff", "#000000")


def test_what_lies_over_the_words_and_what_they_stand_on_count():
    veil = part(Box(width=150, height=50), solid("#000000", opacity=0.8), x=80, id="p3")
    plain, veiled = (
        shown(body("#000000"), label("#ffffff", x=60)),
        shown(body("#000000"), label("#ffffff", x=60), veil),
    )
    assert label_contrast(veiled, "p2").ratio < label_contrast(plain, "p2").ratio / 4
    alone = control(label("#ffffff", x=60), width=160, height=60)
    on_white, on_dark = (resolve(KIT, alone.evolve(stands=one)) for one in ("white", "dark"))
    assert label_contrast(on_white, "p1").ratio == pytest.approx(1, abs=0.05)
    assert label_contrast(on_dark, "p1").ratio > 10


def test_what_is_not_seen_is_not_measured():
    assert label_contrasts(shown(body("#000000"), label("#ffffff", x=60, visible=False))) == []
    assert label_contrast(shown(body("#000000"), label("#ffffff", x=-400)), "p2") is None


def test_a_ratio_is_cut_and_not_rounded():
    assert plainly(4.499) == "4.4 : 1"
    assert plainly(4.5) == "4.5 : 1"


GRADIENT = Linear(stops=(Stop(position=0, colour="#101010"), Stop(position=1, colour="#505050")))
GLOSS = Paint(id="e2", fill=Linear(stops=FADE), opacity=0.5)


def coloured(kind):
    """What gives a control with a colour in one place."""
    if kind == "own":
        return lambda colour: shown(body("#606060"), label(colour, x=60))
    if kind == "stop":
        first, last = GRADIENT.stops
        return lambda colour: shown(
            body(colour).evolve(effects=(Paint(id="e1", fill=Linear(stops=(first, last.evolve(colour=colour)))),)),
            label("#ffffff", x=60),
        )
    more = {"plain": {}, "faint": {"opacity": 0.9}, "multiplied": {"blend": "multiply"}}[kind]
    under = body("#d0c0b0", id="p0")
    return lambda colour: shown(
        under, part(Box(width=150, height=50), solid(colour), GLOSS, x=80, **more), label("#ffffff", x=60)
    )  # fmt: skip


@pytest.mark.parametrize("kind", ["plain", "faint", "multiplied", "own", "stop"])
@pytest.mark.parametrize("hue", [0, 130, 230])
def test_where_a_label_is_just_read_is_told_of_the_pixels_that_a_colour_makes(kind, hue):
    look = coloured(kind)
    name = look("#000000").control.parts[-1].id
    curves = readable_field(name, look, hue)
    assert curves
    for curve in curves:
        for saturation, value in curve[:: len(curve) // 2]:
            colour = to_hex(colorsys.hsv_to_rgb(hue / 360, saturation / 100, value / 100))
            assert label_contrast(look(colour), name).ratio == pytest.approx(4.5, abs=0.2), (saturation, value)


def test_nothing_is_told_beforehand_of_a_blend_that_does_not_mix_evenly():
    def look(colour):
        veil = part(Box(width=150, height=50), solid(colour), x=80, id="p3", blend="color-dodge")
        return shown(body("#406080"), label("#a0a0a0", x=60), veil)

    assert readable_field("p2", look, 200) == ()


LARGE_PX, BOLD_PX, BOLD = 24, 18.66, 700
"""Text that is large (WCAG 2.2): 18 pt, or 14 pt bold; it and signs need 3 : 1, all other text 4.5 : 1."""


def wanted(part):
    text = part.shape
    small = isinstance(text, Text) and text.size < (BOLD_PX if text.weight >= BOLD else LARGE_PX)
    return 4.5 if small else 3.0


@pytest.mark.parametrize("way", ["day", "night-watch", "frost"])
def test_the_sample_kit_can_be_read_in_every_colourway_and_state(way):
    kit = wendmere_lock()
    weak = {}
    for one in kit.controls:
        for state in ("rest", *(state.id for state in one.states if state.role != "disabled")):
            looked = resolve(kit, one, state, way)
            for found in label_contrasts(looked):
                if found.ratio < wanted(looked.tree.all[found.part].part):
                    weak[one.name, state, found.part] = round(found.ratio, 2)
    assert weak == {}
