"""Aligning, spacing, scaling, copying; guides and snapping; values of several parts at once."""

import math
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.document.follows import settled
from obrell.core.document.guides import guide_places
from obrell.core.document.measures import anchor_of, bounds_of, frame_on_canvas
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.edit.snapping import Snapping, snap_box, snap_point
from obrell.core.effects import DropShadow, OuterGlow, Outline
from obrell.core.effects.offsets import Shift
from obrell.core.errors import BadValue, Refused
from obrell.core.findings.false_colours import false_colours
from obrell.core.findings.kinds.cut_edges import cut_edges, grown
from obrell.core.geometry.plane import Rect
from obrell.core.shapes import Box, Line, Round, Text
from tests.making import control, part, resolved, solid

INK = solid("#204060")


def done(start, *edits):
    for edit in edits:
        start = read_edit(edit).apply(start, Surroundings())
    return start


def boxes(*places, size=10):
    return control(*(part(Box(width=size, height=size), INK, x=x, y=y) for x, y in places), width=200, height=100)


def middles(of):
    return [(p.x, p.y) for p in of.parts]


def test_ten_parts_line_up_at_once():
    start = boxes(*((7 * n + 5, 9 * n + 5) for n in range(10)))
    ids = [p.id for p in start.parts]
    assert {p.x for p in done(start, {"kind": "align", "parts": ids, "axis": "across", "edge": "start"}).parts} == {
        5.0
    }
    lead = done(start, {"kind": "align", "parts": ids, "axis": "down", "edge": "middle", "to": "p4"})
    assert {p.y for p in lead.parts} == {32.0}
    edge = done(start, {"kind": "align", "parts": ids, "axis": "across", "edge": "end", "to": "canvas"})
    assert {p.x for p in edge.parts} == {195.0}


def test_ink_and_box_of_words_differ():
    start = control(part(Text(words="ace", size=30), INK, x=40, y=30))
    by_ink = done(
        start, {"kind": "align", "parts": ["p1"], "axis": "down", "edge": "middle", "to": "canvas", "by": "ink"}
    )
    outline = by_ink.parts[0].shape.path().bounds()
    assert by_ink.parts[0].y + (outline.top + outline.bottom) / 2 == pytest.approx(30)
    assert by_ink.parts[0].y != start.parts[0].y


@given(st.lists(st.floats(0, 180), min_size=3, max_size=7))
def test_spacing_leaves_the_outermost_and_makes_gaps_equal(places):
    start = boxes(*((x, 10) for x in places))
    spaced = done(start, {"kind": "distribute", "parts": [p.id for p in start.parts], "axis": "across"})
    row = sorted(p.x for p in spaced.parts)
    assert row[0] == pytest.approx(min(places), abs=1e-6)
    assert row[-1] == pytest.approx(max(places), abs=1e-6)
    gaps = [b - a for a, b in pairwise(row)]
    assert max(gaps) - min(gaps) < 1e-6


def test_a_typed_gap_counts_from_the_first():
    spaced = done(boxes((10, 5), (90, 5)), {"kind": "distribute", "parts": ["p1", "p2"], "axis": "across", "gap": 4})
    assert middles(spaced) == [(10, 5), (24, 5)]
    with pytest.raises(Refused, match="three parts"):
        done(boxes((1, 1), (9, 9)), {"kind": "distribute", "parts": ["p1", "p2"], "axis": "across"})


def test_scaling_up_and_down_again_loses_nothing():
    shadow = DropShadow(id="e1", blur=6)
    start = control(part(Box(width=30, height=20, radius=5), INK, shadow), part(Text(), INK, x=12, y=9))
    twice = done(start, {"kind": "scale", "percent": 200})
    assert (twice.canvas.width, twice.parts[0].shape.radius, twice.parts[0].effects[1].blur) == (160, 10, 12)
    assert done(twice, {"kind": "scale", "percent": 50}).parts == start.parts
    one = done(start, {"kind": "scale", "parts": ["p1"], "percent": 200, "effects": False}).parts[0]
    assert (one.shape.width, one.effects[1].blur, one.x) == (60, 6, start.parts[0].x)


