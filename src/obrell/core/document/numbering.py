"""The number for the next part, effect or guide of a control."""

from __future__ import annotations

from collections.abc import Iterator

from obrell.core.document.model import Control, Part
from obrell.core.values.differences import Extra
from obrell.core.values.numbers import free_number


def next_number(control: Control) -> int:
    """Return a number that no id of a control has: of its parts, effects, guides, kept looks and states."""
    return free_number(control.next_number, _ids(control))


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
    """Return the ids in the plain data of what a state adds."""
    if isinstance(value, dict):
        name = value.get("id")
        if isinstance(name, str):
            yield name
        for child in value.values():
            yield from _ids_within(child)
    elif isinstance(value, list | tuple):
        for child in value:
            yield from _ids_within(child)
