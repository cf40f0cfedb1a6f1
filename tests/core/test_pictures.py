"""Pictures: what is read, how it is kept, what it looks like on the device grid."""

from base64 import b64encode
from contextlib import suppress
from io import BytesIO

import numpy as np
import pytest
from PIL import Image, ImageFilter

from obrell.core.document.cropping import cut_of
from obrell.core.document.files import files_of
from obrell.core.document.resolve import resolve
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.edit.admission import check_drawable
from obrell.core.errors import BadDocument, NoSuchThing, Refused, TooLarge
from obrell.core.files import content_of, file_id
from obrell.core.geometry.plane import Rect, Similarity
from obrell.core.interchange import pictures
from obrell.core.interchange.kit_file import kit_from, write_kit
from obrell.core.interchange.limits import MAX_PICTURE_BYTES
from obrell.core.interchange.pictures import read_picture
from obrell.core.paint.fills import picture_layer
from obrell.core.raster.layers import PixelBox
from obrell.core.raster.samples import seams
from obrell.core.shapes import Picture, Round
from obrell.core.values import paints
from obrell.store.kits import Kits
from tests.making import KEEPER, KIT, SLOPE, control, kit, layer, part, png, resolved, slope, solid

PLAIN = Similarity()


def straight(found):
    """(height, width, 4) levels of a layer."""
    planes = np.moveaxis(found.planes, 0, 2)
    alpha = np.maximum(planes[..., 3:], 1e-9)
    return np.concatenate([planes[..., :3] / alpha, planes[..., 3:]], axis=2) * 255


def test_a_picture_at_its_own_size_is_itself():
    fill = paints.Picture(file=SLOPE)
    shown = picture_layer(fill, Rect(0, 0, 48, 32), PLAIN, PixelBox(0, 0, 48, 32))
    assert np.abs(straight(shown) - slope(48, 32)).max() < 0.01