def test_copies_go_round_and_along():
    around = done(
        boxes((50, 20)), {"kind": "copy-around", "parts": ["p1"], "x": 50, "y": 50, "degrees": 90, "times": 3}
    )
    assert sorted((round(p.x), round(p.y)) for p in around.parts) == [(20, 50), (50, 20), (50, 80), (80, 50)]
    along = done(boxes((10, 20)), {"kind": "copy-along", "parts": ["p1"], "dx": 15, "times": 3})
    assert sorted(p.x for p in along.parts) == [10, 25, 40, 55]


@given(st.sampled_from([(0, 0), (0.5, 0), (1, 1), (0, 0.5)]), st.floats(5, 90), st.floats(0, 359))
def test_the_anchor_stays_when_size_and_turn_change(anchor, width, degrees):
    start = control(part(Box(width=30, height=20), INK, rotation=20))
    changes = [{"path": "parts/p1/shape/width", "value": width}, {"path": "parts/p1/rotation", "value": degrees}]
    changed = done(start, {"kind": "set", "changes": changes, "anchor": anchor})
    assert anchor_of(changed.parts[0], anchor) == pytest.approx(anchor_of(start.parts[0], anchor))


def test_values_of_several_parts_are_set_or_changed_together():
    start = control(part(Box(width=30), INK), part(Box(width=50), INK), part(Round(), INK))
    two = ["p1", "p2"]
    typed = {"kind": "type", "path": "parts/*/shape/width", "parts": two}
    assert [p.shape.width for p in done(start, typed | {"text": "12*2"}).parts[:2]] == [24, 24]
    assert [p.shape.width for p in done(start, typed | {"text": "+2"}).parts[:2]] == [32, 52]
    assert [p.shape.width for p in done(start, typed | {"text": "*1.1"}).parts[:2]] == pytest.approx([33, 55])
    faded = {"kind": "type", "path": "parts/*/opacity", "parts": two, "text": "/2"}
    assert [p.opacity for p in done(start, faded).parts] == [0.5, 0.5, 1]


def test_guides_follow_what_they_are_counted_from():
    start = done(boxes(), {"kind": "add-guide", "axis": "across", "at": -20, "since": "end"})
    first = start.guides[0].id
    two = done(start, {"kind": "add-guide", "axis": "across", "at": 5, "since": first})
    assert list(guide_places(two).values()) == [180, 185]
    wider = done(two, {"kind": "set", "changes": [{"path": "canvas/width", "value": 300}]})
    assert list(guide_places(wider).values()) == [280, 285]
    circle = done(two, {"kind": "set", "changes": [{"path": f"guides/{first}/since", "value": two.guides[1].id}]})
    assert all(abs(place) < 1e6 for place in guide_places(circle).values())
    common = done(two, {"kind": "common-guides"}, {"kind": "common-guides"})
    assert len(common.guides) == 2 + 10
    locked = done(common, {"kind": "show-guides", "locked": True})
    with pytest.raises(Refused, match="locked"):
        done(locked, {"kind": "move-guide", "guide": first, "by": 1})
    assert done(locked, {"kind": "remove-guides"}) == locked


def moved(start, dx, dy, **snap):
    edit = {"kind": "move", "parts": ["p1"], "dx": dx, "dy": dy, "snap": snap}
    return read_edit(edit).apply(start, Surroundings()).parts[0], read_edit(edit).snaps(start)


def test_parts_snap_to_each_other_and_say_so():
    found, snaps = moved(boxes((50, 50), (100, 20)), 42, 0, kinds=["parts"], reach=3)
    assert (found.x, found.y) == (90, 50)
    assert snaps[0].said() == "left of Part, 2 px"
    free, none = moved(boxes((50, 50), (100, 20)), 30, 0, kinds=["parts"], reach=3)
    assert free.x == 80
    assert none == ()


