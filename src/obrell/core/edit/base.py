"""What every edit promises: a changed control, and words for the list of what was done."""

from __future__ import annotations

from abc import abstractmethod
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from typing import ClassVar

from pydantic import ConfigDict, SerializeAsAny, ValidationError

from obrell.core.document.fitting import fitted
from obrell.core.document.follows import NO_WORDS, Words, kept_by_hand, settled
from obrell.core.document.model import MAX_PARTS, Control, KitSettings, Light, Material, Part, Swatch
from obrell.core.document.moving import carried_together, covering
from obrell.core.document.numbering import next_number
from obrell.core.document.resolve import palette
from obrell.core.document.restating import in_all_looks
from obrell.core.document.states import words_of
from obrell.core.document.swatch_uses import swatches_of
from obrell.core.document.tree import descendants
from obrell.core.document.value_paths import place_of_id
from obrell.core.edit.snapping import Snap
from obrell.core.edit.swatches import SWATCH_GONE
from obrell.core.effects import AnyEffect
from obrell.core.effects.kinds.mask import PartCover
from obrell.core.errors import GONE, NoSuchThing, Refused
from obrell.core.geometry.plane import Similarity
from obrell.core.values.base import Value, bad_value

NEW = "e0"
"""The id of an effect that has none yet."""


def applied(edit: Edit, control: Control, around: Surroundings) -> Control:
    """What an edit makes of a control, with everything that follows settled, and its states and editions fitted to it;
    raises ``Refused`` in words, also when a colour would begin to follow a swatch that the kit does not have."""
    return fitted(control, made_of(edit, control, around))


def made_of(edit: Edit, control: Control, around: Surroundings) -> Control:
    """The same before anything is fitted."""
    if edit.with_states and (control.states or control.editions):
        same = edit.for_all_states(control, around)
        return in_all_looks(control, lambda look: applied_once(same, look, around))
    return applied_once(edit, control, around)


def applied_once(edit: Edit, control: Control, around: Surroundings, words: Words = NO_WORDS) -> Control:
    """The same of one look of a control: at rest, or in a state, whose texts have other ``words`` in others."""
    words = words or words_of(control)
    try:
        changed = edit.apply(control, around)
        changed = settled(kept_by_hand(control, changed, words), words_of(changed) if changed.states else words)
    except ValidationError as error:
        raise bad_value(error, Part) from error
    if _followed(changed) - _followed(control) - around.palette.keys():
        raise NoSuchThing(SWATCH_GONE)
    return changed


def _followed(control: Control) -> set[str]:
    drawn = control.parts if control.ground is None else (*control.parts, control.ground)
    return {swatch for value in drawn for swatch in swatches_of(value)}


@dataclass(frozen=True, slots=True)
class Surroundings:
    """What an edit may need to know of the kit: its key light's direction, degrees, its materials, the light's
    height, degrees, and its swatches."""

    light: float = 0.0
    materials: tuple[Material, ...] = ()
    height: float = 40.0
    swatches: tuple[Swatch, ...] = ()

    @classmethod
    def of(cls, kit: KitSettings) -> Surroundings:
        """What a kit gives its controls."""
        colours = palette(kit)
        swatches = tuple(swatch.evolve(colour=colours[swatch.id]) for swatch in kit.swatches)
        return cls(kit.light.direction, kit.materials, kit.light.height, swatches)

    @property
    def palette(self) -> dict[str, str]:
        """The colour of each swatch by its id."""
        return {swatch.id: swatch.colour for swatch in self.swatches}

    def light_of(self, control: Control) -> float:
        """The light the control stands in."""
        return self.lamp_of(control).direction

    def lamp_of(self, control: Control) -> Light:
        """The same with its height."""
        return control.light or Light(direction=self.light, height=self.height)


class Edit(Value):
    """Base of the edits. Pure: the same edit of the same control gives the same result. Their validators are
    built when they are first needed, so that a server answers sooner."""

    model_config = ConfigDict(defer_build=True)
    of_control: ClassVar[bool] = False
    """Whether it is about the control as a whole, whichever of its states is drawn."""
    with_states: ClassVar[bool] = False
    """Whether it is made in every state besides, when no state was chosen for it."""

    of_editions: ClassVar[bool] = False
    """Whether it is about the control in all its sizes and densities, whichever is drawn."""

    @abstractmethod
    def apply(self, control: Control, around: Surroundings) -> Control:
        """The changed control; raises ``Refused`` in words when it cannot be done."""

    def for_all_states(self, control: Control, around: Surroundings) -> Edit:
        """The edit as it is made in every state: where it measures the control, what it measures at rest is said."""
        return self

    def snaps(self, control: Control) -> tuple[Snap, ...]:
        """What it snapped to, given the control before."""
        return ()

    def sets(self) -> frozenset[str]:
        """The paths of the values that it sets to what a person gave, so that two who set one value are told."""
        return frozenset()

    def removes(self) -> bool:
        """Whether it takes something away, which is then offered back on the spot."""
        return False

    def remark(self, around: Surroundings) -> str:
        """What is said besides, of what could not be done as it was meant; mostly nothing."""
        return ""

    @abstractmethod
    def label(self, control: Control) -> str:
        """What it does, as the list of what was done says it, given the control before."""


