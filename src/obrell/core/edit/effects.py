"""Adding, ordering and removing effects."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from obrell.core.document.model import Control, Part
from obrell.core.edit.base import NEW, Edit, Surroundings, each_part, effect_of, names_of, part_of
from obrell.core.effects import EFFECTS, AnyEffect, Effect, Paint
from obrell.core.errors import Refused
from obrell.core.values.fields import Id
from obrell.core.values.paints import Linear, Solid, Stop

SOFT_LIGHT = Linear(
    stops=(Stop(position=0, colour="#ffffff", opacity=0.4), Stop(position=1, colour="#ffffff", opacity=0))
)
"""The first fill of a paint that is added over another one."""


def _with_effect(control: Control, part_id: str, effect: Effect, after: str = "") -> Control:
    """The effect as a new one, on top of the list or right after another."""

    def changed(part: Part) -> Part:
        ids = [e.id for e in part.effects]
        at = ids.index(after) + 1 if after in ids else len(ids)
        return part.evolve(effects=(*part.effects[:at], effect.evolve(id=NEW), *part.effects[at:]))

    return each_part(control, [part_id], changed)


class AddEffect(Edit):
    """A new effect of a kind with its usual values, on top of its zone."""

    kind: Literal["add-effect"] = "add-effect"
    part: Id
    effect: str

    def apply(self, control: Control, around: Surroundings) -> Control:
        if self.effect not in EFFECTS:
            raise Refused(f"“{self.effect}” is not a kind of effect.")
        part = part_of(control, self.part)
        return _with_effect(control, self.part, _begun(self.effect, part))

    def label(self, control: Control) -> str:
        kind = EFFECTS[self.effect].label.lower() if self.effect in EFFECTS else "effect"
        return f"Added {kind} to {names_of(control, [self.part])}"


def _begun(kind: str, part: Part) -> Effect:
    """Return a new effect for a part. A second paint is a soft light from above."""
    effect = EFFECTS[kind](id=NEW).fitted_to(part.x, part.y)
    if not isinstance(effect, Paint):
        return effect
    if any(isinstance(one, Paint) for one in part.effects):
        return effect.evolve(fill=SOFT_LIGHT)
    return effect.evolve(fill=Solid(colour=part.shape.first_colour))


class DuplicateEffect(Edit):
    """A copy right above the effect."""

    kind: Literal["duplicate-effect"] = "duplicate-effect"
    part: Id
    effect: Id

    def apply(self, control: Control, around: Surroundings) -> Control:
        effect = effect_of(part_of(control, self.part), self.effect)
        return _with_effect(control, self.part, effect, after=self.effect)

    def label(self, control: Control) -> str:
        return f"Duplicated {_named(control, self.part, self.effect)}"


class RemoveEffect(Edit):
    """An effect taken off."""

    kind: Literal["remove-effect"] = "remove-effect"
    part: Id
    effect: Id

    def apply(self, control: Control, around: Surroundings) -> Control:
        effect_of(part_of(control, self.part), self.effect)

        def without(part: Part) -> Part:
            return part.evolve(effects=tuple(e for e in part.effects if e.id != self.effect))

        return each_part(control, [self.part], without)

    def removes(self) -> bool:
        return True

    def label(self, control: Control) -> str:
        return f"Removed {_named(control, self.part, self.effect)}"


class MoveEffect(Edit):
    """An effect moved inside its zone: by places, positive towards the front, or to the place of another."""

    kind: Literal["move-effect"] = "move-effect"
    part: Id
    effect: Id
    by: Annotated[int, Field(ge=-400, le=400)] = 0
    to: Id | None = None

    def apply(self, control: Control, around: Surroundings) -> Control:
        return each_part(control, [self.part], self._moved)

    def label(self, control: Control) -> str:
        way = "forward" if self._places(part_of(control, self.part)) > 0 else "back"
        return f"Moved {_named(control, self.part, self.effect)} {way}"

    def _places(self, part: Part) -> int:
        """How far it moves among the effects of its zone."""
        if self.to is None:
            return self.by
        effect, other = effect_of(part, self.effect), effect_of(part, self.to)
        zone = _zone_of(part, effect)
        if other not in zone:
            raise Refused(
                f"{effect.heading} lies in the zone “{effect.lies_in()}” and stays there; "
                f"{other.said} lies in “{other.lies_in()}”."
            )
        return zone.index(other) - zone.index(effect)

    def _moved(self, part: Part) -> Part:
        effect = effect_of(part, self.effect)
        zone = _zone_of(part, effect)
        at = zone.index(effect)
        to = min(max(at + self._places(part), 0), len(zone) - 1)
        zone.insert(to, zone.pop(at))
        following = iter(zone)
        return part.evolve(
            effects=tuple(next(following) if e.lies_in() == effect.lies_in() else e for e in part.effects)
        )


def _zone_of(part: Part, effect: Effect) -> list[AnyEffect]:
    return [other for other in part.effects if other.lies_in() == effect.lies_in()]


def _named(control: Control, part_id: str, effect_id: str) -> str:
    part = part_of(control, part_id)
    return f"{effect_of(part, effect_id).said} of {part.name}"