def test_equal_gaps_draw_a_part_between_and_beyond():
    row = boxes((80, 50), (20, 50), (50, 50))
    beyond, snaps = moved(row, 1.4, 0, kinds=["gaps"], reach=3)
    assert beyond.x == 80
    assert snaps[0].words == "equal gaps"


def test_guides_canvas_points_and_pixels():
    start = done(boxes((40.4, 40.4)), {"kind": "add-guide", "axis": "across", "at": 60})
    assert moved(start, 14, 0, kinds=["guides"])[0].x == 55
    assert moved(start, -38, 0, kinds=["canvas"])[0].x == 5
    pixel, _ = moved(start, 0.3, 0.3, kinds=["pixels"], density=2)
    assert (pixel.x, pixel.y) == (40.5, 40.5)


place = st.floats(0, 200).map(lambda v: round(v, 2))


@given(st.lists(st.tuples(place, place), min_size=1, max_size=5), place, place)
def test_a_mirrored_drawing_snaps_as_its_mirror_image(places, x, y):
    start = boxes(*places)
    mirrored = boxes(*((200 - px, py) for px, py in places))
    snapping = Snapping(kinds=("canvas", "parts"), reach=6)
    box = Rect(x - 7, y - 7, x + 7, y + 7)
    turned = Rect(200 - box.right, box.top, 200 - box.left, box.bottom)
    one = {s.axis: s.by for s in snap_box(start, (), box, snapping)}
    other = {s.axis: s.by for s in snap_box(mirrored, (), turned, snapping)}
    assert one.get("across", 0) == pytest.approx(-other.get("across", 0), abs=1e-6)
    assert one == {s.axis: s.by for s in snap_box(start, (), box, snapping)}


def test_nothing_jumps_between_two_equally_near():
    start = boxes((20, 50), (44, 50))
    assert snap_point(start, (), 32, None, Snapping(kinds=("parts",), reach=9)) == ()


def test_what_the_canvas_cuts_is_found_and_cured():
    line = Outline(id="e2", place="outside", width=4)
    start = control(part(Box(width=76, height=30), INK, line, x=40, y=30))
    (cut,) = cut_edges(resolved(*start.parts))
    assert cut.sides == (2, 0, 2, 0)
    inside = done(start, cut.inside().model_dump())
    assert cut_edges(resolved(*inside.parts)) == []
    wider = done(start, grown([cut], start.canvas).model_dump())
    assert (wider.canvas.width, wider.canvas.height, wider.parts[0].x) == (84, 60, 42)
    assert cut_edges(resolved(*wider.parts, width=84)) == []


def test_shadows_and_glows_of_every_part_are_noticed_where_they_can_be_seen():
    shadow = DropShadow(id="e2", offset=Shift(down=9), blur=4, opacity=0.6)
    low = part(Box(width=30, height=20), INK, shadow, x=40, y=46)
    glow = part(Round(width=20, height=20), INK, OuterGlow(id="e2", extent=12), x=14, y=20)
    faint = part(Box(width=20, height=9), shadow.evolve(opacity=0.003), x=40, y=54)
    cuts = cut_edges(resolved(low, glow, faint))
    assert [(cut.label, [side > 0 for side in cut.sides]) for cut in cuts] == [
        ("drop shadow", [False, False, False, True]), ("outer glow", [True, True, False, False]),
    ]  # fmt: skip
    here = control(low, glow, faint)
    larger = done(here, grown(cuts, here.canvas).model_dump())
    assert cut_edges(resolved(*larger.parts, width=larger.canvas.width, height=larger.canvas.height)) == []


def test_false_colours_keep_every_shape():
    start = boxes((10, 10), (20, 20), (30, 30))
    flat = false_colours(start)
    assert [p.shape for p in flat.parts] == [p.shape for p in start.parts]
    assert len({p.effects[0].fill.colour for p in flat.parts}) == 3
    assert bounds_of(flat, ["p1"]) == frame_on_canvas(start.parts[0])


