"""Part kinds against closed forms: areas, boxes, corners."""

import math

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from obrell.core.edit import Surroundings, read_edit
from obrell.core.errors import Refused
from obrell.core.geometry.combine import combined
from obrell.core.geometry.corners import rounded_polygon
from obrell.core.geometry.plane import Point, Similarity, about, degrees_of, direction
from obrell.core.geometry.rounded import ellipse, rounded_box
from obrell.core.raster.coverage import rasterise
from obrell.core.raster.layers import PixelBox
from obrell.core.shapes import Box, Line, Ring, Round, Sides, Text
from obrell.core.shapes.kinds.line import ARROW_LENGTH, ARROW_WIDTH
from obrell.core.text.fonts import FONT_NAMES
from tests.making import control, part

BOX = PixelBox(-80, -80, 80, 80)
radii = st.floats(4, 40)


def area(path):
    return float(rasterise(path.rows, BOX).values.sum(dtype=np.float64))


@given(radii, st.floats(0.1, 0.95), st.floats(5, 360), st.floats(-400, 400))
def test_a_ring_has_the_area_of_its_sector(outer, share, sweep, start):
    inner = outer * share
    ring = Ring(outer=outer, inner=inner, sweep=sweep, start=start)
    assert area(ring.path()) == pytest.approx(math.pi * (outer**2 - inner**2) * sweep / 360, abs=0.2)


def test_round_ends_add_one_circle():
    flat = Ring(outer=30, inner=20, sweep=200)
    assert area(flat.evolve(ends="round").path()) - area(flat.path()) == pytest.approx(math.pi * 25, abs=0.05)


def test_a_ring_starts_where_it_says():
    bounds = Ring(outer=30, inner=20, sweep=90, start=90).path().bounds()
    assert (bounds.left, bounds.top) == pytest.approx((0, 0), abs=1e-9)
    assert (bounds.right, bounds.bottom) == pytest.approx((30, 30))


@given(st.integers(3, 30), st.floats(10, 80), st.floats(10, 80), st.floats(0, 360))
def test_sides_touch_their_box(count, width, height, pointing):
    bounds = Sides(count=count, width=width, height=height, pointing=pointing).path().bounds()
    assert (bounds.left, bounds.top, bounds.right, bounds.bottom) == pytest.approx(
        (-width / 2, -height / 2, width / 2, height / 2), abs=1e-6
    )


def test_an_octagon_and_a_star_have_their_areas():
    flat = math.cos(math.pi / 8)
    octagon = Sides(count=8, width=60, height=60, pointing=22.5)
    assert area(octagon.path()) == pytest.approx(8 / 2 * (30 / flat) ** 2 * math.sin(math.tau / 8), rel=1e-5)
    star = Sides(count=4, width=60, height=60, inner=0.5)
    assert area(star.path()) == pytest.approx(4 * 30 * 15 * math.sin(math.pi / 4), rel=1e-5)


def test_a_rounded_corner_is_the_arc_of_a_box():
    points = ((-30, -20), (30, -20), (30, 20), (-30, 20))
    assert area(rounded_polygon(points, (8,) * 4)) == pytest.approx(area(rounded_box(60, 40, (8,) * 4)), abs=1e-3)


def test_a_continuous_corner_passes_where_the_arc_does_and_starts_without_a_bend():
    box = Box(width=100, height=100, radius=12, bend="continuous")
    rows = box.path().rows
    cubic = rows[rows[:, 0] == 2][0]
    start = rows[0, 1:3] if rows[1, 0] == 2 else rows[np.flatnonzero(rows[:, 0] == 2)[0] - 1, 1:3]
    points = np.array([start, cubic[1:3], cubic[3:5], cubic[5:7]])
    middle = points.T @ np.array([1, 3, 3, 1]) / 8
    corner = points[1]
    assert np.array_equal(points[1], points[2])
    assert np.hypot(*(middle - corner)) == pytest.approx(12 * (math.sqrt(2) - 1))


@given(st.floats(-60, 60), st.floats(-60, 60), st.floats(1, 12))
def test_a_line_has_the_area_of_a_bar(across, down, width):
    length = math.hypot(across, down)
    if length < 1:
        return
    line = Line(across=across, down=down, width=width)
    assert area(line.path()) == pytest.approx(length * width, abs=0.02)
    capped = area(line.evolve(caps="round").path())
    assert capped == pytest.approx(length * width + math.pi * width**2 / 4, abs=0.05)


def sides(box, dx, dy):
    return box.left + dx, box.top + dy, box.right + dx, box.bottom + dy


