"""The tree that every output reads: order, isolation, clips, masks, blurs, and what differs between two."""

import itertools

import numpy as np
import pytest

from obrell.core.document.model import KitSettings, Light
from obrell.core.document.resolve import resolve
from obrell.core.effects import BackdropBlur, Bevel, Blur, DropShadow, InnerShadow, Mask, Outline, Paint
from obrell.core.effects.kinds.mask import PartCover
from obrell.core.effects.offsets import Cast
from obrell.core.raster.layers import PixelBox
from obrell.core.render.cache import PixelCache
from obrell.core.render.compose import Frame, canvas_box, draw
from obrell.core.scene.bounds import bounds_of, painted_box
from obrell.core.scene.changes import changed_box
from obrell.core.scene.items import Body, Group, Treated
from obrell.core.scene.scene import scene_at, scene_unfitted
from obrell.core.shapes import Box, Combination, Repeat, Round
from obrell.core.shapes import Group as GroupShape
from obrell.core.values.paints import Linear, Stop
from obrell.core.workspace import Workspace
from tests.making import part, resolved, solid

BOX = Box(width=20, height=10)
PAINT = solid("#406080")


def items(*parts, density=1.0):
    return list(scene_at(resolved(*parts), density).items())


def test_a_part_is_a_body_with_its_effects_in_their_layers():
    effects = (Outline(id="e1"), DropShadow(id="e1"), PAINT, InnerShadow(id="e1"), Outline(id="e1", place="outside"))
    (body,) = items(part(BOX, *effects, opacity=0.5, blend="multiply"))
    assert isinstance(body, Body)
    assert [e.kind for e in body.cast] == ["drop-shadow"]
    assert [e.kind for e in body.surface] == ["paint", "inner-shadow"]
    assert [e.id for e in body.edge] == ["e1", "e5"]
    assert (body.opacity, body.blend, body.reaching) == (0.5, "multiply", ())


def test_an_effect_that_reaches_the_backdrop_is_laid_over_the_finished_part():
    (body,) = items(part(BOX, PAINT, solid("#ffffff", blend="screen", through=True)))
    assert ([e.id for e in body.surface], [e.id for e in body.reaching]) == (["e1"], ["e2"])


@pytest.mark.parametrize(
    ("group", "blend", "isolated"),
    [(GroupShape(), "normal", False), (GroupShape(), "multiply", True), (GroupShape(through=True), "multiply", False)],
)
def test_a_group_is_isolated_where_that_makes_a_difference(group, blend, isolated):
    inner = part(BOX, PAINT, within="p2", blend=blend)
    (found,) = items(inner, part(group))
    assert isinstance(found, Group)
    assert found.isolated == isolated
    assert [type(item) for item in found.items] == [Body]


def test_a_group_with_a_look_of_its_own_holds_what_lies_in_it():
    (found,) = items(part(BOX, PAINT, within="p2"), part(GroupShape(), DropShadow(id="e1")))
    assert isinstance(found, Body)
    assert len(found.held) == len(found.cast) == 1


def test_blur_clips_and_masks_treat_the_whole():
    seat, rim = part(Round(width=30, height=30)), part(BOX, clip="p1")
    blurred = part(BOX, DropShadow(id="e1"), PAINT, Blur(id="e1", radius=3), Blur(id="e1", radius=4), clip="p2")
    *_, found = items(seat, rim, blurred, density=2.0)
    assert isinstance(found, Treated)
    assert found.deviation == pytest.approx(5.0)
    assert [clip.path.bounds().width for clip in found.clips] == [40, 60]
    assert found.item.uncut
    assert [e.kind for e in found.item.effects] == ["drop-shadow", "paint"]


def test_a_mask_holds_the_items_of_its_part_even_when_that_is_hidden():
    (found,) = items(part(BOX, PAINT, visible=False), part(BOX, PAINT, Mask(id="e1", cover=PartCover(part="p1"))))
    assert [type(item) for item in found.masks[0].cover] == [Body]


def test_a_mask_by_a_part_that_is_gone_is_none():
    (found,) = items(part(BOX, PAINT, Mask(id="e1", cover=PartCover(part="p9"))))
    assert isinstance(found, Body)


@pytest.mark.parametrize("hidden", [{"visible": False}, {"opacity": 0.0}])
def test_what_is_not_seen_is_no_item(hidden):
    assert items(part(BOX, PAINT, **hidden)) == []


