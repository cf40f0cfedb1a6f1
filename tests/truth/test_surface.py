"""Gloss, sheen, depth, grain, blur, conic gradients and textures against closed forms and float64."""

import math

import numpy as np
import pytest

from obrell.core.effects import BackdropBlur, Blur, Depth, DropShadow, Gloss, Grain, Mask, Paint, Sheen
from obrell.core.effects.kinds.mask import GradientCover
from obrell.core.effects.offsets import Shift
from obrell.core.formats.svg.document import svg
from obrell.core.geometry.combine import combined
from obrell.core.geometry.plane import Similarity
from obrell.core.geometry.rounded import ellipse, rounded_box
from obrell.core.geometry.sweep import swept
from obrell.core.raster.blur import blur
from obrell.core.raster.coverage import rasterise
from obrell.core.raster.layers import Coverage, PixelBox
from obrell.core.raster.noise import PATTERNS, textured
from obrell.core.scene.changes import changed_box
from obrell.core.shapes import Box, Group, Ring, Round, Sides
from obrell.core.values.paints import Conic, Linear, Solid, Stop, Texture
from tests.making import layer, part, resolved, solid
from tests.truth.test_chromium import ours, shot

BIG = PixelBox(0, 0, 256, 256)


def area(path):
    return rasterise(path.rows, PixelBox(-200, -200, 200, 200)).values.sum(dtype=np.float64)


def test_what_is_swept_is_the_shape_and_its_width_across_the_way():
    """Steiner: the area grows by the width across the way times its length, for convex shapes."""
    for path, width in ((ellipse(40, 40), 40), (rounded_box(60, 20, (4,) * 4), 20)):
        assert area(swept(path, 30, 0)) == pytest.approx(area(path) + width * 30, rel=1e-3)
    box = rounded_box(60, 20, (0,) * 4)
    assert area(swept(box, 12, 9)) == pytest.approx(60 * 20 + 60 * 9 + 20 * 12, rel=1e-4)
    assert swept(box, 0, 0) is box


@pytest.mark.parametrize("way", [(30, 0), (3, 7), (-5, -2), (0.3, 0.1)])
def test_a_swept_disc_is_a_capsule_and_a_swept_ring_leaves_what_its_hole_never_leaves(way):
    """To some levels at eight times the size, where the edge of the hole runs along the way."""
    box, large = PixelBox(-420, -420, 420, 420), Similarity(scale=8)
    length, turn = math.hypot(*way), math.degrees(math.atan2(way[1], way[0]))
    place = Similarity(turn=turn, dx=way[0] / 2, dy=way[1] / 2)
    capsule = rounded_box(length + 40, 40, (20.0,) * 4).transformed(place)
    want = rasterise(capsule.transformed(large).rows, box).values
    got = rasterise(swept(ellipse(40, 40), *way).transformed(large).rows, box).values
    assert np.abs(got - want).max() < 0.5 / 255
    hole = ellipse(26, 26)
    never = combined("intersection", (hole, hole.transformed(Similarity(dx=way[0], dy=way[1]))))
    ring = rasterise(swept(Ring(outer=20, inner=13).path(), *way).transformed(large).rows, box).values
    inner = rasterise(never.transformed(large).rows, box).values if length < 13 else 0
    assert np.abs(ring - (want - inner)).max() < 4.0 / 255


def test_a_star_is_swept_as_the_union_of_many_copies():
    star = Sides(count=5, width=60, height=60, inner=0.4).path()
    copies = np.zeros((400, 400), np.float32)
    for step in range(61):
        moved = star.transformed(Similarity(dx=20 * step / 60, dy=16 * step / 60))
        copies = np.maximum(copies, rasterise(moved.rows, PixelBox(-200, -200, 200, 200)).values)
    assert 1 <= area(swept(star, 20, 16)) / copies.sum(dtype=np.float64) < 1.025


def test_depth_lies_beside_the_shape_and_leaves_no_fringe():
    deep = Depth(id="e1", direction=180, distance=10, fill=Solid(colour="#ff0000"))
    shown = layer(resolved(part(Box(width=40.5, height=20), solid("#0000ff"), deep))).planes
    assert shown[0, 25:35].max() == pytest.approx(0, abs=1e-5)
    assert shown[3, 42:49, 25:55].min() == 1
    assert shown[3, 51:].max() == 0


