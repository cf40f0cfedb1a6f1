"""Looks as a whole: effects copied, strengthened, swept, pressed; versions kept; gradients' stops."""

import pytest

from obrell.core.edit import Surroundings, read_edit
from obrell.core.effects import Bevel, DropShadow, InnerShadow, Outline, Paint
from obrell.core.effects.offsets import Cast
from obrell.core.errors import Refused
from obrell.core.shapes import Box, Round
from obrell.core.shelf import GRADIENTS
from obrell.core.values.paints import Conic, Solid, Stop
from tests.making import control, part, solid

SHADOW = DropShadow(id="e1", offset=Cast(distance=10, follow=True), blur=10, opacity=0.5)
START = control(
    part(Box(), solid("#ff0000"), SHADOW, InnerShadow(id="e1", offset=Cast(distance=2, follow=True)), Bevel(id="e1")),
    part(Round(), solid("#00ff00")),
)
RAMP = Conic(
    stops=(
        Stop(position=0, colour="#ff0000"),
        Stop(position=0.2, colour="#00ff00"),
        Stop(position=0.9, colour="#0000ff"),
    )
)


def done(edit, start=START):
    return read_edit({"parts": ["p1"], **edit}).apply(start, Surroundings(light=30))


def kinds(changed, number=0):
    return [effect.kind for effect in changed.parts[number].effects]


def test_effects_are_pasted_on_several_parts_with_ids_of_their_own():
    copied = [SHADOW.model_dump(mode="json"), Outline(id="e1").model_dump(mode="json")]
    changed = done({"kind": "paste-effects", "parts": ["p1", "p2"], "effects": copied})
    assert kinds(changed, 1) == ["paint", "drop-shadow", "outline"]
    ids = [effect.id for p in changed.parts for effect in p.effects[-2:]]
    assert len(set(ids)) == 4
    assert (
        kinds(done({"kind": "paste-effects", "parts": ["p2"], "effects": copied, "instead": True}), 1)
        == kinds(changed, 1)[1:]
    )


def test_a_look_gets_heavier_and_lighter_but_paint_stays():
    heavy = done({"kind": "strengthen", "factor": 1.5}).parts[0].effects
    assert heavy[0].opacity == 1
    assert heavy[1].opacity == pytest.approx(0.75)
    assert heavy[3].highlight_opacity == 1
    assert heavy[3].opacity == 1
    light = done({"kind": "strengthen", "factor": 0.5}).parts[0].effects
    assert light[3].shade_opacity == pytest.approx(0.3)


def test_all_of_one_kind_or_zone_are_swept():
    hidden = done({"kind": "sweep-effects", "which": "surface", "do": "hide"}).parts[0].effects
    assert [effect.visible for effect in hidden] == [False, True, False, False]
    assert kinds(done({"kind": "sweep-effects", "which": "drop-shadow", "do": "remove"})) == [
        "paint", "inner-shadow", "bevel",
    ]  # fmt: skip
    with pytest.raises(Refused, match="no kind"):
        done({"kind": "sweep-effects", "which": "rain", "do": "hide"})


def test_a_pressed_look_is_lit_from_the_other_side():
    shadow, inner, bevel = done({"kind": "press-look"}).parts[0].effects[1:]
    assert (shadow.offset.distance, shadow.blur) == pytest.approx((4, 4))
    assert (inner.offset.direction, bevel.direction) == (210, 210)
    assert not bevel.follow


def test_up_to_four_looks_are_kept_aside_and_exchanged():
    kept = START
    for _ in range(4):
        kept = done({"kind": "keep-version"}, kept)
    assert [version.name for version in kept.parts[0].versions] == ["Version", "Version 2", "Version 3", "Version 4"]
    with pytest.raises(Refused, match="drop one"):
        done({"kind": "keep-version"}, kept)
    pressed = done({"kind": "press-look"}, kept)
    back = done({"kind": "use-version", "number": 1}, pressed)
    assert back.parts[0].effects == START.parts[0].effects
    assert back.parts[0].versions[1].effects == pressed.parts[0].effects
    assert len(done({"kind": "use-version", "number": 0, "drop": True}, back).parts[0].versions) == 3


