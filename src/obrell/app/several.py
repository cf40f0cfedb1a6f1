"""Several controls of a kit changed as one step."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from obrell.core.document.model import Control
from obrell.core.edit.kits import KitIndex
from obrell.core.errors import Refused
from obrell.store.kits import Changed, Kits, Plan, Stored

Change = Callable[[KitIndex, Control], Control]


def change_several(kits: Kits, kit: str, label: str, change: Change, only: Sequence[str], none: str) -> str:
    """Change the controls of ``only``, by their ids, all where none is named, as far as that makes them other ones;
    what was done, in words. Raises ``Refused`` with the words of ``none`` when it makes no other, and what ``change``
    raises; then nothing is changed."""

    def plan(index: KitIndex, controls: list[Stored]) -> Plan:
        wanted = [one for one in controls if not only or one.control.id in only]
        made = [(one, change(index, one.control)) for one in wanted]
        changed = [(one, control) for one, control in made if control != one.control]
        if not changed:
            raise Refused(none)
        said = f"{label}: {len(changed)} control{'' if len(changed) == 1 else 's'}"
        return Plan(said, index, [Changed(one, said, control) for one, control in changed])

    return kits.change_kit(kit, plan)[0]
