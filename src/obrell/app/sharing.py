"""A state of one control, made for others of its kit."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import partial

from obrell.app.several import change_several
from obrell.core.document.model import Control
from obrell.core.edit import Surroundings, applied
from obrell.core.edit.admission import check_drawable
from obrell.core.edit.kits import KitIndex
from obrell.core.edit.state_copies import CopyState
from obrell.core.errors import GONE, ObrellError, Refused
from obrell.store.kits import Kits, Stored


@dataclass(frozen=True, slots=True)
class Taker:
    """A control that could take a state: how much of what differs it has nothing for, or why it cannot."""

    stored: Stored
    left_out: int
    why_not: str = ""


def takers(kits: Kits, kit: str, control: str, state: str) -> list[Taker]:
    """The other controls of a kit, in its order; raises ``NoSuchThing`` for a state that is not there."""
    edit = CopyState(source=kits.control(kit, control).control, state=state)
    around = Surroundings.of(kits.index(kit))
    return [_taker(one, edit, around) for one in kits.controls(kit) if one.control.id != control]


def _taker(stored: Stored, edit: CopyState, around: Surroundings) -> Taker:
    try:
        applied(edit, stored.control, around)
    except ObrellError as error:
        return Taker(stored, 0, str(error))
    return Taker(stored, edit.left_out(stored.control, around))


def share(kits: Kits, kit: str, control: str, state: str, onto: Sequence[str]) -> str:
    """Make a state for other controls, by their ids, as one step; what was done, in words. Raises ``Refused`` when one
    of them cannot take it, or none is named, and then none does."""
    if not onto:
        raise Refused("Choose at least one control that is to have it.")
    source = kits.control(kit, control).control
    edit = CopyState(source=source, state=state)
    return change_several(kits, kit, edit.label(source), partial(_taken, edit), onto, GONE)


def _taken(edit: CopyState, index: KitIndex, control: Control) -> Control:
    try:
        changed = applied(edit, control, Surroundings.of(index))
        check_drawable(index.settings(), changed, control)
    except ObrellError as error:
        raise Refused(f"{control.name}: {error}") from error
    return changed


def as_taken(kits: Kits, index: KitIndex, control: Control, source: str, state: str) -> Control:
    """A control as it would be with a state of another one, whose document has that hash."""
    edit = CopyState(source=kits.by_hash(source), state=state)
    return applied(edit, control, Surroundings.of(index))
