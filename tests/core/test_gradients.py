"""Gradients on the art: what a handle is taken to is where it lies then."""

import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.colour.stops import stops_from, stops_text
from obrell.core.document.gradients import laid
from obrell.core.document.measures import spans_of
from obrell.core.document.model import Swatch
from obrell.core.document.tree import arranged
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.effects import Depth, Mask, Outline, Paint
from obrell.core.effects.kinds.mask import GradientCover
from obrell.core.errors import BadValue, ObrellError, Refused
from obrell.core.shapes import Box, Group
from obrell.core.values.colours import SwatchLink
from obrell.core.values.paints import Conic, Linear, Radial, Stop
from tests.making import control, part

STOPS = tuple(Stop(position=at, colour=colour) for at, colour in ((0, "#000000"), (0.4, "#808080"), (1, "#ffffff")))
FILLS = {
    "linear": Linear(stops=STOPS, angle=70, scale=0.8, offset=0.1),
    "radial": Radial(stops=STOPS, centre_x=0.4, radius_x=0.6, radius_y=0.7, focus_x=0.2),
    "conic": Conic(stops=STOPS, start=30, centre_y=0.6),
}
HOLDERS = {
    "paint": lambda fill: Paint(id="e1", fill=fill),
    "outline": lambda fill: Outline(id="e1", fill=fill),
    "depth": lambda fill: Depth(id="e1", fill=fill, direction=140),
    "mask": lambda fill: Mask(id="e1", cover=GradientCover(fill=fill), moves=False, fitted_x=20),
}


def placed(effect, turn=25):
    inner = part(Box(width=60, height=40), effect, x=50, y=40, rotation=turn).evolve(id="p1", within="g1")
    other = part(Box(width=20, height=20), x=90, y=20).evolve(id="p2", within="g1")
    outer = part(Group(), x=0, y=0).evolve(id="g1")
    return control().evolve(parts=(outer, other, inner))


def lying(of):
    tree = arranged(of)
    seen = tree.all["p1"].part
    return laid(seen, seen.effects[0], spans_of(of, tree, seen))


CASES = [
    (kind, handle, span)
    for kind, handles in {
        "linear": "from to", "radial": "centre to down focus", "conic": "centre to"
    }.items()
    for handle in (*handles.split(), "stop 1")
    for span in ("part", "group", "canvas")
]  # fmt: skip


@pytest.mark.parametrize("holder", HOLDERS)
@pytest.mark.parametrize(("kind", "handle", "span"), CASES)
def test_a_handle_lies_where_it_is_taken_to(holder, kind, handle, span):
    if holder == "mask" and kind == "conic":
        return
    of = placed(HOLDERS[holder](FILLS[kind].evolve(span=span)))
    before = lying(of)
    at = before.handles()[handle]
    line = before.lines()[1 if handle == "down" else 0]
    way = (line[1].x - line[0].x, line[1].y - line[0].y)
    if handle == "from" or (kind == "linear" and handle == "to"):
        way = (at.x - before.box.centre.x, 3.0) if span != "part" else (4.0, 3.0)
    to = (at.x + way[0] * 0.07, at.y + way[1] * 0.07)
    edit = read_edit({
        "kind": "move-gradient", "part": "p1", "effect": "e1", "handle": handle, "x": to[0], "y": to[1]
    })  # fmt: skip
    now = lying(edit.apply(of, Surroundings())).handles()[handle]
    if kind == "conic" and handle != "centre":
        middle = before.handles()["centre"]
        wanted, found = (math.atan2(y - middle.y, x - middle.x) for x, y in (to, (now.x, now.y)))
        assert math.cos(wanted - found) > math.cos(math.radians(0.4))
    else:
        assert (now.x, now.y) == pytest.approx(to, abs=0.3)


@given(x=st.floats(-300, 300), y=st.floats(-300, 300), handle=st.sampled_from(["from", "to", "stop 0", "stop 1"]))
def test_wherever_a_handle_goes_the_gradient_stays_one(x, y, handle):
    of = placed(Paint(id="e1", fill=FILLS["linear"]))
    edit = read_edit({"kind": "move-gradient", "part": "p1", "effect": "e1", "handle": handle, "x": x, "y": y})
    fill = edit.apply(of, Surroundings()).parts[2].effects[0].fill
    assert [stop.position for stop in fill.stops] == sorted(stop.position for stop in fill.stops)
    assert fill.scale >= 0.02


