"""The colours a document uses."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable
from typing import Any

from obrell.core.document.model import Control
from obrell.core.values.base import Value


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


def _count(value: Any, counts: Counter[str]) -> None:
    if isinstance(value, tuple):
        for item in value:
            _count(item, counts)
    elif isinstance(value, Value):
        for name in type(value).model_fields:
            child = getattr(value, name)
            if name == "colour" and isinstance(child, str):
                counts[child] += 1
            else:
                _count(child, counts)
