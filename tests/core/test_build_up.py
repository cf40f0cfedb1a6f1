"""The build-up strip: its pictures, its heat map, its costs."""

import numpy as np
import pytest

from obrell.core.document.resolve import resolve
from obrell.core.effects import DropShadow, InnerShadow, Outline, Paint
from obrell.core.render import build_up
from obrell.core.render.build_up import build_steps, costs, only
from obrell.core.render.compose import Frame, canvas_box, draw
from obrell.core.render.heat import COLD, HOT, heat
from obrell.core.shapes import Box
from obrell.core.values.paints import Linear, Stop
from tests.making import KIT, control, layer, part, resolved, solid

PART = part(Box(width=30, height=20), InnerShadow(id="e1"), solid("#ff0000"), DropShadow(id="e1"))


def test_steps_are_in_the_order_of_painting():
    assert [step.label for step in build_steps(PART)] == ["shape", "+ drop shadow", "+ inner shadow", "+ paint"]


def test_a_hidden_effect_is_a_step_that_changes_nothing():
    hidden = PART.evolve(effects=tuple(e.evolve(visible=e.kind != "inner-shadow") for e in PART.effects))
    steps = build_steps(hidden)
    assert [(step.label, step.count, step.hidden) for step in steps[1:]] == [
        ("+ drop shadow", 1, False), ("+ inner shadow", 1, True), ("+ paint", 2, False),
    ]  # fmt: skip


def test_the_last_step_is_the_part_and_a_bare_one_shows_its_shape():
    base = control(PART)
    whole = layer(resolved(*base.parts)).planes
    assert np.array_equal(layer(resolved(*only(base, "p1", 3).parts)).planes, whole)
    bare = layer(resolved(*only(base, "p1", 0).parts)).planes
    assert bare[3, 30, 40] == 1
    assert bare[3, 5, 5] == 0


def test_heat_shows_where_a_step_changes_and_how_much():
    before = np.zeros((1, 4, 4), np.uint8)
    before[0, :3] = (100, 100, 100, 255)
    after = before.copy()
    after[0, 1, 0] += 24
    after[0, 2, 0] += 120
    seen = heat(before, after)
    assert seen[0, 0, :3].tolist() == COLD.astype(int).tolist()
    assert seen[0, 2, :3].tolist() == HOT.astype(int).tolist()
    assert seen[0, 1, 0] > seen[0, 0, 0]
    assert seen[0, 3, 3] == 0


def test_a_step_costs_what_it_adds_to_the_time_of_drawing(monkeypatch):
    drawings = iter((5.0, 12.0, 11.0, 20.0))
    moments = (moment for spent in drawings for moment in (100.0, 100.0 + spent / 1000))
    monkeypatch.setattr(build_up.time, "perf_counter", lambda: next(moments))
    assert costs(KIT, control(PART), "p1", 1.0) == pytest.approx([5.0, 7.0, 0.0, 9.0])
    assert next(drawings, None) is None, "one drawing for each step"


def test_equal_steps_are_told_apart():
    ramp = Linear(stops=(Stop(position=0, colour="#ffffff"), Stop(position=1, colour="#000000")))
    greens = [solid("#00ff00", blend="multiply"), solid("#00ff00")]
    paints = [solid("#ff0000"), Paint(id="e2", fill=ramp), *greens]
    shadows = [InnerShadow(id="e5"), InnerShadow(id="e6")]
    labels = [step.label for step in build_steps(part(Box(), *paints, *shadows))]
    assert len(set(labels)) == len(labels)
    assert labels[1:5] == [
        "+ paint, #ff0000", "+ paint, linear", "+ paint, #00ff00, multiply", "+ paint, #00ff00",
    ]  # fmt: skip
    assert labels[5:] == ["+ inner shadow 1", "+ inner shadow 2"]


def test_a_part_without_paint_is_not_shown_filled():
    bare = part(Box(width=30, height=20), Outline(id="e1", width=2, place="inside"), x=40, y=30)
    for count, alpha in ((0, 1.0), (1, 0.0)):
        shown = resolve(KIT, only(control(bare), "p1", count))
        middle = draw(shown, Frame(1.0, canvas_box(shown, 1.0)))[30, 40, 3]
        assert middle == 255 * alpha
