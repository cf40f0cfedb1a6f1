"""Groups, combinations, repeats and clips: what they look like, and what editing does to them."""

import numpy as np
import pytest

from obrell.core.document.measures import bounds_of
from obrell.core.document.model import Control, State
from obrell.core.document.resolve import resolve
from obrell.core.edit import Surroundings, read_edit
from obrell.core.errors import BadValue, NoSuchThing, Refused
from obrell.core.formats.svg.document import svg
from obrell.core.render.picture import picture as pixels_of
from obrell.core.shapes import Box, Group, Repeat, Ring, Round, Sides
from obrell.core.values.differences import Moved
from obrell.core.values.paints import Conic, Linear, Radial, Stop
from tests.making import KIT, control, layer, part, resolved, solid

ENDS = (Stop(position=0, colour="#000000"), Stop(position=1, colour="#ffffff"))
RED, BLUE = solid("#c03020"), solid("#2030c0")


def done(start, *edits):
    for edit in edits:
        start = read_edit(edit).apply(start, Surroundings())
    return start


def picture(of: Control):
    return layer(resolve(KIT.evolve(fit="off"), of)).planes


def pair():
    return control(
        part(Box(width=30, height=20), RED, x=30, y=30),
        part(Round(width=20, height=20), BLUE, x=45, y=30, opacity=0.5),
    )


def group(*ids):
    return {"kind": "group", "parts": list(ids)}


def test_a_group_changes_nothing_until_it_is_changed():
    start = pair()
    grouped = done(start, group("p1", "p2"))
    assert np.array_equal(picture(grouped), picture(start))
    assert done(grouped, {"kind": "take-apart", "part": "p100"}).parts == start.parts


def test_what_lies_in_a_group_goes_where_it_goes():
    grouped = done(pair(), group("p1", "p2"))
    moved = done(grouped, {"kind": "set", "changes": [{"path": "parts/p100/x", "value": grouped.parts[2].x + 7}]})
    assert np.allclose(picture(moved)[:, :, 7:], picture(grouped)[:, :, :-7])
    by_hand = done(grouped, {"kind": "move", "parts": ["p100", "p1"], "dx": 7, "dy": 0})
    assert np.array_equal(picture(by_hand), picture(moved))


def test_a_group_turned_all_the_way_is_where_it_was():
    grouped = done(pair(), group("p1", "p2"))
    turned = grouped
    for angle in (40, 130, 275, 360):
        turned = done(turned, {"kind": "turn", "part": "p100", "degrees": angle})
    assert np.allclose(picture(turned), picture(grouped), atol=1e-5)


def test_a_state_moves_a_whole_group():
    grouped = done(pair(), group("p1", "p2"))
    pressed = State(id="pressed", name="Pressed", differences=(Moved(path="parts/p100/y", by=1.0),))
    shown = resolve(KIT, grouped.evolve(states=(pressed,)), "pressed").control
    assert [p.y for p in shown.parts] == [31.0, 31.0, 31.0]


def test_pulling_a_group_pulls_everything_in_it():
    grouped = done(pair(), group("p1", "p2"))
    box = bounds_of(grouped, ("p100",))
    pulled = done(grouped, {"kind": "resize", "part": "p100", "handle": "se", "dx": box.width, "dy": box.height})
    assert bounds_of(pulled, ("p100",)).width == pytest.approx(2 * box.width)
    assert bounds_of(pulled, ("p100",)).left == pytest.approx(box.left)
    assert pulled.parts[0].shape.width == pytest.approx(60)


def test_a_faded_group_fades_as_one():
    faded = done(pair(), group("p1", "p2"), {"kind": "set", "changes": [{"path": "parts/p100/opacity", "value": 0.5}]})
    assert np.allclose(picture(faded), picture(pair()) * 0.5, atol=1e-6)


