"""From one state to another: what has a way travels it, all else cross-fades."""

import numpy as np
import pytest

from obrell.core.colour.spaces import from_hex, to_oklab
from obrell.core.document.model import Canvas, Control, Light
from obrell.core.document.resolve import resolve
from obrell.core.document.transitions import Journey, moment, timing_of
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.errors import BadValue, NoSuchThing, Refused
from obrell.core.interchange.kit_file import kit_from, write_kit
from obrell.core.render.between import draw_between
from obrell.core.render.compose import Frame, canvas_box, draw
from obrell.core.shapes import Box, Path, Repeat, Round, Text
from obrell.core.shapes.outlined import Contour, Knot
from obrell.core.values.base import canonical_json
from obrell.core.values.paints import Linear, Stop
from obrell.samples.wendmere_lock import wendmere_lock
from tests.making import EFFECTS_TRIED, KIT, control, kit, part, solid
from tests.shots import premultiplied

INK = solid("#204060")
RAMP = Linear(stops=(Stop(position=0, colour="#000000"), Stop(position=1, colour="#ffffff")))
TRIANGLE = Path(contours=(Contour(knots=(Knot(x=0, y=0), Knot(x=9, y=0), Knot(x=4, y=8)), closed=True),))


def done(where: Control, **edit) -> Control:
    return applied(read_edit(edit), where, Surroundings.of(KIT))


def with_pressed(*parts, **values) -> Control:
    """A control whose state *pressed* has some values otherwise, by their paths with ``__`` for a slash."""
    made = done(control(*parts), kind="add-state", name="Pressed")
    changes = [{"path": path.replace("__", "/"), "value": value} for path, value in values.items()]
    edit = {"kind": "set", "changes": changes}
    return done(made, kind="in-states", states=["pressed"], edit=edit) if changes else made


def journey(where: Control) -> Journey:
    return Journey(resolve(KIT, where), resolve(KIT, where, "pressed"))


def half(where: Control, far: float = 0.5):
    return journey(where).at(far)


def test_numbers_travel_in_a_straight_line_and_the_ends_are_the_states():
    where = with_pressed(part(Box(width=30), INK, x=20), parts__p1__x=30, parts__p1__shape__width=50)
    way = journey(where)
    assert way.at(0).first is way.start
    assert way.at(1).second is way.end
    there = way.at(0.25)
    assert there.first is there.second
    moving = there.first.control.parts[0]
    assert (moving.x, moving.shape.width) == (22.5, 35)


def test_colours_travel_in_oklab_also_where_they_follow_a_swatch():
    where = with_pressed(part(Box(), INK), parts__p1__effects__e1__fill__colour="#e0c040")
    got = half(where).first.control.parts[0].effects[0].fill.colour
    one, other = (np.array(to_oklab(from_hex(colour))) for colour in ("#204060", "#e0c040"))
    assert np.array(to_oklab(from_hex(got))) == pytest.approx((one + other) / 2, abs=0.004)


def test_stops_and_points_travel_where_both_have_as_many():
    ramp = INK.evolve(fill=RAMP)
    stops = [{"position": 0.5, "colour": "#000000"}, {"position": 1, "colour": "#ffffff"}]
    where = with_pressed(part(TRIANGLE, ramp), parts__p1__effects__e1__fill__stops=stops,
                         parts__p1__shape__contours=[{"closed": True, "knots": [{"x": 2, "y": 0}, {"x": 9, "y": 4},
                                                                                {"x": 4, "y": 8}]}])  # fmt: skip
    there = half(where)
    assert there.first is there.second
    moving = there.first.control.parts[0]
    assert moving.effects[0].fill.stops[0].position == 0.25
    assert [(knot.x, knot.y) for knot in moving.shape.contours[0].knots] == [(1, 0), (9, 2), (4, 8)]
    more = with_pressed(part(Box(), ramp), parts__p1__effects__e1__fill__stops=[*stops, {**stops[1], "position": 0.7}])
    assert journey(more).way.fades == ("parts/p1/effects/e1/fill/stops",)


def test_the_light_goes_over_the_top():
    where = control(part(Box(), INK)).evolve(light=Light(direction=0, height=40))
    where = done(where, kind="add-state", name="Pressed")
    edit = {"kind": "set", "changes": [{"path": "light/direction", "value": 180}]}
    where = done(where, kind="in-states", states=["pressed"], edit=edit)
    lights = [journey(where).at(far).first.light for far in (0.25, 0.5, 0.75)]
    assert lights[1].height == pytest.approx(90)
    assert lights[0].direction == pytest.approx(0)
    assert abs(lights[2].direction) == pytest.approx(180)
    assert 40 < lights[0].height == pytest.approx(lights[2].height)


def test_what_has_no_way_cross_fades():
    """Words, another kind of fill, a seed, a part and an effect of one of the two only."""
    where = with_pressed(part(Text(words="On"), INK), part(Round(), INK, EFFECTS_TRIED["grain"]),
                         parts__p1__shape__words="Off", parts__p2__effects__e2__seed=9,
                         parts__p2__effects__e1__fill=RAMP.model_dump(mode="json"))  # fmt: skip
    for edit in ({"kind": "remove", "parts": ["p1"]}, {"kind": "add-effect", "part": "p2", "effect": "gloss"}):
        after = done(where, kind="in-states", states=["pressed"], edit=edit)
        assert len(journey(after).way.fades) >= len(journey(where).way.fades)
    fades = journey(where).way.fades
    assert "parts/p1/shape/words" in fades
    assert "parts/p2/effects/e2/seed" in fades
    assert "parts/p2/effects/e1/fill" in fades
    gone = done(where, kind="in-states", states=["pressed"], edit={"kind": "remove", "parts": ["p1"]})
    assert "parts/p1" in journey(gone).way.fades


