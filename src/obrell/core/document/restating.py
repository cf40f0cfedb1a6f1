"""What edits do to a control that is drawn in a state or an edition: what belongs to it is changed for all, the rest
is kept as what differs."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from itertools import pairwise
from typing import TypeVar

from obrell.core.document.differing import OF_THE_CONTROL, differences, edition_differences
from obrell.core.document.editions import editions_of, in_editions
from obrell.core.document.laying import laid
from obrell.core.document.model import REST, Control, Differing, Edition, Part, State
from obrell.core.document.states import beginning_of, in_state, state_of
from obrell.core.document.value_paths import value_at
from obrell.core.errors import NoSuchThing
from obrell.core.values.differences import Other
from obrell.core.values.readings import Reading

DIFFERING = frozenset(("parts", "light", "states"))
"""Fields of a control that are not the same in all its states, and where that is written down."""
DIFFERING_IN_EDITIONS = DIFFERING | {"readings", "sizes", "arts"}
"""The same of its editions, besides what those have for themselves."""
Change = Callable[[Control], Control]
D = TypeVar("D", bound=Differing)


def in_one_state(control: Control, name: str, change: Change) -> Control:
    """The control with a change made in one state: what of it belongs to the control is changed for all."""
    look = in_state(control, name)
    changed = change(look)
    rest, state = with_shared(control, look, changed), state_of(control, name)
    return with_one(rest, restated(beginning_of(rest, state), state, look, changed))


def in_all_states(control: Control, change: Change) -> Control:
    """The control with a change made at rest and in every state, as far as that differs from what it is at rest."""
    rest = change(in_state(control, REST)).evolve(states=control.states)
    for state in sorted(control.states, key=lambda one: len(one.of)):
        look = in_state(control, state.id)
        changed = change(look)
        rest = rest.evolve(next_number=max(rest.next_number, changed.next_number))
        rest = with_one(rest, restated(beginning_of(rest, state), state, look, changed))
    return rest


def in_all_looks(control: Control, change: Change) -> Control:
    """The control with a change made in every state and in every edition."""
    done = in_all_states(control, change)
    for edition in control.editions:
        look = in_state(in_editions(control, (edition.id,)), REST)
        changed = change(look)
        done = done.evolve(next_number=max(done.next_number, changed.next_number))
        done = with_one(done, restated(done, edition, look, changed))
    return done


def in_drawn_editions(control: Control, names: tuple[str, ...], change: Change) -> Control:
    """The control with a change made while editions are drawn: what differs is kept in the uppermost of them, states
    are changed for all."""
    laying = editions_of(control, names)
    under = [control]
    for edition in laying:
        under.append(laid(under[-1], edition.differences).control)
    drawn = in_editions(control, names)
    changed = change(drawn)
    made: list[Edition] = []
    for edition, (below, look) in reversed([*zip(laying, pairwise(under), strict=True)]):
        shown = drawn if not made else look
        base = _with_shared_by(edition, below, shown, changed)
        made.append(_said_on(below, edition, restated(base, edition, shown, changed)))
        changed = base
    for edition in made:
        changed = with_one(changed, edition)
    return changed


def with_one(control: Control, one: Differing) -> Control:
    """The control with a state or an edition in place of that of its id."""
    there: Sequence[Differing] = getattr(control, one.kept_in)
    return control.evolve(**{one.kept_in: tuple(one if other.id == one.id else other for other in there)})


def restated(base: Control, one: D, before: Control, after: Control) -> D:
    """A state or an edition that looked so ``before`` and is to look so ``after``, as what differs from what it is
    laid over. What it says of a value that was not touched stays said, also where that comes to be the same."""
    own = edition_differences(base, after, one.own) if isinstance(one, Edition) else differences(base, after)
    found = {made.path: made for made in own}
    for said in one.differences:
        if isinstance(said, Other) and not _covered(said.path, found) and _same(before, after, said.path):
            found[said.path] = said
    return one.evolve(differences=tuple(found.values()))


def _covered(path: str, found: Iterable[str]) -> bool:
    return any(path == one or path.startswith(f"{one}/") or one.startswith(f"{path}/") for one in found)


def _same(before: Control, after: Control, path: str) -> bool:
    try:
        return bool(value_at(before, path) == value_at(after, path))
    except NoSuchThing:
        return False


def with_shared(
    control: Control, before: Control, after: Control, apart: frozenset[str] = DIFFERING
) -> Control:  # fmt: skip
    """The control with what an edit of one of its states changed that is the same in all of them."""
    fields = {
        name: getattr(after, name)
        for name in type(control).model_fields
        if name not in apart and getattr(after, name) != getattr(before, name)
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


def _with_shared_by(edition: Edition, control: Control, before: Control, after: Control) -> Control:
    """The same of an edition: states and readings are the same in all of them, but for how readings drive values."""
    shared = with_shared(control, before, after, DIFFERING_IN_EDITIONS.union(edition.own))
    known = {(one.id, drive.id): drive for one in control.readings for drive in one.drives}

    def driving(reading: Reading) -> Reading:
        return reading.evolve(drives=tuple(known.get((reading.id, one.id), one) for one in reading.drives))

    return shared.evolve(
        readings=tuple(map(driving, after.readings)), states=tuple(_state_said_on(before, one) for one in after.states)
    )


def _state_said_on(before: Control, state: State) -> State:
    was = next((one for one in before.states if one.id == state.id), None)
    return state if was is None or was == state else _said_on(beginning_of(before, was), was, state)


def _said_on(base: Control, was: D, now: D) -> D:
    """A state or an edition that goes on saying what had no place in what it was laid over while it was changed."""
    paths = [one.path for one in now.differences]
    kept = [one for one in laid(base, was.differences).misfits if not _covered(one.path, paths)]
    return now.evolve(differences=(*now.differences, *kept)) if kept else now