def test_gloss_reaches_down_to_its_share_and_fades_evenly():
    gloss = Gloss(id="e1", form="horizon", bend=0, inset=0, depth=0.5, far=0.2, opacity=1.0)
    alpha = layer(resolved(part(Box(width=40, height=20), gloss))).planes[3, :, 40]
    rows = np.arange(10) + 0.5
    assert alpha[20:30] == pytest.approx(1 - 0.8 * rows / 10, abs=1e-3)
    assert alpha[30:].max() == 0


def test_gloss_follows_the_light_or_keeps_its_own():
    below = Gloss(id="e1", form="horizon", bend=0, inset=0, depth=0.25, opacity=1.0, follow=False, direction=180)
    turned = part(Box(width=40, height=20), below, rotation=90)
    alpha = layer(resolved(turned)).planes[3]
    assert alpha[:40].max() == 0
    assert alpha[41:49, 31:49].min() > 0.1


def test_a_crescent_is_the_shape_without_itself_moved():
    gloss = Gloss(id="e1", form="crescent", inset=0, depth=0.5, far=1.0, opacity=1.0)
    alpha = layer(resolved(part(Round(width=40, height=40), gloss))).planes[3]
    lens = 2 * 400 * math.acos(0.5) - 10 * math.sqrt(4 * 400 - 400)
    assert alpha.sum(dtype=np.float64) == pytest.approx(math.pi * 400 - lens, rel=2e-3)


def test_sheen_is_the_squared_difference_of_two_blurred_copies():
    sheen = Sheen(id="e1", distance=6, blur=8, opacity=1.0)
    got = layer(resolved(part(Box(width=40, height=30), sheen))).planes[3]
    box = PixelBox(0, 0, 80, 60)
    copies = []
    for dy in (-6, 6):
        path = rounded_box(40, 30, (0,) * 4).transformed(Similarity(dx=40, dy=30 + dy))
        copies.append(blur(rasterise(path.rows, box.grown(40)), 4.0, box).values)
    want = (copies[0] - copies[1]) ** 2
    inside = (slice(16, 44), slice(21, 59))
    assert np.abs(got[inside] - want[inside]).max() < 0.004


def test_a_blurred_part_is_its_blurred_picture():
    sharp = layer(resolved(part(Box(width=30, height=20, radius=4), solid("#c04020")))).planes
    soft = layer(resolved(part(Box(width=30, height=20, radius=4), solid("#c04020"), Blur(id="e2", radius=6)))).planes
    box = PixelBox(0, 0, 80, 60)
    for got, plane in zip(soft, sharp, strict=True):
        want = blur(Coverage(box, np.ascontiguousarray(plane)), 3.0, box).values
        assert np.abs(got - want).max() < 2e-3


def test_frosted_glass_blurs_what_lies_behind_it_and_nothing_else():
    lines = part(Box(width=200, height=160), Paint(id="e1", fill=Texture(pattern="lines", scale=8)))
    glass = part(Box(width=30, height=30), BackdropBlur(id="e1", radius=20))
    plain, frosted = (layer(resolved(*parts)).planes for parts in ((lines,), (lines, glass)))
    assert np.array_equal(plain[:, :14], frosted[:, :14])
    assert np.ptp(frosted[0, 18:42, 28:52]) < 0.15 * np.ptp(plain[0, 18:42, 28:52])
    assert frosted[0, 18:42, 28:52].mean() == pytest.approx(plain[0, 18:42, 28:52].mean(), abs=0.02)


STOPS = (Stop(position=0, colour="#ff0000"), Stop(position=0.4, colour="#00ff00"), Stop(position=1, colour="#0000ff"))


@pytest.mark.parametrize(("start", "x", "y"), [(0, 0.5, 0.5), (75, 0.3, 0.6)])
def test_conic_gradients_as_css_has_them(chromium, start, x, y):
    fill = Conic(stops=STOPS, start=start, centre_x=x, centre_y=y)
    got = ours(resolved(part(Box(width=40, height=24), Paint(id="e1", fill=fill))))
    style = f"conic-gradient(from {start}deg at {x:.0%} {y:.0%}, #ff0000 0%, #00ff00 40%, #0000ff 100%)"
    want = shot(chromium, f'<div style="left:20px;top:18px;width:40px;height:24px;background:{style}"></div>')
    off = np.abs(got - want).max(axis=2)[18:42, 20:60]
    rows, columns = np.mgrid[:24, :40] + 0.5
    away = np.hypot(columns - x * 40, rows - y * 24)
    turn = (np.degrees(np.arctan2(columns - x * 40, y * 24 - rows)) - start) % 360
    clear = (away > 5) & (np.minimum(turn, 360 - turn) * np.pi / 180 * away > 1.5)
    assert off[clear].max() <= 6