@given(
    st.floats(30, 60), st.floats(0.5, 4), st.sampled_from(["none", "start", "end", "both"]), st.integers(0, 359)
)  # fmt: skip
def test_arrows_take_their_length_from_the_bar_and_end_where_the_line_does(length, width, arrows, degrees):
    x, y = direction(degrees)
    line = Line(across=length * x, down=length * y, width=width, arrows=arrows)
    heads = {"none": 0, "both": 2}.get(arrows, 1)
    head = ARROW_LENGTH * width
    bar, tips = (length - heads * head) * width, heads * head * ARROW_WIDTH * width / 2
    assert area(line.path()) == pytest.approx(bar + tips, rel=2e-3)
    flat = line.path().transformed(Similarity(turn=90 - degrees)).bounds()
    assert (flat.left, flat.right) == pytest.approx((0, length), abs=2e-3)
    half = (ARROW_WIDTH if heads else 1) * width / 2
    assert (flat.top, flat.bottom) == pytest.approx((-half, half), abs=2e-3)


@given(
    st.integers(-300, 300).map(lambda value: value / 7), st.integers(1, 40).map(lambda value: value / 8),
    st.sampled_from([1.0, 1.5, 2.0, 3.0]), st.booleans(), st.integers(-40, 40).map(lambda value: value / 9),
)  # fmt: skip
def test_a_fitted_line_lies_on_whole_pixels_where_it_lay_about(length, width, density, lies, at):
    assume(abs(length) >= 1)
    line = Line(across=length, down=0, width=width) if lies else Line(across=0, down=length, width=width)
    fitted, place = line.fitted(density, Point(at, -at))
    for now, was in zip(sides(fitted.box(), place.x, place.y), sides(line.box(), at, -at), strict=True):
        assert now * density == pytest.approx(round(now * density), abs=1e-4)
        assert abs(now - was) <= 1.001 / density


PLACES = st.integers(-80, 80)


@pytest.mark.parametrize("kind", [Box, Round, Sides])
@given(PLACES, PLACES, PLACES, PLACES)
def test_what_is_drawn_fills_the_way_of_the_hand(kind, x0, y0, dx, dy):
    assume(abs(dx) > 4 and abs(dy) > 4)
    end, side = (x0 + dx, y0 + dy), max(abs(dx), abs(dy))

    def drawn(**keys):
        shape, place = kind.drawn(x0, y0, *end, **({"constrained": False, "centred": False} | keys))
        return pytest.approx(sides(shape.frame(), place.x, place.y), abs=1e-6)

    assert drawn() == (min(x0, end[0]), min(y0, end[1]), max(x0, end[0]), max(y0, end[1]))
    assert drawn(centred=True) == (x0 - abs(dx), y0 - abs(dy), x0 + abs(dx), y0 + abs(dy))
    far = (x0 + math.copysign(side, dx), y0 + math.copysign(side, dy))
    assert drawn(constrained=True) == (min(x0, far[0]), min(y0, far[1]), max(x0, far[0]), max(y0, far[1]))
    assert drawn(constrained=True, centred=True) == (x0 - side, y0 - side, x0 + side, y0 + side)


def test_dashes_fill_the_line_from_its_start():
    line = Line(across=50, down=0, width=4, dash=10, gap=5)
    assert area(line.path()) == pytest.approx((10 + 10 + 10 + 5) * 4, abs=0.01)
    assert line.evolve(dash=1e-3, gap=1e-3).problem().startswith("That is more than")


def test_a_shift_constrained_line_keeps_to_eighths():
    line, place = Line.drawn(10, 10, 52, 49, constrained=True, centred=False)
    assert (place.x, place.y) == (10, 10)
    assert line.across == pytest.approx(line.down) == pytest.approx(40.5)


two = st.tuples(st.floats(6, 40), st.floats(-25, 25), st.floats(-25, 25), st.floats(0, 180))


@given(two, two)
def test_combinations_keep_the_area_identities(one, other):
    a = ellipse(2 * one[0], one[0] + 6).transformed(Similarity(turn=one[3], dx=one[1], dy=one[2]))
    b = rounded_box(2 * other[0], other[0] + 4, (3,) * 4).transformed(
        Similarity(turn=other[3], dx=other[1], dy=other[2])
    )
    parts = {mode: area(combined(mode, (a, b))) for mode in ("union", "difference", "intersection", "exclusion")}
    both = area(a) + area(b)
    assert parts["union"] + parts["intersection"] == pytest.approx(both, abs=0.05)
    assert parts["difference"] + parts["intersection"] == pytest.approx(area(a), abs=0.05)
    assert parts["union"] - parts["intersection"] == pytest.approx(parts["exclusion"], abs=0.05)


