"""What is named acts as named."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.document.measures import anchor_of, frame_on_canvas
from obrell.core.document.model import Canvas, Light
from obrell.core.document.resolve import resolve
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.edit.companions import proposed_fit
from obrell.core.edit.materials import material_from
from obrell.core.effects import Bevel, Blur, DropShadow, InnerShadow, Mask, Outline
from obrell.core.effects.offsets import Cast, Shift
from obrell.core.errors import BadValue, Refused
from obrell.core.findings import found_in
from obrell.core.findings.sides import edge_near, sides_of
from obrell.core.icons import find_icons
from obrell.core.render.build_up import build_steps
from obrell.core.render.picture import picture
from obrell.core.scene.stands import stand_of
from obrell.core.shapes import Box, Icon, Round, Sides, Text
from obrell.core.shapes.base import Slot
from obrell.web.keeping import keeping
from tests.making import KIT, SHAPES_TRIED, control, part, solid

INK = solid("#204060")
ALL = control(*(part(Box(width=10, height=10), INK, x=10 * n + 10, y=30) for n in range(4)))


def do(here, **edit):
    return applied(read_edit(edit), here, Surroundings.of(KIT))


def order(here):
    return [one.id for one in here.parts]


def found(here, kind):
    return [one for one in found_in(resolve(KIT, here)) if one.kind == kind]


@given(st.sets(st.sampled_from(order(ALL)), min_size=1, max_size=3), st.sampled_from(["front", "back"]))
def test_parts_go_to_the_front_or_the_back_in_one_step_and_keep_their_order(ids, way):
    moved = [name for name in order(ALL) if name in ids]
    rest = [name for name in order(ALL) if name not in ids]
    wanted = [*rest, *moved] if way == "front" else [*moved, *rest]
    edit = {"kind": "to-end", "parts": sorted(ids), "way": way}
    if wanted == order(ALL):
        with pytest.raises(Refused, match="already"):
            do(ALL, **edit)
    else:
        assert order(do(ALL, **edit)) == wanted


def test_they_do_so_over_combinations_with_all_that_lies_in_them():
    combined = do(ALL, kind="combine", parts=["p2", "p3"])
    made = combined.parts[-2] if combined.parts[-1].id == "p4" else combined.parts[-1]
    assert order(do(combined, kind="to-end", parts=["p1"], way="front"))[-1] == "p1"
    back = do(combined, kind="to-end", parts=[made.id], way="back")
    assert set(order(back)[:3]) == {"p2", "p3", made.id}
    with pytest.raises(Refused):
        do(ALL, kind="to-end", parts=["p4"], way="front")


def test_a_combination_can_leave_its_pieces_where_they_are():
    made = do(ALL, kind="combine", parts=["p1", "p2"], mode="difference", keep=True)
    assert {"p1", "p2", "p3", "p4"} < set(order(made))
    by_id = {one.id: one for one in made.parts}
    assert by_id["p1"] == ALL.parts[0]
    new = [one for one in made.parts if one.id not in order(ALL)]
    assert sorted(one.shape.kind for one in new) == ["box", "box", "combination"]


def test_sides_of_their_own_begin_alike_and_can_be_a_device_pixel_each():
    alike = Outline(id="e1", sides="each its own")
    assert alike.widths() == (1, 1, 1, 1)
    light = alike.evolve(thin="1 device px", right=0, bottom=0, left=0, fill=solid("#ffffff").fill)
    here = control(part(Box(width=40, height=20), INK, light, x=40, y=30))
    for density in (1, 1.5, 2, 3):
        column = picture(resolve(KIT, here), float(density))[:, round(40 * density), 0]
        assert (column > 250).sum() == 1, density


@pytest.mark.parametrize(("width", "height"), [(160, 64), (161, 65), (80, 61)])
def test_the_canvas_grows_alike_on_both_sides_to_a_size_that_is_whole_at_every_density(width, height):
    shadow = DropShadow(id="e1")
    body = part(Box(width=width - 4, height=height - 4), INK, shadow, x=width / 2, y=height / 2)
    here = control(body).evolve(canvas=Canvas(width=width, height=height))
    (one,) = found(here, "cut-edges")
    grown = applied(one.cures[-1].edit, here, Surroundings())
    assert not found(grown, "cut-edges")
    for side in (grown.canvas.width, grown.canvas.height):
        assert side % 2 == 0 or side in (width, height)
    left, top = grown.parts[0].x - here.parts[0].x, grown.parts[0].y - here.parts[0].y
    assert grown.canvas.width - width - left in (left, left + 1)
    assert grown.canvas.height - height - top in (top, top + 1)


def test_a_saved_material_keeps_hairlines_only_in_px():
    wide, hair = Outline(id="e1", width=14), Outline(id="e2", width=1)
    here = control(part(Sides(count=3, width=90, height=80), INK, wide, hair))
    material = material_from(here, "p1", "Sign", "sign", scaled=True)
    assert material.fixed == tuple(f"{one.id}/width" for one in here.parts[0].effects if getattr(one, "width", 0) == 1)


def test_a_piece_of_an_intersection_that_reaches_off_the_canvas_is_no_finding():
    large = part(Round(width=300, height=300), INK, x=40, y=30)
    here = do(control(part(Box(width=20, height=20), INK, x=40, y=30), large), kind="combine", parts=["p1", "p2"],
              mode="intersection")  # fmt: skip
    assert not found(here, "off-canvas")
    assert found(do(here, kind="move", parts=[here.parts[-1].id], dx=60, dy=0), "off-canvas")


def test_what_a_clip_cuts_off_is_no_finding():
    large = part(Round(width=300, height=300), INK, x=40, y=30, clip="p1")
    assert not found(control(part(Box(width=20, height=20), INK, x=40, y=30), large), "off-canvas")


def test_softness_that_was_asked_for_is_no_finding_and_blurred_parts_keep_their_size():
    soft = part(Box(width=30.5, height=5.4), INK, x=40.3, y=30.25, fit="off")
    assert found(control(soft), "soft-sides")
    assert not found(control(soft.evolve(effects=(*soft.effects, Blur(id="e5", radius=2)))), "soft-sides")
    blurred = soft.evolve(fit="sides", effects=(*soft.effects, Blur(id="e5", radius=2)))
    shown = resolve(KIT, control(blurred))
    heights = {
        stand_of(shown, shown.control.parts[0], density).outline.bounds().height / density for density in (1, 2, 3)
    }
    assert {round(height, 6) for height in heights} == {5.4}


def test_icons_are_found_by_whole_words_first_then_beginnings():
    assert find_icons("lock")[0] == "lock"
    assert all("lock" in name.split("-") for name in find_icons("lock")[:5])
    assert find_icons("unlock")[0] == "lock-open"
    assert find_icons("bell")[0] == "bell"
    assert "clock" in find_icons("lock", most=2000)


def test_one_value_of_a_linked_copy_is_let_go_without_the_others():
    here = control(part(Box(width=30, height=20), INK, x=40, y=30))
    made = do(here, kind="linked-copy", parts=["p1"])
    copy = made.parts[-1]
    paths = {follow.path for follow in copy.follows}
    alone = do(made, kind="remove-follow", part=copy.id, path="shape/height")
    assert {follow.path for follow in alone.parts[-1].follows} == paths - {"shape/height"}
    assert do(made, kind="remove-follow", part=copy.id, paths=["x", "y"]).parts[-1].follows == tuple(
        follow for follow in copy.follows if follow.path not in ("x", "y")
    )
    (sentence,) = keeping(made, copy)
    other = do(made, kind="add-follow", part=copy.id, path="rotation", source="p1", measure="width")
    left = applied(read_edit(sentence.stop), other, Surroundings()).parts[-1].follows
    assert [follow.path for follow in left] == ["rotation"]


def test_an_effect_that_several_parts_share_is_set_and_said_by_its_place():
    here = control(*(part(Box(width=20, height=20), INK, DropShadow(id="e5"), x=20 + 30 * n, y=30) for n in range(2)))
    wish = {"kind": "type", "path": "parts/*/effects/drop-shadow:0/blur", "text": "12", "parts": ["p1", "p2"]}
    assert [one.effects[1].blur for one in do(here, **wish).parts] == [12, 12]
    assert "drop shadow" in read_edit(wish).label(here)


@pytest.mark.parametrize(("axis", "at"), [("x", 0), ("y", 1)])
@pytest.mark.parametrize("typed", [True, False])
def test_several_parts_are_placed_by_their_middles(axis, at, typed):
    here = control(*(part(SHAPES_TRIED[kind], x=20, y=20) for kind in ("box", "path", "line", "text")))
    names = [one.id for one in here.parts]
    path = f"parts/*/{axis}"
    wish = {"kind": "type", "path": path, "text": "48"} if typed else {
        "kind": "set", "changes": [{"path": path, "value": 48}],
    }  # fmt: skip
    made = do(here, **wish, parts=names)
    assert [anchor_of(one, (0.5, 0.5))[at] for one in made.parts] == pytest.approx([48] * 4)
    moved = do(here, kind="type", path=path, text="+5", parts=names)
    pairs = zip(here.parts, moved.parts, strict=True)
    assert [getattr(after, axis) - getattr(before, axis) for before, after in pairs] == pytest.approx([5] * 4)


@pytest.mark.parametrize("kind", sorted(SHAPES_TRIED))
def test_a_linked_copy_on_its_original_says_no_distance(kind):
    here = control(part(SHAPES_TRIED[kind], x=20, y=20))
    made = do(here, kind="linked-copy", parts=["p1"])
    (kept,) = keeping(made, made.parts[-1])
    assert {value.slot.text for value in kept.values} == {"0"}


@pytest.mark.parametrize(("wish", "width"), [({"percent": 200}, 80), ({"wide": 100}, 100), ({"percent": 50}, 20)])
def test_what_follows_is_scaled_as_it_is_asked(wish, width):
    linked = do(control(part(Box(width=40, height=20), x=40, y=30)), kind="linked-copy", parts=["p1"])
    copy = linked.parts[-1].id
    made = do(linked, kind="scale", parts=[copy], **wish)
    assert [one.shape.width for one in made.parts] == [40, width]
    longer = do(made, kind="set", changes=[{"path": "parts/p1/shape/width", "value": 50}])
    assert longer.parts[-1].shape.width == width + 10
    both = do(do(linked, kind="set", changes=[{"path": f"parts/{copy}/shape/width", "value": 46}]),
              kind="scale", parts=["p1", copy], percent=200)  # fmt: skip
    assert [one.shape.width for one in both.parts] == [80, 92]


@pytest.mark.parametrize("density", [1.0, 1.5, 2.0, 3.0])
@pytest.mark.parametrize("kind", [DropShadow, InnerShadow])
def test_a_hard_shadow_is_as_crisp_as_its_shape(density, kind):
    hard = kind(id="e2", offset=Cast(direction=315, distance=8), blur=0, opacity=1.0, colour="#ffffff")
    shown = resolve(
        KIT.evolve(fit="sides"), control(part(Box(width=30, height=20), solid("#000000"), hard, x=40, y=30))
    )
    seen = picture(shown, density).astype(int)
    assert set(np.unique(seen[:, :, 3])) == {0, 255}
    assert set(np.unique(seen[:, :, :3])) == {0, 255}


@pytest.mark.parametrize(
    ("effect", "words"),
    [
        (DropShadow(id="e1", spread=3, falloff="soft"), ", spread spread, "),
        (DropShadow(id="e1", falloff="soft"), ", falloff falloff"),
        (Mask(id="e1", inverted=True), ", inverted"),
    ],
)
def test_the_sentence_of_an_effect_says_all_that_is_not_as_usual(effect, words):
    said = "".join(one.path if isinstance(one, Slot) else one.text for one in effect.account())
    assert words in said
    assert said.count("spread") in (0, 2)


def test_a_bevel_that_is_not_seen_is_found_and_its_cure_shows_it():
    def with_bevel(*more, **values):
        bevel = Bevel(id="e2", **values)
        return control(part(Box(width=40, height=20), solid("#808080"), bevel, *more, x=40, y=30))

    assert not found(with_bevel(width=20), "unseen-bevels")
    assert not found(with_bevel(Outline(id="e3", width=6, opacity=0.5), width=6), "unseen-bevels")
    # Of these something is seen: half of the bevel lies outside, or the outline is one device px wide.
    assert not found(with_bevel(Outline(id="e3", width=12), width=6, side="straddling"), "unseen-bevels")
    assert not found(with_bevel(Outline(id="e3", width=12, thin="1 device px"), width=6), "unseen-bevels")
    for here, words in (
        (with_bevel(width=400), "400 px wide"),
        (with_bevel(width=400, side="straddling"), "400 px wide"),
        (with_bevel(Outline(id="e3", width=12), width=6), "outline of “Part” covers its bevel"),
    ):
        (one,) = found(here, "unseen-bevels")
        assert words in one.words
        cured = applied(one.cures[0].edit, here, Surroundings.of(KIT))
        assert not found(cured, "unseen-bevels")
        assert np.ptp(picture(resolve(KIT, cured), 1.0)[21:39, 21:59, 0]) > 10


def test_an_outside_bevel_under_an_outline_begins_at_its_outer_edge():
    bevel = Bevel(id="e2", width=3, side="outside")
    here = control(part(Box(width=40, height=20), solid("#808080"), bevel, Outline(id="e3", width=4, place="outside")))
    (one,) = found(here, "unseen-bevels")
    cured = applied(one.cures[0].edit, here, Surroundings.of(KIT))
    assert not found(cured, "unseen-bevels")
    changed = picture(resolve(KIT, cured), 1.0).astype(int) - picture(resolve(KIT, here), 1.0)
    where = np.argwhere(np.abs(changed).max(axis=2) > 2)
    (top, left), (bottom, right) = where.min(axis=0), where.max(axis=0) + 1
    x, y = here.parts[0].x, here.parts[0].y
    assert (left, top, right, bottom) == (x - 20 - 7, y - 10 - 7, x + 20 + 7, y + 10 + 7)
    assert not np.abs(changed[int(y) - 14 : int(y) + 14, int(x) - 24 : int(x) + 24]).any()


@pytest.mark.parametrize(
    ("offset", "steps", "falls"),
    [
        (Shift(), False, (5.5, 3.5)),
        (Shift(), True, (5.5, 0.0)),
        (Cast(follow=True, distance=1), False, (0.0, 3.5)),
        (Cast(direction=10), False, (6.5 * math.sin(math.radians(122)), -6.5 * math.cos(math.radians(122)))),
        (Cast(direction=10), True, (6.5 * math.sin(math.radians(120)), -6.5 * math.cos(math.radians(120)))),
    ],
)
def test_a_shadow_falls_where_its_handle_is_put(offset, steps, falls):
    here = control(part(Box(width=40, height=20), solid("#808080"), DropShadow(id="e2", offset=offset), x=40, y=30))
    edit = read_edit({"kind": "move-shadow", "part": "p1", "effect": "e2", "x": 45.4, "y": 33.4, "steps": steps})
    moved = applied(edit, here, Surroundings.of(KIT.evolve(light=Light(direction=0.0))))
    assert moved.parts[0].effects[1].offset.vector(0.0) == pytest.approx(falls)
    with pytest.raises(Refused, match="only a shadow"):
        applied(edit.evolve(effect="e1"), here, Surroundings.of(KIT))


def test_an_effect_is_called_what_it_is_named():
    here = control(part(Box(width=40, height=20), solid("#808080"), Bevel(id="e2"), Bevel(id="e3"), name="Key"))
    edit = read_edit({"kind": "set", "changes": [{"path": "parts/p1/effects/e2/name", "value": "Rim light"}]})
    named = applied(edit, here, Surroundings.of(KIT))
    assert named.parts[0].effects[1].heading == "Rim light"
    assert [step.label for step in build_steps(named.parts[0])] == ["shape", "+ paint", "+ Rim light", "+ bevel"]
    wider = read_edit({"kind": "set", "changes": [{"path": "parts/p1/effects/e2/width", "value": 9}]})
    assert "Rim light on Key" in wider.label(named)
    for wrong in ("two\nlines", "x" * 81):
        bad = read_edit({"kind": "set", "changes": [{"path": "parts/p1/effects/e2/name", "value": wrong}]})
        with pytest.raises(BadValue):
            applied(bad, here, Surroundings.of(KIT))


def test_a_body_that_is_fitted_in_even_px_keeps_the_room_that_was_typed():
    label = part(Text(words="Hold", size=24), solid("#101010"), x=80, y=40)
    body = part(Box(width=9, height=9), solid("#808080"), x=80, y=32)
    edit = {"kind": "fit-around", "body": "p2", "inner": "p1", "even": True} | dict.fromkeys(("left", "right"), 16)
    made = applied(read_edit(edit | dict.fromkeys(("top", "bottom"), 7)), control(label, body), Surroundings.of(KIT))
    fitted = next(one for one in made.parts if one.id == "p2")
    inner = frame_on_canvas(label).width
    assert inner % 1
    assert fitted.shape.width % 2 == 0
    assert fitted.shape.height % 2 == 0
    assert 0 <= fitted.shape.width - inner - 32 < 2
    assert {follow.offset for follow in fitted.follows if follow.path == "shape/width"} == {32}

    def width(value):
        edit = {"kind": "set", "changes": [{"path": "parts/p2/shape/width", "value": value}]}
        after = applied(read_edit(edit), made, Surroundings.of(KIT))
        return next(one for one in after.parts if one.id == "p2").shape.width

    assert [width(value) for value in (91, 90.5, 96)] == [91, 90.5, 96]


@pytest.mark.parametrize(
    ("size", "room"), [((160, 64), (50, 20)), ((100, 40), (20, 8)), ((306, 94), (24, 12)), ((64, 30), (2, 3))]
)
def test_the_room_that_is_proposed_is_whole_and_sensible(size, room):
    inner = part(Box(width=60, height=24), solid("#101010"), x=80, y=40)
    body = part(Box(width=size[0], height=size[1]), solid("#808080"), x=80, y=40)
    found = proposed_fit(inner, body)
    assert (found.across, found.down) == room


@pytest.mark.parametrize(
    ("ends", "said"),
    [
        ((20, 20, 50, 50), "Added a line"),
        ((20, 20, 78, 78), "Added a line; its end snapped to canvas edge and canvas edge"),
        ((2, 20, 50, 50), "Added a line; its start snapped to canvas edge"),
        ((1, 20, 1, 60), "Added a line"),
    ],
)
def test_a_line_of_which_one_end_snapped_says_so(ends, said):
    here = control().evolve(canvas=Canvas(width=80, height=80, margin=0))
    drawn = dict(zip(("x0", "y0", "x1", "y1"), ends, strict=True), snap={"kinds": ["canvas", "pixels"]})
    assert read_edit({"kind": "draw", "shape": "line", **drawn}).label(here) == said
    assert read_edit({"kind": "draw", "shape": "line", "constrained": True, **drawn}).label(here) == "Added a line"


@pytest.mark.parametrize("icon", ["ad", "blocks", "align-center-horizontal", "text-align-start"])
@pytest.mark.parametrize("size", [15, 20, 22, 40])
def test_an_icon_with_soft_sides_is_mended_by_a_size_that_its_grid_fits(icon, size):
    here = control(part(Icon(icon=icon, width=size, height=size), INK, x=40, y=30))
    soft = found(here, "soft-sides")
    assert soft or size != 22
    for one in soft:
        here = applied(one.cures[0].edit, here, Surroundings.of(KIT))
    assert not sides_of(resolve(KIT, here), here.parts[0], 1.0).soft


def test_the_edge_that_is_shown_of_a_clipped_part_is_one_that_is_seen():
    window = part(Box(width=20, height=20), INK, x=60, y=40)
    wide = part(Box(width=80, height=60), INK, x=50, y=40, clip="p1")
    resolved = resolve(KIT, control(window, wide))
    place = edge_near(resolved, resolved.control.parts[1], 2.0)
    assert (place.x, place.y) == (100, 60)
    away = resolve(KIT, control(window.evolve(x=150.0), wide))
    assert edge_near(away, away.control.parts[1], 2.0) is None
