"""A state of one control for another: the same steps, on the parts that stand for each other."""

import pytest

from obrell.core.colour.spaces import from_hex, to_oklch
from obrell.core.document.counterparts import counterparts
from obrell.core.document.model import Control
from obrell.core.document.states import in_state
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.edit.admission import check_drawable
from obrell.core.edit.state_copies import CopyState
from obrell.core.effects import DropShadow
from obrell.core.effects.offsets import Cast
from obrell.core.errors import NoSuchThing, Refused
from obrell.core.shapes import Box, Icon, Sides, Text
from obrell.samples.wendmere_lock import wendmere_lock
from tests.making import KIT, control, part, solid

HERE = Surroundings.of(KIT)


def key(colour: str, blur: float, **values) -> Control:
    shadow = DropShadow(id="e2", offset=Cast(distance=blur / 2), blur=blur)
    body = part(Box(width=60, height=24), solid(colour), shadow, x=40, y=30, name="Body", **values)
    return control(body, part(Text(words="Open"), solid("#ffffff"), x=40, y=30, name="Label"))


def started(where: Control, start: str) -> Control:
    return applied(read_edit({"kind": "start-state", "start": start}), where, HERE)


def copied(source: Control, state: str, target: Control) -> Control:
    return applied(CopyState(source=source, state=state), target, HERE)


def test_colours_take_the_same_step_and_lengths_the_same_share():
    source, target = started(key("#207080", 8), "pressed"), key("#a03020", 4)
    look, rest = in_state(copied(source, "pressed", target), "pressed"), target.parts[0]
    was, now = source.parts[0].effects[1], in_state(source, "pressed").parts[0].effects[1]
    assert look.parts[0].y == rest.y + 1
    assert look.parts[0].effects[1].blur == pytest.approx(4 * now.blur / was.blur)
    hovered = in_state(copied(started(key("#207080", 8), "hover"), "hover", target), "hover")
    (l1, _, h1), (l2, _, h2) = (to_oklch(from_hex(one.effects[-2].fill.colour)) for one in (rest, hovered.parts[0]))
    assert l2 - l1 == pytest.approx(0.045, abs=0.004)
    assert h1 == pytest.approx(h2, abs=2)
    glow = to_oklch(from_hex(hovered.parts[0].effects[0].fill.colour))
    assert glow[2] == pytest.approx(h1, abs=12), "it glows in the colour of its own body"


def test_words_that_look_like_a_colour_are_words():
    source = key("#207080", 8)
    source = source.evolve(parts=(source.parts[0], source.parts[1].evolve(shape=Text(words="#aabbcc"))))
    source = applied(read_edit({"kind": "add-state", "name": "Lit"}), source, HERE)
    edit = {"kind": "set", "changes": [{"path": "parts/p2/shape/words", "value": "#112233"}]}
    source = applied(read_edit({"kind": "in-states", "states": ["lit"], "edit": edit}), source, HERE)
    assert in_state(copied(source, "lit", key("#a03020", 4)), "lit").parts[1].shape.words == "#112233"


def test_a_ring_takes_the_form_of_what_it_goes_round():
    source = started(key("#207080", 8), "focus")
    octagon = control(part(Sides(width=50, height=50, count=8), solid("#a03020"), x=40, y=30, name="Key"))
    ring = in_state(copied(source, "focus", octagon), "focus").parts[-1]
    assert (ring.x, ring.y) == (40, 30)
    assert ring.shape.kind == "path"
    gap = (in_state(source, "focus").parts[-1].shape.width - 60) / 2
    assert ring.shape.frame().width == pytest.approx(50 + 2 * gap, abs=1.5)


def test_parts_stand_for_each_other_by_name_and_by_what_they_do():
    one = control(part(Box(width=60), solid("#111111"), name="Face"), part(Icon(), solid("#ffffff"), name="Sign"),
                  part(Text(words="A"), solid("#ffffff"), name="Word"), part(Box(width=4), name="Screw"))  # fmt: skip
    other = control(part(Text(words="B"), solid("#ffffff"), name="Label"), part(Box(width=4), name="screw"),
                    part(Box(width=60), solid("#111111"), name="Body"))  # fmt: skip
    other = other.evolve(parts=(other.parts[2], other.parts[0], other.parts[1]))
    names = {part.id: part.name for part in (*one.parts,)}
    there = {part.id: part.name for part in (*other.parts,)}
    found = {names[a]: there[b] for a, b in counterparts(one, other).items()}
    assert found == {"Face": "Body", "Word": "Label", "Screw": "screw"}


def test_what_has_no_place_is_counted_and_what_cannot_be_is_refused():
    source = started(key("#207080", 8), "pressed")
    bare = control(part(Box(width=60, height=24), solid("#a03020"), name="Body"))
    assert CopyState(source=source, state="pressed").left_out(bare, HERE) > 0
    with pytest.raises(Refused, match="called “Pressed” already"):
        copied(source, "pressed", started(bare, "pressed"))
    with pytest.raises(NoSuchThing, match="no state"):
        copied(source, "lit", bare)
    both = applied(read_edit({"kind": "add-state", "of": ["pressed", "hover"]}), started(source, "hover"), HERE)
    with pytest.raises(Refused, match="made of other states"):
        copied(both, both.states[-1].id, bare)


@pytest.mark.parametrize("name", [one.id for one in wendmere_lock().controls if one.states])
def test_every_state_of_the_kit_can_be_had_by_every_other_control(name):
    kit = wendmere_lock()
    around = Surroundings.of(kit)
    source = next(one for one in kit.controls if one.id == name)
    for other in kit.controls:
        plain = other.evolve(states=(), transitions=())
        for state in source.states:
            made = applied(CopyState(source=source, state=state.id), plain, around)
            assert in_state(made, "rest").parts == in_state(plain, "rest").parts
            check_drawable(kit, made, plain)