@given(st.floats(0.2, 5), st.floats(-720, 720), st.floats(-99, 99), st.floats(-99, 99), st.floats(-99, 99))
def test_transforms_come_back(scale, turn, dx, dy, x):
    move = Similarity(scale, turn, dx, dy)
    assert move.inverse().apply(*move.apply(x, dy)) == pytest.approx((x, dy), abs=1e-6)
    assert move.inverse().after(move).apply(x, dy) == pytest.approx((x, dy), abs=1e-6)
    assert about(dx, dy, turn, scale).apply(dx, dy) == pytest.approx((dx, dy), abs=1e-6)


def test_case_changes_what_is_seen_and_not_what_was_typed():
    for case, seen in (("upper", "RAISE SLUICE"), ("lower", "raise sluice"), ("as typed", "Raise Sluice")):
        text = Text(words="Raise Sluice", case=case)
        assert text.words == "Raise Sluice"
        assert text.path().bounds() == Text(words=seen).path().bounds()


def test_lines_of_text_stand_around_their_place():
    one = Text(words="Hop", size=20)
    two = Text(words="Hop\nHop", size=20, leading=1.5)
    assert two.baseline() == pytest.approx(one.baseline() - 15)
    assert area(two.path()) == pytest.approx(2 * area(one.path()), abs=0.05)
    inked = Text(words="ace", size=30, centred="ink").path().bounds()
    assert inked.top == pytest.approx(-inked.bottom)
    assert Text(words="Abc", case="upper").path() == Text(words="ABC").path()
    assert Text(words="a", rise=4).path().bounds().bottom == pytest.approx(Text(words="a").path().bounds().bottom - 4)


@pytest.mark.parametrize("font", FONT_NAMES)
def test_a_family_is_one_font_over_all_its_files(font):
    words = "Wažą" if font in ("Hanken Grotesk", "Spline Sans Mono") else "Wažą Шлюз"
    text = Text(words=words, font=font, size=30)
    assert text.problem() == ""
    assert not text.path().bounds().empty
    assert text.remark() == ""
    strange = Text(words="a漢", font=font, size=30)
    assert "no glyph for “漢”" in strange.remark()
    box = strange.path().bounds()
    assert box.width > Text(words="a", font=font, size=30).path().bounds().width + 16


@pytest.mark.parametrize(
    ("field", "value", "radii"), [("outer", 5, (5, 2.5)), ("outer", 8.5, (8.5, 0.5)), ("inner", 30, (38, 30))]
)
def test_a_radius_that_leaves_no_room_pushes_the_other_along(field, value, radii):
    start = control(part(Ring(outer=20, inner=12)))
    edit = read_edit({"kind": "set", "changes": [{"path": f"parts/p1/shape/{field}", "value": value}]})
    ring = edit.apply(start, Surroundings()).parts[0].shape
    assert (ring.outer, ring.inner) == pytest.approx(radii)


@given(
    st.floats(0, 359), st.floats(1, 359), st.floats(0, 359), st.sampled_from(["start", "end", "inner"]), st.booleans()
)
def test_a_grip_of_a_ring_comes_to_lie_where_it_is_taken(start, sweep, angle, name, centred):
    ring = Ring(outer=24, inner=18, sweep=sweep, start=start)
    at = Point(*(15 * value for value in direction(angle)))
    pulled = ring.gripped(name, at, constrained=False, centred=centred)
    assert not pulled.problem()
    grip = next((one for one in pulled.grips() if one.name == name), None)
    if name == "inner":
        assert math.hypot(grip.at.x, grip.at.y) == pytest.approx(15, abs=0.01)
    elif pulled.sweep < 360:
        off = (degrees_of(grip.at.x, grip.at.y) - angle + 180) % 360 - 180
        assert abs(off) <= 0.5 + 1e-6
        assert abs(degrees_of(grip.at.x, grip.at.y) % 1 - 0.5) > 0.5 - 1e-6
        middle = [one.start + one.sweep / 2 for one in (ring, pulled)]
        if centred:
            assert math.cos(math.radians(middle[0] - middle[1])) == pytest.approx(1)
        elif name == "end":
            assert pulled.start == ring.start


def test_a_whole_ring_is_opened_in_steps_and_its_hole_stays_smaller_than_it():
    whole = Ring(outer=24, inner=18)
    assert [grip.name for grip in whole.grips()] == ["inner", "end"]
    opened = whole.gripped("end", Point(20, 3), constrained=True, centred=False)
    assert (opened.start, opened.sweep) == (0, 105)
    assert whole.gripped("inner", Point(0, 60), constrained=False, centred=False).inner < 24
    assert whole.gripped("other", Point(0, 1), constrained=False, centred=False) is None


def test_an_edit_that_pulls_no_grip_is_refused():
    start = control(part(Box()))
    edit = read_edit({"kind": "pull-grip", "part": "p1", "grip": "inner", "x": 3, "y": 3})
    with pytest.raises(Refused, match="no such grip"):
        edit.apply(start, Surroundings())
