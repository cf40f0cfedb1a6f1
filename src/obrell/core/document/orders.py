"""Orders of things with ids: one brought together with another."""

from __future__ import annotations

from collections.abc import Sequence


def woven(leading: Sequence[str], other: Sequence[str]) -> list[str]:
    """The first order, and what only the other one has right behind what it follows there."""
    found = list(leading)
    for place, name in enumerate(other):
        if name not in found:
            found.insert(found.index(other[place - 1]) + 1 if place else 0, name)
    return found
