"""What was read of swatches, brought into a kit."""

from __future__ import annotations

from collections.abc import Mapping
from typing import TypeVar

from pydantic import ValidationError

from obrell.core.document.model import Colourway, KitSettings, Swatch
from obrell.core.interchange.palettes.model import Palette
from obrell.core.values.base import bad_value
from obrell.core.values.slugs import free_id

K = TypeVar("K", bound=KitSettings)
NO_COLOUR = "#808080"
"""Of a swatch that is only said to be like another."""


def brought_in(kit: K, read: Palette) -> K:
    """The kit with what was read: a swatch of a name that is there has its colour, others come to the end, and so do
    colourways. Raises ``BadValue`` in words."""
    try:
        return _brought_in(kit, read)
    except ValidationError as error:
        raise bad_value(error, Swatch) from error


def _brought_in(kit: K, read: Palette) -> K:
    swatches = list(kit.swatches)
    keys: dict[str, int] = {}
    for one in read.swatches:
        place = _place(swatches, one.name)
        if place is None:
            ident = free_id(one.name, (other.id for other in swatches))
            swatches.append(Swatch(id=ident, name=one.name, colour=one.colour or NO_COLOUR, role=one.role))
        else:
            old = swatches[place]
            swatches[place] = old.evolve(colour=one.colour or old.colour, role=one.role or old.role, like=None)
        keys[one.key or one.name] = len(swatches) - 1 if place is None else place
    for one in read.swatches:
        target, place = keys.get(one.like), keys[one.key or one.name]
        if target is not None and target != place:
            swatches[place] = swatches[place].evolve(like=swatches[target].id)
    return kit.evolve(swatches=tuple(swatches), colourways=_ways(kit, read, swatches, keys))


def _place(swatches: list[Swatch], name: str) -> int | None:
    """Where a swatch of that name is, or one of that id where no name says so."""
    wanted = name.casefold()
    by_name = (at for at, one in enumerate(swatches) if one.name.casefold() == wanted)
    return next(by_name, next((at for at, one in enumerate(swatches) if one.id == name), None))


def _ways(
    kit: KitSettings, read: Palette, swatches: list[Swatch], keys: Mapping[str, int]
) -> tuple[Colourway, ...]:  # fmt: skip
    ways = list(kit.colourways)
    for name, colours in read.colourways.items():
        places = ((keys.get(key, _place(swatches, key)), colour) for key, colour in colours.items())
        known = {swatches[at].id: colour for at, colour in places if at is not None}
        place = next((at for at, way in enumerate(ways) if name.casefold() in (way.name.casefold(), way.id)), None)
        if place is None:
            ways.append(Colourway(id=free_id(name, ("day", *(way.id for way in ways))), name=name, colours=known))
        else:
            ways[place] = ways[place].evolve(colours=dict(ways[place].colours) | known)
    return tuple(ways)
