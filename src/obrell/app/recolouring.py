"""Controls recoloured: what that does to what is read, kept as it is, as a colourway, or as a new control."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import partial

from obrell.app.several import change_several
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
from obrell.core.errors import BadValue, Refused
from obrell.core.render.cache import PixelCache
from obrell.core.render.label_contrast import Contrast, label_contrasts
from obrell.core.values.fields import MOST_OF_NAME
from obrell.store.kits import Kits

MOST_TOLD = 5
"""Names that a message lists of what was made."""
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


def recoloured(edit: Edit, control: Control, kit: KitSettings) -> Control:
    """Return a control as an edit turns or tints it; an empty one stays as it is."""
    return applied(edit, control, Surroundings.of(kit)) if control.parts else control


def recolour_controls(kits: Kits, kit: str, controls: Sequence[str], edit: Edit) -> str:
    """Recolour controls, by their ids, as one step. Return what was done, in words. Raises ``NoSuchThing`` for a
    control that is gone, and ``Refused`` when none is changed."""
    label = edit.label(_read(kits, kit, controls)[0])
    change = partial(_recoloured_in, edit)
    return change_several(kits, kit, label, change, controls, "No colour of the kit is changed by that.")


def _recoloured_in(edit: Edit, index: KitIndex, control: Control) -> Control:
    return recoloured(edit, control, index)


def _read(kits: Kits, kit: str, controls: Sequence[str]) -> list[Control]:
    """Return controls by their ids, each once. Raises ``BadValue`` for none, and ``NoSuchThing`` for one that is
    gone."""
    if not controls:
        raise BadValue("Tick at least one control.", "controls")
    return [kits.control(kit, one).control for one in dict.fromkeys(controls)]


def names_of(typed: str, edits: Sequence[Edit], kit: KitSettings) -> list[str]:
    """Return a name for each edit: those that were typed with commas between, if there is one for each; else what was
    typed, with the hue or the swatch behind it when there are several edits. Raises ``BadValue`` for no name."""
    whole = typed.strip()
    if not whole:
        raise BadValue("Name it first.", "name")
    names = [one.strip() for one in whole.split(",")]
    if len(edits) == 1:
        return [whole]
    if len(names) == len(edits) and all(names):
        return names
    return [_together(whole, _hue_words(one, kit)) for one in edits]


def _hue_words(edit: Edit, kit: KitSettings) -> str:
    if isinstance(edit, Recolour):
        swatch = next((one.name for one in kit.swatches if one.id == edit.swatch), None)
        return swatch or f"{edit.to_hue or 0:g}°"
    colour = edit.colour if isinstance(edit, TintFromAbove) else ""
    return next((one.name for one in kit.swatches if one.id == getattr(colour, "swatch", None)), str(colour))


def keep_as_colourways(
    kits: Kits, kit: str, controls: Sequence[str], edits: Sequence[Edit], typed: str, colourway: str = DAY
) -> tuple[tuple[str, ...], str]:  # fmt: skip
    """Make a colourway for each edit, as one step: its swatches are those of another colourway, turned by the edit.
    Return the new ids, and what was done, in words. Raises ``Refused`` for an edit that changes no swatch, and
    ``NoSuchThing`` for a control that is gone."""
    shown = _read(kits, kit, controls)
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
    """Copy each control once for each edit that changes it, recoloured and right behind it, all as one step. Return
    the new ids, and what was done, in words. Copies of one control have the typed names, those of several the
    control's own name before them. Raises ``Refused`` when no edit changes any control, and ``NoSuchThing`` for one
    that is gone."""
    index, sources = kits.index(kit), _read(kits, kit, controls)
    named = list(zip(names_of(typed, edits, index), edits, strict=True))
    makes, made = [], []
    for source in sources:
        for name, edit in named:
            copy = recoloured(edit, source, index)
            if copy != source:
                made.append(name if len(sources) == 1 else _together(source.name, name))
                makes.append((source.id, partial(_copied, copy, made[-1])))
    if not makes:
        raise Refused("No colour of them is changed by that.")
    return kits.add_copies(kit, makes), f"Made the {_counted('control', made)}."


def _copied(control: Control, name: str, ident: str) -> Control:
    return control.evolve(id=ident, name=name, original=None)


def _together(own: str, name: str) -> str:
    """Return a control's own name with another one, shortened to what a name may be."""
    return f"{own[: max(0, MOST_OF_NAME - 1 - len(name))]} {name}".strip()


def _counted(what: str, names: Sequence[str]) -> str:
    """Return what was made by its names, the first few of many."""
    told = ", ".join(f"“{one}”" for one in names[:MOST_TOLD])
    more = f" and {len(names) - MOST_TOLD} more" if len(names) > MOST_TOLD else ""
    return f"{what}{'' if len(names) == 1 else 's'} {told}{more}"
