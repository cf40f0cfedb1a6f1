"""The swatches of a kit: changed, taken out, and where each is followed."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from obrell.core.document.colours import drawn_places
from obrell.core.document.model import Control
from obrell.core.document.value_paths import field_of
from obrell.core.edit.kits import KitIndex
from obrell.core.edit.swatches import freed, swatch_of, without_swatch
from obrell.core.values.colours import follows
from obrell.store.kits import Changed, Kits


@dataclass(frozen=True, slots=True)
class Use:
    """A part whose colours follow a swatch, by its id and name, and which of its colours do; no id for the ground."""

    part: str
    name: str
    colours: tuple[str, ...]


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


def uses_of(control: Control, swatch: str) -> Iterator[Use]:
    """The parts of a control that follow a swatch, the front-most first, its ground last."""
    titles: dict[str, list[str]] = {}
    for place in drawn_places(control):
        link = follows(place.colour)
        if link is not None and link.swatch == swatch:
            part = place.path.split("/")[1] if place.path.startswith("parts/") else ""
            titles.setdefault(part, []).append(_title(control, place.path))
    names = {part.id: part.name for part in control.parts}
    for part, found in reversed(titles.items()):
        if part:
            yield Use(part, names[part], tuple(dict.fromkeys(found)))
    if "" in titles:
        yield Use("", "its ground", tuple(dict.fromkeys(titles[""])))


def _title(control: Control, path: str) -> str:
    """What a colour is a colour of: ``bevel highlight``, ``paint``."""
    steps = path.split("/")
    owner, name = field_of(control, path)
    title = "" if name == "colour" else f" {type(owner).model_fields[name].title or name}"
    if steps[0] == "parts" and steps[2] == "effects":
        effect, _ = field_of(control, "/".join((*steps[:4], "visible")))
        return f"{getattr(effect, 'label', '').lower()}{title}"
    return f"{steps[0] if steps[0] == 'ground' else 'shape'}{title}"


def remove(kits: Kits, kit: str, swatch: str, instead: str = "") -> str:
    """Take a swatch out of the kit: what followed it has its colour of its own, or follows another one ``instead``.
    All of that is one step. What was done, in words."""
    while True:
        index = kits.index(kit)
        name = swatch_of(index, swatch).name
        other = f"; what followed it follows “{swatch_of(index, instead).name}”" if instead else ""
        label = f"Removed the swatch “{name}”{other}"
        without_swatch(index, swatch, instead)
        changed = tuple(_freed(kits, kit, index, label, swatch, instead))
        if kits.change_kit(kit, label, lambda newest: without_swatch(newest, swatch, instead), changed) is not None:
            return label


def _freed(
    kits: Kits, kit: str, index: KitIndex, label: str, swatch: str, instead: str
) -> Iterator[Changed]:  # fmt: skip
    """Every control that names a swatch, also where a colour or a look kept aside remembers it, without it."""
    for stored in kits.controls(kit):
        control = freed(stored.control, index, swatch, instead)
        if control is not stored.control:
            yield Changed(stored, label, control)
