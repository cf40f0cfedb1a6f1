"""Materials: named stacks of effects that fit any part of any size."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from obrell.core.document.lengths import lengths_below, scale_lengths
from obrell.core.document.model import Material, Part
from obrell.core.document.value_paths import value_at, with_value
from obrell.core.effects import AnyEffect
from obrell.core.shapes import Text
from obrell.core.text.fonts import load
from obrell.core.values.base import Value

SAME = 1e-6
LETTER_SHARE = 0.55
"""What counts as the height of words, as a share of their capitals: their strokes are far thinner."""


def extent_of(part: Part) -> float:
    """What a material's lengths are shares of, for a part as it is drawn: the shorter side of the frame; less
    for words."""
    if isinstance(part.shape, Text):
        return load(part.shape.font).cap_height * part.shape.size * LETTER_SHARE
    frame = part.shape.frame()
    return max(1.0, min(frame.width, frame.height))


def scaled_effects(material: Material, extent: float, *, scaled: bool = True) -> tuple[AnyEffect, ...]:
    """The material's effects for a part of that extent: lengths that are shares of it multiplied, the others
    as they are."""
    if not scaled:
        return material.effects
    fixed = [path.split("/", 1) for path in material.fixed]
    factor = extent / material.extent
    return tuple(
        scale_lengths(effect, factor, fixed=[path for name, path in fixed if name == effect.id], round_off=True)
        for effect in material.effects
    )


@dataclass(frozen=True, slots=True)
class Length:
    """A length of a material: the effect's id and label, its path below it, its title, how many px it is for the
    extent the material was made for, and whether it stays that at every size."""

    effect: str
    label: str
    path: str
    title: str
    value: float
    fixed: bool


def lengths_of(material: Material) -> tuple[Length, ...]:
    """Every length of a material that is not 0."""
    return tuple(
        Length(effect.id, effect.heading, path, title, value, f"{effect.id}/{path}" in material.fixed)
        for effect in material.effects
        for path, title, value in lengths_below(effect)
        if value
    )


def with_rule(material: Material, effect: str, path: str, *, fixed: bool) -> Material:
    """The material with one of its lengths fixed in px, or a share of the part's size."""
    name = f"{effect}/{path}"
    rest = tuple(other for other in material.fixed if other != name)
    return material.evolve(fixed=(*rest, name) if fixed else rest)


@dataclass(frozen=True, slots=True)
class OwnValue:
    """A value of a linked part that is not its material's: the effect's id, its path below it, what the material
    has there."""

    effect: str
    path: str
    material: Any


def own_values(part: Part, material: Material) -> tuple[OwnValue, ...]:
    """What a linked part has of its own. Effects are matched by kind, in their order."""
    own: list[OwnValue] = []
    for effect, fresh in _matched(part, _laid(part, material)):
        own += [OwnValue(effect.id, path, value) for path, value in _differences(effect, fresh)]
    return tuple(own)


def relaid(part: Part, was: Material, material: Material, extent: float) -> tuple[AnyEffect, ...]:
    """The effects of a part that was linked to ``was`` as those of ``material``: its own values and the effects it
    has more than the material are kept."""
    pairs = list(_matched(part, _laid(part, was)))
    own = [(effect.kind, [(path, value_at(effect, path)) for path, _ in _differences(effect, old)])
           for effect, old in pairs]  # fmt: skip
    result: list[AnyEffect] = []
    for fresh in scaled_effects(material, extent):
        kept = next((item for item in own if item[0] == fresh.kind), None)
        changed: AnyEffect = fresh
        if kept is not None:
            own.remove(kept)
            for path, value in kept[1]:
                changed = with_value(changed, path, value)
        result.append(changed)
    matched = {effect.id for effect, _ in pairs}
    return (*result, *(e for e in part.effects if e.lies_in() != "whole" and e.id not in matched))


def _laid(part: Part, material: Material) -> tuple[AnyEffect, ...]:
    return scaled_effects(material, part.material_extent or extent_of(part))


def _matched(part: Part, effects: tuple[AnyEffect, ...]) -> Iterator[tuple[AnyEffect, AnyEffect]]:
    """Each effect of the part with the material's that it came from."""
    left = list(effects)
    for effect in part.effects:
        found = next((other for other in left if other.kind == effect.kind), None)
        if found is not None:
            left.remove(found)
            yield effect, found


def _differences(value: Value, other: Value, before: str = "") -> Iterator[tuple[str, Any]]:
    """Paths at which two values of one kind differ, and what the other has there."""
    for name in type(value).model_fields:
        one, two, path = getattr(value, name), getattr(other, name), f"{before}{name}"
        if name == "id" or one == two:
            continue
        if isinstance(one, Value) and type(one) is type(two):
            yield from _differences(one, two, f"{path}/")
        elif not (isinstance(one, float) and abs(one - two) < SAME):
            yield path, two
