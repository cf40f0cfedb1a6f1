"""Editing: an edit tried and saved; steps taken back and done again."""

from __future__ import annotations

from obrell.core.document.editions import looked_at
from obrell.core.document.model import REST
from obrell.core.document.states import in_state
from obrell.core.edit import Edit, Surroundings, applied
from obrell.core.edit.admission import check_drawable
from obrell.store.kits import Kits, Made
from obrell.store.rows import NOBODY, Sender


def edit(kits: Kits, kit: str, control: str, change: Edit, sender: Sender = NOBODY) -> Made:
    """Apply an edit to the newest version, whatever version it was based on, and save it: once, however often it is
    sent. What cannot be drawn afterwards is refused, and nothing is changed."""
    while True:
        again = kits.made_before(kit, control, sender)
        if again is not None:
            return again
        ground = kits.ground(kit, control)
        stored = ground.stored.control
        label = change.label(stored)
        changed = applied(change, stored, Surroundings.of(ground.index))
        if changed != stored:
            check_drawable(ground.index, changed, stored)
        made = kits.save(kit, ground, label, changed, sender)
        if made is not None:
            return made


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
