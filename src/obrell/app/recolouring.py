"""Controls recoloured: what that does to what is read, kept as it is, as a colourway, or as a new control."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from obrell.core.colour.contrast import ORDINARY, luminance, ratio
from obrell.core.colour.links import adjusted
from obrell.core.colour.spaces import encoded, from_hex, to_hex
from obrell.core.document.model import REST, Control, KitSettings
from obrell.core.document.resolve import DAY, palette, resolve
from obrell.core.edit import Edit, Surroundings, applied
from obrell.core.edit.colourways import with_colourway
from obrell.core.edit.kits import KitIndex
from obrell.core.edit.recolour import Recolour, recoloured_palette
from obrell.core.render.cache import PixelCache
from obrell.core.render.label_contrast import Contrast, label_contrasts
from obrell.store.kits import Copy, Kits

SAID_FROM = 0.03
"""Share by which a contrast has to change to be said."""


@dataclass(frozen=True, slots=True)
class Changed:
    """The contrast of a label before and after, and the tint, -100 to 100, that would bring back what it was or the
    least that text needs; 0 where that is reached, None where no tint does."""

    name: str
    before: float
    after: float
    tint: int | None


@dataclass(frozen=True, slots=True)
class Look:
    """The state and the colourway that a control is looked at in, by their ids."""

    state: str = REST
    colourway: str = DAY


USUAL = Look()


def contrast_changes(
    kit: KitSettings, control: Control, edit: Edit, look: Look = USUAL, cache: PixelCache | None = None
) -> list[Changed]:  # fmt: skip
    """What an edit does to the contrast of every label by more than 3 %, the weakest first."""
    changed = applied(edit, control, Surroundings.of(kit))
    before, after = (resolve(kit, one, look.state, look.colourway) for one in (control, changed))
    was = {one.part: one for one in label_contrasts(before, cache)}
    names = {part.id: part.name for part in before.control.parts}
    return [
        Changed(names[now.part], was[now.part].ratio, now.ratio, _remedy(was[now.part], now))
        for now in label_contrasts(after, cache)
        if now.part in was and abs(now.ratio / was[now.part].ratio - 1) > SAID_FROM
    ]


def _remedy(was: Contrast, now: Contrast) -> int | None:
    target = min(was.ratio, ORDINARY)
    if now.ratio >= target:
        return 0
    level = encoded(now.own)
    grey = to_hex((level, level, level))
    tints = sorted(range(-100, 101), key=abs)
    seen = ((tint, luminance(from_hex(adjusted(grey, tint, 0, 0)))) for tint in tints)
    return next((tint for tint, own in seen if ratio(own, now.behind) >= target), None)


def keep_as_colourway(
    kits: Kits, kit: str, control: str, edit: Recolour, name: str, colourway: str = DAY
) -> str:  # fmt: skip
    """A colourway in which the control looks as an edit would make it in another one; its id."""
    shown, made = kits.control(kit, control).control, []

    def changed(index: KitIndex) -> KitIndex:
        colours = recoloured_palette(edit, shown, palette(index), palette(index, colourway))
        with_it, new = with_colourway(index, name, colours)
        made.append(new)
        return with_it

    kits.change_index(kit, changed, f"Added the colourway “{name}”")
    return made[-1]


def keep_as_control(kits: Kits, kit: str, control: str, edits: Iterable[tuple[str, Edit]]) -> tuple[str, ...]:
    """New controls behind one, each named and as its edit makes that; their ids."""
    around = Surroundings.of(kits.index(kit))

    def copy_of(name: str, edit: Edit) -> Copy:
        return lambda source, ident: applied(edit, source, around).evolve(id=ident, name=name, original=None)

    return kits.add_copies(kit, control, [copy_of(name, edit) for name, edit in edits])
