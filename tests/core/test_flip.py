"""A flipped part's picture is the flipped picture, whatever its kind, effects and fill; twice is the same bytes."""

import numpy as np
import pytest

from obrell.core.document.measures import bounds_of
from obrell.core.document.model import Light
from obrell.core.document.resolve import resolve
from obrell.core.edit import Surroundings, read_edit
from obrell.core.effects import DropShadow, Mask, Outline, Paint
from obrell.core.effects.kinds.mask import PartCover
from obrell.core.effects.offsets import Cast, Shift
from obrell.core.render.compose import Frame, canvas_box, compose, draw
from obrell.core.shapes import Box, Combination, Group, Icon, Repeat, Round, Sides, Text
from obrell.core.values.paints import Conic, Linear, Radial, Stop, Texture
from obrell.core.values.paints import Picture as PictureFill
from obrell.samples.wendmere_lock import wendmere_lock
from tests.core.test_laws import EVERY_FORM, lone
from tests.making import KIT, SLOPE, control, part, solid, with_inner

LIT = KIT.evolve(light=Light(direction=300, height=35))
PATTERNS = ("brush", "lathe", "weave", "stone", "lines", "wood")
STOPS = (
    Stop(position=0, colour="#103050", midpoint=0.3), Stop(position=0.6, colour="#e0c080"),
    Stop(position=1, colour="#a02010", opacity=0.5),
)  # fmt: skip
FILLS = {
    "linear": Linear(stops=STOPS, angle=70, scale=0.8, offset=0.1),
    "radial": Radial(stops=STOPS, centre_x=0.3, centre_y=0.6, radius_x=0.5, radius_y=0.3, turn=25, focus_x=0.4),
    "conic": Conic(stops=STOPS, start=40, centre_x=0.4, centre_y=0.45),
    "picture": PictureFill(file=SLOPE, fit="filling", cut_left=0.2),
    "tiles": PictureFill(file=SLOPE, fit="tiled", scale=0.4, turn=25, across=4),
    **{name: Texture(pattern=name, scale=3, angle=60) for name in PATTERNS},
}  # fmt: skip
WIDE = {f"{name} over the {span}": FILLS[name].evolve(span=span) for name in ("linear", "radial", "conic", "brush")
        for span in ("group", "canvas")}  # fmt: skip
LOOSE = {"rough bevel", "rough rim", "grain", "depth"}
"""Textures jump at lattice lines, and a swept outline is put together in another order."""


def pixels(shown, fit="off"):
    resolved = resolve(LIT.evolve(fit=fit), shown)
    return compose(resolved, Frame(1.0, canvas_box(resolved, 1.0))).planes


def flip(shown, *, across, ids=None):
    """Flipped, and moved so that the mirror is the middle of the canvas."""
    names = ids or [p.id for p in shown.parts if p.within is None and p.visible]
    box = bounds_of(shown, names)
    edit = read_edit({"kind": "flip", "parts": names, "across": across})
    flipped = edit.apply(shown, Surroundings(light=LIT.light))
    away = {"dx": 80 - box.left - box.right, "dy": 0} if across else {"dx": 0, "dy": 60 - box.top - box.bottom}
    hidden = [p.id for p in shown.parts if p.within is None]
    return read_edit({"kind": "move", "parts": hidden, **away}).apply(flipped, Surroundings())


def check(shown, fit="off", loose=False):
    for across, axis in ((True, 2), (False, 1)):
        away = np.abs(pixels(flip(shown, across=across), fit) - np.flip(pixels(shown, fit), axis)).max(axis=0)
        assert np.quantile(away, 0.99) < 2 / 255
        assert away.max() < (0.3 if loose else 6 / 255)


@pytest.mark.parametrize(("shape", "effect"), EVERY_FORM)
def test_it_is_flipped_with_its_effects(shape, effect):
    check(control(*lone(shape, effect, rotation=20)), loose=effect in LOOSE)


