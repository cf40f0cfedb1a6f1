"""Lengths in px of any value, scaled together."""

from __future__ import annotations

import math
from collections.abc import Collection, Iterator
from typing import Any

from pydantic import BaseModel

from obrell.core.values.base import Value
from obrell.core.values.fields import live_of

DECIMALS = 2
"""Kept of a length that someone will read; also what stands in for more than nothing."""


def scale_lengths(value: Any, factor: float, *, fixed: Collection[str] = (), round_off: bool = False) -> Any:
    """A value with every length in px multiplied, kept within what its field allows; those whose paths below
    the value are ``fixed`` stay."""
    return _scaled(value, factor, frozenset(fixed), round_off, "")


def _scaled(value: Any, factor: float, fixed: frozenset[str], round_off: bool, path: str) -> Any:
    if isinstance(value, tuple):
        return tuple(_scaled(item, factor, fixed, round_off, f"{path}{n}/") for n, item in enumerate(value))
    if not isinstance(value, Value):
        return value
    changes: dict[str, Any] = {}
    for name, field in type(value).model_fields.items():
        old, live = getattr(value, name), live_of(field.metadata)
        if live is not None and live.unit == "px":
            if f"{path}{name}" not in fixed:
                number = round(old * factor, DECIMALS) if round_off else old * factor
                changes[name] = _allowed(type(value), name, number)
        elif isinstance(old, Value | tuple):
            changes[name] = _scaled(old, factor, fixed, round_off, f"{path}{name}/")
    return value.evolve(**changes) if changes else value


def _allowed(model: type[BaseModel], name: str, number: float) -> float:
    for item in model.model_fields[name].metadata:
        number = min(number, getattr(item, "le", math.inf))
        number = max(number, getattr(item, "ge", -math.inf))
        if getattr(item, "gt", None) is not None:
            number = max(number, item.gt + 10**-DECIMALS)
    return number


def lengths_below(value: Value, before: str = "") -> Iterator[tuple[str, str, float]]:
    """Every length in px below a value: its path, its title, how long."""
    for name, field in type(value).model_fields.items():
        inner, live = getattr(value, name), live_of(field.metadata)
        if live is not None and live.unit == "px":
            yield f"{before}{name}", field.title or name, inner
        elif isinstance(inner, Value):
            yield from lengths_below(inner, f"{before}{name}/")
