"""Editing: an edit tried and saved; steps taken back and done again."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import TypeVar

from obrell.core.document.editions import looked_at
from obrell.core.document.model import REST, Control
from obrell.core.document.states import in_state
from obrell.core.document.texts import control_json
from obrell.core.edit import Edit, Surroundings, applied
from obrell.core.edit.admission import check_drawable
from obrell.core.files import file_id
from obrell.core.values.base import text_hash
from obrell.core.workspace import bringing
from obrell.store.kits import Ground, Kits, Made, Stored
from obrell.store.rows import NOBODY, Sender

T = TypeVar("T")
Show = Callable[[Ground, Made], T]
"""Builds the answer to an edit from the kit and the edited control."""


def edit(kits: Kits, kit: str, control: str, change: Edit, sender: Sender = NOBODY) -> Made:
    """Apply an edit to the newest version, whatever version it was based on, and save it: once, however often it is
    sent. What cannot be drawn afterwards is refused, and nothing is changed."""
    return edit_shown(kits, kit, control, change, _nothing, sender)[0]


def _nothing(ground: Ground, made: Made) -> None:
    """Build no answer."""


def edit_shown(
    kits: Kits, kit: str, control: str, change: Edit, show: Show[T], sender: Sender = NOBODY,
    files: Sequence[bytes] = (),
) -> tuple[Made, T]:  # fmt: skip
    """Apply and save an edit as ``edit`` does, with the ``files`` it brings in. Return also its answer, built by
    ``show`` before anything is stored, so that an edit whose answer fails is not stored."""
    with bringing({file_id(content): content for content in files}):
        return _edit_shown(kits, kit, control, change, show, sender, files)


def _edit_shown(
    kits: Kits, kit: str, control: str, change: Edit, show: Show[T], sender: Sender, files: Sequence[bytes]
) -> tuple[Made, T]:  # fmt: skip
    while True:
        again = kits.made_before(kit, control, sender)
        ground = kits.ground(kit, control)
        if again is not None:
            return again, show(ground, again)
        stored = ground.stored.control
        label = change.label(stored)
        changed = applied(change, stored, Surroundings.of(ground.index))
        if changed != stored:
            check_drawable(ground.index, changed, stored)
        shown = show(ground, Made(_coming(ground.stored, changed), stored, changed, label))
        made = kits.save(kit, ground, label, changed, sender, files)
        if made is not None:
            return made, shown


def _coming(stored: Stored, changed: Control) -> Stored:
    """Return the control as it will be stored."""
    if changed == stored.control:
        return stored
    return Stored(changed, text_hash(control_json(changed)), stored.version + 1)


def added(made: Made, state: str = REST, editions: str = "") -> tuple[tuple[str, ...], str]:
    """The outermost parts that an edit added as a state looks in editions, and the last effect that it added to a part
    that was there."""
    was, now = (looked_at(one, editions) for one in (made.before, made.after))
    before, after = in_state(was, state if state in was.state_ids else REST), in_state(now, state)
    old = {part.id: part for part in before.parts}
    new = {part.id for part in after.parts if part.id not in old}
    parts = tuple(part.id for part in after.parts if part.id in new and part.within not in new)
    for part in after.parts:
        if part.id in old:
            known = {effect.id for effect in old[part.id].effects}
            fresh = [effect.id for effect in part.effects if effect.id not in known]
            if fresh:
                return parts, fresh[-1]
    return parts, ""