def test_bounds_hold_what_is_cast_blurred_and_held():
    seen = resolved(part(BOX, PAINT, Blur(id="e1", radius=4), within="p2"), part(GroupShape()))
    box = painted_box(next(scene_at(seen, 1.0).items()), canvas_box(seen, 1.0))
    assert box.width > 20 + 2 * 4
    for hidden in ({"visible": False}, {"opacity": 0.0}):
        shown = resolved(part(BOX, PAINT, DropShadow(id="e1", blur=10), **hidden))
        assert bounds_of(shown, shown.tree.nodes[0]).width > 20 + 2 * 10


def test_in_its_own_space_a_blur_is_as_wide_as_it_is_typed():
    (found,) = scene_unfitted(resolved(part(BOX, PAINT, Blur(id="e1", radius=6)))).items()
    assert found.deviation == pytest.approx(3.0)


@pytest.mark.parametrize("density", [1.0, 2.5])
def test_a_mask_that_stays_lies_where_it_was_fitted_at_every_density(density):
    stays = Mask(id="e1", moves=False, fitted_x=30, fitted_y=34)
    (found,) = items(part(BOX, PAINT, stays, x=40, y=30), density=density)
    laid = found.masks[0].cover
    assert laid.place.apply(laid.box.centre.x, laid.box.centre.y) == pytest.approx((30 * density, 34 * density))


def test_bounds_reach_as_far_as_a_shadow_does():
    plain, cast = (resolved(part(BOX, PAINT, *more)) for more in ((), (DropShadow(id="e1", blur=10),)))
    near, far = (bounds_of(one, one.tree.nodes[0]) for one in (plain, cast))
    reach = cast.tree.nodes[0].part.effects[1].reach(cast.lamp.direction)
    assert far.width - near.width == pytest.approx(2 * reach)
    assert near.width >= 20 + 2


def test_a_group_that_lets_through_or_changes_its_kind_differs_as_a_whole():
    region = PixelBox(0, 0, 80, 60)
    was = moved(0, group=GroupShape())
    for other in (GroupShape(through=True), Repeat(way="row", count=1), Combination(mode="union")):
        box = changed_box(was, moved(0, group=other), 1.0, region)
        assert box.left <= 8
        assert box.right >= 50


def moved(by, *, group):
    still = part(Round(width=8, height=8), PAINT, x=12, y=12, within="p3")
    mover = part(BOX, PAINT, x=40 + by, within="p3")
    return resolved(still, mover, part(group))


def test_two_scenes_differ_where_what_changed_was_and_is():
    region = PixelBox(0, 0, 80, 60)
    plain = changed_box(moved(0, group=GroupShape()), moved(5, group=GroupShape()), 1.0, region)
    assert (plain.left, plain.right) == (29, 56)
    assert plain.top > 20
    assert changed_box(moved(0, group=GroupShape()), moved(0, group=GroupShape()), 1.0, region).empty


def test_frosted_glass_says_how_soft_what_lies_behind_is_seen():
    (body,) = items(part(BOX, BackdropBlur(id="e1", radius=6)))
    assert body.cast[0].frosting == 3


LIGHTS = ((0, 40), (90, 40), (90, 60))
SPANNING = Paint(id="e1", fill=Linear(stops=(Stop(position=0, colour="#102030"), Stop(position=1, colour="#f0e0d0"))))
LIT = (Bevel(id="e2"), DropShadow(id="e3", offset=Cast(follow=True, distance=5)))


def pictured(control, kit, density):
    seen = resolve(kit, control)
    return draw(seen, Frame(density, canvas_box(seen, density)), PixelCache())


def test_what_is_kept_of_a_part_is_not_shown_where_its_surroundings_are_others():
    """The very same part, on another canvas, under another light, fitted otherwise, in another group."""
    whole = SPANNING.evolve(fill=SPANNING.fill.evolve(span="canvas"))
    shared = SPANNING.evolve(fill=SPANNING.fill.evolve(span="group"))
    alone, inner = (part(BOX, fill, *LIT, x=30.4, y=20.3) for fill in (whole, shared))
    held = resolved(alone, inner.evolve(within="p3"), part(GroupShape())).control
    far = part(BOX, PAINT, x=60, y=40, within="p3").evolve(id="p4")
    wider = held.canvas.evolve(width=held.canvas.width + 40)
    lights = [KitSettings(id="k", name="K", light=Light(direction=angle, height=height)) for angle, height in LIGHTS]
    fits = [lights[0].evolve(fit=fit) for fit in ("off", "sides", "strokes")]
    controls = [held, held.evolve(canvas=wider), held.evolve(parts=(*held.parts, far))]
    asked = list(itertools.product(controls, [*lights, *fits], (1.0, 1.5)))
    with Workspace().entered():
        together = [pictured(*one) for one in asked]
    for one, seen in zip(asked, together, strict=True):
        with Workspace().entered():
            assert np.array_equal(seen, pictured(*one))
    assert len({seen.tobytes() for seen in together}) > 15