def test_steps_keep_to_fifteen_degrees_and_unknown_handles_are_refused():
    of = placed(Paint(id="e1", fill=FILLS["conic"]), turn=0)
    base = {"kind": "move-gradient", "part": "p1", "effect": "e1", "x": 90, "y": 20}
    turned = read_edit(base | {"handle": "to", "steps": True}).apply(of, Surroundings())
    assert turned.parts[2].effects[0].fill.start % 15 == 0
    with pytest.raises(Refused, match="no such handle"):
        read_edit(base | {"handle": "down"}).apply(of, Surroundings())


def test_a_stop_without_a_position_goes_into_the_middle_of_the_widest_gap():
    uneven = Linear(
        stops=(Stop(position=0, colour="#000000"), *(Stop(position=p, colour="#ffffff") for p in (0.25, 1)))
    )
    of = placed(Paint(id="e1", fill=uneven))
    path = "parts/p1/effects/e1/fill"
    for places in ([0, 0.25, 0.625, 1], [0, 0.25, 0.4375, 0.625, 1]):
        of = read_edit({"kind": "add-stop", "path": path}).apply(of, Surroundings())
        assert [stop.position for stop in of.parts[2].effects[0].fill.stops] == pytest.approx(places)
    assert {stop.colour for stop in of.parts[2].effects[0].fill.stops[1:]} == {"#ffffff"}


def test_stops_are_copied_beside_themselves_and_jittered_in_order():
    of = placed(Paint(id="e1", fill=FILLS["linear"]))
    path = "parts/p1/effects/e1/fill"

    def stops(kind, **more):
        made = read_edit({"kind": kind, "path": path} | more).apply(of, Surroundings())
        return made.parts[2].effects[0].fill.stops

    assert [(s.position, s.colour) for s in stops("copy-stop", index=1)][1:3] == [(0.4, "#808080"), (0.7, "#808080")]
    assert stops("copy-stop", index=2)[2] == STOPS[2].evolve(position=0.7)
    places = [tuple(s.position for s in stops("jitter-stops", seed=seed)) for seed in range(20)]
    assert len(set(places)) == 20
    assert all(0 == a < b < c == 1 for a, b, c in places)
    assert stops("jitter-stops", seed=3) == stops("jitter-stops", seed=3)


@pytest.mark.parametrize("places", [(0, 1), (0, 0.5, 1), (0.2, 0.6), (0, 0.4, 1, 1)])
def test_a_closed_conic_has_all_its_colours_and_no_hard_edge(places):
    colours = ("#ff0000", "#00ff00", "#0000ff", "#ffffff")
    stops = tuple(Stop(position=at, colour=colour) for at, colour in zip(places, colours, strict=False))
    start = control(part(Box(), Paint(id="e1", fill=Conic(stops=stops))))
    edit = read_edit({"kind": "close-seam", "path": "parts/p1/effects/e1/fill"})
    closed = edit.apply(start, Surroundings()).parts[0].effects[0].fill
    assert not closed.seam
    assert {stop.colour for stop in closed.stops} == {stop.colour for stop in stops}
    ends = [(one, other) for one, other in itertools.pairwise(closed.stops) if one.position == other.position]
    assert len(ends) == sum(a == b for a, b in itertools.pairwise(places))


stop_places = st.lists(st.integers(0, 1000), min_size=2, max_size=8).map(lambda at: sorted(n / 1000 for n in at))
colours = st.sampled_from(["#ffffff", "#1f8a92", "#000000", "#ffd700"])


@given(stop_places, st.data())
def test_stops_that_are_written_down_are_read_again(places, data):
    stops = tuple(
        Stop(
            position=at, colour=data.draw(colours), opacity=data.draw(st.integers(0, 255)) / 255,
            midpoint=data.draw(st.sampled_from([0.5, 0.3, 0.8])),
        )
        for at in places
    )  # fmt: skip
    read = stops_from(stops_text(stops))
    assert [s.colour for s in read] == [s.colour for s in stops]
    assert [s.position for s in read] == pytest.approx(places, abs=1e-4)
    assert [s.opacity for s in read] == pytest.approx([s.opacity for s in stops], abs=1e-3)
    for one, after, again in zip(stops, stops[1:], read, strict=False):
        if after.position - one.position > 0.05:
            assert again.midpoint == pytest.approx(one.midpoint, abs=0.01)


