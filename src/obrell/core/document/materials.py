"""Materials: named stacks of effects that fit any part of any size."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from pydantic import BaseModel

from obrell.core.document.model import Material, Part
from obrell.core.effects import AnyEffect
from obrell.core.shapes import Text
from obrell.core.text.fonts import load
from obrell.core.values.base import Value
from obrell.core.values.fields import live_of

LETTER_SHARE = 0.55
"""What counts as the height of words, as a share of their capitals: their strokes are far thinner."""
DECIMALS = 2


def extent_of(part: Part, frame: tuple[float, float]) -> float:
    """What a material's lengths are shares of: the shorter side of the frame; less for words."""
    if isinstance(part.shape, Text):
        return load(part.shape.font).cap_height * part.shape.size * LETTER_SHARE
    return max(1.0, min(frame))


def lengths_of(effect: Value) -> list[str]:
    """The paths of all lengths in px below an effect."""
    return [path for path, _ in _lengths(effect, "")]


def scaled_effects(material: Material, extent: float, *, scaled: bool = True) -> tuple[AnyEffect, ...]:
    """The material's effects for a part of that extent: lengths that are shares of it multiplied, the others
    as they are."""
    factor = extent / material.extent if scaled else 1.0
    return tuple(_scaled(effect, factor, frozenset(material.fixed), effect.id) for effect in material.effects)


def _scaled(effect: AnyEffect, factor: float, fixed: frozenset[str], name: str) -> AnyEffect:
    for path, value in _lengths(effect, ""):
        if f"{name}/{path}" not in fixed:
            effect = _with(effect, path.split("/"), round(value * factor, DECIMALS))
    return effect


def _lengths(value: Value, before: str) -> list[tuple[str, float]]:
    found: list[tuple[str, float]] = []
    for name, field in type(value).model_fields.items():
        inner, live = getattr(value, name), live_of(field.metadata)
        if live is not None and live.unit == "px":
            found.append((f"{before}{name}", float(inner)))
        elif isinstance(inner, Value):
            found.extend(_lengths(inner, f"{before}{name}/"))
    return found


def _with(value: Any, way: list[str], number: float) -> Any:
    name = way[0]
    if len(way) > 1:
        return value.evolve(**{name: _with(getattr(value, name), way[1:], number)})
    return value.evolve(**{name: _kept(type(value), name, number)})


def _kept(model: type[BaseModel], name: str, number: float) -> float:
    """Within what the field allows."""
    limits: dict[str, Callable[[float, float], float]] = {"le": min, "ge": max}
    for item in model.model_fields[name].metadata:
        for limit, choose in limits.items():
            bound = getattr(item, limit, None)
            if bound is not None:
                number = choose(number, float(bound))
        if getattr(item, "gt", None) is not None:
            number = max(number, float(item.gt) + 10**-DECIMALS)
    return number
