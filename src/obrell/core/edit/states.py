"""States: made, named, put in order, removed; what differs in them set back, and edits made in them."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from functools import partial
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from obrell.core.document.model import MAX_STATES, REST, Control, State
from obrell.core.document.restating import in_one_state, with_one
from obrell.core.document.states import in_state, state_of, words_of
from obrell.core.edit.base import Edit, Surroundings, Wrapped, applied, applied_once
from obrell.core.errors import NoSuchThing, Refused
from obrell.core.values.differences import Where, is_below
from obrell.core.values.fields import MOST_OF_NAME, Id, Name
from obrell.core.values.roles import PASSING, Role, role_called
from obrell.core.values.slugs import free_id
from obrell.core.values.transitions import Transition


class OfStates(Edit):
    """Base of what is done to the states themselves, whichever is drawn."""

    of_control: ClassVar[bool] = True


class InStates(Wrapped):
    """An edit made in some of a control's states, of which ``rest`` can be one."""

    kind: Literal["in-states"] = "in-states"
    states: Annotated[tuple[Id, ...], Field(min_length=1, max_length=MAX_STATES + 1)]

    def apply(self, control: Control, around: Surroundings) -> Control:
        if self.edit.of_control:
            return applied(self.edit, control, around)
        for name in self.states:
            make = partial(applied_once, self.edit, around=around, words=words_of(control))
            control = make(control) if name == REST else in_one_state(control, name, make)
        return control

    def look(self, control: Control) -> Control:
        return control if self.edit.of_control else in_state(control, self.states[0])

    def label(self, control: Control) -> str:
        said = super().label(control)
        return said if self.edit.of_control else f"{names_of_states(control, self.states)}: {said}"


def made_in(edit: Edit, drawn: str, also: str = "") -> Edit:
    """An edit as it is made in the state that is drawn, and in others, named with commas between; one that says where
    it is made itself stays as it is."""
    if isinstance(edit, InStates):
        return edit
    others = [name for name in dict.fromkeys(also.split(",")) if name not in ("", drawn)]
    return edit if drawn == REST and not others else InStates(states=(drawn, *others), edit=edit)


def names_of_states(control: Control, names: tuple[str, ...]) -> str:
    """What states are called, one after the other; raises ``NoSuchThing``."""
    return ", ".join("Rest" if name == REST else state_of(control, name).name for name in names)


class AddState(OfStates):
    """One more state: of its own, or made ``of`` others. Without a name it is called after those."""

    kind: Literal["add-state"] = "add-state"
    name: Name | None = None
    of: Annotated[tuple[Id, ...], Field(max_length=4)] = ()
    role: Role | None = None
    """Without one, the role that has the name as its usual word."""

    def apply(self, control: Control, around: Surroundings) -> Control:
        check_room(control)
        name = self.called(control)
        check_free(control, name)
        if len(set(self.of)) != len(self.of) or len(self.of) == 1:
            raise Refused("A state is made of two others at least, each once.")
        if any(state_of(control, one).of for one in self.of):
            raise Refused("A state can be made of plain ones only.")
        if self.of and any(state.of == self.of for state in control.states):
            raise Refused(f"“{name}” is there already.")
        role = "own" if self.of else self.role or free_role(control, name)
        new = State(id=free_id(name, control.state_ids, "state"), name=name, role="own", of=self.of)
        return in_role(control.evolve(states=(*control.states, new)), new.id, role)

    def called(self, control: Control) -> str:
        """The name that was given, or that of what it is made of."""
        if self.name is not None:
            return self.name.strip()
        if not self.of:
            raise Refused("A state needs a name.")
        first, *others = (state_of(control, one).name for one in self.of)
        return " + ".join((first, *(other.lower() for other in others)))[:MOST_OF_NAME]

    def label(self, control: Control) -> str:
        return f"Added the state “{self.called(control)}”"


class RenameState(OfStates):
    """Rename a state. A state without a role whose new name is the usual word of a free role gets that role."""

    kind: Literal["rename-state"] = "rename-state"
    state: Id
    name: Name

    def apply(self, control: Control, around: Surroundings) -> Control:
        state, name = state_of(control, self.state), self.name.strip()
        if name == state.name:
            return control
        check_free(control, name)
        role = free_role(control, name) if state.role == "own" and not state.of else state.role
        return with_one(control, state.evolve(name=name, role=role))

    def label(self, control: Control) -> str:
        return f"Renamed “{state_of(control, self.state).name}” to “{self.name.strip()}”"


class GiveRole(OfStates):
    """Give a state a role, and take it from the state that had it."""

    kind: Literal["give-role"] = "give-role"
    state: Id
    role: Role

    def apply(self, control: Control, around: Surroundings) -> Control:
        if state_of(control, self.state).of:
            raise Refused("A state that is made of others is shown when they are.")
        return in_role(control, self.state, self.role)

    def label(self, control: Control) -> str:
        name, had = state_of(control, self.state).name, control.state_in_role(self.role)
        if self.role == "own":
            return f"Made “{name}” a state of its own"
        other = "" if had in (None, self.state) else f"; “{state_of(control, str(had)).name}” is one of its own now"
        return f"Made “{name}” the {self.role} state{other}"