class Wrapped(Edit):
    """Base of the edits that say where another one is made."""

    edit: SerializeAsAny[Edit]

    @property
    def innermost(self) -> Edit:
        """What is done, wherever that is."""
        return self.edit.innermost if isinstance(self.edit, Wrapped) else self.edit

    def look(self, control: Control) -> Control:
        """The control as the other edit sees it."""
        return control

    def snaps(self, control: Control) -> tuple[Snap, ...]:
        return self.edit.snaps(self.look(control))

    def sets(self) -> frozenset[str]:
        return self.edit.sets()

    def removes(self) -> bool:
        return self.edit.removes()

    def remark(self, around: Surroundings) -> str:
        return self.edit.remark(around)

    def label(self, control: Control) -> str:
        return self.edit.label(self.look(control))


def part_of(control: Control, part_id: str) -> Part:
    """The part by its id; raises ``NoSuchThing``."""
    place = place_of_id(control.parts, part_id)
    if place is None:
        raise NoSuchThing(GONE)
    return control.parts[place]


def effect_of(part: Part, effect_id: str) -> AnyEffect:
    """The effect by its id; raises ``NoSuchThing``."""
    for effect in part.effects:
        if effect.id == effect_id:
            return effect
    raise NoSuchThing(GONE)


def with_effects(part: Part, *changed: AnyEffect) -> Part:
    """The part with effects in place of those of the same ids."""
    new = {effect.id: effect for effect in changed}
    return part.evolve(effects=tuple(new.get(effect.id, effect) for effect in part.effects))


def check_unlocked(control: Control, ids: Iterable[str]) -> None:
    """Raises ``Refused`` when one of the parts is locked, ``NoSuchThing`` when one is gone."""
    for part_id in ids:
        refuse_locked(part_of(control, part_id))


def refuse_locked(part: Part) -> None:
    """Raises ``Refused`` when the part is locked."""
    if part.locked:
        raise Refused(f"“{part.name}” is locked. Unlock it in the sheet to change it.")


def each_part(
    control: Control, ids: Iterable[str], change: Callable[[Part], Part], *, held: bool = False
) -> Control:  # fmt: skip
    """The control with ``change`` applied to the named parts, and to all that lies in them when
    ``held``; locked parts refuse. Effects that are ``NEW`` get ids of their own."""
    wanted = frozenset(ids)
    check_unlocked(control, wanted)
    touched = descendants(control, wanted) if held else wanted
    check_unlocked(control, touched)
    number, parts = next_number(control), []
    for part in control.parts:
        changed, number = _numbered(change(part), number) if part.id in touched else (part, number)
        parts.append(changed)
    return control.evolve(parts=tuple(parts), next_number=number)


def _numbered(part: Part, number: int) -> tuple[Part, int]:
    new = [effect for effect in part.effects if effect.id == NEW]
    if not new:
        return part, number
    numbers = iter(range(number, number + len(new)))
    effects = tuple(e.evolve(id=f"e{next(numbers)}") if e.id == NEW else e for e in part.effects)
    return part.evolve(effects=effects), number + len(new)


def moved(control: Control, moves: Mapping[str, Similarity]) -> Control:
    """Every named part with all that lies in it moved and turned on the canvas; locked parts refuse."""
    check_unlocked(control, moves)
    by = {inner: move for name, move in moves.items() for inner in descendants(control, (name,))}
    check_unlocked(control, by)
    return control.evolve(parts=carried_together(control.parts, by))


def roots(control: Control, ids: Iterable[str]) -> tuple[str, ...]:
    """The named parts that do not lie in another of them, back to front."""
    wanted = frozenset(ids)
    for part_id in wanted:
        part_of(control, part_id)
    inside = {part.id: part.within for part in control.parts}

    def lies_in_another(part_id: str) -> bool:
        outer = inside[part_id]
        return outer is not None and (outer in wanted or lies_in_another(outer))

    return tuple(part.id for part in control.parts if part.id in wanted and not lies_in_another(part.id))


def added_roots(before: Control, after: Control) -> tuple[str, ...]:
    """Return the outermost of the parts that were added, back to front."""
    there = {part.id for part in before.parts}
    return roots(after, [part.id for part in after.parts if part.id not in there])


def add_parts(control: Control, parts: Iterable[Part], at: int | None = None) -> Control:
    """Parts put in with new ids, in front of all or at a place in paint order. Those that lie in or
    are clipped to or masked by one another go on doing so."""
    number = next_number(control)
    parts = tuple(parts)
    new = {part.id: f"p{number + count}" for count, part in enumerate(parts)}
    there = {part.id for part in control.parts}
    fresh = []
    for part in parts:
        within, clip = (new.get(i or "", i if i in there else None) for i in (part.within, part.clip))
        follows = tuple(f.evolve(source=new.get(f.source, f.source)) for f in part.follows)
        effects = tuple(_covered_anew(effect, new) for effect in part.effects)
        fresh.append(part.evolve(id=f"p{number}", within=within, clip=clip, follows=follows, effects=effects))
        number += 1
    if len(control.parts) + len(fresh) > MAX_PARTS:
        raise Refused(
            f"A control can have at most {MAX_PARTS} parts; this would make {len(control.parts) + len(fresh)}."
        )
    at = len(control.parts) if at is None else at
    joined = (*control.parts[:at], *fresh, *control.parts[at:])
    return control.evolve(parts=joined, next_number=number)


def _covered_anew(effect: AnyEffect, new: Mapping[str, str]) -> AnyEffect:
    """A mask by a part that has a new id."""
    name = new.get(covering(effect) or "")
    return effect.evolve(cover=PartCover(part=name)) if name else effect


def names_of(control: Control, ids: Iterable[str]) -> str:
    """The names of parts for a label; a count when there are several."""
    wanted = frozenset(ids)
    names = [part.name for part in control.parts if part.id in wanted]
    return names[0] if len(names) == 1 else f"{len(names)} parts"
