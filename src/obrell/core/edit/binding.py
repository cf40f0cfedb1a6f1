"""Colours from another kit follow the swatch that plays the same role here, else they are their own."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Annotated, TypeVar

from pydantic import Field

from obrell.core.colour.links import literal
from obrell.core.document.colours import places, with_colours
from obrell.core.edit.base import Surroundings
from obrell.core.values.base import Value
from obrell.core.values.colours import Colour, Hex, SwatchLink, follows
from obrell.core.values.fields import Id

V = TypeVar("V", bound=Value)


class Origin(Value):
    """A swatch of the kit that something was copied in: what it was for, and its colour."""

    id: Id
    role: Annotated[str, Field(max_length=40)] = ""
    colour: Hex


Origins = Annotated[tuple[Origin, ...], Field(max_length=200)]


def bound(value: V, origins: Sequence[Origin], around: Surroundings) -> V:
    """A value whose links all lead to swatches of this kit: to the one of the same id, or else of the same role; what
    finds none has the colour that it had there. Without ``origins`` it stays as it is."""
    homes = _homes(origins, around)
    colours = {origin.id: origin.colour for origin in origins}

    def changed(colour: Colour) -> Colour:
        if not isinstance(colour, SwatchLink) or colour.swatch not in homes:
            return colour
        other = homes[colour.swatch]
        return literal(colour, colours) if other is None else colour.evolve(swatch=other)

    return with_colours(value, changed) if homes else value


def unbound_words(values: Iterable[Value], origins: Sequence[Origin], around: Surroundings) -> str:
    """Which swatches that values follow have no like in this kit, in words; nothing when all have."""
    homes = _homes(origins, around)
    links = (follows(place.colour) for value in values for place in places(value))
    followed = dict.fromkeys(link.swatch for link in links if link is not None)
    lost = [swatch for swatch in followed if homes.get(swatch, swatch) is None]
    them = "it" if len(lost) == 1 else "them"
    return f"No swatch here is like {', '.join(lost)}: what followed {them} is its own now." if lost else ""


def _homes(origins: Sequence[Origin], around: Surroundings) -> dict[str, str | None]:
    """For every swatch of the other kit that this one lacks, the one of its role here, if there is one."""
    here = {swatch.id for swatch in around.swatches}
    by_role = {swatch.role: swatch.id for swatch in reversed(around.swatches) if swatch.role}
    return {origin.id: by_role.get(origin.role) for origin in origins if origin.id not in here}
