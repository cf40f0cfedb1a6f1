"""A colour is written as itself (``#rrggbb``) or as a link to a swatch of the kit."""

from __future__ import annotations

from typing import Annotated

from pydantic import AfterValidator, Field

from obrell.core.values.base import Value
from obrell.core.values.fields import Angle, Id

Hex = Annotated[str, Field(pattern=r"^#[0-9a-fA-F]{6}$", max_length=7), AfterValidator(lambda text: text.lower())]
"""Straight sRGB in eight bits a channel, as CSS writes it."""


class SwatchLink(Value):
    """A colour that follows a swatch, with adjustments made in OKLCH.

    ``tint`` is -100 (black) to 100 (white): the share of the way the lightness goes there.
    ``hue`` turns the hue by degrees.
    """

    swatch: Id
    tint: Annotated[float, Field(ge=-100, le=100)] = 0.0
    hue: Angle = 0.0


Colour = Hex | SwatchLink
