"""Materials: laid on parts of any size, saved from one, linked."""

import numpy as np
import pytest

from obrell.app import editing
from obrell.core.document.materials import extent_of, lengths_of, own_values, scaled_effects, with_rule
from obrell.core.document.model import Material
from obrell.core.document.resolve import resolve
from obrell.core.document.value_paths import value_at
from obrell.core.edit import Surroundings, read_edit
from obrell.core.edit.materials import material_from
from obrell.core.effects import Blur, Mask
from obrell.core.errors import NoSuchThing, Refused
from obrell.core.render.picture import picture
from obrell.core.shapes import Box, Round, Text
from obrell.core.shelf import SHIPPED, STARTS
from obrell.core.values.base import Value
from obrell.core.values.fields import live_of
from obrell.store.kits import Kits
from tests.making import EFFECTS_TRIED, KIT, control, kit, layer, part, resolved, solid

STACK = tuple(
    effect.evolve(id=f"e{number}")
    for number, effect in enumerate((e for e in EFFECTS_TRIED.values() if e.lies_in() != "whole"), start=1)
)
MATERIAL = Material(id="m-all", name="All", effects=STACK, extent=20, fixed=("e1/width",))


def paths_of(value, before=""):
    """The paths of all lengths in px below a value."""
    paths = []
    for name, field in type(value).model_fields.items():
        inner, live = getattr(value, name), live_of(field.metadata)
        if live is not None and live.unit == "px":
            paths.append(f"{before}{name}")
        elif isinstance(inner, Value):
            paths += paths_of(inner, f"{before}{name}/")
    return paths


def lay(start, material, **values):
    around = Surroundings(materials=(MATERIAL,))
    return read_edit({"kind": "lay-material", "parts": ["p1"], "material": material, **values}).apply(start, around)


@pytest.mark.parametrize("material", SHIPPED, ids=lambda material: material.name)
@pytest.mark.parametrize("shape", [Box(width=60, height=40), Round(width=6, height=6), Text(words="Lock", size=24)])
def test_every_shipped_material_shows_on_every_size(material, shape):
    laid = lay(control(part(shape)), material.id)
    shown = layer(resolved(*laid.parts)).planes
    assert shown[3].max() > 0.3
    assert len({effect.id for effect in laid.parts[0].effects}) == len(material.effects)


def test_lengths_fit_the_part_unless_they_are_fixed():
    twice = scaled_effects(MATERIAL, 40)
    assert sum(len(paths_of(effect)) for effect in STACK) > 15
    for before, after in zip(STACK, twice, strict=True):
        for path in paths_of(before):
            was, now = before, after
            for step in path.split("/"):
                was, now = getattr(was, step), getattr(now, step)
            assert now == pytest.approx(2 * was, abs=0.01)
    same = scaled_effects(MATERIAL, 40, scaled=False)
    assert same == STACK
    thick = MATERIAL.evolve(effects=(EFFECTS_TRIED["outline"],))
    assert scaled_effects(thick, 40)[0].width == EFFECTS_TRIED["outline"].width


def test_a_look_laid_at_twice_the_size_is_the_look_enlarged():
    small = lay(control(part(Box(width=30, height=20), x=40, y=30)), "m-all").parts
    large = lay(control(part(Box(width=60, height=40), x=80, y=60), width=160, height=120), "m-all").parts
    fine = layer(resolved(*small), 2.0).planes
    big = layer(resolved(*large, width=160, height=120)).planes
    away = np.abs(fine - big)
    away[:, :44] = 0
    assert away.mean() < 0.01


def test_masks_and_blurs_stay_and_links_are_kept_or_let_go():
    start = control(part(Box(), solid("#ff0000"), Mask(id="e1"), Blur(id="e2")))
    laid = lay(start, "m-all", linked=True).parts[0]
    assert [effect.kind for effect in laid.effects[-2:]] == ["mask", "blur"]
    assert laid.material == "m-all"
    freed = read_edit({"kind": "free-material", "parts": ["p1"]}).apply(control(laid), Surroundings())
    assert freed.parts[0].material is None
    assert freed.parts[0].effects == laid.effects
    with pytest.raises(NoSuchThing, match="shelf"):
        lay(start, "m-gone")


def follow(start, material, was=MATERIAL):
    edit = {"kind": "follow-material", "material": material.id, "was": was.model_dump(mode="json")}
    return read_edit(edit).apply(start, Surroundings(materials=(material,))).parts[0]


