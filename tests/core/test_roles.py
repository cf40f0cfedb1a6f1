"""States have roles apart from their names, and files are called as the screen says."""

import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.deliver.manifest import manifest
from obrell.core.deliver.names import words_of
from obrell.core.deliver.order import Order
from obrell.core.deliver.plan import plan
from obrell.core.document.bodies import outermost
from obrell.core.document.model import Colourway, Control, State
from obrell.core.document.states import in_state
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.edit.starts import STARTS, role_of
from obrell.core.effects import DropShadow, InnerShadow, OuterGlow, Paint
from obrell.core.effects.offsets import Cast, Shift
from obrell.core.errors import Refused
from obrell.core.shapes import Box, Text
from obrell.core.trial.instances import looks_of
from obrell.core.values.paints import Linear, Stop
from obrell.core.values.roles import ROLES
from obrell.web.states import differences_of
from tests.making import KIT, control, part, solid

FADING = Paint(id="e1", fill=Linear(stops=(Stop(position=0, colour="#ffffff"), Stop(position=0.7, colour="#204060"))))
LINE = DropShadow(id="e2", offset=Cast(distance=1), blur=0)
BUTTON = control(
    part(Box(width=70, height=40, radius=4), solid("#303030"), x=40, y=30),
    part(
        Box(width=60, height=30, radius=4),
        FADING,
        LINE,
        DropShadow(id="e3", offset=Shift(down=6), blur=10),
        x=40,
        y=30,
    ),
    part(Text(words="Open", size=10, align="middle"), solid("#101010"), x=40, y=33),
)


def do(here: Control, **edit) -> Control:
    return applied(read_edit(edit), here, Surroundings.of(KIT))


def roles(here: Control) -> dict[str, str]:
    return {one.name: one.role for one in here.states}


def test_a_copy_of_pressed_called_hover_is_what_hovering_shows():
    made = do(BUTTON, kind="start-state", start="pressed")
    made = do(made, kind="duplicate-state", state="pressed")
    assert roles(made) == {"Pressed": "pressed", "Pressed 2": "own"}
    made = do(made, kind="rename-state", state="pressed-2", name="Hover")
    assert roles(made) == {"Pressed": "pressed", "Hover": "hover"}
    assert looks_of(made)["/hover/"] == "pressed-2"
    assert looks_of(made)["/pressed/"] == "pressed"


@pytest.mark.parametrize("role", [role for role in ROLES if role != "own"])
def test_a_role_is_given_in_one_word_whatever_the_name(role):
    made = do(do(BUTTON, kind="add-state", name="Sunken"), kind="add-state", name=role.title())
    assert roles(made) == {"Sunken": "own", role.title(): role}
    made = do(made, kind="give-role", state="sunken", role=role)
    assert roles(made) == {"Sunken": role, role.title(): "own"}
    key = {"disabled": "/disabled/", "focus": "//focus", "on": "on//"}.get(role, f"/{role}/")
    assert looks_of(made)[key] == "sunken"
    said = read_edit({"kind": "give-role", "state": "sunken", "role": "own"}).label(made)
    assert said == "Made “Sunken” a state of its own"


def test_a_state_made_of_others_has_no_role_of_its_own():
    made = do(
        do(do(BUTTON, kind="add-state", name="On"), kind="add-state", name="Hover"),
        kind="add-state",
        of=["on", "hover"],
    )
    assert made.states[-1].role == "own"
    with pytest.raises(Refused, match="made of others"):
        do(made, kind="give-role", state=made.states[-1].id, role="focus")


def test_states_of_older_files_have_the_role_of_their_id():
    old = {"id": "pressed", "name": "Down", "differences": []}
    assert State.model_validate(old).role == "pressed"
    assert State.model_validate(old | {"id": "latched"}).role == "own"
    assert State.model_validate(old | {"role": "own"}).role == "own"


def test_every_role_can_be_begun_empty_as_usual_and_as_another_state():
    for start in STARTS:
        usual = do(BUTTON, kind="start-state", start=start)
        assert usual.states[0].role == role_of(start)
        assert usual.states[0].differences
    empty = do(BUTTON, kind="add-state", name="Hover", role="hover")
    assert not empty.states[0].differences
    as_other = do(do(BUTTON, kind="start-state", start="hover"), kind="duplicate-state", state="hover", role="focus")
    hover, focus = as_other.states
    assert (focus.name, focus.role) == ("Focus", "focus")
    assert focus.differences == hover.differences


def test_a_state_that_is_begun_as_usual_keeps_its_own_role():
    made = do(do(BUTTON, kind="add-state", name="Warm"), kind="start-state", start="hover", state="warm")
    assert roles(made) == {"Warm": "own"}
    assert made.states[0].differences


