"""Fitting to pixels, and the sides that are soft without it."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.document.value_paths import value_at
from obrell.core.edit import Surroundings, read_edit
from obrell.core.effects import Outline
from obrell.core.scene.stands import stand_of
from obrell.core.shapes import Box, Combination, Line, Path, Ring, Text
from obrell.core.shapes.outlined import Contour, Knot
from obrell.core.values.paints import Solid
from tests.making import control, layer, part, resolved, soft_sides, solid

DENSITIES = [1.0, 1.5, 2.0, 3.0]
PILL = Box(width=37.3, height=20.7, radius=4)


@pytest.mark.parametrize("density", DENSITIES)
@pytest.mark.parametrize("turn", [0, 90, 180, 270])
def test_fitted_sides_have_no_partly_covered_pixel(density, turn):
    shown = resolved(part(PILL.evolve(radius=0), solid("#000000"), x=40.2, y=30.4, rotation=turn), fit="sides")
    alpha = layer(shown, density).planes[3]
    assert set(np.unique(alpha)) == {0.0, 1.0}
    assert soft_sides(shown, shown.control.parts[0], density) == 0


@given(st.floats(5, 70), st.floats(5, 50), st.floats(2, 60), st.sampled_from(DENSITIES))
def test_things_with_one_centre_stay_centred(x, y, size, density):
    outer, inner = Box(width=size + 8, height=30), Box(width=size, height=20)
    boxes = []
    for shape in (outer, inner):
        shown = resolved(part(shape, solid("#000000"), x=x, y=y), fit="sides")
        boxes.append(stand_of(shown, shown.control.parts[0], density).outline.bounds())
    left, right = boxes[1].left - boxes[0].left, boxes[0].right - boxes[1].right
    assert abs(left - right) <= 1.0001
    assert abs((boxes[0].left + boxes[0].right) / 2 - x * density) <= 0.5001


def test_unfitted_sides_are_counted_and_turned_ones_have_none():
    shown = resolved(part(PILL, solid("#000000"), x=40, y=30))
    assert soft_sides(shown, shown.control.parts[0], 1.0) == 4
    turned = resolved(part(PILL, solid("#000000"), rotation=10))
    assert soft_sides(turned, turned.control.parts[0], 1.0) == 0
    label = resolved(part(Text(), solid("#000000")))
    assert soft_sides(label, label.control.parts[0], 1.0) == 0


@pytest.mark.parametrize(
    ("shape", "count"),
    [
        (Path(contours=(Contour(knots=(Knot(x=-10, y=-9.75), Knot(x=10, y=-9.75), Knot(x=0, y=9))),)), 1),
        (Path(contours=(Contour(knots=(Knot(x=0.25, y=-9), Knot(x=9, y=-9), Knot(x=9, y=9), Knot(x=0.25, y=9))),)), 1),
        (Ring(outer=12, inner=6), 0),
    ],
)
def test_paths_have_soft_sides_too(shape, count):
    shown = resolved(part(shape, solid("#000000")))
    assert soft_sides(shown, shown.control.parts[0], 1.0) == count
    combined = resolved(part(shape, solid("#000000"), within="p2"), part(Combination(), solid("#000000")))
    assert soft_sides(combined, combined.tree.all["p2"].part, 1.0) == count


def test_strokes_are_fitted_when_asked_and_keep_at_least_a_pixel():
    edge = Outline(id="e1", width=0.6, fill=Solid(colour="#ffffff"))
    sides = resolved(part(PILL, edge), fit="sides")
    strokes = resolved(part(PILL, edge), fit="strokes")
    assert soft_sides(sides, sides.control.parts[0], 2.0) == 4
    assert soft_sides(strokes, strokes.control.parts[0], 2.0) == 0
    assert soft_sides(strokes, strokes.control.parts[0], 1.0) == 0


@pytest.mark.parametrize("density", DENSITIES)
def test_text_stands_with_its_baseline_on_the_grid(density):
    shown = resolved(part(Text(words="HH", size=13.3), solid("#000000"), y=30.37), fit="sides")
    alpha = layer(shown, density).planes[3]
    rows = np.flatnonzero(alpha.max(axis=1) > 0)
    assert alpha[rows[-1]].max() == pytest.approx(1.0, abs=1e-4)


@pytest.mark.parametrize("density", [1.0, 1.5, 2.0, 3.0])
@pytest.mark.parametrize("place", ["inside", "centre", "outside"])
def test_a_width_of_one_device_px_is_crisp_at_every_density(place, density):
    line = Outline(id="e1", place=place, thin="1 device px", width=7, fill=Solid(colour="#ffffff"))
    shown = resolved(part(Box(width=40, height=24), line, x=40, y=30), fit="sides")
    alpha = layer(shown, density).planes[3]
    assert set(np.unique(alpha)) == {0.0, 1.0}
    middle = alpha[round(30 * density)]
    assert middle.sum() == 2


@pytest.mark.parametrize("density", [1.0, 1.5, 2.0, 3.0])
def test_a_line_can_be_one_device_px_too(density):
    line = part(Line(across=30, down=0, thin="1 device px"), solid("#ffffff"), x=20, y=30.3)
    alpha = layer(resolved(line, fit="sides"), density).planes[3]
    assert set(np.unique(alpha)) == {0.0, 1.0}
    assert (alpha.sum(axis=1) > 0).sum() == 1
    typed = control(part(Line(across=30), solid("#ffffff")), part(Box(), Outline(id="e1")))
    for path in ("parts/p1/shape", "parts/p2/effects/e1"):
        edit = {"kind": "type", "path": f"{path}/width", "text": "1 device px"}
        assert value_at(read_edit(edit).apply(typed, Surroundings()), f"{path}/thin") == "1 device px"
