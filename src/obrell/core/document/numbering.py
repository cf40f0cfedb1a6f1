"""The numbers that ids of parts, effects and guides are made with."""

from __future__ import annotations

import re
from collections.abc import Iterator
from itertools import count

from obrell.core.document.model import Control, Part
from obrell.core.values.differences import Extra

_NUMBERED = re.compile(r"[a-z]+([0-9]{1,15})")
"""An id made with a number. Longer ones are no counter's: they are never met by counting."""
HIGHEST = 10**12
"""Up to here the next number is counted upwards; in a document with higher ones the lowest free one is taken."""


def next_number(control: Control) -> int:
    """Return a number that no id of the control's parts, effects, guides, kept looks or states has. It is the stored
    counter, or above all numbers that are there when the counter is behind, as in a file written by hand."""
    taken = {int(found[1]) for name in _ids(control) if (found := _NUMBERED.fullmatch(name))}
    wanted = max(control.next_number, 1 + max(taken, default=0))
    return wanted if wanted <= HIGHEST else next(free for free in count(1) if free not in taken)


def _ids(control: Control) -> Iterator[str]:
    for part in control.parts:
        yield from _ids_of(part)
    yield from (guide.id for guide in control.guides)
    for one in (*control.states, *control.editions):
        for difference in one.differences:
            if isinstance(difference, Extra):
                yield from _ids_within(difference.value)


def _ids_of(part: Part) -> Iterator[str]:
    yield part.id
    yield from (effect.id for effect in part.effects)
    for version in part.versions:
        yield from (effect.id for effect in version.effects)


def _ids_within(value: object) -> Iterator[str]:
    """Return the ids in what a state adds, which is kept as plain data."""
    if isinstance(value, dict):
        name = value.get("id")
        if isinstance(name, str):
            yield name
        for child in value.values():
            yield from _ids_within(child)
    elif isinstance(value, list | tuple):
        for child in value:
            yield from _ids_within(child)
