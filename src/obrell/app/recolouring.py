"""Controls recoloured: what that does to what is read, kept as it is, as a colourway, or as a new control."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import partial

from obrell.core.colour.contrast import ORDINARY, luminance, ratio
from obrell.core.colour.links import adjusted
from obrell.core.colour.spaces import encoded, from_hex, to_hex
from obrell.core.document.model import REST, Control, KitSettings
from obrell.core.document.resolve import DAY, palette, resolve
from obrell.core.edit import Edit, Surroundings, applied
from obrell.core.edit.colourways import with_colourway
from obrell.core.edit.kits import KitIndex
from obrell.core.edit.recolour import Recolour, recoloured_palette
from obrell.core.edit.tint import TintFromAbove
from obrell.core.errors import Refused
from obrell.core.render.cache import PixelCache
from obrell.core.render.label_contrast import Contrast, label_contrasts
from obrell.core.values.fields import MOST_OF_NAME
from obrell.store.kits import Kits

MOST_TOLD = 5
"""Names of what was made that are told."""
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


def names_of(typed: str, edits: Sequence[Edit], kit: KitSettings) -> list[str]:
    """Return a name for each edit: those that were typed with commas between, where they are as many; else the one
    that was typed, with the hue or the swatch where there are several."""
    names = [one.strip() for one in typed.split(",")]
    if len(edits) == 1:
        return [typed]
    if len(names) == len(edits) and all(names):
        return names
    return [f"{typed} {_hue_words(one, kit)}" for one in edits]


def _hue_words(edit: Edit, kit: KitSettings) -> str:
    if isinstance(edit, Recolour):
        swatch = next((one.name for one in kit.swatches if one.id == edit.swatch), None)
        return swatch or f"{edit.to_hue or 0:g}°"
    colour = edit.colour if isinstance(edit, TintFromAbove) else ""
    return next((one.name for one in kit.swatches if one.id == getattr(colour, "swatch", None)), str(colour))


def keep_as_colourways(
    kits: Kits, kit: str, controls: Sequence[str], edits: Sequence[Edit], typed: str, colourway: str = DAY
) -> tuple[tuple[str, ...], str]:  # fmt: skip
    """Make a colourway for each edit, in which controls look as it would make them in another one, as one step. Return
    their ids, and what was done, in words. Raises ``Refused`` for an edit that is no change of swatches."""
    shown = [one.control for one in kits.controls(kit) if one.control.id in controls]
    names = names_of(typed, edits, kits.index(kit))
    made: list[str] = []

    def changed(index: KitIndex) -> KitIndex:
        made.clear()
        for name, edit in zip(names, edits, strict=True):
            if not isinstance(edit, Recolour):
                raise Refused("A tint from above changes no swatch: keep it as a new control, or turn the colours.")
            colours = recoloured_palette(edit, shown, palette(index), palette(index, colourway))
            index, new = with_colourway(index, name, colours)
            made.append(new)
        return index

    label = f"Made the {_counted('colourway', names)}"
    kits.change_index(kit, changed, label)
    return tuple(made), f"{label}."


def keep_as_controls(
    kits: Kits, kit: str, controls: Sequence[str], edits: Sequence[Edit], typed: str
) -> tuple[tuple[str, ...], str]:  # fmt: skip
    """Make a new control of each control for each edit that changes it, right behind it and all as one step. Return
    their ids, and what was done, in words. One control's copies are called what was typed, those of several by their
    own names with it. Raises ``Refused`` when an edit changes none of them."""
    index = kits.index(kit)
    around, sources = Surroundings.of(index), [one.control for one in kits.controls(kit) if one.control.id in controls]
    named = list(zip(names_of(typed, edits, index), edits, strict=True))

    def copied(source: Control, name: str, edit: Edit, ident: str) -> Control:
        return applied(edit, source, around).evolve(id=ident, name=name, original=None)

    makes, made = [], []
    for source in sources:
        for name, edit in named:
            if applied(edit, source, around) != source:
                made.append(name if len(sources) == 1 else _together(source.name, name))
                makes.append((source.id, partial(copied, source, made[-1], edit)))
    if not makes:
        raise Refused("No colour of them is changed by that.")
    return kits.add_copies(kit, makes), f"Made the {_counted('control', made)}."


def _together(own: str, name: str) -> str:
    """Return a control's own name with another one, shortened to what a name may be."""
    return f"{own[: max(0, MOST_OF_NAME - 1 - len(name))]} {name}".strip()


def _counted(what: str, names: Sequence[str]) -> str:
    """Return what was made by its names, the first few of many."""
    told = ", ".join(f"“{one}”" for one in names[:MOST_TOLD])
    more = f" and {len(names) - MOST_TOLD} more" if len(names) > MOST_TOLD else ""
    return f"{what}{'' if len(names) == 1 else 's'} {told}{more}"
