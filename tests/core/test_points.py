"""The pen, and what is done to the points of a path."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.document.moving import place_of
from obrell.core.edit import Surroundings, read_edit
from obrell.core.errors import NoSuchThing, Refused
from obrell.core.geometry.combine import combined
from obrell.core.geometry.fillets import fillet
from obrell.core.geometry.knots import (
    Bend,
    draw_contour,
    knots_of,
    nearest,
    place_at,
    pulled,
    split,
    straight,
    with_handles,
)  # fmt: skip
from obrell.core.geometry.paths import PathBuilder
from obrell.core.geometry.plane import Similarity
from obrell.core.geometry.rounded import ellipse, rounded_box
from obrell.core.geometry.simplify import simplified
from obrell.core.raster.coverage import rasterise
from obrell.core.raster.layers import PixelBox
from obrell.core.shapes import SHAPES, Box, Icon, Line, Path, Round
from obrell.core.shapes.kinds.path import path_from
from obrell.core.shapes.outlined import Contour, Knot, contours_from
from tests.making import CONTAINERS_TRIED, SHAPES_TRIED, control, part, solid, with_inner

WINDOW = PixelBox(-80, -80, 80, 80)
place = st.floats(-40, 40)
knot = st.builds(Bend, place, place, place, place, place, place)


def area(outline):
    return float(rasterise(outline.rows, WINDOW).values.sum(dtype=np.float64))


def drawn(*bends, closed=False):
    pen = PathBuilder()
    draw_contour(pen, bends, closed=closed)
    return pen.path()


def at(one, other, t):
    p = [(one.x, one.y), (one.x + one.out_x, one.y + one.out_y)]
    q = [(other.x + other.in_x, other.y + other.in_y), (other.x, other.y)]
    weights = ((1 - t) ** 3, 3 * (1 - t) ** 2 * t, 3 * (1 - t) * t * t, t**3)
    return tuple(sum(w * point[axis] for w, point in zip(weights, p + q, strict=True)) for axis in (0, 1))


def done(start, *edits):
    for edit in edits:
        start = read_edit(edit).apply(start, Surroundings())
    return start


def pen(*places, close=False):
    """A path drawn with the pen on an empty canvas."""
    knots = [dict(zip(("x", "y", "in_x", "in_y", "out_x", "out_y"), p, strict=False)) for p in places]
    edits = [{"kind": "pen-start", "first": knots[0], "second": knots[1]}]
    edits += [{"kind": "pen-next", "part": "p100", "contour": 0, "knot": k} for k in knots[2:]]
    if close:
        edits.append({"kind": "close-path", "part": "p100", "contour": 0})
    return done(control(), *edits)


@given(knot, knot, st.floats(0.05, 0.95), st.floats(0, 1))
def test_a_new_point_changes_no_curve(one, other, cut, t):
    left, middle, right = split(one, other, cut)
    if t < cut:
        assert at(left, middle, t / cut) == pytest.approx(at(one, other, t), abs=1e-6)
    else:
        assert at(middle, right, (t - cut) / (1 - cut)) == pytest.approx(at(one, other, t), abs=1e-6)


@given(knot, knot, st.floats(0.1, 0.9), place, place)
def test_a_dragged_segment_follows_the_hand(one, other, t, dx, dy):
    if straight(one, other):
        return
    before = at(one, other, t)
    after = at(*pulled(one, other, t, dx, dy), t)
    assert after == pytest.approx((before[0] + dx, before[1] + dy), abs=1e-6)


@given(knot, knot, st.floats(0.1, 0.9))
def test_the_nearest_place_on_a_segment_is_the_one_that_was_pressed(one, other, t):
    x, y = place_at(one, other, t)
    found = place_at(one, other, nearest(one, other, x, y))
    reach = max(abs(v) for b in (one, other) for v in (b.x, b.y, b.in_x, b.in_y, b.out_x, b.out_y))
    assert math.dist(found, (x, y)) <= 0.01 * 12 * reach + 1e-6


def test_shift_keeps_the_pen_to_eighths_of_a_turn():
    first, second = {"x": 10, "y": 10}, {"x": 40, "y": 13}
    start = done(control(), {"kind": "pen-start", "first": first, "second": second, "constrained": True})
    end = start.parts[0].shape.contours[0].knots[1]
    assert (start.parts[0].x + end.x, start.parts[0].y + end.y) == pytest.approx((40, 10))
    next_one = {"kind": "pen-next", "part": "p100", "contour": 0, "knot": {"x": 50, "y": 24}, "constrained": True}
    more = done(start, next_one).parts[0]
    last = more.shape.contours[0].knots[2]
    assert (more.x + last.x, more.y + last.y) == pytest.approx((52, 22))


def test_rounded_corners_are_those_of_a_box():
    corners = [Bend(x, y, radius=9) for x, y in ((-30, -20), (30, -20), (30, 20), (-30, 20))]
    assert area(drawn(*corners, closed=True)) == pytest.approx(area(rounded_box(60, 40, (9,) * 4)), abs=1e-3)
    crowded = [Bend(c.x, c.y, radius=500) for c in corners]
    assert area(drawn(*crowded, closed=True)) == pytest.approx(area(rounded_box(60, 40, (20,) * 4)), abs=1e-3)


@pytest.mark.parametrize("kind", [kind for kind in SHAPES if kind != "path"])
def test_every_kind_becomes_a_path_that_looks_the_same(kind):
    start = control(*with_inner(kind, solid("#204060"), rotation=25))
    name = start.parts[-1].id
    if kind not in CONTAINERS_TRIED:
        outline = SHAPES_TRIED[kind].path()
        assert area(path_from(outline).path()) == pytest.approx(area(outline), rel=4e-4)
    converted = done(start, {"kind": "to-path", "parts": [name]})
    assert [p.shape.kind for p in converted.parts] == ["path"]
    assert converted.parts[0].effects[0] == start.parts[-1].effects[0]


def test_the_pen_draws_what_was_pressed():
    open_line = pen((10, 10), (50, 10), (50, 40))
    path = open_line.parts[0].shape
    assert path.form == "line"
    assert not path.contours[0].closed
    closed = pen((10, 10), (50, 10), (50, 40), close=True).parts[0].shape
    assert closed.form == "filled"
    assert area(closed.path()) == pytest.approx(40 * 30 / 2, abs=0.01)
    with pytest.raises(Refused, match="Cut it open"):
        done(
            pen((0, 0), (9, 0), (9, 9), close=True),
            {"kind": "pen-next", "part": "p100", "contour": 0, "knot": {"x": 1, "y": 1}},
        )


def test_points_move_on_the_canvas_whatever_the_turn_of_the_part():
    start = done(pen((10, 10), (50, 10), (50, 40), close=True), {"kind": "turn", "part": "p100", "degrees": 90})
    moved = done(start, {"kind": "move-points", "part": "p100", "points": [[0, 1]], "dx": 8, "dy": 0})
    old, new = (c.parts[0].shape.contours[0].knots[1] for c in (start, moved))
    assert (new.x - old.x, new.y - old.y) == pytest.approx((0, -8), abs=1e-6)


def test_a_smooth_point_turns_both_handles_unless_one_moves_alone():
    start = pen((0, 0), (30, 0, -9, 0, 9, 0), (60, 0))
    pull = {"kind": "move-handle", "part": "p100", "point": [0, 1], "side": "out", "x": 30, "y": 12}
    knot_after = done(start, pull).parts[0].shape.contours[0].knots[1]
    assert (knot_after.in_x, knot_after.in_y) == pytest.approx((0, -9))
    alone = done(start, pull | {"alone": True}).parts[0].shape.contours[0].knots[1]
    assert (alone.in_x, alone.in_y) == (-9, 0)


def test_points_are_added_removed_smoothed_and_sharpened():
    start = pen((0, 0), (40, 0), (40, 40), (0, 40), close=True)
    more = done(start, {"kind": "add-point", "part": "p100", "point": [0, 3], "x": -3, "y": 20})
    assert len(more.parts[0].shape.contours[0].knots) == 5
    assert area(more.parts[0].shape.path()) == pytest.approx(1600, abs=0.01)
    less = done(more, {"kind": "remove-points", "part": "p100", "points": [[0, 4], [0, 2]]})
    assert area(less.parts[0].shape.path()) == pytest.approx(800, abs=0.01)
    soft = done(start, {"kind": "bend-points", "part": "p100", "points": [[0, 0]], "smooth": True})
    assert soft.parts[0].shape.contours[0].knots[0].bend().smooth
    hard = done(soft, {"kind": "bend-points", "part": "p100", "points": [[0, 0]], "smooth": False})
    assert hard.parts[0].shape == start.parts[0].shape
    with pytest.raises(Refused, match="at least two points"):
        done(start, {"kind": "remove-points", "part": "p100", "points": [[0, 0], [0, 1], [0, 2]]})
    with pytest.raises(NoSuchThing):
        done(start, {"kind": "move-points", "part": "p100", "points": [[0, 9]], "dx": 1, "dy": 0})


def test_a_path_cut_open_and_joined_again_is_the_same():
    start = pen((0, 0), (40, 0), (40, 40), (0, 40), close=True)
    opened = done(start, {"kind": "cut-open", "part": "p100", "point": [0, 2]})
    run = opened.parts[0].shape.contours[0]
    assert not run.closed
    assert len(run.knots) == 5
    joined = done(opened, {"kind": "join-ends", "part": "p100", "points": [[0, 0], [0, 4]]})
    assert area(joined.parts[0].shape.path()) == pytest.approx(1600, abs=0.01)
    two = done(opened, {"kind": "cut-open", "part": "p100", "point": [0, 2]})
    assert len(two.parts[0].shape.contours) == 2
    one = done(two, {"kind": "join-ends", "part": "p100", "points": [[0, 2], [1, 0]]})
    assert len(one.parts[0].shape.contours[0].knots) == 5


def test_simplifying_keeps_to_its_tolerance():
    fine = [Bend(30 * math.cos(a), 20 * math.sin(a)) for a in np.linspace(0, math.tau, 200, endpoint=False)]
    ((closed, few),) = simplified([(True, fine)], 0.2)
    assert closed
    assert len(few) < 16
    lost = combined("exclusion", (ellipse(60, 40), drawn(*few, closed=True)))
    assert area(lost) < 0.25 * 160
    corners = [Bend(0, 0), Bend(20, 0), Bend(40, 0), Bend(40, 30), Bend(0, 30)]
    ((_, kept),) = simplified([(True, corners)], 0.1)
    assert area(drawn(*kept, closed=True)) == pytest.approx(1200, abs=0.5)


def test_growing_keeps_kinds_and_middles():
    start = control(part(Box(width=30, height=20, radius=4)), part(Round(width=20, height=10)), part(Line()))
    big = done(start, {"kind": "grow", "parts": ["p1", "p2", "p3"], "by": 3}).parts
    assert (big[0].shape.width, big[0].shape.radius, big[1].shape.height) == (36, 7, 16)
    assert isinstance(big[2].shape, Path)
    with pytest.raises(Refused, match="Nothing would be left"):
        done(start, {"kind": "grow", "parts": ["p3"], "by": -9})


def test_one_end_of_a_line_moves_and_the_other_stays():
    start = control(part(Line(across=30, down=0), x=10, y=10))
    moved = done(start, {"kind": "move-end", "part": "p1", "end": "start", "dx": -5, "dy": 4}).parts[0]
    assert (moved.x, moved.y) == (5, 14)
    assert (moved.x + moved.shape.across, moved.y + moved.shape.down) == (40, 10)


def test_an_outline_comes_back_from_its_knots():
    for closed, bends in knots_of(ellipse(60, 40)):
        assert closed
        assert len(bends) == 4
        assert area(drawn(*bends, closed=True)) == pytest.approx(area(ellipse(60, 40)), rel=4e-4)


def curved(radius):
    """A corner at the origin between a straight side from the left and a curve that goes down from it."""
    return fillet(Bend(-40, 0), Bend(0, 0, out_x=8, out_y=14), Bend(10, 40, in_x=0, in_y=-12), radius)


@given(st.floats(1, 9))
def test_an_arc_between_curves_touches_both_with_its_radius(radius):
    found = curved(radius)
    first, second = found.first, found.second
    assert first.smooth
    assert second.smooth
    outwards = np.array([-first.out_y, first.out_x]) / math.hypot(first.out_x, first.out_y)
    centre = np.array([first.x, first.y]) + outwards * radius
    for step in np.linspace(0, 1, 9):
        assert math.dist(place_at(first, second, step), centre) == pytest.approx(radius, abs=0.01 * radius)
    sharp = at(*with_handles(Bend(0, 0, out_x=8, out_y=14), Bend(10, 40, in_x=0, in_y=-12)), 0.0)
    assert sharp == (0, 0)


def test_arcs_without_room_are_refused_and_straight_corners_stay_live():
    assert curved(60) is None
    shape = Path(contours=(Contour(knots=(Knot(x=0, y=0), Knot(x=20, y=0), Knot(x=20, y=20, out_x=-8, out_y=8))),))
    base = control(part(shape))
    live = done(base, {"kind": "round-points", "part": "p1", "points": [[0, 1]], "radius": "2*2"})
    assert live.parts[0].shape.contours[0].knots[1].radius == 4
    arc = done(base, {"kind": "round-points", "part": "p1", "points": [[0, 2]], "radius": 2})
    assert len(arc.parts[0].shape.contours[0].knots) == 4
    with pytest.raises(Refused, match="no room"):
        done(base, {"kind": "round-points", "part": "p1", "points": [[0, 2]], "radius": 90})


def test_an_icon_keeps_its_lines_as_lines_and_its_outline_takes_few_points():
    start = control(part(Icon(icon="bell", width=34, height=34, line=3), solid("#204060")))
    lines = done(start, {"kind": "to-path", "parts": ["p1"]}).parts[0].shape
    assert (lines.form, lines.width, lines.caps) == ("line", 3, "round")
    assert sum(len(run.knots) for run in lines.contours) < 20
    outlined = done(start, {"kind": "outline-lines", "parts": ["p1"]}).parts[0].shape
    assert sum(len(run.knots) for run in outlined.contours) < 60
    fine, box = Similarity(scale=4), PixelBox(-90, -90, 90, 90)
    covers = [
        rasterise(shape.path().transformed(fine).rows, box).values for shape in (start.parts[0].shape, lines, outlined)
    ]
    assert np.abs(covers[0] - covers[1]).max() < 1 / 255
    assert np.abs(covers[0] - covers[2]).max() < 24 / 255
    with pytest.raises(Refused, match="a path already"):
        done(done(start, {"kind": "to-path", "parts": ["p1"]}), {"kind": "to-path", "parts": ["p1"]})
    with pytest.raises(Refused, match="an area already"):
        done(control(part(Box(), solid("#204060"))), {"kind": "outline-lines", "parts": ["p1"]})


def outlined_and_covered(start):
    """The outline made of the lines of the only part, and both coverages, four device px to a px."""
    outlined = done(start, {"kind": "outline-lines", "parts": ["p1"]}).parts[0].shape
    fine, box = Similarity(scale=4), PixelBox(-120, -120, 200, 200)
    shapes = (start.parts[0].shape, outlined)
    return outlined, [rasterise(shape.path().transformed(fine).rows, box).values for shape in shapes]


def test_the_round_ends_of_an_outlined_line_are_arcs():
    for shape, knots in ((Line(across=40, down=20, width=6, caps="round"), 6), (Line(across=40, width=6), 4),
                         (Line(across=40, down=-9, width=4, caps="round", dash=6, gap=6), 24)):  # fmt: skip
        outlined, covers = outlined_and_covered(control(part(shape, solid("#204060"))))
        assert sum(len(run.knots) for run in outlined.contours) == knots
        assert np.abs(covers[0] - covers[1]).max() < 2 / 255
    corner = (Knot(x=0, y=30), Knot(x=0, y=0), Knot(x=30, y=0))
    bent = Path(contours=(Contour(closed=False, knots=corner),), form="line", width=6, caps="round", joins="round")
    outlined, covers = outlined_and_covered(control(part(bent, solid("#204060"))))
    assert sum(len(run.knots) for run in outlined.contours) == 9
    assert np.abs(covers[0] - covers[1]).max() < 2 / 255
    with pytest.raises(Refused, match="every point where it is"):
        done(control(part(outlined)), {"kind": "simplify", "part": "p1", "tolerance": 0.01})


@pytest.mark.parametrize("name", ["bell", "lock", "settings", "anchor", "circle", "power", "x", "sun"])
def test_an_outlined_icon_covers_what_its_lines_do(name):
    start = control(part(Icon(icon=name, width=40, height=40, line=3), solid("#204060")))
    _, covers = outlined_and_covered(start)
    assert np.abs(covers[0] - covers[1]).max() < 24 / 255


@pytest.mark.parametrize("name", ["bell", "lock", "settings", "anchor"])
@pytest.mark.parametrize("tolerance", [0.05, 0.2])
def test_a_simplified_path_is_nowhere_farther_than_its_tolerance(name, tolerance):
    start = control(part(Icon(icon=name, width=40, height=40, line=3), solid("#204060")))
    many = Path(contours=contours_from(knots_of(start.parts[0].shape.path())))
    fewer = done(control(part(many)), {"kind": "simplify", "part": "p1", "tolerance": tolerance, "smooth": 5})
    shapes = [many, fewer.parts[0].shape]
    counts = [sum(len(run.knots) for run in shape.contours) for shape in shapes]
    assert counts[1] < counts[0]
    fine, box = Similarity(scale=4), PixelBox(-99, -99, 99, 99)
    before, after = (rasterise(shape.path().transformed(fine).rows, box).values for shape in shapes)
    assert np.abs(before - after).max() <= 4 * tolerance * 2, "two edges may lie in one px"


def test_rounding_says_which_points_lack_room_and_half_the_width_is_a_round_cap():
    knots = tuple(Knot(x=x, y=y) for x, y in ((-20, -4), (20, -4), (20, 4), (-20, 4)))
    start = control(part(Path(contours=(Contour(knots=knots),)), solid("#204060")))
    edit = {"kind": "round-points", "part": "p1", "points": [[0, 1], [0, 2]]}
    capped = done(start, edit | {"radius": 4}).parts[0].shape
    round_end = Box(width=40, height=8, corners="four", top_right=4, bottom_right=4)
    box = PixelBox(-30, -30, 30, 30)
    assert (
        np.abs(rasterise(capped.path().rows, box).values - rasterise(round_end.path().rows, box).values).max() < 1e-5
    )
    with pytest.raises(Refused, match=r"Points 2, 3 of the path: no room for a radius of 5 px; 4 px is the most"):
        done(start, edit | {"radius": 5})
    curved = (
        Knot(x=-20, y=0, out_x=9, out_y=-8),
        Knot(x=20, y=0, in_x=-9, in_y=-8),
        Knot(x=12, y=30),
        Knot(x=-20, y=30),
    )
    bent = control(part(Path(contours=(Contour(knots=curved),)), solid("#204060")))
    with pytest.raises(Refused, match=r"Point 2 of the path: no room for a radius of 90 px; [\d.]+ px is about"):
        done(bent, {"kind": "round-points", "part": "p1", "points": [[0, 1]], "radius": 90})


@given(st.floats(-180, 180), st.booleans(), place, place)
def test_typed_places_are_those_of_the_canvas_however_the_path_is_turned(turn, mirrored, x, y):
    knots = tuple(Knot(x=a, y=b, out_x=3, out_y=1) for a, b in ((-20, -4), (20, -4), (20, 14)))
    start = control(part(Path(contours=(Contour(knots=knots),)), solid("#204060"), rotation=turn, mirrored=mirrored))

    def seen(control, index, side=(0, 0)):
        one = control.parts[0]
        knot = one.shape.contours[0].knots[index]
        return place_of(one).apply(knot.x + side[0] * knot.out_x, knot.y + side[1] * knot.out_y)

    edit = {"kind": "place-points", "part": "p1"}
    both = done(start, edit | {"points": [[0, 0], [0, 2]], "x": f"{x:.6f}"})
    for index in (0, 2):
        assert seen(both, index) == pytest.approx((x, seen(start, index)[1]), abs=1e-5)
    assert seen(both, 1) == seen(start, 1)
    arm = done(start, edit | {"points": [[0, 1]], "x": x, "y": y, "side": "out"})
    assert seen(arm, 1, (1, 1)) == pytest.approx((x, y), abs=1e-6)
    assert seen(arm, 1) == pytest.approx(seen(start, 1))
