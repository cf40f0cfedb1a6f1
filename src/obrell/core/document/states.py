"""A control in a state: what differs laid over rest.

A state made of others begins as what they come to, one laid over the other in the order that it names them; its own
differences come last. What follows a length is settled at the end.
"""

from __future__ import annotations

from collections.abc import Mapping

from obrell.core.document.follows import NO_WORDS, Words, settled
from obrell.core.document.laying import laid
from obrell.core.document.model import REST, Control, Part, State
from obrell.core.errors import NoSuchThing
from obrell.core.shapes import Text
from obrell.core.values.differences import Difference
from obrell.core.values.fields import MOST_OF_NAME
from obrell.core.workspace import OfObject

_IN_STATE = OfObject[Control](256)


def state_of(control: Control, name: str) -> State:
    """A state by its id, or what several come to, one after the other, with + between; raises ``NoSuchThing``."""
    found = next((state for state in control.states if state.id == name), None)
    if found is not None:
        return found
    if "+" in name:
        return _of_several(control, tuple(name.split("+")))
    raise NoSuchThing(f"“{control.name}” has no state “{name}”.")


def _of_several(control: Control, names: tuple[str, ...]) -> State:
    """The state that is made of others, or what they come to where none is kept."""
    name = " + ".join(state_of(control, one).name for one in names)
    made = State(id="made", name=name[:MOST_OF_NAME], of=names)
    return next((state for state in control.states if state.of == names), made)


def in_state(control: Control, name: str) -> Control:
    """The control as it looks in a state, by its id, without states of its own; raises ``NoSuchThing``."""
    if not control.states and name == REST:
        return control
    return _IN_STATE.get(control, name, lambda: _in_state(control, name))


def _in_state(control: Control, name: str) -> Control:
    if name == REST:
        return control.evolve(states=())
    state = state_of(control, name)
    look = laid(beginning_of(control, state), state.differences).control.evolve(states=())
    return settled(look, words_of(control))


_WORDS = OfObject[Words](16)


def words_of(control: Control) -> Words:
    """What texts are in states that give them other words or letters, for lengths that follow them."""
    return _WORDS.get(control, "", lambda: _words_of(control)) if control.states else NO_WORDS


def _words_of(control: Control) -> Words:
    found: dict[str, list[Part]] = {}
    texts = [part for part in control.parts if isinstance(part.shape, Text)]
    for state in control.states if texts else ():
        touched = {one.path.split("/")[1] for one in state.differences if _of_words(one)}
        if touched or state.of:
            look = {part.id: part for part in laid(beginning_of(control, state), state.differences).control.parts}
            for text in texts:
                if text.id in look and look[text.id].shape != text.shape:
                    found.setdefault(text.id, []).append(look[text.id])
    return {name: (*some, *(text for text in texts if text.id == name)) for name, some in found.items()}


def _of_words(one: Difference) -> bool:
    return one.path.startswith("parts/") and one.path.split("/")[2:3] == ["shape"]


def settle(control: Control) -> Control:
    """The control with what follows a length settled, for the longest words of all its states."""
    return settled(control, words_of(control))


def beginning_of(control: Control, state: State) -> Control:
    """What a state's own differences are laid over: rest, or what the states that it is made of come to."""
    for name in state.of:
        control = laid(control, state_of(control, name).differences).control
    return control


def all_states(control: Control) -> Mapping[str, Control]:
    """The control as it looks at rest and in each state, by their ids."""
    return {REST: in_state(control, REST), **{state.id: in_state(control, state.id) for state in control.states}}
