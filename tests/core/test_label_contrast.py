"""Contrast on the pixels that are really there, against closed forms."""

import pytest

from obrell.core.colour.contrast import contrast, reaches
from obrell.core.document.resolve import resolve
from obrell.core.render.label_contrast import label_contrast, label_contrasts, plainly
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


def test_the_luminances_that_would_do_are_those_of_the_ratio():
    found = label_contrast(shown(body("#777777"), label("#ffffff", x=60)), "p2")
    dark, light = reaches(found.behind, 4.5)
    for luminance in (dark, light):
        high, low = max(luminance, found.behind), min(luminance, found.behind)
        assert (high + 0.05) / (low + 0.05) == pytest.approx(4.5)
    assert plainly(4.499) == "4.4 : 1"
    assert plainly(4.5) == "4.5 : 1"


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
