"""A colour is written as itself (``#rrggbb``) or as a link to a swatch of the kit."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated

from pydantic import AfterValidator, Field

from obrell.core.values.base import Value
from obrell.core.values.fields import Angle, Id, Live

Hex = Annotated[str, Field(pattern=r"^#[0-9a-fA-F]{6}$", max_length=7), AfterValidator(lambda text: text.lower())]
"""Straight sRGB in eight bits a channel, as CSS writes it."""
MOST_CHROMA = 40.0
"""Of a colour of OKLCH on a screen, in hundredths; CSS Color 4 has 40 as 100 % of it."""


class SwatchLink(Value):
    """A colour that follows a swatch, with adjustments made in OKLCH.

    ``tint`` is -100 (black) to 100 (white): the share of the way the lightness goes there, and of its chroma that it
    loses on it. ``chroma`` is what it has more after that, in hundredths. ``hue`` turns the hue by degrees. ``own``
    is what it is instead while it does not follow; the rest is remembered.
    """

    swatch: Id
    tint: Annotated[float, Live("", 1, -100, 100), Field(ge=-100, le=100)] = Field(0.0, title="lighter")
    chroma: Annotated[float, Live("", 1, -20, 20), Field(ge=-MOST_CHROMA, le=MOST_CHROMA)] = Field(
        0.0, title="more chroma"
    )
    hue: Angle = Field(0.0, title="in hue")
    own: Hex | None = Field(None, title="its own colour")


Colour = Hex | SwatchLink


def unlinked(colour: Colour) -> str | None:
    """The literal colour that stands there; None when it follows a swatch."""
    return colour.own if isinstance(colour, SwatchLink) else colour


def follows(colour: Colour) -> SwatchLink | None:
    """The link that a colour follows by; None when it is its own."""
    return colour if isinstance(colour, SwatchLink) and colour.own is None else None


def link_words(link: SwatchLink, names: Mapping[str, str]) -> str:
    """A link as it reads: ``tarn, 14 lighter, 6 less chroma``; ``names`` has what swatches are called, by id."""
    said = [names.get(link.swatch, link.swatch)]
    for value, more, less in ((link.tint, "lighter", "darker"), (link.chroma, "more chroma", "less chroma")):
        if value:
            said.append(f"{abs(value):g} {more if value > 0 else less}")
    return ", ".join((*said, *([f"{link.hue:g}° in hue"] if link.hue else [])))