@given(st.integers(0, 10**4), st.integers(0, 10**6), st.sampled_from([0.5, 0.3, 0.8125]))
def test_stops_that_nobody_touched_stay_as_they_were(opacity, place, midpoint):
    first = Stop(position=0, colour="#1f8a92", opacity=opacity / 10**4)
    middle = Stop(position=place / 10**6, colour="#ffffff")
    last = Stop(position=1, colour="#000000")
    assert stops_from(stops_text((first, middle, last))) == (first, middle, last)
    halved = (first.evolve(midpoint=midpoint), last)
    assert stops_from(stops_text(halved)) == halved


@pytest.mark.parametrize(
    ("text", "places", "shown"),
    [
        ("white, black", [0, 1], ["#ffffff", "#000000"]),
        ("red, lime, blue 80%, #000", [0, 0.4, 0.8, 1], ["#ff0000", "#00ff00", "#0000ff", "#000000"]),
        ("gold 60% 70%, rgb(0 0 0 / 50%)", [0.6, 0.7, 1], ["#ffd700", "#ffd700", "#000000"]),
        ("#fff 50%, #000 20%", [0.5, 0.5], ["#ffffff", "#000000"]),
        ("hsl(120 100% 50%) -10%, #000", [0, 1], ["#00ff00", "#000000"]),
    ],
)
def test_stops_as_css_has_them(text, places, shown):
    """CSS Images 3, section 3.4.3: places in order, missing ones between, a colour with two places is two stops."""
    read = stops_from(text)
    assert [s.position for s in read] == pytest.approx(places)
    assert [s.colour for s in read] == shown


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "nothing between"), ("red", "two colours"), ("red, blurb 20%", "“blurb 20%”"),
        ("red, 20%", "two colours"), ("20%, red, lime", "stands between"), ("red, lime, 30%", "stands between"),
        ("red, 10%, 20%, lime", "between"), ("red,, lime", "nothing between"),
        ("red 1% 2% 3%, lime", "red 1% 2% 3%"), ("currentcolor, red", "currentcolor"),
    ],
)  # fmt: skip
def test_what_is_no_gradient_is_refused_in_words(text, words):
    with pytest.raises(BadValue, match=words):
        stops_from(text)


NAMES = {"tarn": "tarn", "deep": "Deep water, 2"}
KIT = Surroundings(
    swatches=tuple(Swatch(id=ident, name=name, colour="#1f8a92") for ident, name in NAMES.items())
)  # fmt: skip


@given(
    st.sampled_from(sorted(NAMES)),
    st.integers(-100, 100),
    st.integers(-20, 20),
    st.integers(0, 359),
    st.integers(0, 100),
)
def test_stops_that_follow_swatches_are_written_by_name_and_read_again(swatch, tint, chroma, hue, opacity):
    link = SwatchLink(swatch=swatch, tint=tint, chroma=chroma, hue=hue)
    stops = (Stop(position=0, colour=link, opacity=opacity / 100), Stop(position=1, colour="#000000"))
    text = stops_text(stops, NAMES)
    assert NAMES[swatch] in text
    here = control(part(Box(), Paint(id="e1", fill=Linear(stops=stops[::-1]))))
    wish = {"kind": "write-stops", "path": "parts/p1/effects/e1/fill", "text": text}
    assert applied(read_edit(wish), here, KIT).parts[0].effects[0].fill.stops == stops


def test_a_swatch_that_is_not_there_is_refused_and_what_is_no_swatch_too():
    here = control(
        part(
            Box(),
            Paint(
                id="e1", fill=Linear(stops=(Stop(position=0, colour="#ffffff"), Stop(position=1, colour="#000000")))
            ),
        )
    )
    for text in (
        "swatch(gone) 0%, #000",
        "swatch(tarn x) 0%, #000",
        "swatch() 0%, #000",
        "swatch(tarn 1 2 3 4), #000",
    ):
        with pytest.raises(ObrellError):
            applied(read_edit({"kind": "write-stops", "path": "parts/p1/effects/e1/fill", "text": text}), here, KIT)