def test_a_combination_stays_editable_and_looks_as_its_first_part():
    start = pair()
    cut = done(start, {"kind": "combine", "parts": ["p1", "p2"], "mode": "difference"})
    shown = picture(cut)
    assert shown[3, 30, 44] == 0
    assert shown[0, 30, 20] == pytest.approx(0xC0 / 255, abs=1e-6)
    moved = done(cut, {"kind": "move", "parts": ["p2"], "dx": 0, "dy": -25})
    assert picture(moved)[3, 30, 40] == 1
    assert done(cut, {"kind": "take-apart", "part": "p100"}).parts == start.parts


def test_a_repeat_follows_its_source():
    row = Repeat(way="row", count=3, across=20, down=0)
    source = part(Box(width=10, height=10), RED, x=15, y=20, within="p2")
    shown = layer(resolved(source, part(row))).planes[3]
    assert [shown[20, x] for x in (15, 25, 35, 45, 55)] == [1, 0, 1, 0, 1]
    less = layer(resolved(source, part(row.evolve(left_out=(1,), last_opacity=0.5)))).planes[3]
    assert [less[20, x] for x in (15, 35, 55)] == [1, 0, 0.5]


def test_rings_are_parallel_outlines():
    source = part(Box(width=20, height=8), within="p2")
    rings = resolved(source, part(Repeat(way="rings", count=3, step=3)))
    sizes = [node.part.shape.frame() for node in rings.tree.nodes[0].children]
    assert [(box.width, box.height) for box in sizes] == [(20, 8), (26, 14), (32, 20)]
    band = part(Ring(outer=10, inner=7), within="p2")
    rings = resolved(band, part(Repeat(way="rings", count=3, step=5)))
    bands = [(node.part.shape.inner, node.part.shape.outer) for node in rings.tree.nodes[0].children]
    assert bands == [(7, 10), (12, 15), (17, 20)]
    star = part(Sides(count=5, width=30, height=30, inner=0.5), within="p2")
    rings = resolved(star, part(Repeat(way="rings", count=2, step=2)))
    inner, outer = (node.part.shape.path().bounds() for node in rings.tree.nodes[0].children)
    assert outer.top < inner.top - 2
    assert outer.bottom > inner.bottom + 2


def test_single_copies_are_left_out_or_look_their_own_way():
    row = control(part(Box(width=6, height=6), solid("#ff0000"), within="p2"), part(Repeat(count=3, across=20)))
    told = (
        {"kind": "show-copy", "part": "p2", "copy_number": 1, "shown": False},
        {"kind": "own-copy", "part": "p2", "copy_number": 2},
        {"kind": "set", "changes": [{"path": "parts/p2/shape/own/0/down", "value": 5}]},
        {"kind": "set", "changes": [{"path": "parts/p2/shape/own/0/coloured", "value": True}]},
        {"kind": "set", "changes": [{"path": "parts/p2/shape/own/0/colour", "value": "#00ff00"}]},
    )
    for edit in told:
        row = read_edit(edit).apply(row, Surroundings())
    shown = layer(resolve(KIT.evolve(fit="off"), row)).planes
    assert [shown[0, 30, 40], shown[3, 30, 60]] == [1, 0]
    assert shown[:2, 35, 79].tolist() == [0, 1]
    parts = read_edit({"kind": "spread", "part": "p2"}).apply(row, Surroundings())
    assert len(parts.parts) == 3
    assert np.array_equal(layer(resolve(KIT.evolve(fit="off"), parts)).planes, shown)


def test_copies_of_groups_become_groups_that_look_the_same():
    square = part(Box(width=8, height=8), solid("#ff0000"), within="p3")
    disc = part(Round(width=6, height=6), solid("#0000ff"), x=46, within="p3")
    held = control(
        square, disc, part(Group(), within="p4"), part(Repeat(way="around", count=4, turned=True), x=40, y=30)
    )
    spread = read_edit({"kind": "spread", "part": "p4"}).apply(held, Surroundings())
    assert len(spread.parts) == 13
    before, after = (layer(resolve(KIT.evolve(fit="off"), c)).planes for c in (held, spread))
    assert np.abs(before - after).max() < 1e-5


