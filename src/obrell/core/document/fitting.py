"""What an edit leaves of states, editions and readings, so that they fit the control that it made."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from obrell.core.document.differing import as_json
from obrell.core.document.editions import all_editions, every_look, in_editions
from obrell.core.document.laying import laid
from obrell.core.document.model import Control, DensityEdition, Differing, State
from obrell.core.document.restating import with_one
from obrell.core.document.states import beginning_of, in_state, state_of
from obrell.core.document.value_paths import value_at
from obrell.core.errors import NoSuchThing
from obrell.core.values.differences import Difference, Extra, Other
from obrell.core.values.readings import Drive


def fitted(before: Control, after: Control) -> Control:
    """A control that an edit made of another, with states and editions whose differences fit it: what is of something
    that was removed goes with that, and what names items of a list by their number says the whole list, when its
    length is another now."""
    if after.parts is before.parts and after.readings == before.readings and _kept(after) == _kept(before):
        return after
    known = {(one.kept_in, one.id) for one in _kept(before)}
    for one in _kept(after):
        if (one.kept_in, one.id) in known:
            frozen = tuple(_frozen(before, after, one))
            if frozen != one.differences:
                after = with_one(after, one.evolve(differences=frozen))
    for one in _kept(after):
        if lost := misfits(after, one):
            left = tuple(made for made in one.differences if made not in lost)
            after = with_one(after, one.evolve(differences=left))
    return _driving_what_is_there(after)


def _kept(control: Control) -> tuple[Differing, ...]:
    return (*control.editions, *control.states)


def misfits(control: Control, one: Differing) -> tuple[Difference, ...]:
    """What a state or an edition says that has no place in the control, nor in any of its editions that the one can
    be laid over."""
    found: tuple[Difference, ...] = one.differences
    for base in _bases(control, one):
        left_out = _left_out(base, one)
        found = tuple(made for made in found if made in left_out)
        if not found:
            break
    return found


def _bases(control: Control, one: Differing) -> Iterable[Control]:
    if isinstance(one, State):
        return all_editions(control)
    sizes = control.sizes if isinstance(one, DensityEdition) else ()
    return (control, *(in_editions(control, (size.id,)) for size in sizes))


def _left_out(base: Control, one: Differing) -> tuple[Difference, ...]:
    under = beginning_of(base, state_of(base, one.id)) if isinstance(one, State) else base
    return laid(under, one.differences).misfits


def _look(control: Control, one: Differing) -> Control:
    return in_state(control, one.id) if isinstance(one, State) else in_editions(control, (one.id,))


def _driving_what_is_there(control: Control) -> Control:
    """The control with readings that drive nothing which was removed."""
    if not any(one.drives for one in control.readings):
        return control
    looks = [*every_look(control)]
    readings = tuple(
        one.evolve(drives=tuple(drive for drive in one.drives if any(_can_drive(look, drive) for look in looks)))
        for one in control.readings
    )
    return control if readings == control.readings else control.evolve(readings=readings)


def _can_drive(control: Control, drive: Drive) -> bool:
    return _there(control, drive.path) and (drive.along is None or _there(control, f"parts/{drive.along}/x"))


def _there(control: Control, path: str) -> bool:
    try:
        value_at(control, path)
    except NoSuchThing:
        return False
    return True


def _frozen(before: Control, after: Control, one: Differing) -> Iterator[Difference]:
    whole: set[str] = set()
    for made in one.differences:
        found = None if isinstance(made, Extra) else _list_of_another_length(before, after, made.path)
        if found is None:
            yield made
        elif found not in whole:
            whole.add(found)
            yield Other(path=found, value=as_json(value_at(_look(before, one), found)))


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
    """What states and editions have lost because what differed is no longer there; empty for nothing."""
    left = {(one.kept_in, one.id): len(one.differences) for one in _kept(after)}
    kept = {one.id: len(one.drives) for one in after.readings}
    driven = [(one.name, len(one.drives) - kept.get(one.id, len(one.drives))) for one in before.readings]
    lost = [
        (one.name, len(one.differences) - left.get((one.kept_in, one.id), len(one.differences)))
        for one in _kept(before)
    ]
    said = [f"{count} in {name}" for name, count in (*lost, *driven) if count > 0]
    return f"What differed of it went with it: {', '.join(said)}." if said else ""