def test_a_closed_conic_gradient_has_no_seam():
    assert Conic(stops=STOPS).seam
    assert not Conic(stops=(*STOPS[:2], Stop(position=1, colour="#ff0000"))).seam


SCALE = {"brush": 2, "lathe": 2, "grain": 2}


@pytest.mark.parametrize("pattern", PATTERNS)
def test_textures_have_a_middle_mean_are_the_same_for_a_seed_and_at_every_tile(pattern):
    size = SCALE.get(pattern, 16)
    field = (1 / size, 0, -128 / size, 0, 1 / size, -128 / size)
    whole = textured(pattern, field, size, 3, BIG).values
    assert 0.2 < whole.mean() < 0.75
    assert whole.std() > 0.03
    tile = PixelBox(37, 90, 150, 131)
    assert np.array_equal(textured(pattern, field, size, 3, tile).values, whole[90:131, 37:150])
    if pattern not in ("dots", "lines"):
        assert not np.array_equal(textured(pattern, field, size, 4, BIG).values, whole)


def correlation(values, dx, dy):
    a = values[: values.shape[0] - dy, : values.shape[1] - dx] - values.mean()
    b = values[dy:, dx:] - values.mean()
    return float((a * b).mean() / values.var())


def test_brushed_lines_run_one_way_and_lathe_lines_around():
    field = (0.5, 0, 0, 0, 0.5, 0)
    brushed = textured("brush", field, 2, 1, BIG).values
    assert correlation(brushed, 8, 0) > 0.5
    assert correlation(brushed, 0, 8) < 0.3
    centre = (0.5, 0, -64, 0, 0.5, -64)
    turned = textured("lathe", centre, 2, 1, BIG).values
    ring = [turned[int(128 + 90 * math.sin(a)), int(128 + 90 * math.cos(a))] for a in np.linspace(0, 2 * np.pi, 400)]
    assert np.abs(np.diff(ring)).mean() < 0.5 * np.abs(np.diff(turned[128])).mean()
    assert abs(ring[0] - ring[-1]) < 0.05


def test_a_texture_shows_the_same_places_at_every_density():
    one = textured("stone", (1 / 16, 0, 0, 0, 1 / 16, 0), 16, 5, BIG).values
    fine = textured("stone", (1 / 32, 0, 0, 0, 1 / 32, 0), 32, 5, PixelBox(0, 0, 512, 512)).values
    down = fine.reshape(256, 2, 256, 2).mean(axis=(1, 3))
    assert np.corrcoef(one.ravel(), down.ravel())[0, 1] > 0.97


def test_grain_leaves_the_mean_as_it_is():
    grey = solid("#808080")
    plain, grained = (
        layer(resolved(part(Box(width=76, height=56), grey, *effects))).planes[0, 4:56, 4:76].mean()
        for effects in ((), (Grain(id="e1", opacity=0.5, scale=1),))
    )
    assert grained == pytest.approx(plain, abs=0.01)


def test_textures_turn_with_their_part():
    fill = Texture(pattern="lines", scale=8)
    upright = layer(resolved(part(Box(width=40, height=40), Paint(id="e1", fill=fill)))).planes[0, 12:48, 22:58]
    turned = layer(resolved(part(Box(width=40, height=40), Paint(id="e1", fill=fill), rotation=90))).planes[
        0, 12:48, 22:58
    ]
    assert np.abs(np.rot90(upright, -1) - turned).max() < 1e-4


RAMP = Linear(angle=90, stops=(Stop(position=0, colour="#000000"), Stop(position=1, colour="#ffffff")))


