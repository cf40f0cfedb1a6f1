"""What begins is plain, and can be seen where it begins."""

import pytest

from obrell.core.colour.contrast import contrast
from obrell.core.colour.links import literal
from obrell.core.colour.spaces import from_hex, to_oklch
from obrell.core.document.colours import colours_of
from obrell.core.document.model import PLAIN_GROUND, Part, Swatch
from obrell.core.document.states import in_state
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.edit.companions import main_colour
from obrell.core.effects import EFFECTS, Gloss, Mask, OuterGlow, Paint
from obrell.core.effects.kinds.mask import PartCover
from obrell.core.paint.fills import mean_colour
from obrell.core.shapes import Box, Round, Text
from obrell.core.shelf import SHIPPED, plain_gradients
from obrell.core.values.colours import SwatchLink
from obrell.core.values.paints import Solid
from tests.making import control, part, solid

GROUND = mean_colour(PLAIN_GROUND)
TARN, CHALK = "#1f8a92", "#f1efe7"
KIT = Surroundings(
    swatches=(
        Swatch(id="chalk", name="chalk", colour=CHALK, role="label"),
        Swatch(id="tarn", name="tarn", colour=TARN, role="main"),
    )
)


def do(here, around=KIT, **edit):
    return applied(read_edit(edit), here, around)


def draw(here, shape="box", around=KIT, values=None, **at):
    at = at or {"x0": 10, "y0": 10, "x1": 60, "y1": 40}
    return do(here, around, kind="draw", shape=shape, values=values or {}, **at)


def newest(before, after) -> Part:
    old = {one.id for one in before.parts}
    return next(one for one in after.parts if one.id not in old)


@pytest.mark.parametrize("shape", ["box", "round", "sides", "ring", "text", "icon", "line"])
@pytest.mark.parametrize("around", [KIT, Surroundings()], ids=["kit", "no swatches"])
@pytest.mark.parametrize("under", ["#9ca5a6", TARN, "#ffffff", "#000000", "#808080", CHALK, "#1f2a30"])
def test_a_new_part_is_plain_and_seen_on_what_it_lies_on(shape, around, under):
    here = control(part(Box(width=80, height=60), solid(under), Gloss(id="e1"), x=40, y=30))
    made = newest(here, draw(here, shape, around))
    (paint,) = made.effects
    assert isinstance(paint, Paint)
    assert isinstance(paint.fill, Solid)
    seen = contrast(literal(paint.fill.colour, around.palette), under)
    assert seen >= (3.0 if shape in ("text", "icon") else 1.5)


def test_it_is_in_a_colour_of_the_kit_that_keeps_following():
    empty = control()
    body = newest(empty, draw(empty))
    assert body.effects[0].fill.colour == SwatchLink(swatch="tarn")
    here = draw(empty)
    assert newest(here, draw(here, "text", x0=35, y0=25, x1=35, y1=25)).effects[0].fill.colour == SwatchLink(
        swatch="chalk"
    )


def test_a_small_part_under_a_large_one_is_not_what_that_lies_on():
    here = control(part(Round(width=6, height=6), solid("#000000"), x=35, y=25))
    made = newest(here, draw(here, around=Surroundings(), x0=0, y0=0, x1=80, y1=60))
    assert contrast(literal(made.effects[0].fill.colour, {}), GROUND) >= 1.5


def test_a_body_drawn_after_its_label_lies_behind_it_and_says_so():
    label = part(Text(words="Open", size=10, align="middle"), solid("#111111"), x=35, y=28)
    here = control(part(Round(width=8, height=8), solid("#cc0000"), x=5, y=5), label)
    wish = {"kind": "draw", "shape": "box", "x0": 5, "y0": 5, "x1": 75, "y1": 55}
    made = draw(here, x0=5, y0=5, x1=75, y1=55)
    assert [one.shape.kind for one in made.parts] == ["round", "box", "text"]
    assert read_edit(wish).label(here) == f"Added a box behind {label.name}"
    assert contrast(literal(made.parts[1].effects[0].fill.colour, KIT.palette), "#111111") >= 4.5
    beside = draw(here, x0=60, y0=5, x1=75, y1=15)
    assert [one.shape.kind for one in beside.parts] == ["round", "text", "box"]
    assert [one.shape.kind for one in draw(here, "line", x0=5, y0=5, x1=75, y1=55).parts][-1] == "line"


