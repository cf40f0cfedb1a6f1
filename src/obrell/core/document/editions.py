"""A control in an edition: at a size of its own, or as it is drawn for a density.

An edition is the whole control made otherwise. What it comes to is a control like any other, with its states and
readings, and everything that is done with a control is done with it: states are laid over it, readings drive its
values. A size is laid over the regular control, the art for a density over that.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated

from pydantic import Field

from obrell.core.document.follows import settled
from obrell.core.document.laying import laid
from obrell.core.document.model import REGULAR, Control, DensityEdition, Edition
from obrell.core.document.states import all_states, words_of
from obrell.core.errors import NoSuchThing, Refused
from obrell.core.workspace import OfObject

EditionsText = Annotated[str, Field(pattern=r"^([a-z][a-z0-9-]{0,39}(,|$))*$", max_length=100)]
"""Editions by their ids, as they are written in addresses, with commas between."""
REGULAR_NAME = "Regular"
_LOOKS = OfObject[Control](64)


def editions_of(control: Control, names: tuple[str, ...]) -> tuple[Edition, ...]:
    """Editions by their ids, in the order in which they are laid; raises ``NoSuchThing``, and ``Refused`` for two of a
    kind."""
    there = {one.id for one in control.editions}
    for name in names:
        if name not in there and name != REGULAR:
            raise NoSuchThing(f"“{control.name}” has no size and no art for a density “{name}”.")
    found = tuple(one for one in control.editions if one.id in names)
    if len({one.kept_in for one in found}) < len(found):
        raise Refused("A control is drawn at one size and for one density at a time.")
    return found


def known_editions(control: Control, text: str) -> tuple[str, ...]:
    """Those named in a text that the control has, the last of each kind: what is looked at may be older."""
    wanted = text.split(",")
    last = {one.kept_in: one for name in wanted for one in control.editions if one.id == name}
    return tuple(one.id for one in control.editions if one in last.values())


def in_editions(control: Control, names: tuple[str, ...]) -> Control:
    """The control as it is in editions, by their ids, without editions of its own; raises ``NoSuchThing``."""
    laying = editions_of(control, names)
    if not laying:
        return control
    return _LOOKS.get(control, tuple(one.id for one in laying), lambda: _in_editions(control, laying))


def _in_editions(control: Control, laying: tuple[Edition, ...]) -> Control:
    for one in laying:
        control = laid(control, one.differences).control
    control = control.evolve(sizes=(), arts=())
    return settled(control, words_of(control))


def looked_at(control: Control, text: str) -> Control:
    """The control in those editions named in a text that it has."""
    return in_editions(control, known_editions(control, text))


def sizes_of(control: Control) -> tuple[tuple[str, str], ...]:
    """Its sizes by id and name, the regular one first."""
    return ((REGULAR, REGULAR_NAME), *((one.id, one.name) for one in control.sizes))


def art_for(control: Control, density: float) -> DensityEdition | None:
    """What it is drawn as at a density, where that is something of its own."""
    return next((one for one in control.arts if one.density == density), None)


def at_density(control: Control, density: float, size: str = REGULAR) -> Control:
    """The control at a size, by its id, as it is drawn at a density; raises ``NoSuchThing``."""
    art = art_for(control, density)
    return in_editions(control, (size,) if art is None else (size, art.id))


def all_editions(control: Control) -> Iterator[Control]:
    """The control, in each of its sizes, and as it is drawn for each density that has art of its own."""
    yield control
    for one in control.editions:
        yield in_editions(control, (one.id,))


def every_look(control: Control) -> Iterator[Control]:
    """The control in each state of each of those."""
    for edition in all_editions(control):
        yield from all_states(edition).values()