def test_a_changed_word_moves_body_rim_gloss_and_canvas():
    label = part(Text(words="Hoot", size=16), INK, x=60, y=25)
    body = part(Box(width=80, height=30, radius=9), INK, x=60, y=25)
    rim = part(Box(width=86, height=36, radius=12), INK, x=60, y=25)
    gloss = part(Box(width=70, height=10), INK, x=60, y=16)
    start = done(
        control(rim, body, gloss, label, width=100, height=50),
        {"kind": "fit-around", "body": "p2", "inner": "p4"},
        {"kind": "fit-around", "body": "p1", "inner": "p2", "canvas": True},
        {"kind": "add-follow", "part": "p3", "path": "shape/width", "source": "p2", "measure": "width"},
    )
    assert settled(start) == start
    words = read_edit({"kind": "set", "changes": [{"path": "parts/p4/shape/words", "value": "Hoot twice"}]})
    longer = applied(words, start, Surroundings())
    more = longer.parts[1].shape.width - 80
    assert more > 20
    assert longer.parts[0].shape.width == pytest.approx(86 + more)
    assert longer.parts[0].shape.radius == 12
    assert longer.parts[2].shape.width == pytest.approx(70 + more)
    assert longer.canvas.width == math.ceil(more / 2) * 2 + 100
    assert longer.parts[0].x - 43 - more / 2 == pytest.approx(60 - 43, abs=1)
    back = applied(
        read_edit({"kind": "set", "changes": [{"path": "parts/p4/shape/words", "value": "Hoot"}]}),
        longer,
        Surroundings(),
    )
    assert back.parts[:3] == start.parts[:3]


def test_follows_keep_a_least_end_when_asked_and_make_no_circle():
    two = control(part(Box(width=30), INK), part(Box(width=50), INK))
    tie = {"kind": "add-follow", "path": "shape/width", "measure": "width"}
    tied = done(two, tie | {"part": "p1", "source": "p2"})
    least = {"kind": "set", "changes": [{"path": "parts/p1/follows/0/least", "value": 25}]}
    small = {"kind": "set", "changes": [{"path": "parts/p2/shape/width", "value": 10}]}
    assert settled(done(tied, least, small)).parts[0].shape.width == 25
    free = done(tied, {"kind": "remove-follow", "part": "p1", "path": "shape/width"}, small)
    assert settled(free).parts[0].shape.width == 30
    with pytest.raises(BadValue, match="round in a circle"):
        done(tied, tie | {"part": "p2", "source": "p1"})
    with pytest.raises(Refused, match="not itself"):
        done(two, {"kind": "add-follow", "part": "p1", "path": "x", "source": "p1"})


def test_a_line_without_height_is_measured_like_any_part():
    start = control(part(Line(across=30, down=0), INK, x=3, y=5), width=100, height=60)
    assert bounds_of(start, ["p1"]) == Rect(3, 5, 33, 5)
    centred = done(start, {"kind": "centre", "parts": ["p1"]}).parts[0]
    assert (centred.x, centred.y) == (35, 30)


def test_scaling_the_whole_control_takes_guides_and_follows_along():
    label = part(Text(words="Hoot", size=16), INK, x=60, y=25)
    fitted = done(
        control(part(Box(width=80, height=30), INK, x=60, y=25), label, width=120, height=50),
        {"kind": "fit-around", "body": "p1", "inner": "p2"},
        {"kind": "add-guide", "axis": "across", "at": 12},
    )
    scaled = settled(done(fitted, {"kind": "scale", "percent": 200}))
    assert scaled.parts[0].shape.width == pytest.approx(160, abs=1e-4)
    assert scaled.guides[0].at == 24


