"""The colours a document uses, and others in their place."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping
from functools import cache
from typing import Any, TypeVar, get_args

from obrell.core.document.model import Control
from obrell.core.values.base import Value
from obrell.core.values.colours import SwatchLink

V = TypeVar("V", bound=Value)


def colours_of(value: Value) -> list[str]:
    """The literal colours of one part or effect, the most used first."""
    counts: Counter[str] = Counter()
    _count(value, counts)
    return [colour for colour, _ in counts.most_common()]


def used_colours(controls: Iterable[Control]) -> list[str]:
    """Literal colours, the most used first, each once."""
    counts: Counter[str] = Counter()
    for control in controls:
        _count(control.parts, counts)
    return [colour for colour, _ in counts.most_common()]


def recoloured(value: V, colours: Mapping[str, str]) -> V:
    """The same with literal colours replaced wherever they are used, by what stands for them in lower-case
    hexadecimal; what does not change stays the same object."""
    changed: V = _recoloured(value, colours) if colours else value
    return changed


@cache
def colour_fields(kind: type[Value]) -> frozenset[str]:
    """The fields of a kind of value that hold a colour, literal or following a swatch."""
    fields = kind.model_fields.items()
    return frozenset(name for name, field in fields if SwatchLink in get_args(field.annotation))


def _count(value: Any, counts: Counter[str]) -> None:
    if isinstance(value, tuple):
        for item in value:
            _count(item, counts)
    elif isinstance(value, Value):
        colours = colour_fields(type(value))
        for name in type(value).model_fields:
            child = getattr(value, name)
            if name in colours and isinstance(child, str):
                counts[child] += 1
            else:
                _count(child, counts)


def _recoloured(value: Any, colours: Mapping[str, str]) -> Any:
    if isinstance(value, tuple):
        items = tuple(_recoloured(item, colours) for item in value)
        return value if all(one is other for one, other in zip(items, value, strict=True)) else items
    if not isinstance(value, Value):
        return value
    own, changes = colour_fields(type(value)), {}
    for name in type(value).model_fields:
        child = getattr(value, name)
        new = colours.get(child, child) if name in own and isinstance(child, str) else _recoloured(child, colours)
        if new is not child:
            changes[name] = new
    return value.evolve(**changes) if changes else value