def test_all_effects_are_removed_but_the_colour():
    mask = Mask(id="e9", cover=PartCover(part="p2"))
    here = control(part(Round(), solid(TARN), Gloss(id="e1"), OuterGlow(id="e2"), mask), part(Round()))
    (paint,) = do(here, kind="plain-look", parts=["p1"]).parts[0].effects
    assert paint.fill == Solid(colour=TARN)
    assert read_edit({"kind": "plain-look", "parts": ["p1"]}).removes()
    assert do(here, kind="plain-look", parts=["p2"]).parts[1].effects[0].fill.colour == Round.first_colour


@pytest.mark.parametrize("kind", sorted(EFFECTS))
def test_an_effect_added_to_a_painted_part_hides_none_of_its_colour(kind):
    here = control(part(Box(width=40, height=20), solid(TARN), x=40, y=30))
    (added,) = (one for one in do(here, kind="add-effect", part="p1", effect=kind).parts[0].effects if one.id != "e1")
    if kind == "paint":
        first, last = added.fill.stops
        assert (first.colour, last.colour, last.opacity) == ("#ffffff", "#ffffff", 0)
        assert first.opacity < 0.6
    assert not added.opaque
    if kind == "outer-glow":
        assert added.falloff == "quick"


def test_a_paint_on_a_part_without_one_is_in_its_own_first_colour():
    here = control(part(Box(width=40, height=20)))
    assert do(here, kind="add-effect", part="p1", effect="paint").parts[0].effects[-1].fill.colour == Box.first_colour


@pytest.mark.parametrize("material", SHIPPED, ids=lambda one: one.id)
def test_a_material_in_the_parts_own_colour_keeps_its_hue_and_its_swatch(material):
    here = control(part(Box(width=40, height=40), solid("#c9952c")))
    laid = do(here, kind="lay-material", parts=["p1"], material=material.id, own_colour=True).parts[0]
    hues = [lch[2] for one in colours_of(laid) if (lch := to_oklch(from_hex(one)))[1] > 0.02]
    shared = material.id != "shipped-frosted-glass"
    assert not shared or any(abs(hue - to_oklch(from_hex("#c9952c"))[2]) < 12 for hue in hues)
    followed = control(part(Box(width=40, height=40), solid(SwatchLink(swatch="tarn"))))
    laid = do(followed, kind="lay-material", parts=["p1"], material=material.id, own_colour=True).parts[0]
    theirs = do(followed, kind="lay-material", parts=["p1"], material=material.id).parts[0]
    assert [one.kind for one in laid.effects] == [one.kind for one in theirs.effects]
    if isinstance(main_colour(theirs), str) and to_oklch(from_hex(main_colour(theirs)))[1] > 0.05:
        assert "tarn" in str(laid)


def test_plain_gradients_come_first_and_fade_to_clear():
    names = [one.name for one in plain_gradients(TARN)]
    assert len(names) == len(set(names)) == 9
    for one in plain_gradients(SwatchLink(swatch="tarn")):
        assert any(stop.opacity == 0 for stop in one.fill.stops)


def test_a_button_begins_with_its_states_in_the_kits_colours():
    made = do(control(), kind="begin-piece", piece="button")
    assert [one.name for one in made.states] == ["Hover", "Pressed", "Focus", "Disabled"]
    body, label = made.parts
    assert body.shape.width > label.shape.frame().width > 0
    assert contrast(literal(main_colour(label), KIT.palette), TARN) >= 3
    for state in made.states:
        assert in_state(made, state.id).parts != made.parts