@pytest.mark.parametrize("name", FILLS)
def test_it_is_flipped_with_its_fill(name):
    check(control(part(Box(width=44, height=30, radius=9), Paint(id="e1", fill=FILLS[name]), rotation=15)), loose=True)


@pytest.mark.parametrize("name", WIDE)
def test_fills_over_more_than_the_part_are_flipped_with_it(name):
    paint = Paint(id="e1", fill=WIDE[name])
    inner = [part(Round(width=26, height=20), paint, x=x, y=28, rotation=x, within="p3") for x in (28, 52)]
    check(control(*inner, part(Group())), loose=True)


def test_what_stands_on_the_grid_stays_on_it():
    for shape in (Box(width=31.3, height=20.6), Round(width=31.3, height=21), Text(words="Lock", align="start")):
        check(control(part(shape, solid("#204060"), x=33.4, y=28.3)), fit="sides")


@pytest.mark.parametrize(
    "repeat",
    [
        Repeat(way="row", count=4, across=11, down=3, irregular=0.4, last_size=0.5),
        Repeat(way="around", count=5, sweep=200, left_out=(3,)),
        Repeat(way="mirrored"),
        Repeat(way="rings", count=3),
    ],
)
def test_repeats_are_flipped_in_place(repeat):
    source = part(Sides(count=3, width=14, height=10), solid("#204060"), x=30, y=24, rotation=10, within="p2")
    check(control(source, part(repeat, DropShadow(id="e1", offset=Cast(distance=3, follow=True)), x=40, y=32)))


def test_a_mirrored_repeat_mirrors_words_icons_and_light():
    shadow = DropShadow(id="e1", offset=Cast(distance=3, follow=True))
    inner = (
        part(Text(words="Lo", size=14), solid("#204060"), shadow, x=24, y=20, within="p3"),
        part(Icon(icon="bell", width=16, height=16), solid("#a03010"), x=28, y=42, within="p3"),
    )
    seen = pixels(control(*inner, part(Repeat(way="mirrored"), x=40, y=30)))
    assert np.abs(seen - np.flip(seen, 2)).max() < 2 / 255


def test_hidden_clips_and_masks_are_flipped_along():
    clip = part(Round(width=22, height=30), x=34, y=30, visible=False)
    cover = part(Sides(count=3, width=30, height=26), solid("#ffffff"), x=44, y=28, visible=False)
    mask = Mask(id="e2", cover=PartCover(part="p2"), fitted_x=40, fitted_y=30)
    check(control(clip, cover, part(Box(width=40, height=24), solid("#204060"), mask, clip="p1")))


@pytest.mark.parametrize("across", [True, False])
def test_twice_is_the_same_bytes(across):
    shown = control(
        *with_inner("combination", solid("#406080"), DropShadow(id="e2", offset=Cast(distance=3, follow=True))),
        part(Text(words="Lock"), Paint(id="e1", fill=FILLS["conic"]), Outline(id="e2"), rotation=33),
        part(Box(), Paint(id="e1", fill=FILLS["radial"]), DropShadow(id="e2", offset=Shift(across=3, down=1))),
    )  # fmt: skip
    edit = read_edit({"kind": "flip", "parts": ["p3", "p4", "p5"], "across": across})
    twice = edit.apply(edit.apply(shown, Surroundings(light=LIT.light)), Surroundings(light=LIT.light))
    assert twice == shown
    pictures = [draw(resolve(LIT, one), Frame(1.0, canvas_box(resolve(LIT, one), 1.0))) for one in (shown, twice)]
    assert np.array_equal(*pictures)
    assert isinstance(twice.parts[2].shape, Combination)


@pytest.mark.parametrize("name", ["Boat queue", "Water level", "Open gate"])
def test_a_control_of_the_sample_kit_is_the_same_after_two_flips(name):
    shown = next(one for one in wendmere_lock().controls if one.name == name)
    for across in (True, False):
        for ids in ([one.id] for one in shown.parts if one.within is None):
            edit = read_edit({"kind": "flip", "parts": ids, "across": across})
            assert edit.apply(edit.apply(shown, Surroundings()), Surroundings()) == shown