def test_stops_are_spaced_evenly_and_a_seam_is_closed():
    start = control(part(Box(), solid("#000000").evolve(fill=RAMP), Outline(id="e1", fill=Solid(colour="#ffffff"))))
    path = "parts/p1/effects/e1/fill"
    even = read_edit({"kind": "space-stops", "path": path}).apply(start, Surroundings())
    assert [stop.position for stop in even.parts[0].effects[0].fill.stops] == pytest.approx([0, 0.45, 0.9])
    closed = read_edit({"kind": "close-seam", "path": path}).apply(start, Surroundings()).parts[0].effects[0].fill
    assert RAMP.seam
    assert not closed.seam
    assert len(closed.stops) == 4


def test_fills_are_swapped_or_shared_between_paint_and_outline():
    ramp = GRADIENTS[0].fill
    both = control(part(Box(), Paint(id="e1", fill=ramp), Outline(id="e2"), DropShadow(id="e3")))
    swap = {"kind": "swap-fills", "part": "p1", "effect": "e1", "other": "e2"}
    swapped = read_edit(swap).apply(both, Surroundings()).parts[0].effects
    assert (swapped[0].fill, swapped[1].fill) == (both.parts[0].effects[1].fill, ramp)
    shared = read_edit(swap | {"how": "give"}).apply(both, Surroundings()).parts[0].effects
    assert shared[0].fill == shared[1].fill == ramp
    with pytest.raises(Refused, match="Paints"):
        read_edit(swap | {"other": "e3"}).apply(both, Surroundings())
    bare = control(part(Box(), Paint(id="e1", fill=ramp)))
    onto = read_edit({"kind": "paint-with", "parts": ["p1"], "fill": ramp, "onto": "outline"})
    assert [e.kind for e in onto.apply(bare, Surroundings()).parts[0].effects] == ["outline", "paint"]


def test_forty_gradients_are_shipped_and_painted_with():
    assert len(GRADIENTS) == 40
    assert len({gradient.name for gradient in GRADIENTS}) == 40
    assert not any(isinstance(g.fill, Conic) and g.fill.seam for g in GRADIENTS)
    fill = GRADIENTS[0].fill.model_dump(mode="json")
    painted = done({"kind": "paint-with", "parts": ["p1", "p2"], "fill": fill})
    assert [p.effects[0].fill for p in painted.parts] == [GRADIENTS[0].fill] * 2
    assert kinds(painted) == kinds(START)
    bare = done({"kind": "paint-with", "fill": fill}, control(part(Box(), SHADOW)))
    assert kinds(bare) == ["paint", "drop-shadow"]


def test_pasted_effects_can_fit_a_part_of_another_size():
    small, large = part(Box(width=40, height=20)), part(Box(width=120, height=60))
    shadow = DropShadow(id="e1", blur=4, offset=Cast(distance=2))
    edit = {"kind": "paste-effects", "parts": ["p1", "p2"], "effects": [shadow.model_dump()]}
    plain = read_edit(edit).apply(control(small, large), Surroundings()).parts
    assert [p.effects[0].blur for p in plain] == [4, 4]
    fitted = read_edit(edit | {"made_for": 20}).apply(control(small, large), Surroundings()).parts
    assert [(p.effects[0].blur, p.effects[0].offset.distance) for p in fitted] == [(4, 2), (12, 6)]


def test_a_fill_is_taken_or_given_and_says_so():
    one, other = solid("#ff0000"), Outline(id="e2", fill=Solid(colour="#00ff00"))
    start = control(part(Box(), one, other))
    edit = {"kind": "swap-fills", "part": "p1", "effect": "e1", "other": "e2"}
    for how, want, words in (("take", "#00ff00", "of outline to paint"), ("give", "#ff0000", "of paint to outline")):
        asked = read_edit(edit | {"how": how})
        assert {effect.fill.colour for effect in asked.apply(start, Surroundings()).parts[0].effects} == {want}
        assert words in asked.label(start)
