"""Whatever is led by hand comes to lie on what is near, and says on what."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.document.guides import guide_places
from obrell.core.document.model import Guide
from obrell.core.document.moving import place_of
from obrell.core.edit import read_edit
from obrell.core.edit.base import Surroundings
from obrell.core.edit.snapping import Snapping, pulled_by, snap_box, snap_point
from obrell.core.geometry.plane import Point, Rect
from obrell.core.shapes import Box, Line, Path, Round, Text
from obrell.core.shapes.outlined import Contour, Knot
from obrell.core.values.paints import Linear, Stop
from tests.making import control, part, solid

AROUND = Surroundings()
CANVAS = {"width": 190, "height": 160}
SNAP = {"kinds": ["guides", "canvas", "parts", "gaps", "points"], "reach": 3}
BODY = part(Box(width=60, height=30), solid("#888888"), x=50, y=40).evolve(id="p1", name="Body")


def done(start, **edit):
    """The control after an edit with snapping, and what it said."""
    edit = read_edit({"snap": SNAP, **edit})
    return edit.apply(start, AROUND), [snap.words for snap in edit.snaps(start)]


def knots_of(one):
    place = place_of(one)
    return [tuple(round(v, 6) for v in place.apply(k.x, k.y)) for run in one.shape.contours for k in run.knots]


def drawn(*places, closed=False, turn=0.0):
    run = Contour(closed=closed, knots=tuple(Knot(x=x, y=y) for x, y in places))
    shape = Path(contours=(run,), form="line")
    return part(shape, solid("#000000"), x=0, y=0, rotation=turn).evolve(id="p2", name="Line")


def test_the_pen_begins_and_goes_on_at_what_is_near():
    start = control(BODY, **CANVAS)
    begun, words = done(start, kind="pen-start", first={"x": 21, "y": 24}, second={"x": 51, "y": 60})
    assert knots_of(begun.parts[1]) == [(20, 25), (50, 60)]
    assert words == ["middle of Body"]
    on, words = done(begun, kind="pen-next", part=begun.parts[1].id, contour=0, knot={"x": 22, "y": 54})
    assert knots_of(on.parts[1])[2] == (20, 55)
    assert words == ["left of Body", "bottom of Body"]


def test_a_constrained_point_gives_way_only_along_its_ray():
    start = control(BODY, drawn((10, 60), (30, 60)), **CANVAS)
    on, words = done(start, kind="pen-next", part="p2", contour=0, knot={"x": 79, "y": 62}, constrained=True)
    assert knots_of(on.parts[1])[2] == (80, 60)
    assert words == ["right of Body"]
    aslant, words = done(start, kind="pen-next", part="p2", contour=0, knot={"x": 49, "y": 78}, constrained=True)
    assert (words, knots_of(aslant.parts[1])[2]) == ([], (48.5, 78.5))


@pytest.mark.parametrize("turn", [0.0, 90.0, 30.0])
def test_points_snap_by_the_one_that_is_held_and_come_in_line_with_their_own(turn):
    start = control(BODY, drawn((0, 0), (6, 0), (6, 8), closed=True, turn=turn).evolve(x=120, y=5), **CANVAS)
    (x, y), other, still = knots_of(start.parts[1])
    edit = {"kind": "move-points", "part": "p2", "points": [[0, 0], [0, 1]]}
    moved, words = done(start, **edit, dx=51 - x, dy=24 - y)
    assert knots_of(moved.parts[1])[0] == (50, 25)
    assert knots_of(moved.parts[1])[1] == pytest.approx((other[0] + 50 - x, other[1] + 25 - y), abs=1e-5)
    assert words == ["middle of Body", "top of Body"]
    lined, words = done(start, **edit, dx=still[0] + 1 - x, dy=40)
    assert knots_of(lined.parts[1])[0][0] == pytest.approx(still[0])
    assert "in line with a point" in words[0]


def test_the_end_of_a_line_snaps_and_centred_its_other_end_goes_the_other_way():
    line = part(Line(across=20, down=0), solid("#000000"), x=5, y=70).evolve(id="p2", name="Line")
    start = control(BODY, line, **CANVAS)
    moved, words = done(start, kind="move-end", part="p2", end="end", dx=24, dy=-14)
    end = moved.parts[1]
    assert (end.x, end.y, end.shape.across, end.shape.down) == (5, 70, 45, -15)
    assert words == ["middle of Body", "bottom of Body"]
    both, _ = done(start, kind="move-end", part="p2", end="end", dx=6, dy=4, centred=True, snap=None)
    end = both.parts[1]
    assert (end.x, end.y, end.shape.across, end.shape.down) == (-1, 66, 32, 8)
    level, words = done(start, kind="move-end", part="p2", end="end", dx=3, dy=1)
    assert level.parts[1].shape.down == 0
    assert words[-1] == "in line with a point"


def test_a_copy_that_is_dragged_snaps_to_its_original_and_to_equal_gaps():
    pair = [
        part(Round(width=10, height=10), solid("#000000"), x=x, y=20).evolve(id=i) for i, x in (("p1", 10), ("p2", 30))
    ]
    copied, words = done(control(*pair, **CANVAS), kind="duplicate", parts=["p2"], dx=19, dy=1)
    assert (copied.parts[2].x, copied.parts[2].y) == (50, 20)
    assert words[0].startswith("equal gaps")


def test_guides_snap_to_parts_are_kept_to_tens_and_mirrored():
    start = control(BODY, **CANVAS).evolve(guides=(Guide(id="g1", axis="across", at=40),), next_number=9)
    added, words = done(start, kind="add-guide", axis="down", at=23.5)
    assert (added.guides[1].at, words) == (25, ["top of Body"])
    moved, words = done(start, kind="move-guide", guide="g1", by=11)
    assert (moved.guides[0].at, words) == (50, ["middle of Body"])
    assert guide_places(done(start, kind="move-guide", guide="g1", by=13, constrained=True)[0]) == {"g1": 50}
    pair, _ = done(start, kind="add-guide", axis="across", at=18, constrained=True, centred=True)
    assert [guide.at for guide in pair.guides] == [40, 20, 170]
    counted, _ = done(start, kind="add-guide", axis="across", at=10, since="g1", centred=True)
    assert list(guide_places(counted).values()) == [40, 50, 140]
    near, words = done(start, kind="add-guide", axis="across", at=-112, since="end")
    assert (guide_places(near)["g9"], words) == (80, ["right of Body"])


def test_the_ends_of_a_gradient_snap_to_its_own_part():
    fill = Linear(angle=90.0, stops=(Stop(position=0, colour="#ffffff"), Stop(position=1, colour="#000000")))
    body = BODY.evolve(effects=(BODY.effects[0].evolve(fill=fill),))
    start = control(body, **CANVAS)
    edit = {"kind": "move-gradient", "part": "p1", "effect": "e1"}
    moved, words = done(start, **edit, handle="from", x=36, y=41)
    found = moved.parts[0].effects[0].fill
    assert (found.angle, found.scale) == (90, 0.733)
    assert words == ["middle of Body"]
    both, _ = done(start, **edit, handle="from", x=35, y=40, centred=True, snap=None)
    assert both.parts[0].effects[0].fill.ends == pytest.approx((0.25, 0.75))
    assert done(start, **edit, handle="stop 0", x=49, y=41)[1] == []


def test_the_ink_of_words_counts_only_where_nothing_else_is_near():
    label = part(Text(words="Go", size=16), solid("#000000"), x=50, y=60).evolve(id="p2", name="Label")
    frame = label.shape.frame()
    start = control(BODY, label, **CANVAS)
    ink = 50 + frame.right
    _, words = done(start, kind="add-guide", axis="across", at=ink + 0.5)
    assert words[0].startswith("right of Label")
    near = control(BODY.evolve(x=ink + 1.5 - 30), label, **CANVAS)
    _, words = done(near, kind="add-guide", axis="across", at=ink + 0.4)
    assert words[0].startswith("right of Body")


def test_what_is_hidden_in_a_hidden_group_is_not_snapped_to():
    hidden = BODY.evolve(visible=False)
    assert done(control(hidden, width=300, height=300), kind="add-guide", axis="down", at=23.5)[1] == []


@given(st.floats(-40, 40), st.floats(-40, 40))
def test_what_is_led_ends_where_it_says(dx, dy):
    start = control(BODY, drawn((10, 10), (20, 12), (14, 30)), **CANVAS)
    edit = read_edit({
        "kind": "move-points", "part": "p2", "points": [[0, 2]], "dx": dx, "dy": dy, "snap": SNAP,
    })  # fmt: skip
    x, y = knots_of(edit.apply(start, AROUND).parts[1])[2]
    for snap in edit.snaps(start):
        assert (x if snap.axis == "across" else y) == pytest.approx(snap.at, abs=1e-5)
    if not edit.snaps(start):
        assert (x, y) == pytest.approx((14 + dx, 30 + dy), abs=1e-5)


BOXES = st.lists(
    st.tuples(st.integers(0, 600), st.integers(0, 500), st.integers(4, 120), st.integers(4, 120)), max_size=3
)
WORDS = {0: ("left of", "right of"), 1: ("top of", "bottom of")}


def offers(boxes, axis, length, margin, kinds):
    """Where lines lie, which lines of a box may lie on them, and what they are: as a list, one by one."""
    lines = []
    if "canvas" in kinds:
        lines += [(length / 2, "m", "middle of the canvas"), (0, "se", "canvas edge"), (length, "se", "canvas edge")]
        lines += [(margin, "se", "margin"), (length - margin, "se", "margin")]
    for number, box in enumerate(boxes, start=1):
        start, size = box[axis] / 4, box[axis + 2] / 4
        first, last = WORDS[axis]
        lines += [
            (start + size / 2, "m", f"middle of P{number}"), (start, "se", f"{first} P{number}"),
            (start + size, "se", f"{last} P{number}"),
        ]  # fmt: skip
    return lines


@given(BOXES, st.integers(0, 600), st.integers(0, 500), st.integers(4, 200), st.integers(4, 200), st.booleans())
def test_a_box_comes_to_lie_on_the_nearest_of_all_lines_that_it_may_lie_on(boxes, x, y, width, height, alone):
    parts = [
        part(Box(width=w / 4, height=h / 4), solid("#888888"), x=(a + w / 2) / 4, y=(b + h / 2) / 4, name=f"P{n}")
        for n, (a, b, w, h) in enumerate(boxes, start=1)
    ]
    start = control(*parts, **CANVAS)
    kinds = ("parts",) if alone else ("canvas", "parts")
    box = Rect(x / 4 + 0.1, y / 4 + 0.1, (x + width) / 4 + 0.1, (y + height) / 4 + 0.1)
    found = {one.axis: one for one in snap_box(start, (), box, Snapping(kinds=kinds, reach=3))}
    for axis, name, length in ((0, "across", 190), (1, "down", 160)):
        low, high = (box.left, box.right) if axis == 0 else (box.top, box.bottom)
        own = {"s": low, "m": (low + high) / 2, "e": high}
        pairs = sorted(
            ((at - own[line], at, words) for at, lines, words in offers(boxes, axis, length, 12, kinds)
             for line in lines if abs(at - own[line]) <= 3),
            key=lambda pair: abs(pair[0]),
        )  # fmt: skip
        near = [pair for pair in pairs if abs(pair[0]) < abs(pairs[0][0]) + 1e-6]
        if not near or len({by > 0 for by, *_ in near}) > 1:
            assert name not in found
        else:
            assert (found[name].by, found[name].at) in [(pytest.approx(by), at) for by, at, _ in near]
            assert found[name].words in [words for *_, words in near]


@given(st.integers(0, 400), st.integers(1, 60), st.sampled_from([1.0, 1.5, 2.0, 3.0]))
def test_where_nothing_else_is_near_the_start_of_a_box_comes_to_lie_on_whole_pixels(x, width, density):
    box = Rect(x / 4 + 0.1, 50, x / 4 + 0.1 + width, 60)
    (snap,) = snap_box(control(**CANVAS), (), box, Snapping(kinds=("pixels",), density=density))[:1]
    assert snap.words == "pixels"
    assert (box.left + snap.by) * density == pytest.approx(round(box.left * density))


def test_a_point_comes_in_line_with_points_across_and_down():
    start = control(drawn((10, 11), (50, 52)), **CANVAS)
    for x, y, at in ((11, 90, {"across": 10}), (90, 50, {"down": 52}), (49, 53, {"across": 50, "down": 52})):
        found = snap_point(start, (), x, y, Snapping(kinds=("points",), reach=3))
        assert {one.axis: one.at for one in found} == at
        assert {one.words for one in found} == {"a point of Line"}
    (own,) = snap_point(start, ("p1",), 30, 70, Snapping(kinds=("points",), reach=3), [Point(32, 90)])
    assert (own.axis, own.at, own.words) == ("across", 32, "in line with a point")
    assert pulled_by((own,)) == (2, 0)
