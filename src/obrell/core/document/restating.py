"""What edits do to the states of a control: in some of them, in all of them, or at rest, which the others follow."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator

from obrell.core.document.differing import OF_THE_CONTROL, as_json, differences
from obrell.core.document.model import REST, Control, Part, State
from obrell.core.document.states import all_states, beginning_of, in_state, misfits, state_of
from obrell.core.document.value_paths import value_at
from obrell.core.errors import NoSuchThing
from obrell.core.values.differences import Difference, Extra, Other

DIFFERING = frozenset(("parts", "light", "states"))
"""Fields of a control that are not the same in all its states, and where that is written down."""
Change = Callable[[Control], Control]


def in_one_state(control: Control, name: str, change: Change) -> Control:
    """The control with a change made in one state: what of it belongs to the control is changed for all."""
    look = in_state(control, name)
    changed = change(look)
    rest = with_shared(control, look, changed)
    return with_state(rest, restated(rest, state_of(control, name), look, changed))


def in_all_states(control: Control, change: Change) -> Control:
    """The control with a change made at rest and in every state, as far as that differs from what it is at rest."""
    rest = change(in_state(control, REST)).evolve(states=control.states)
    for state in sorted(control.states, key=lambda one: len(one.of)):
        look = in_state(control, state.id)
        changed = change(look)
        rest = rest.evolve(next_number=max(rest.next_number, changed.next_number))
        rest = with_state(rest, restated(rest, state, look, changed))
    return rest


def with_state(control: Control, state: State) -> Control:
    """The control with a state in place of that of its id."""
    return control.evolve(states=tuple(state if one.id == state.id else one for one in control.states))


def restated(rest: Control, state: State, before: Control, after: Control) -> State:
    """A state that looked so ``before`` and is to look so ``after``. What it says of a value that was not touched
    stays said, also where rest happens to say the same."""
    found = {one.path: one for one in differences(beginning_of(rest, state), after)}
    for one in state.differences:
        if isinstance(one, Other) and not _covered(one.path, found) and _same(before, after, one.path):
            found[one.path] = one
    return state.evolve(differences=tuple(found.values()))


def _covered(path: str, found: Iterable[str]) -> bool:
    return any(path == one or path.startswith(f"{one}/") or one.startswith(f"{path}/") for one in found)


def _same(before: Control, after: Control, path: str) -> bool:
    try:
        return bool(value_at(before, path) == value_at(after, path))
    except NoSuchThing:
        return False


def with_shared(control: Control, before: Control, after: Control) -> Control:
    """The control with what an edit of one of its states changed that is the same in all of them."""
    fields = {
        name: getattr(after, name)
        for name in type(control).model_fields
        if name not in DIFFERING and getattr(after, name) != getattr(before, name)
    }
    old, new = ({part.id: part for part in one.parts} for one in (before, after))

    def shared(part: Part) -> Part:
        if part.id not in old or part.id not in new or old[part.id] is new[part.id]:
            return part
        changed = {
            name: getattr(new[part.id], name)
            for name in OF_THE_CONTROL
            if getattr(new[part.id], name) != getattr(old[part.id], name)
        }
        return part.evolve(**changed) if changed else part

    return control.evolve(**fields, parts=tuple(shared(part) for part in control.parts))


def fitted(before: Control, after: Control) -> Control:
    """A control that an edit made of another, with states whose differences fit it: what is of something that was
    removed goes with that, and what names items of a list by their number says the whole list, when its length is
    another now."""
    if after.parts is before.parts and after.states is before.states:
        return after
    if not after.states:
        return _driving_what_is_there(after)
    known = {state.id for state in before.states}
    for state in after.states:
        if state.id in known:
            frozen = tuple(_frozen(before, after, state))
            if frozen != state.differences:
                after = with_state(after, state.evolve(differences=frozen))
    for state, found in misfits(after):
        left = tuple(one for one in state.differences if one not in found)
        after = with_state(after, state.evolve(differences=left))
    return _driving_what_is_there(after)


def _driving_what_is_there(control: Control) -> Control:
    """The control with readings that drive nothing which was removed."""
    if not any(one.drives for one in control.readings):
        return control
    looks = all_states(control).values()
    readings = tuple(
        one.evolve(drives=tuple(drive for drive in one.drives if any(_there(look, drive.path) for look in looks)))
        for one in control.readings
    )
    return control if readings == control.readings else control.evolve(readings=readings)


def _there(control: Control, path: str) -> bool:
    try:
        value_at(control, path)
    except NoSuchThing:
        return False
    return True


def _frozen(before: Control, after: Control, state: State) -> Iterator[Difference]:
    whole: set[str] = set()
    for one in state.differences:
        found = None if isinstance(one, Extra) else _list_of_another_length(before, after, one.path)
        if found is None:
            yield one
        elif found not in whole:
            whole.add(found)
            yield Other(path=found, value=as_json(value_at(in_state(before, state.id), found)))


def _list_of_another_length(before: Control, after: Control, path: str) -> str | None:
    steps = path.split("/")
    for place, step in enumerate(steps):
        if step.isdigit():
            here = "/".join(steps[:place])
            if _length(before, here) != _length(after, here):
                return here
    return None


def _length(control: Control, path: str) -> int | None:
    try:
        found = value_at(control, path)
    except NoSuchThing:
        return None
    return len(found) if isinstance(found, tuple) else None


def lost_words(before: Control, after: Control) -> str:
    """What states have lost because what differed is no longer there; empty for nothing."""
    left = {state.id: len(state.differences) for state in after.states}
    kept = {one.id: len(one.drives) for one in after.readings}
    driven = [(one.name, len(one.drives) - kept.get(one.id, len(one.drives))) for one in before.readings]
    lost = [(one.name, len(one.differences) - left.get(one.id, len(one.differences))) for one in before.states]
    said = [f"{count} in {name}" for name, count in (*lost, *driven) if count > 0]
    return f"What differed of it went with it: {', '.join(said)}." if said else ""