def test_a_cross_fade_mixes_premultiplied_pixels():
    where = with_pressed(part(Box(width=30, height=20), INK, x=24, y=16, opacity=0.6), parts__p1__opacity=0.9,
                         parts__p1__effects__e1__fill=RAMP.model_dump(mode="json"))  # fmt: skip
    there = half(where, 0.3)
    frame = Frame(2.0, canvas_box(there.first, 2.0))
    one, other = (premultiplied(draw(look, frame)) for look in (there.first, there.second))
    got = premultiplied(draw_between(there, frame))
    assert np.abs(got - (one * 0.7 + other * 0.3)).max() <= 1.01
    assert np.abs(one - other).max() > 3


def test_whole_numbers_stay_whole_and_nothing_leaves_its_range():
    where = with_pressed(part(Repeat(count=3)), part(Round(), INK, within="p1", opacity=0.2),
                         parts__p1__shape__count=6, parts__p2__opacity=0.9)  # fmt: skip
    assert half(where, 0.4).first.control.parts[0].shape.count == 4
    for far in (1.15, 1.2, 1.4, 3.0):
        assert half(where, far).first.control.parts[1].opacity == pytest.approx(1.0, abs=1e-5)
    assert half(where, 1.05).first.control.parts[1].opacity == pytest.approx(0.935)


@pytest.mark.parametrize("name", [one.id for one in wendmere_lock().controls])
def test_every_control_of_the_kit_goes_from_every_state_to_every_other(name):
    whole = wendmere_lock()
    shown = next(one for one in whole.controls if one.id == name)
    for start in shown.state_ids:
        for end in shown.state_ids:
            for far in (-0.1, 0.5, 1.2):
                there = Journey(resolve(whole, shown, start), resolve(whole, shown, end)).at(far)
                back = Journey(resolve(whole, shown, end), resolve(whole, shown, start)).at(1 - far)
                assert there.weight == pytest.approx(1 - back.weight)
                box = canvas_box(there.first, 1.0)
                one, other = (draw_between(way, Frame(1.0, box)).astype(int) for way in (there, back))
                assert np.abs(one - other).max() <= 3


TIMED = with_pressed(part(Box(), INK))


def test_two_states_get_a_timing_of_their_own_and_lose_it_with_one_of_them():
    pair = {"start": "rest", "end": "pressed"}
    own = done(TIMED, kind="own-timing", **pair)
    own = done(own, kind="set", changes=[{"path": "transitions/rest-to-pressed/duration", "value": 90}])
    own = done(own, kind="set-easing", css="steps(3)", **pair)
    assert timing_of(own, "rest", "pressed").duration == 90
    assert timing_of(own, "pressed", "rest") == TIMED.timing
    everywhere = done(own, kind="set", changes=[{"path": "timing/delay", "value": 40}])
    assert timing_of(everywhere, "pressed", "rest").delay == 40
    assert timing_of(everywhere, "rest", "pressed").delay == 0
    in_it = done(own, kind="in-states", states=["pressed"],
                 edit={"kind": "set", "changes": [{"path": "timing/duration", "value": 300}]})  # fmt: skip
    assert in_it.timing.duration == 300
    assert in_it.states == own.states
    twice = done(own, kind="duplicate-state", state="pressed")
    assert timing_of(twice, "rest", "pressed-2").duration == 90
    assert done(own, kind="remove-state", state="pressed").transitions == ()
    assert canonical_json(done(own, kind="shared-timing", **pair)) == canonical_json(TIMED)
    assert kit_from(write_kit(kit(own))).controls == (own,)


@pytest.mark.parametrize(
    ("edit", "words"),
    [
        ({"kind": "own-timing", "start": "rest", "end": "rest"}, "not itself"),
        ({"kind": "own-timing", "start": "rest", "end": "lit"}, "no state"),
        ({"kind": "shared-timing", "start": "rest", "end": "pressed"}, "no timing of its own"),
        ({"kind": "set-easing", "start": "rest", "end": "pressed", "css": "bouncy"}, "An easing is"),
        ({"kind": "set", "changes": [{"path": "timing/duration", "value": -1}]}, "Duration"),
        ({"kind": "set", "changes": [{"path": "timing/duration", "value": 10_001}]}, "Duration"),
        ({"kind": "set", "changes": [{"path": "timing/easing/x1", "value": 2}]}, "time"),
    ],
)
def test_what_cannot_be_timed_is_refused(edit, words):
    with pytest.raises((BadValue, Refused, NoSuchThing), match=words):
        done(TIMED, **edit)


def test_a_moment_is_timed_by_the_control():
    where = done(with_pressed(part(Box(), INK, x=20), parts__p1__x=40), kind="set-easing", start="rest", end="pressed",
                 css="linear")  # fmt: skip
    where = where.evolve(canvas=Canvas(width=80, height=40))
    at = [moment(KIT, where, "rest", "pressed", time).first.control.parts[0].x for time in (0, 40, 160, 500)]
    assert at == [20, 25, 40, 40]