def test_pressed_turns_the_light_and_keeps_lines_of_a_pixel():
    look = in_state(do(BUTTON, kind="start-state", start="pressed", lower=0), "pressed")
    body = look.parts[1]
    stops = body.effects[0].fill.stops
    assert [(stop.position, stop.colour) for stop in stops] == [(pytest.approx(0.3), "#204060"), (1, "#ffffff")]
    assert body.effects[1] == LINE
    assert (body.effects[2].offset.down, body.effects[2].blur) == (pytest.approx(2.4), 4.0)


@given(st.floats(0, 50), st.floats(0, 40))
def test_no_length_grows_nor_falls_under_a_pixel_when_pressed(distance, blur):
    effect = DropShadow(id="e1", offset=Cast(distance=distance), blur=blur).pressed(0)
    for was, now in ((distance, effect.offset.distance), (blur, effect.blur)):
        assert min(1, was) <= now <= was


def test_the_glow_of_hovering_lies_behind_the_rim():
    look = in_state(do(BUTTON, kind="start-state", start="hover"), "hover")
    outer = outermost(look, "p2")
    assert outer.id == "p1"
    assert [isinstance(one.effects[0], OuterGlow) for one in look.parts] == [True, False, False]


def test_what_differs_is_listed_whole_and_tells_effects_of_one_kind_apart():
    rest = control(
        part(Box(width=60, height=30), solid("#204060"), InnerShadow(id="e2"), InnerShadow(id="e3"), x=40, y=30)
    )
    made = do(rest, kind="add-state", name="Hover")
    for number, effect in enumerate(("e2", "e3")):
        changes = [{"path": f"parts/p1/effects/{effect}/{name}", "value": number + 7} for name in ("blur", "spread")]
        made = do(made, kind="in-states", states=["hover"], edit={"kind": "set", "changes": changes})
    said = [one.words for one in differences_of(KIT, made, made.states[0])]
    assert sorted(said) == sorted(
        f"{title} of inner shadow {number} on Part" for title in ("Blur", "Spread") for number in (1, 2)
    )


NAMES = st.lists(st.text(min_size=1, max_size=30), min_size=1, max_size=8)


@given(NAMES)
def test_the_words_of_file_names_are_safe_and_each_is_once(names):
    words = words_of((f"s{number}", name) for number, name in enumerate(names))
    assert len(set(words.values())) == len(names)
    assert all(word.replace("-", "a").isalnum() and word.isascii() for word in words.values())


def files(here, kit=KIT, **order):
    planned = plan(kit, (here,), Order(formats=("png",), densities=(1,), **order))
    return planned, [file.name.rpartition("/")[2] for file in planned.files]


def test_a_renamed_state_is_called_so_in_files_and_a_control_with_one_state_says_none():
    assert files(BUTTON)[1] == ["control.1.png"]
    made = do(do(BUTTON, kind="start-state", start="sunk"), kind="rename-state", state="pressed", name="Held down")
    planned, names = files(made)
    assert names == ["control.rest.1.png", "control.held-down.1.png"]
    told = json.loads(manifest(KIT, planned, []))
    assert told["controls"][0]["states"] == [{"id": "pressed", "name": "Held down", "role": "pressed"}]


def test_one_of_several_colourways_is_said_in_names():
    kit = KIT.evolve(colourways=(Colourway(id="night", name="Night watch"),))
    assert files(BUTTON, kit)[1] == ["control.1.png"]
    assert files(BUTTON, kit, colourways=("night",))[1] == ["control.night-watch.1.png"]
    planned, names = files(BUTTON, kit, colourways=("day", "night"))
    assert names == ["control.day.1.png", "control.night-watch.1.png"]
    assert [file.colourway for file in planned.files] == ["day", "night"]
    assert json.loads(manifest(kit, planned, []))["colourways"][1] == {"id": "night", "name": "Night watch"}


def test_states_and_sizes_of_one_name_are_both_said():
    made = do(do(BUTTON, kind="add-state", name="Small"), kind="add-size", name="Small", factor=0.5)
    assert "control.small.small.1.png" in files(made)[1]


def test_values_of_stops_are_told_apart():
    for number in (0, 1):
        change = {
            "path": f"parts/p2/effects/{BUTTON.parts[1].effects[0].id}/fill/stops/{number}/opacity",
            "value": 0.5,
        }
        assert f"of stop {number + 1} of paint on" in read_edit({"kind": "set", "changes": [change]}).label(BUTTON)