@pytest.mark.parametrize(("span", "left", "right"), [("group", 10, 70), ("canvas", 0, 80)])
def test_overlapping_pieces_read_as_one_surface(chromium, span, left, right):
    paint = Paint(id="e1", fill=RAMP.evolve(span=span))
    one = part(Box(width=40, height=20), paint, x=30, y=30, within="p3")
    other = part(Box(width=40, height=20), paint, x=50, y=30, within="p3", rotation=180)
    shown = resolved(one, other, part(Group()))
    row = layer(shown).planes[0, 30, 10:70]
    want = (np.arange(10, 70) + 0.5 - left) / (right - left)
    assert row == pytest.approx(want, abs=1e-4)
    assert np.abs(ours(shown) - shot(chromium, svg(shown))).max() <= 4


def test_a_shared_fill_is_redrawn_when_its_group_changes():
    def shown(x):
        paint = Paint(id="e1", fill=RAMP.evolve(span="group"))
        one = part(Box(width=10, height=10), paint, x=20, y=30, within="p3")
        return resolved(one, part(Box(width=10, height=10), paint, x=x, y=30, within="p3"), part(Group()))

    old, new = shown(50), shown(60)
    box = changed_box(old, new, 1.0, PixelBox(0, 0, 80, 60))
    assert box.left <= 15


def test_an_effect_that_reaches_the_backdrop_is_blended_with_it():
    """W3C Compositing 1, section 9.1.2: multiply, on what the part and the backdrop make together."""
    below = part(Box(width=70, height=50), solid("#ff8040"))
    glass = part(Box(width=40, height=24), solid("#0000ff", opacity=0.5), solid("#80ff40", blend="multiply"))
    reaching = glass.evolve(effects=(glass.effects[0], glass.effects[1].evolve(through=True)))
    kept, reached = (layer(resolved(below, one)).planes[:3, 30, 40] for one in (glass, reaching))
    orange, blue, green = (np.array(c) / 255 for c in ((255, 128, 64), (0, 0, 255), (128, 255, 64)))
    mixed = (orange + blue) / 2
    assert reached == pytest.approx(mixed * green, abs=1e-5)
    assert kept == pytest.approx((green * 0.5 + blue * green * 0.5 + 0 * orange), abs=1e-5)


BACK = np.array([200, 120, 80]) / 255
SHADOW = DropShadow(id="e1", offset=Shift(down=0), blur=0, colour="#804020", opacity=0.9, blend="multiply")


def backed(*effects):
    """The colour in the middle of a large part without paint, over a whole canvas of one colour."""
    back = part(Box(width=400, height=400), solid("#c87850"))
    wide = [e.evolve(shows_through=True) if "shows_through" in type(e).model_fields else e for e in effects]
    return layer(resolved(back, part(Box(width=300, height=300), *wide))).planes[:3, 30, 40]


def laid(below, colour, alpha, mode):
    mixed = below * colour if mode == "multiply" else below + colour - below * colour
    return below * (1 - alpha) + alpha * mixed


def test_what_a_blurred_part_casts_is_blurred_and_blended_by_itself():
    shade = np.array([0x80, 0x40, 0x20]) / 255
    got = backed(SHADOW.evolve(opacity=1.0), Blur(id="e3", radius=6))
    assert got == pytest.approx(BACK * shade, abs=1 / 255)
    part_faded = laid(BACK, shade, 0.9, "multiply")
    assert backed(SHADOW, Blur(id="e3", radius=6)) == pytest.approx(part_faded, abs=1 / 255)


def test_a_mask_fades_all_that_a_part_casts_one_by_one():
    half = tuple(Stop(position=p, colour="#ffffff", opacity=0.5) for p in (0, 1))
    mask = Mask(id="e9", cover=GradientCover(fill=Linear(stops=half)), fitted_x=40, fitted_y=30)
    second = SHADOW.evolve(colour="#2050c0", opacity=0.7, blend="screen")
    want = laid(BACK, np.array([0x80, 0x40, 0x20]) / 255, 0.45, "multiply")
    want = laid(want, np.array([0x20, 0x50, 0xC0]) / 255, 0.35, "screen")
    want = want * 0.5 + 0.5 * np.array([1, 0, 0])
    assert backed(SHADOW, second, solid("#ff0000"), mask) == pytest.approx(want, abs=1e-5)
    assert backed(SHADOW, second, solid("#ff0000"), mask, Blur(id="e8", radius=3)) == pytest.approx(want, abs=1e-3)
