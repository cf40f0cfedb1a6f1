"""Laws over the registries: every part kind, every effect kind."""

import math
from concurrent.futures import ThreadPoolExecutor
from xml.etree import ElementTree

import numpy as np
import pytest
from pydantic import TypeAdapter

from obrell.core.document.model import Part
from obrell.core.document.resolve import resolve
from obrell.core.effects import EFFECTS, AnyEffect, BackdropBlur, Blur, Mask, Paint
from obrell.core.effects.kinds.mask import GradientCover
from obrell.core.formats.svg.document import svg
from obrell.core.raster.layers import PixelBox
from obrell.core.render.cache import PixelCache
from obrell.core.render.compose import Frame, canvas_box, compose, draw
from obrell.core.scene.bounds import painted_box
from obrell.core.scene.scene import scene_at
from obrell.core.shapes import SHAPES, AnyShape, Box
from obrell.core.values.paints import Linear, Stop, Texture
from tests.making import (
    CONTAINERS_TRIED,
    EFFECTS_TRIED,
    KIT,
    SHAPES_TRIED,
    VARIANTS,
    control,
    layer,
    part,
    resolved,
    solid,
    with_inner,
)

SVG = "{http://www.w3.org/2000/svg}"
EVERY = [(s, e) for s in SHAPES for e in EFFECTS]
PAINTING = [e for e in EFFECTS if EFFECTS[e].zone != "whole" and e != "backdrop-blur"]
"""Effects that paint something of their own."""
SAMPLED = {
    "bevel": 0.25, "grain": 0.25, "rough bevel": 0.25, "rough rim": 0.3, "tiles": 0.12,
    "outline along": 0.3, "outline across": 0.05, "inner-glow": 0.045,
}  # fmt: skip
"""How far effects that are no areas may be apart at one pixel: light is worked out at points, and turns fast where
letters are thin; textures have more detail at higher densities, pictures are sampled; between two edges of a letter
the nearer one changes at a line."""
FORMS = {e: EFFECTS_TRIED[e] for e in EFFECTS} | VARIANTS
EVERY_FORM = [*EVERY, *((s, v) for s in ("box", "sides", "text", "ring") for v in VARIANTS)]
ALONE = [(s, e) for s in SHAPES_TRIED for e in PAINTING]


def lone(shape, effect, **values):
    paint = () if effect in PAINTING or effect in VARIANTS else (solid("#406080"),)
    return with_inner(shape, *paint, FORMS[effect], **values)


def test_every_kind_is_tried():
    assert set(SHAPES_TRIED) | set(CONTAINERS_TRIED) == set(SHAPES)
    assert set(EFFECTS_TRIED) == set(EFFECTS)


@pytest.mark.parametrize("kind", SHAPES)
def test_shapes_survive_json(kind):
    shape = (SHAPES_TRIED | CONTAINERS_TRIED)[kind]
    assert TypeAdapter(AnyShape).validate_json(shape.model_dump_json()) == shape


@pytest.mark.parametrize("kind", FORMS)
def test_effects_survive_json(kind):
    effect = FORMS[kind]
    assert TypeAdapter(AnyEffect).validate_json(effect.model_dump_json()) == effect


@pytest.mark.parametrize(("shape", "effect"), EVERY_FORM)
def test_it_shows(shape, effect):
    assert layer(resolved(*lone(shape, effect))).planes[3].max() > 0.05


@pytest.mark.parametrize(("shape", "effect"), EVERY_FORM)
def test_zero_strength_changes_nothing(shape, effect):
    base = with_inner(shape, solid("#406080"))
    weak = FORMS[effect].evolve(opacity=0.0)
    both = with_inner(shape, solid("#406080"), weak)
    assert np.array_equal(layer(resolved(*base)).planes, layer(resolved(*both)).planes)


@pytest.mark.parametrize(("shape", "effect"), EVERY_FORM)
def test_nothing_is_painted_outside_the_declared_reach(shape, effect):
    shown = resolved(*lone(shape, effect))
    box = painted_box(scene_at(shown, 2.0).item(shown.tree.nodes[-1]), canvas_box(shown, 2.0))
    alpha = layer(shown, 2.0).planes[3].copy()
    alpha[box.top : box.bottom, box.left : box.right] = 0
    assert alpha.max() == 0


