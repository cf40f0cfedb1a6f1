"""Copies of a control with other words, icons and colours."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping
from typing import Annotated

from pydantic import Field

from obrell.core.colour.links import literal
from obrell.core.colour.spaces import from_hex, to_oklch
from obrell.core.document.colours import drawn_places, recoloured
from obrell.core.document.following import copy_of
from obrell.core.document.model import Control, Part
from obrell.core.document.states import settle
from obrell.core.edit.base import Surroundings
from obrell.core.edit.values import Change, SetValues
from obrell.core.shapes import Icon, Text
from obrell.core.values.base import Value
from obrell.core.values.colours import Hex
from obrell.core.values.fields import Id, Name

MOST_COLOURS = 5


class Variant(Value):
    """What is other in a copy: its name, words and icons by part, and colours by the colour they stand for."""

    name: Name
    words: Annotated[dict[Id, str], Field(max_length=100)] = Field(default_factory=dict)
    icons: Annotated[dict[Id, str], Field(max_length=100)] = Field(default_factory=dict)
    colours: Annotated[dict[Hex, Hex], Field(max_length=100)] = Field(default_factory=dict)


def texts_of(control: Control) -> list[Part]:
    """The parts whose words a copy can change, back to front."""
    return [part for part in control.parts if isinstance(part.shape, Text)]


def icons_of(control: Control) -> list[Part]:
    """The parts whose icon a copy can change."""
    return [part for part in control.parts if isinstance(part.shape, Icon)]


def main_colours(control: Control, palette: Mapping[str, str]) -> list[str]:
    """The colours that a copy is most likely to change, as they look: the most colourful ones."""
    seen = Counter(literal(place.colour, palette) for place in drawn_places(control))
    used = [colour for colour, _ in seen.most_common()]
    return sorted(used, key=_chroma, reverse=True)[:MOST_COLOURS]


def _chroma(colour: str) -> float:
    return to_oklch(from_hex(colour))[1]


def varied(
    variant: Variant, control: Control, ident: str, *, palette: Mapping[str, str], follows: bool = False
) -> Control:
    """A copy with those changes, under an id of its own, that ``follows`` the control but for them; ``palette`` has
    what swatches look like. Raises ``BadValue`` or ``NoSuchThing`` in words."""
    changes = [Change(path=f"parts/{part}/shape/words", value=words) for part, words in variant.words.items()]
    changes += [Change(path=f"parts/{part}/shape/icon", value=icon) for part, icon in variant.icons.items()]
    copy = copy_of(control, ident) if follows else control.evolve(id=ident, original=None)
    if changes:
        copy = SetValues(changes=tuple(changes)).apply(copy, Surroundings())
    return settle(recoloured(copy, variant.colours, palette).evolve(name=variant.name))