def test_a_picture_made_smaller_is_the_mean_of_what_it_covers():
    levels = np.kron([[0, 255], [255, 0]] * 8, np.ones((2, 2), int)).repeat(8, axis=1)[:32]
    picture = KEEPER.keep(png(np.stack([levels] * 3, axis=2)))
    fill = paints.Picture(file=picture)
    wide = levels.shape[1]
    shown = picture_layer(fill, Rect(0, 0, wide / 8, 4), PLAIN, PixelBox(0, 0, wide // 8, 4))
    assert shown.planes[0].mean() == pytest.approx(levels.mean() / 255, abs=0.02)


@pytest.mark.parametrize("cuts", [{"cut_left": 0.6, "cut_right": 0.6}, {"cut_top": 0.98, "cut_bottom": 0.98}])
def test_a_picture_of_which_nothing_is_left_is_refused_in_words(cuts):
    shown = control(part(Picture(file=SLOPE, **cuts)))
    with pytest.raises(Refused, match="The cuts from both sides leave nothing of the picture"):
        check_drawable(KIT, shown)
    most = dict.fromkeys(cuts, 0.49)
    check_drawable(KIT, control(part(Picture(file=SLOPE, **most))))


def test_cut_sides_and_ways_to_lie():
    flag = KEEPER.keep(png(np.stack([np.repeat([[255] * 20 + [0] * 20], 10, axis=0)] * 3, axis=2)))
    right = picture_layer(paints.Picture(file=flag, cut_left=0.49), Rect(0, 0, 8, 8), PLAIN, PixelBox(0, 0, 8, 8))
    assert right.planes[0][:, 3:].max() < 0.01
    whole = picture_layer(paints.Picture(file=flag, fit="whole"), Rect(0, 0, 20, 20), PLAIN, PixelBox(0, 0, 20, 20))
    assert whole.planes[3][:7].max() == 0
    assert whole.planes[3][8:12].min() == 1
    filling = picture_layer(
        paints.Picture(file=flag, fit="filling"), Rect(0, 0, 20, 20), PLAIN, PixelBox(0, 0, 20, 20)
    )
    assert filling.planes[3].min() == 1
    assert filling.planes[0][10, 4] > 0.99
    assert filling.planes[0][10, 15] < 0.01
    tiled = picture_layer(
        paints.Picture(file=flag, fit="tiled", scale=0.25), Rect(0, 0, 40, 20), PLAIN, PixelBox(0, 0, 40, 20)
    )
    assert tiled.planes[0][:, :30] == pytest.approx(tiled.planes[0][:, 10:], abs=1e-6)


def tiled(fill, size=24):
    return picture_layer(fill, Rect(0, 0, size, size), PLAIN, PixelBox(0, 0, size, size)).planes[0]


def test_tiles_are_moved_turned_and_mirrored():
    values = np.random.default_rng(3).integers(0, 256, (6, 6))
    chance = KEEPER.keep(png(np.stack([values] * 3, axis=2)))
    plain = tiled(paints.Picture(file=chance, fit="tiled"))
    assert plain[:18] == pytest.approx(plain[6:], abs=1e-6)
    moved = tiled(paints.Picture(file=chance, fit="tiled", across=2, down=-1))
    assert moved[:20, 2:] == pytest.approx(plain[1:21, :-2], abs=1e-5)
    turned = tiled(paints.Picture(file=chance, fit="tiled", turn=90))
    assert turned == pytest.approx(np.rot90(plain, -1), abs=1e-5)
    folded = tiled(paints.Picture(file=chance, fit="tiled, mirrored"))
    inner = folded[:, 9:21]
    assert inner == pytest.approx(inner[:, ::-1], abs=1e-5)
    assert np.abs(np.diff(folded, axis=0)).max() <= np.abs(np.diff(values / 255, axis=0)).max() + 1e-5


def test_a_seam_is_found_where_tiles_do_not_meet():
    wave = np.tile(np.round(127 + 120 * np.sin(np.arange(24) * 2 * np.pi / 24)), (24, 1))
    ramp = np.tile(np.linspace(0, 255, 24), (24, 1))
    found = {
        name: seams(KEEPER.keep(png(np.stack([levels] * 3, axis=2).astype(int))), 0, 0, 24, 24)
        for name, levels in {"closed": wave, "across": ramp, "down": ramp.T}.items()
    }
    assert found == {"closed": (False, False), "across": (True, False), "down": (False, True)}


def test_a_fill_becomes_a_picture_and_lies_on_as_it_did():
    plain = control(part(Round(width=40, height=40), solid("#808080")))
    path = "parts/p1/effects/e1/fill"
    filled = read_edit({"kind": "fill-with-picture", "path": path, "file": SLOPE}).apply(plain, Surroundings())
    assert filled.parts[0].effects[0].fill == paints.Picture(file=SLOPE, fit="filling")
    laid = read_edit({"kind": "set", "changes": [{"path": f"{path}/fit", "value": "tiled"}]})
    other = KEEPER.keep(png(slope(9, 5)))
    again = read_edit({"kind": "fill-with-picture", "path": path, "file": other})
    assert again.apply(laid.apply(filled, Surroundings()), Surroundings()).parts[0].effects[0].fill == paints.Picture(
        file=other, fit="tiled"
    )
    with pytest.raises(NoSuchThing):
        read_edit({"kind": "fill-with-picture", "path": path, "file": "0" * 32}).apply(plain, Surroundings())


def test_a_picture_part_shows_its_pixels_under_its_effects():
    shown = layer(resolved(part(Picture(file=SLOPE, width=48, height=32, lies="stretched"))))
    assert np.abs(straight(shown)[14:46, 16:64] - slope(48, 32)).max() < 0.01
    covered = layer(resolved(part(Picture(file=SLOPE, width=48, height=32), solid("#ff0000"))))
    assert tuple(straight(covered)[30, 40]) == pytest.approx((255, 0, 0, 255))


def pulled(start, handle, dx, dy):
    return applied(
        read_edit({"kind": "crop", "part": "p1", "handle": handle, "dx": dx, "dy": dy}), start, Surroundings()
    )


@pytest.mark.parametrize("lies", ["stretched", "whole", "filling"])
@pytest.mark.parametrize(("turn", "mirrored"), [(0, False), (90, False), (30, True)])
@pytest.mark.parametrize(("handle", "dx", "dy"), [("w", 7, 2), ("n", 3, 6), ("se", -9, -5), ("sw", 4, -8)])
def test_a_cropped_picture_stays_where_it_lies_and_can_be_let_out_again(lies, turn, mirrored, handle, dx, dy):
    across, down = turned(dx, dy, turn, mirrored)
    frame = Picture(file=KEEPER.keep(png(slope(48, 32)[..., :3])), width=36, height=30, lies=lies)
    start = control(part(frame).evolve(rotation=turn, mirrored=mirrored))
    cut = pulled(start, handle, across, down)
    before, after = (layer(resolve(KIT.evolve(fit="off"), one)).planes for one in (start, cut))
    inside = well_inside(after)
    assert 200 < inside.sum() < well_inside(before).sum() - 60
    assert np.abs(before - after)[:, inside].max() < 0.01, "red and green rise by 0.02 to 0.03 in a px"

    out = cut
    for corner, far in (("nw", -99), ("se", 99)):
        with suppress(Refused):
            out = pulled(out, corner, *turned(far, far, turn, mirrored))
    shape = out.parts[0].shape
    assert (shape.cut_left, shape.cut_top, shape.cut_right, shape.cut_bottom) == (0, 0, 0, 0)
    wide, high = cut_of(frame).whole.width, cut_of(frame).whole.height
    assert (shape.width, shape.height) == pytest.approx((wide, high))


def well_inside(planes):
    """Which px lie two or more from any that is clear."""
    drawn = Image.fromarray((planes[3] > 0).astype(np.uint8) * 255)
    return np.asarray(drawn.filter(ImageFilter.MinFilter(5))) > 0


def turned(dx, dy, turn, mirrored):
    return Similarity(turn=turn, mirror=mirrored).apply(dx, dy)


def test_a_crop_that_changes_nothing_is_refused_and_so_is_one_of_another_part():
    start = control(part(Picture(file=SLOPE, width=48, height=32, lies="stretched")), part(Round()))
    with pytest.raises(Refused, match="ends there"):
        pulled(start, "w", -5, 0)
    with pytest.raises(Refused, match="Only a picture"):
        applied(read_edit({"kind": "crop", "part": "p2", "handle": "w", "dx": 5, "dy": 0}), start, Surroundings())
    left = pulled(start, "e", -500, 0).parts[0].shape
    assert left.cut_right == pytest.approx(47 / 48)
    assert left.width > 0


def saved(picture, form, **options):
    file = BytesIO()
    picture.save(file, form, **options)
    return file.getvalue()


def test_what_is_kept_is_upright_and_plain():
    plain = png(slope(9, 5))
    assert read_picture(plain) == plain
    sideways = Image.new("RGB", (4, 2), "red")
    sideways.putpixel((0, 0), (0, 0, 255))
    exif = Image.Exif()
    exif[0x0112] = 6
    kept = Image.open(BytesIO(read_picture(saved(sideways, "PNG", exif=exif))))
    assert kept.size == (2, 4)
    assert kept.getpixel((1, 0))[:3] == (0, 0, 255)
    webp = read_picture(saved(sideways, "WEBP", lossless=True))
    assert webp.startswith(b"\x89PNG")


@pytest.mark.parametrize(
    "content", [b"", b"GIF89a" + b"\0" * 50, png(slope(9, 5))[:60], b"\x89PNG\r\n\x1a\n" + b"\0" * 90]
)
def test_what_is_no_picture_is_refused_with_words(content):
    with pytest.raises(BadDocument, match="picture"):
        read_picture(content)


def test_pictures_beyond_measure_are_refused_before_they_are_unpacked(monkeypatch):
    monkeypatch.setattr(pictures, "MAX_PICTURE_PIXELS", 100)
    with pytest.raises(TooLarge, match="48 × 32"):
        read_picture.function(content_of(SLOPE))
    with pytest.raises(TooLarge, match="MB"):
        read_picture(bytes(MAX_PICTURE_BYTES + 1))
    large = BytesIO()
    Image.new("1", (20_000, 20_000)).save(large, "PNG")
    with pytest.raises(TooLarge, match="24 million pixels are the most"):
        read_picture(large.getvalue())


def test_a_picture_is_put_in_no_larger_than_the_canvas_and_a_reference_is_never_drawn():
    bare = control(width=24, height=60)
    put = read_edit({"kind": "add-picture", "file": SLOPE, "name": "Slope"}).apply(bare, Surroundings())
    assert put.parts[0].shape.width == pytest.approx(24)
    assert put.parts[0].shape.height == pytest.approx(16)
    pinned = read_edit({"kind": "pin-reference", "file": SLOPE}).apply(bare, Surroundings())
    beside = read_edit({"kind": "place-reference"}).apply(pinned, Surroundings())
    assert beside.reference.x > 24
    assert files_of(beside) == {SLOPE}
    assert read_edit({"kind": "unpin-reference"}).apply(beside, Surroundings()).reference is None


def test_a_kit_file_carries_its_pictures_and_refuses_false_ones(tmp_path):
    kits = Kits(tmp_path / "a.db")
    name, unused = SLOPE, file_id(b"unused")
    texts = {one: b64encode(content).decode() for one, content in ((name, content_of(SLOPE)), (unused, b"unused"))}
    kits.import_kit(kit(control(part(Picture(file=name)))).evolve(files=texts))
    assert kits.file(unused) is None
    content = write_kit(kits.export_kit("test-kit"))
    other = Kits(tmp_path / "b.db")
    other.import_kit(kit_from(content))
    assert other.file(name) == content_of(SLOPE)
    with pytest.raises(BadDocument, match="stands for"):
        kit_from(content.replace(name.encode(), b"0" * 32))


def test_a_file_that_nobody_keeps_is_named_in_words():
    with pytest.raises(NoSuchThing, match="not stored"):
        content_of("f" * 32)