def test_copies_around_come_full_circle():
    around = Repeat(way="around", count=6)
    dot = part(Round(width=6, height=6), RED, x=40, y=10, within="p2")
    shown = layer(resolved(dot, part(around, x=40, y=30))).planes[3]
    for number in range(6):
        angle = number * np.pi / 3
        x, y = 40 + 20 * np.sin(angle), 30 - 20 * np.cos(angle)
        assert shown[int(y), int(x)] > 0.9


def test_a_half_is_mirrored_exactly():
    half = part(Ring(outer=20, inner=16, sweep=60, start=5, ends="round"), RED, x=40, y=30, within="p2")
    shown = layer(resolved(half, part(Repeat(way="mirrored"), x=40, y=30))).planes
    assert np.allclose(shown, shown[:, :, ::-1], atol=1e-6)
    assert shown[3, 15, 50] > 0.9


def test_irregular_copies_are_the_same_for_the_same_seed():
    dot = part(Box(width=2, height=20), RED, x=8, y=30, within="p2")

    def hairs(seed):
        return layer(resolved(dot, part(Repeat(count=8, across=8, irregular=0.8, seed=seed)))).planes

    assert np.array_equal(hairs(3), hairs(3))
    assert not np.array_equal(hairs(3), hairs(4))


def test_rings_grow_by_their_step():
    rings = Repeat(way="rings", count=3, step=5)
    disc = part(Round(width=10, height=10), RED, x=40, y=30, within="p2")
    tree = resolved(disc, part(rings)).tree
    assert [child.part.shape.width for child in tree.nodes[0].children] == pytest.approx([10, 20, 30])


def test_a_clip_keeps_what_it_covers():
    clipped = part(Box(width=40, height=40), RED, x=40, y=30, clip="p2")
    window = part(Round(width=20, height=20), x=40, y=30)
    shown = layer(resolved(clipped, window)).planes
    disc = layer(resolved(part(Round(width=20, height=20), RED, x=40, y=30))).planes
    assert np.allclose(shown, disc, atol=1e-6)


def test_copies_of_groups_have_their_own_parts():
    start = done(pair(), group("p1", "p2"))
    copied = done(start, {"kind": "duplicate", "parts": ["p100"], "dx": 5})
    assert len(copied.parts) == 6
    ids = {p.id for p in copied.parts}
    assert {p.within for p in copied.parts} - {None} <= ids
    pasted = done(start, {"kind": "paste", "parts": [p.model_dump() for p in start.parts]})
    assert len({p.within for p in pasted.parts if p.within}) == 2
    assert done(copied, {"kind": "remove", "parts": ["p100"]}).parts[0].within != "p100"


def test_a_part_is_dragged_into_and_out_of_a_group():
    third = part(Box(width=8, height=8), RED, x=8, y=8)
    start = done(control(*pair().parts, third), group("p1", "p2"))
    inside = done(start, {"kind": "reorder", "part": "p3", "to": "p1"})
    assert next(p for p in inside.parts if p.id == "p3").within == "p100"
    outside = done(inside, {"kind": "reorder", "part": "p1", "to": "p100"})
    assert next(p for p in outside.parts if p.id == "p1").within is None
    with pytest.raises(Refused, match="cannot lie in itself"):
        done(start, {"kind": "reorder", "part": "p100", "to": "p1"})


def test_parts_cannot_lie_in_a_circle_or_in_a_plain_part():
    box = part(Box(), RED, within="p2")
    with pytest.raises((BadValue, ValueError), match="cannot hold"):
        control(box, part(Box(), RED))


