"""Colours from another kit follow the swatch that plays the same role here, else they are their own."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, TypeVar

from pydantic import Field

from obrell.core.colour.links import literal
from obrell.core.document.colours import with_colours
from obrell.core.edit.base import Surroundings
from obrell.core.values.base import Value
from obrell.core.values.colours import Colour, Hex, SwatchLink
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
    if not origins:
        return value
    here = {swatch.id for swatch in around.swatches}
    by_role = {swatch.role: swatch.id for swatch in reversed(around.swatches) if swatch.role}
    known = {origin.id: origin for origin in origins}
    colours = {origin.id: origin.colour for origin in origins}

    def changed(colour: Colour) -> Colour:
        if not isinstance(colour, SwatchLink) or colour.swatch in here:
            return colour
        origin = known.get(colour.swatch)
        if origin is None:
            return colour
        other = by_role.get(origin.role)
        return literal(colour, colours) if other is None else colour.evolve(swatch=other)

    return with_colours(value, changed)