def test_scaling_to_a_width_with_and_without_line_widths():
    edge = Outline(id="e1", width=2)
    base = control(part(Box(width=40, height=20), edge, DropShadow(id="e2", blur=4)))
    wide = done(base, {"kind": "scale", "parts": ["p1"], "wide": "40*2", "strokes": False}).parts[0]
    assert wide.shape.width == 80
    assert (wide.effects[0].width, wide.effects[1].blur) == (2, 8)
    whole = done(base, {"kind": "scale", "wide": "160", "percent": "100", "effects": False})
    assert whole.canvas.width == 160
    assert (whole.parts[0].effects[0].width, whole.parts[0].effects[1].blur) == (4, 4)
    empty = done(base, {"kind": "scale", "parts": ["p1"], "wide": "", "percent": "50"})
    assert empty.parts[0].shape.width == 20


def test_what_is_pasted_instead_takes_place_and_order():
    base = control(part(Box(width=10, height=10), x=20), part(Round(width=8, height=8), x=50), part(Box(), x=70))
    new = part(Box(width=30, height=4), x=5, y=5, name="New").model_dump(mode="json")
    changed = done(base, {"kind": "paste", "parts": [new], "instead": ["p2"]})
    assert [p.name for p in changed.parts] == ["Part", "New", "Part"]
    assert (changed.parts[1].x, changed.parts[1].y) == (50, 30)


def test_an_icon_stands_beside_its_label_whatever_the_word():
    base = control(part(Round(width=10, height=10), x=5, y=5), part(Text(words="Horn", size=12), x=60))
    beside = done(base, {"kind": "put-beside", "parts": ["p1", "p2"], "gap": "2*3", "side": "before"})
    for words in ("Horn", "Emergency hold"):
        told = {"kind": "set", "changes": [{"path": "parts/p2/shape/words", "value": words}]}
        changed = settled(done(beside, told))
        assert bounds_of(changed, ["p2"]).left - bounds_of(changed, ["p1"]).right == pytest.approx(6)
    group = changed.parts[-1]
    assert {p.within for p in changed.parts[:2]} == {group.id}
    after = done(base, {"kind": "put-beside", "parts": ["p1", "p2"], "side": "after"})
    assert bounds_of(after, ["p1"]).left - bounds_of(after, ["p2"]).right == pytest.approx(6)
    told = {read_edit({"kind": "put-beside", "parts": both}).label(base) for both in (["p1", "p2"], ["p2", "p1"])}
    assert told == {f"Put {base.parts[0].name} beside {base.parts[1].name}"}
    with pytest.raises(Refused, match="two parts"):
        done(base, {"kind": "put-beside", "parts": ["p1"]})


@pytest.mark.parametrize("side", ["before", "after"])
@pytest.mark.parametrize("keeps", [False, True])
def test_icon_and_label_stay_in_the_middle_of_the_body_as_words_change(side, keeps):
    body = part(Box(width=160, height=40), x=100, y=50)
    start = control(body, part(Round(width=10, height=10), x=5, y=5), part(Text(words="Horn", size=12), x=60))
    if keeps:
        start = done(start, {"kind": "fit-around", "body": "p1", "inner": "p3", "left": 12, "right": 12})
    both = {"kind": "put-beside", "parts": ["p2", "p3"], "gap": 6, "side": side, "body": "p1"}
    beside = done(start, both)
    for document in (beside, done(beside, both | {"gap": 6})):
        for words in ("Horn", "Emergency hold"):
            told = {"kind": "set", "changes": [{"path": "parts/p3/shape/words", "value": words}]}
            changed = settled(done(document, told))
            inner, outer = bounds_of(changed, ["p2", "p3"]), bounds_of(changed, ["p1"])
            assert inner.centre.x == pytest.approx(outer.centre.x, abs=0.01)
            assert bounds_of(changed, ["p2"]).centre.y == pytest.approx(bounds_of(changed, ["p3"]).centre.y, abs=0.01)
            if keeps:
                assert inner.left - outer.left == pytest.approx(12, abs=0.01)
            else:
                assert outer.width == 160
    with pytest.raises(Refused, match="third part"):
        done(start, both | {"body": "p3"})
