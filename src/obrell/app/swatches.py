"""The swatches of a kit: changed, taken out, and where each is followed."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass

from obrell.app.several import change_several
from obrell.core.document.model import Control
from obrell.core.document.restating import in_all_looks
from obrell.core.document.swatch_uses import Use, uses_of
from obrell.core.edit import Edit, Surroundings, applied
from obrell.core.edit.kits import KitIndex
from obrell.core.edit.swatches import freed, swatch_of, without_swatch
from obrell.core.interchange.palettes import brought_in, read_palette
from obrell.store.kits import Changed, Kits, Plan, Stored


@dataclass(frozen=True, slots=True)
class UsedIn:
    """A control in which a swatch is followed."""

    control: str
    name: str
    uses: tuple[Use, ...]


def used_in(kits: Kits, kit: str, swatch: str) -> list[UsedIn]:
    """Every control with parts that follow a swatch, in the kit's order."""
    found = [tile.id for tile in kits.tiles(kit) if swatch in tile.uses]
    controls = [kits.control(kit, name).control for name in found]
    return [UsedIn(one.id, one.name, tuple(uses_of(one, swatch))) for one in controls]


def remove(kits: Kits, kit: str, swatch: str, instead: str = "") -> str:
    """Take a swatch out of the kit: what followed it has its colour of its own, or follows another one ``instead``.
    All of that is one step. What was done, in words."""

    def plan(index: KitIndex, controls: list[Stored]) -> Plan:
        name = swatch_of(index, swatch).name
        other = f"; what followed it follows “{swatch_of(index, instead).name}”" if instead else ""
        label = f"Removed the swatch “{name}”{other}"
        changed = tuple(_freed(controls, index, label, swatch, instead))
        return Plan(label, without_swatch(index, swatch, instead), changed)

    return kits.change_kit(kit, plan)[0]


def bring_in(kits: Kits, kit: str, content: bytes) -> str:
    """Bring the swatches of a file into a kit, as one step. Return what was done and what was left out, in words."""
    read = read_palette(content)
    count = len(read.swatches)
    label = f"Brought in {count} swatch{'' if count == 1 else 'es'}"
    kits.change_index(kit, lambda index: brought_in(index, read), label)
    return ". ".join([label, *read.remarks])


def change_all(kits: Kits, kit: str, edit: Edit, label: str, only: Sequence[str] = ()) -> str:
    """An edit of every control that it changes, or of those of ``only``, as one step; what was done, in words. Raises
    ``Refused`` when there is none."""

    def changed(index: KitIndex, control: Control) -> Control:
        return applied(edit, control, Surroundings.of(index))

    return change_several(kits, kit, label, changed, only, "No colour of the kit is changed by that.")


def _freed(
    controls: Iterable[Stored], index: KitIndex, label: str, swatch: str, instead: str
) -> Iterator[Changed]:  # fmt: skip
    """Every control that names a swatch, also where a colour or a look kept aside remembers it, without it."""
    for stored in controls:
        control = in_all_looks(stored.control, lambda look: freed(look, index, swatch, instead))
        if control != stored.control:
            yield Changed(stored, label, control)
