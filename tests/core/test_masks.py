"""Masks by gradients and parts, against interpolation written down in float64."""

import numpy as np
import pytest

from obrell.core.document.resolve import resolve
from obrell.core.edit import Surroundings, read_edit
from obrell.core.effects import DropShadow, Mask
from obrell.core.effects.kinds.mask import GradientCover, PartCover
from obrell.core.render.compose import Frame, canvas_box
from obrell.core.scene.changes import changed_box
from obrell.core.shapes import Box, Group, Round
from obrell.core.values.paints import Linear, Stop
from tests.making import KIT, control, layer, part, resolved, solid

FADE = Linear(angle=90, stops=(Stop(position=0, colour="#ffffff"), Stop(position=1, colour="#ffffff", opacity=0)))
GREY = Linear(angle=90, stops=(Stop(position=0, colour="#ff0000"), Stop(position=1, colour="#0000ff")))
BOX = Box(width=40, height=20)
ALPHA = 1 - (np.arange(40) + 0.5) / 40


def gradient(fill=FADE, **values):
    return Mask(id="e9", cover=GradientCover(fill=fill), fitted_x=40, fitted_y=30, **values)


def by_part(name, **values):
    return Mask(id="e9", cover=PartCover(part=name), fitted_x=40, fitted_y=30, **values)


def row(*parts):
    return layer(resolved(*parts)).planes[:, 30, 20:60]


def test_a_gradient_masks_by_its_opacity():
    shown = row(part(BOX, solid("#ff0000"), gradient()))
    assert shown[3] == pytest.approx(ALPHA, abs=1e-5)
    assert shown[0] == pytest.approx(ALPHA, abs=1e-5)
    assert row(part(BOX, solid("#ff0000"), gradient(inverted=True)))[3] == pytest.approx(1 - ALPHA, abs=1e-5)
    half = row(part(BOX, solid("#ff0000"), gradient(opacity=0.5)))
    assert half[3] == pytest.approx(1 - 0.5 * (1 - ALPHA), abs=1e-5)


def test_a_gradient_masks_by_its_lightness():
    shown = row(part(BOX, solid("#00ff00"), gradient(GREY, measure="lightness")))
    assert shown[3] == pytest.approx(0.2126 * ALPHA + 0.0722 * (1 - ALPHA), abs=1e-5)


def test_a_masked_part_is_an_interpolation_of_with_and_without_it():
    below = part(Box(width=80, height=60), solid("#2060a0"))
    shadow = DropShadow(id="e2", blur=6)
    bare = part(Round(width=40, height=20), solid("#e0b040"), shadow, blend="multiply")
    masked = part(Round(width=40, height=20), solid("#e0b040"), shadow, gradient(), blend="multiply")
    without, whole, got = (layer(resolved(*parts)).planes for parts in ((below,), (below, bare), (below, masked)))
    want = without[:, :, 20:60] + ALPHA * (whole[:, :, 20:60] - without[:, :, 20:60])
    assert np.abs(got[:, :, 20:60] - want).max() < 1e-5


def test_two_masks_multiply():
    shown = row(part(BOX, solid("#ff0000"), gradient(), gradient()))
    assert shown[3] == pytest.approx(ALPHA**2, abs=1e-5)


def test_another_part_masks_shown_or_hidden_by_opacity_or_lightness():
    window = part(Box(width=10, height=60), solid("#0000ff"), opacity=0.5, visible=False)
    for measure, level in (("opacity", 0.5), ("lightness", 0.0722 * 0.5)):
        shown = row(window, part(BOX, solid("#ff0000"), by_part("p1", measure=measure)))
        assert shown[3][15:25] == pytest.approx(level, abs=1e-5)
        assert shown[3][:15].max() == 0
    outside = row(window, part(BOX, solid("#ff0000"), by_part("p1", inverted=True)))
    assert outside[3][:15].min() == 1


def test_a_part_that_is_gone_masks_nothing_and_circles_end():
    assert row(part(BOX, solid("#ff0000"), by_part("p8")))[3].min() == 1
    one, two = part(BOX, solid("#ff0000"), by_part("p2")), part(BOX, solid("#00ff00"), by_part("p1"))
    assert row(one, two)[3].min() == 1


def test_masks_go_with_the_part_or_stay():
    window = part(Box(width=10, height=60), solid("#ffffff"), visible=False)
    body = part(BOX, solid("#ff0000"), by_part("p1"), x=45)
    shown = row(window, body)
    assert (shown[3][:20].max(), shown[3][20:30].min(), shown[3][30:].max()) == (0, 1, 0)
    stays = row(window, part(BOX, solid("#ff0000"), by_part("p1", moves=False), x=45))
    assert (stays[3][:15].max(), stays[3][15:25].min(), stays[3][25:].max()) == (0, 1, 0)
    fixed = layer(resolved(part(BOX, solid("#ff0000"), gradient(moves=False), x=45))).planes[3, 30, 25:60]
    assert fixed == pytest.approx(ALPHA[5:], abs=1e-5)


def test_a_mask_that_begins_to_stay_does_not_jump():
    base = control(part(BOX, solid("#ff0000"), gradient(), x=50))
    told = {"kind": "set", "changes": [{"path": "parts/p1/effects/e2/moves", "value": False}]}
    changed = read_edit(told).apply(base, Surroundings())
    assert changed.parts[0].effects[1].fitted_x == 50


def test_a_group_is_masked_as_one():
    inner = part(Box(width=40, height=20), solid("#ff0000"), within="p2")
    shown = layer(resolved(inner, part(Group(), gradient()))).planes[3, 30, 20:60]
    assert shown == pytest.approx(ALPHA, abs=1e-5)


def test_what_masks_is_redrawn_when_it_changes():
    def shown(x):
        window = part(Round(width=10, height=10), solid("#ffffff"), x=x, visible=False)
        return resolve(KIT, control(window, part(BOX, solid("#ff0000"), by_part("p1"))))

    old, new = shown(30), shown(34)
    frame = Frame(1.0, canvas_box(old, 1.0))
    assert changed_box(old, new, frame.density, frame.region).width >= 20


@pytest.mark.parametrize("fill", [FADE, GREY])
@pytest.mark.parametrize("ways", [("lightness",), ("lightness", "opacity")])
def test_a_mask_that_is_measured_otherwise_masks_as_before(fill, ways):
    before = "lightness" if fill is GREY else "opacity"
    shown = control(part(BOX, solid("#00ff00"), gradient(fill, measure=before)))
    edited = shown
    for measure in (*ways, before):
        change = {"path": "parts/p1/effects/e2/measure", "value": measure}
        edited = read_edit({"kind": "set", "changes": [change]}).apply(edited, Surroundings())
        seen = layer(resolve(KIT, edited)).planes[3, 30, 20:60]
        assert seen == pytest.approx(layer(resolve(KIT, shown)).planes[3, 30, 20:60], abs=0.003)