class MoveState(OfStates):
    """A state put to another place in their order, counted from 0."""

    kind: Literal["move-state"] = "move-state"
    state: Id
    to: Annotated[int, Field(ge=0, le=MAX_STATES)]

    def apply(self, control: Control, around: Surroundings) -> Control:
        state = state_of(control, self.state)
        others = [one for one in control.states if one.id != state.id]
        others.insert(self.to, state)
        return control.evolve(states=tuple(others))

    def label(self, control: Control) -> str:
        return f"Moved the state “{state_of(control, self.state).name}”"


class DuplicateState(OfStates):
    """Duplicate a state right behind it, or make the state for another ``role`` look like it. The copy has the same
    effects, not new ones, so transitions move them and they follow rest."""

    kind: Literal["duplicate-state"] = "duplicate-state"
    state: Id
    role: Role | None = None

    def apply(self, control: Control, around: Surroundings) -> Control:
        check_room(control)
        state, names = state_of(control, self.state), [one.name for one in control.states]
        name = free_name(state.name, names) if self.role is None else free_name_for(self.role, control)
        place = control.states.index(state) + 1
        new = state.evolve(id=free_id(name, control.state_ids, "state"), name=name, role="own")
        states = (*control.states[:place], new, *control.states[place:])
        timed = (*control.transitions, *_timed_as(control, state, new))
        made = control.evolve(states=states, transitions=timed)
        return made if self.role is None or state.of else in_role(made, new.id, self.role)

    def label(self, control: Control) -> str:
        if self.role is not None:
            return f"Added the {self.role} state as “{state_of(control, self.state).name}” looks"
        return f"Duplicated the state “{state_of(control, self.state).name}”"


class RemoveState(OfStates):
    """A state taken away, with those that are made of it."""

    kind: Literal["remove-state"] = "remove-state"
    state: Id

    def apply(self, control: Control, around: Surroundings) -> Control:
        state_of(control, self.state)
        left = tuple(one for one in control.states if one.id != self.state and self.state not in one.of)
        there = {REST, *(one.id for one in left)}
        timed = tuple(one for one in control.transitions if {one.start, one.end} <= there)
        return control.evolve(states=left, transitions=timed)

    def removes(self) -> bool:
        return True

    def label(self, control: Control) -> str:
        made = [one.name for one in control.states if self.state in one.of]
        more = f", and {', '.join(f'“{name}”' for name in made)} made of it" if made else ""
        return f"Removed the state “{state_of(control, self.state).name}”{more}"


class ReturnToRest(OfStates):
    """What differs in a state below a path is as at rest again; without a path, all of it."""

    kind: Literal["return-to-rest"] = "return-to-rest"
    state: Id
    path: Where | None = None

    def apply(self, control: Control, around: Surroundings) -> Control:
        state = state_of(control, self.state)
        left = tuple(one for one in state.differences if not is_below(one, self.path))
        if len(left) == len(state.differences):
            raise NoSuchThing("Nothing of it differs there any more.")
        return with_one(control, state.evolve(differences=left))

    def removes(self) -> bool:
        return True

    def label(self, control: Control) -> str:
        state = state_of(control, self.state)
        count = sum(is_below(one, self.path) for one in state.differences)
        what = "all" if self.path is None else f"{count} value{'' if count == 1 else 's'}"
        return f"{state.name}: {what} as at rest again"


def _timed_as(control: Control, state: State, new: State) -> Iterator[Transition]:
    """What a copy of a state has of the timings that the state has of its own."""
    for one in control.transitions:
        if state.id in {one.start, one.end}:
            start, end = (new.id if name == state.id else name for name in (one.start, one.end))
            yield one.evolve(start=start, end=end)


def in_role(control: Control, state: str, role: Role) -> Control:
    """Return the control with a state in a role, which no other state has then."""

    def given(one: State) -> State:
        if one.id == state:
            return one.evolve(role=role)
        return one.evolve(role="own") if one.role == role else one

    return control.evolve(states=tuple(map(given, control.states)))


def free_role(control: Control, name: str) -> Role:
    """Return the role with a name as its usual word; ``own`` if there is none or another state has it."""
    role = role_called(name)
    return role if control.state_in_role(role) is None else "own"


def pairs_of(control: Control) -> Iterator[AddState]:
    """The states of two that a control could have: one that lasts, with what a hand does to it on top."""
    plain = [state for state in control.states if not state.of]
    made = {state.of for state in control.states}
    for lasting in plain:
        for passing in plain:
            new = (lasting.id, passing.id) not in made
            if lasting.role not in (*PASSING, "disabled") and passing.role in PASSING and new:
                yield AddState(of=(lasting.id, passing.id))


def check_room(control: Control) -> None:
    """Raises ``Refused`` when a control has as many states as it can."""
    if len(control.states) >= MAX_STATES:
        raise Refused(f"A control can have at most {MAX_STATES} states.")


def check_free(control: Control, name: str) -> None:
    """Raises ``Refused`` when a state is called so, rest included."""
    taken = ("rest", *(state.name.lower() for state in control.states))
    if name.lower() in taken:
        raise Refused(f"A state is called “{name}” already.")


def free_name_for(role: Role, control: Control) -> str:
    """Return the usual word of a role, with a number if a state has that name already."""
    names = [one.name for one in control.states]
    return role.title() if role not in map(str.lower, names) else free_name(role.title(), names)


def free_name(name: str, others: Iterable[str]) -> str:
    """A name like that which none of the others has."""
    taken = {other.lower() for other in others}
    numbered = (f"{name[:76]} {number}" for number in range(2, len(taken) + 3))
    return next(made for made in numbered if made.lower() not in taken)