@pytest.mark.parametrize(("shape", "effect"), EVERY_FORM)
def test_density_two_averaged_down_is_near_density_one(shape, effect):
    shown = resolved(*lone(shape, effect))
    fine = layer(shown, 2.0).planes
    averaged = fine.reshape(4, 60, 2, 80, 2).mean(axis=(2, 4))
    away = np.abs(averaged - layer(shown).planes)
    assert away.max() < SAMPLED.get(effect, 0.035)
    assert away.mean() < 0.004


def evenly(opacity):
    """A mask that shows as much everywhere."""
    ramp = Linear(stops=tuple(Stop(position=at, colour="#ffffff", opacity=opacity) for at in (0, 1)))
    return Mask(id="e9", cover=GradientCover(fill=ramp), fitted_x=40, fitted_y=30)


@pytest.mark.parametrize("soft", [(), (Blur(id="e8", radius=4),)], ids=["sharp", "blurred"])
@pytest.mark.parametrize("form", FORMS)
@pytest.mark.parametrize("shape", ["box", "group"])
def test_a_mask_that_shows_all_changes_nothing_and_one_that_shows_nothing_leaves_what_lies_behind(shape, form, soft):
    ground = part(Box(width=80, height=60), Paint(id="e1", fill=Texture(pattern="lines", scale=8)))

    def seen(*masks):
        *inner, outer = with_inner(shape, solid("#406080"), FORMS[form], *soft, *masks, opacity=0.8)
        held = [one.evolve(within=f"p{len(inner) + 2}") for one in inner]
        return layer(resolved(ground, *held, outer)).planes

    shown = seen()
    assert np.abs(seen(evenly(1.0)) - shown).max() < 1e-5
    behind = layer(resolved(ground)).planes
    assert np.abs(seen(evenly(0.0)) - behind).max() < 1e-5
    assert np.abs(shown - behind).max() > 0.01