def test_a_linked_part_keeps_what_is_its_own_when_its_material_changes():
    laid = lay(control(part(Box(width=60, height=40))), "m-all", linked=True)
    assert own_values(laid.parts[0], MATERIAL) == ()
    by_kind = {effect.kind: effect for effect in laid.parts[0].effects}
    shadow, glow = by_kind["drop-shadow"], by_kind["outer-glow"]
    base = f"parts/p1/effects/{shadow.id}"
    changes = [{"path": f"{base}/blur", "value": 1.5}, {"path": f"{base}/offset/distance", "value": 9}]
    changed = read_edit({"kind": "set", "changes": changes}).apply(laid, Surroundings())
    own = own_values(changed.parts[0], MATERIAL)
    assert {(one.effect, one.path) for one in own} == {(shadow.id, "blur"), (shadow.id, "offset/distance")}
    assert {one.path: one.material for one in own}["blur"] == shadow.blur
    deeper = MATERIAL.evolve(
        effects=tuple(e.evolve(opacity=0.9, blur=e.blur * 2) if e.kind == "drop-shadow" else e for e in STACK)
    )
    followed = follow(changed, deeper)
    now = {effect.kind: effect for effect in followed.effects}
    assert (now["drop-shadow"].blur, now["drop-shadow"].offset.distance, now["drop-shadow"].opacity) == (1.5, 9, 0.9)
    assert now["outer-glow"].evolve(id=glow.id) == glow
    assert len(followed.effects) == len(STACK)


def test_effects_of_its_own_stay_and_size_alone_makes_no_value_its_own():
    laid = lay(control(part(Box(width=60, height=40))), "m-all", linked=True)
    more = read_edit({"kind": "add-effect", "part": "p1", "effect": "inner-shadow"}).apply(laid, Surroundings())
    wide = read_edit({"kind": "set", "changes": [{"path": "parts/p1/shape/height", "value": 80}]}).apply(
        more, Surroundings()
    )
    assert own_values(wide.parts[0], MATERIAL) == ()
    followed = follow(wide, MATERIAL)
    assert [e.kind for e in followed.effects].count("inner-shadow") == 2
    assert followed.material_extent == 60
    twice = {e.kind: e for e in scaled_effects(MATERIAL, 60)}
    assert next(e for e in followed.effects if e.kind == "drop-shadow").blur == twice["drop-shadow"].blur


def test_every_length_has_a_rule_of_its_own():
    named = {f"{one.effect}/{one.path}": one for one in lengths_of(MATERIAL)}
    assert len(named) > 12
    for name, one in named.items():
        fixed = with_rule(MATERIAL, one.effect, one.path, fixed=True)
        assert name in fixed.fixed
        was, now = (value_at(next(e for e in stack if e.id == one.effect), one.path)
                    for stack in (STACK, scaled_effects(fixed, 40)))  # fmt: skip
        assert was == now == one.value
        assert name not in with_rule(fixed, one.effect, one.path, fixed=False).fixed


def test_a_saved_look_comes_back_as_it_was():
    start = control(part(Box(width=50, height=30), *STACK))
    saved = material_from(start, "p1", "Mine", "m-mine", scaled=True)
    assert scaled_effects(saved, extent_of(start.parts[0])) == start.parts[0].effects
    bare = control(part(Box()))
    with pytest.raises(Refused, match="no effects"):
        material_from(bare, "p1", "None", "m-none", scaled=True)


def test_materials_travel_with_the_kit(tmp_path):
    kits = Kits(tmp_path / "a.db")
    name = kits.import_kit(kit(control(part(Box()))).evolve(materials=(MATERIAL,)))
    assert kits.export_kit(name).materials == (MATERIAL,)
    laid = editing.edit(kits, name, "c1", read_edit({"kind": "lay-material", "parts": ["p1"], "material": "m-all"}))
    assert len(laid.now.control.parts[0].effects) == len(STACK)


@pytest.mark.parametrize("start", STARTS, ids=lambda start: start.name)
def test_a_start_is_put_over_what_a_part_has_fitted_to_it_and_shows(start):
    small, large = part(Box(width=20, height=10), solid("#5a7a80")), part(Box(width=200, height=80), solid("#5a7a80"))
    base = control(small, large.evolve(x=120, y=60), width=240, height=120)
    begun = read_edit({"kind": "add-start", "parts": ["p1", "p2"], "start": start.id}).apply(base, Surroundings())
    for before, after in zip(base.parts, begun.parts, strict=True):
        assert after.effects[: len(before.effects)] == before.effects
        assert [e.kind for e in after.effects[1:]] == [e.kind for e in start.effects]
        assert len({effect.id for effect in after.effects}) == len(after.effects)
    for one, other in zip(begun.parts[0].effects[1:], begun.parts[1].effects[1:], strict=True):
        if getattr(one, "blur", 0):
            assert other.blur > one.blur
        elif "offset" in type(one).model_fields:
            assert (one.offset.distance, other.offset.distance) == (1, 1)
    shown = [picture(resolve(KIT, document), 1.0) for document in (base, begun)]
    assert np.abs(shown[0].astype(int) - shown[1].astype(int)).max() > 12
    with pytest.raises(NoSuchThing):
        read_edit({"kind": "add-start", "parts": ["p1"], "start": "none"}).apply(base, Surroundings())
