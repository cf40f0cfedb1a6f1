"""What a control stands on: seen, taken up by gloss and shadows, delivered only when asked."""

import numpy as np
import pytest

from obrell.core.deliver.bundle import make
from obrell.core.deliver.order import Order
from obrell.core.deliver.plan import plan
from obrell.core.document.model import PLAIN_GROUND
from obrell.core.document.resolve import resolve
from obrell.core.edit import Surroundings, read_edit
from obrell.core.effects import Gloss, InnerShadow
from obrell.core.formats.svg.document import svg
from obrell.core.paint.fills import mean_colour
from obrell.core.render.picture import picture
from obrell.core.shapes import Box
from obrell.core.values.colours import SwatchLink
from obrell.core.values.paints import Linear, Picture, Solid, Stop, Texture
from tests.making import KIT, SLOPE, control, part, slope, solid

KEY = control(part(Box(width=40, height=24), solid("#204060")))


def on(ground, of=KEY):
    change = {"kind": "set", "changes": [{"path": "ground", "value": ground and ground.model_dump(mode="json")}]}
    return read_edit(change).apply(of, Surroundings())


def test_a_ground_is_seen_behind_all_and_delivered_only_when_asked():
    red = on(Solid(colour="#ff0000"))
    bare, whole = (
        make(plan(KIT, (red,), Order(formats=("png",), densities=(1.0,), ground=asked)).files[0])
        for asked in (False, True)
    )
    assert bare != whole
    shown = resolve(KIT, red)
    assert picture(shown, 1.0)[0, 0, 3] == 0
    assert tuple(picture(shown.standing(), 1.0)[0, 0]) == (255, 0, 0, 255)
    assert np.array_equal(picture(shown.ground_alone(), 1.0)[30, 40], (255, 0, 0, 255))
    assert "#ff0000" in svg(shown.standing())
    assert "#ff0000" not in svg(shown)
    assert on(None, red).ground is None


def test_without_one_of_its_own_it_stands_on_the_plain_ground():
    levels = picture(resolve(KIT, KEY).standing(), 1.0)
    first, last = PLAIN_GROUND.stops[0].colour, PLAIN_GROUND.stops[-1].colour
    assert abs(int(levels[0, 0, 0]) - int(first[1:3], 16)) <= 1
    assert abs(int(levels[-1, 0, 0]) - int(last[1:3], 16)) <= 1


MEANS = {
    "#336699": Solid(colour="#336699"),
    "#808080": Linear(stops=(Stop(position=0, colour="#000000"), Stop(position=1, colour="#ffffff"))),
    "#404040": Texture(colour="#000000", second="#808080"),
}


@pytest.mark.parametrize("colour", MEANS)
def test_the_mean_colour_of_a_ground(colour):
    found = mean_colour(MEANS[colour])
    assert all(abs(int(found[i : i + 2], 16) - int(colour[i : i + 2], 16)) <= 1 for i in (1, 3, 5))


def test_the_mean_colour_of_a_picture():
    found = mean_colour(Picture(file=SLOPE))
    levels = slope(48, 32).reshape(-1, 4)
    want = np.average(levels[:, :3], axis=0, weights=levels[:, 3])
    assert [int(found[i : i + 2], 16) for i in (1, 3, 5)] == pytest.approx(want, abs=1)


@pytest.mark.parametrize("kind", [Gloss, InnerShadow])
def test_gloss_and_lower_lip_take_up_the_ground(kind):
    lip = kind(id="e2", colour="#ffffff", takes_up=0.5)
    shown = resolve(KIT, on(Solid(colour="#ff0000"), control(part(Box(), solid("#204060"), lip))))
    assert shown.control.parts[0].effects[1].colour == "#ff8080"
    assert resolve(KIT, control(part(Box(), lip))).control.parts[0].effects[0].colour == "#f0f2f0"


def test_a_ground_follows_a_swatch():
    kit = KIT.evolve(swatches=({"id": "tarn", "name": "Tarn", "colour": "#1f8a92"},))
    shown = resolve(kit, KEY.evolve(ground=Solid(colour=SwatchLink(swatch="tarn"))))
    assert tuple(picture(shown.standing(), 1.0)[0, 0, :3]) == (0x1F, 0x8A, 0x92)


def test_a_ground_whose_picture_is_gone_leaves_the_control_as_it_is():
    lip = Gloss(id="e2", takes_up=0.5)
    lost = control(part(Box(), solid("#204060"), lip)).evolve(ground=Picture(file="0" * 32))
    assert resolve(KIT, lost).control.parts[0].effects[1].colour == "#f0f2f0"


def test_what_it_is_looked_at_on_is_kept_and_delivered_only_when_asked():
    chosen = {"kind": "set", "changes": [{"path": "stands", "value": "dark"}]}
    dark = read_edit(chosen).apply(on(Solid(colour="#ff0000")), Surroundings())
    assert KEY.stands_on == "light"
    assert on(Solid(colour="#ff0000")).stands_on == "own"
    assert np.array_equal(picture(resolve(KIT, dark), 1.0), picture(resolve(KIT, KEY), 1.0))
    assert tuple(picture(resolve(KIT, dark).standing(), 1.0)[0, 0]) == (0x1E, 0x28, 0x2E, 255)
    chequered = dark.evolve(stands="checker")
    assert picture(resolve(KIT, chequered).standing(), 1.0)[0, 0, 3] == 0