@pytest.mark.parametrize("density", [1.0, 1.5, 2.0, 3.0])
def test_frosted_glass_blurs_by_its_radius_in_logical_px_at_every_density(density):
    half = part(Box(width=40, height=200), solid("#000000"), x=20)
    white = part(Box(width=200, height=200), solid("#ffffff"))
    glass = part(Box(width=60, height=40), BackdropBlur(id="e1", radius=8))
    shown = layer(resolved(white, half, glass), density).planes[0]
    across = (np.arange(shown.shape[1]) + 0.5) / density
    want = [0.5 + 0.5 * math.erf((x - 40) / (4 * math.sqrt(2))) for x in across]
    inside = (across > 12) & (across < 68)
    assert np.abs(shown[shown.shape[0] // 2] - want)[inside].max() < 0.012


@pytest.mark.parametrize("effect", EFFECTS)
def test_hidden_effects_and_parts_cost_nothing_and_change_nothing(effect):
    hidden = EFFECTS_TRIED[effect].evolve(visible=False)
    base = part(SHAPES_TRIED["box"], solid("#406080"))
    cache = PixelCache()
    shown = resolved(part(SHAPES_TRIED["box"], solid("#406080"), hidden), *lone("box", effect, visible=False))
    got = compose(shown, Frame(1.0, canvas_box(shown, 1.0)), cache)
    plain_cache = PixelCache()
    want = compose(resolved(base), Frame(1.0, canvas_box(shown, 1.0)), plain_cache)
    assert np.array_equal(got.planes, want.planes)
    assert cache.size == plain_cache.size


@pytest.mark.parametrize(("shape", "effect"), ALONE)
def test_every_effect_has_an_svg_form_that_is_self_contained(shape, effect):
    drawn = ElementTree.fromstring(svg(resolved(part(SHAPES_TRIED[shape], EFFECTS_TRIED[effect]))))
    seen = [node for node in drawn.iter() if node.tag in (f"{SVG}path", f"{SVG}image")]
    assert seen
    texts = [text for node in drawn.iter() for text in (*node.attrib.values(), node.text or "")]
    assert all("url(#" in text for text in texts if "url(" in text)
    assert all(node.get("href").startswith("data:image/png;base64,") for node in seen if node.tag == f"{SVG}image")


@pytest.mark.parametrize(("shape", "effect"), EVERY_FORM)
def test_same_bytes_whatever_the_cache_and_the_tiles(shape, effect):
    shown = resolved(*with_inner(shape, solid("#406080"), FORMS[effect], rotation=20))
    whole = draw(shown, Frame(1.5, canvas_box(shown, 1.5)), PixelCache())
    warm = PixelCache()
    for _ in range(2):
        assert np.array_equal(draw(shown, Frame(1.5, canvas_box(shown, 1.5)), warm), whole)
    for tile in (PixelBox(0, 0, 61, 44), PixelBox(61, 0, 120, 44), PixelBox(33, 17, 90, 71)):
        wanted = whole[tile.top : tile.bottom, tile.left : tile.right]
        assert np.array_equal(draw(shown, Frame(1.5, tile), PixelCache()), wanted)
        assert np.array_equal(draw(shown, Frame(1.5, canvas_box(shown, 1.5)), warm, tile), wanted)


GLASS = EFFECTS_TRIED["backdrop-blur"]
BEHIND = part(Box(width=200, height=160), Paint(id="e1", fill=Texture(pattern="lines", scale=5, angle=30)))


@pytest.mark.parametrize("radius", [1.0, 7.5, 24.0])
def test_frosted_glass_over_something_has_the_same_bytes_in_tiles(radius):
    glass = part(SHAPES_TRIED["ring"], GLASS.evolve(radius=radius), solid("#ffffff", opacity=0.3), rotation=20)
    shown = resolved(BEHIND, glass)
    whole = draw(shown, Frame(1.5, canvas_box(shown, 1.5)), PixelCache())
    clear = draw(resolved(BEHIND), Frame(1.5, canvas_box(shown, 1.5)), PixelCache())
    assert np.abs(whole.astype(int) - clear).max() > 40
    for left, top in ((0, 0), (50, 31), (70, 60)):
        tile = PixelBox(left, top, left + 50, top + 30)
        wanted = whole[tile.top : tile.bottom, tile.left : tile.right]
        assert np.array_equal(draw(shown, Frame(1.5, tile), PixelCache()), wanted)


def test_several_threads_draw_the_same_bytes_with_one_cache():
    shown = [resolved(*with_inner("box", solid("#406080"), EFFECTS_TRIED[effect])) for effect in EFFECTS]
    frame, cache = Frame(2.0, canvas_box(shown[0], 2.0)), PixelCache(2_000_000)
    wanted = [draw(one, frame, PixelCache()) for one in shown]
    for count in (2, 5):
        with ThreadPoolExecutor(count) as pool:
            got = list(pool.map(lambda one: draw(one, frame, cache), [*shown, *reversed(shown)]))
        assert all(np.array_equal(one, other) for one, other in zip(got, [*wanted, *reversed(wanted)], strict=True))


def test_changing_one_part_again_and_again_gives_the_bytes_of_a_fresh_draw():
    cache = PixelCache()
    (lower,), upper = lone("round", "drop-shadow"), part(SHAPES_TRIED["text"], solid("#ffffff"))
    for step in range(4):
        middle = part(SHAPES_TRIED["box"], solid("#406080"), EFFECTS_TRIED["inner-shadow"].evolve(blur=3.0 + step))
        shown = resolve(KIT, control(lower, middle, upper))
        frame = Frame(2.0, canvas_box(shown, 2.0))
        assert np.array_equal(draw(shown, frame, cache), draw(shown, frame, PixelCache()))


def test_a_part_with_no_effects_is_invisible():
    bare = Part(id="p1", name="Bare", shape=SHAPES_TRIED["box"], x=40, y=30)
    assert layer(resolved(bare)).planes.max() == 0