@pytest.mark.parametrize(
    "fill",
    [
        Linear(angle=70, scale=0.8, offset=0.1, stops=ENDS, span="group"),
        Radial(centre_x=0.3, radius_x=0.6, radius_y=0.9, stops=ENDS, span="group"),
        Radial(centre_x=0.3, radius_x=0.6, focus_x=0.5, focus_y=-0.3, stops=ENDS, span="group"),
        Conic(centre_x=0.7, centre_y=0.2, start=40, stops=ENDS, span="group"),
    ],
)
def test_taking_a_group_apart_leaves_a_shared_gradient_as_it_was_seen(fill):
    paint = RED.evolve(fill=fill)
    turn = 0 if isinstance(fill, Radial) else 25
    one = part(Box(width=20, height=14), paint, x=24, y=30, within="p3")
    other = part(Box(width=24, height=16), paint, x=54, y=34, within="p3", rotation=turn)
    grouped = control(one, other, part(Group()))
    apart = done(grouped, {"kind": "take-apart", "part": "p3"})
    assert len(apart.parts) == 2
    assert np.abs(picture(grouped) - picture(apart)).max() < 1e-4


def test_a_combination_takes_the_look_of_the_back_most_piece_that_has_one():
    start = control(part(Box(), within="p2"), part(Repeat(way="mirrored")), part(Round(), solid("#112233")))
    start = start.evolve(parts=(start.parts[0].evolve(effects=(solid("#445566"),)), *start.parts[1:]))
    made = read_edit({"kind": "combine", "parts": ["p2", "p3"]}).apply(start, Surroundings())
    assert made.parts[-1].effects[0].fill.colour == "#445566"


def test_a_clip_that_is_clipped_itself_cuts_with_both_shapes_in_pixels_and_in_svg():
    left, low = part(Box(width=40, height=60), x=20, y=30), part(Box(width=80, height=30), x=40, y=45)
    body = part(Box(width=80, height=60), solid("#ff0000"), x=40, y=30, clip="p2")
    start = control(left.evolve(visible=False), low.evolve(visible=False, clip="p1"), body)
    shown = resolve(KIT, start)
    pixels = pixels_of(shown, 1.0)
    assert pixels[50, 10].tolist() == [255, 0, 0, 255]
    assert [pixels[y, x, 3] for y, x in ((10, 10), (50, 60), (10, 60))] == [0, 0, 0]
    assert svg(shown).count("clip-path=") == 2


def test_parts_are_put_into_a_group_and_taken_out_where_they_stand():
    three = control(*pair().parts, part(Box(width=6, height=6), RED, x=70, y=50).evolve(id="p3"))
    grouped = done(three, group("p1", "p2"))
    put = done(grouped, {"kind": "put-into", "parts": ["p3"], "into": "p100"})
    assert [(one.id, one.within) for one in put.parts if one.within] == [(name, "p100") for name in ("p1", "p2", "p3")]
    assert np.array_equal(picture(put), picture(three))
    out = done(put, {"kind": "put-into", "parts": ["p1", "p2"]})
    assert [(one.id, one.within) for one in out.parts] == [("p3", "p100"), ("p100", None), ("p1", None), ("p2", None)]
    nested = done(put, group("p100"), {"kind": "put-into", "parts": ["p1"]})
    assert [(one.id, one.within) for one in nested.parts][-1] == ("p1", None)
    assert (
        read_edit({"kind": "put-into", "parts": ["p1"]}).label(put)
        == f"Put {put.parts[0].name} out of what it lies in"
    )


@pytest.mark.parametrize(
    ("parts", "into", "words"),
    [
        (["p1"], "p2", "cannot hold parts"),
        (["p100"], "p100", "cannot lie in itself"),
        (["p1"], "p100", "lies in that already"),
        (["p100"], None, "lies in nothing already"),
        (["p1"], "p9", "no longer there"),
    ],
)
def test_what_cannot_be_put_there_is_refused_in_words(parts, into, words):
    grouped = done(pair(), group("p1", "p2"))
    with pytest.raises((Refused, NoSuchThing), match=words):
        done(grouped, {"kind": "put-into", "parts": parts, "into": into})
