"""A material's effects in the colour of the part that they are laid on."""

from __future__ import annotations

from collections.abc import Mapping

from obrell.core.colour.gamut import from_oklch
from obrell.core.colour.links import GREY, half_turn, literal, match
from obrell.core.colour.spaces import Triple, from_hex, to_hex, to_oklch
from obrell.core.document.colours import with_colours
from obrell.core.effects import AnyEffect, Outline, Paint
from obrell.core.values.colours import Colour, follows
from obrell.core.values.paints import Gradient, Solid

LIGHT, DARK = 0.985, 0.08
"""Greys lighter or darker than this (OKLCH lightness) are highlights and shades, and are not recoloured."""


def in_colour(
    effects: tuple[AnyEffect, ...], colour: Colour, palette: Mapping[str, str]
) -> tuple[AnyEffect, ...]:  # fmt: skip
    """Return effects with paints and outlines recoloured: their main colour becomes ``colour``, and the others keep
    their difference from it in OKLCH. The main colour is that of the first normally blended paint. If ``colour``
    follows a swatch, the new colours follow it too. Shadows, glows, white and black stay."""
    base = _main(effects, palette)
    if base is None:
        return effects
    wanted, link = to_oklch(from_hex(literal(colour, palette))), follows(colour)

    def changed(one: Colour) -> Colour:
        mark = to_oklch(from_hex(literal(one, palette)))
        if mark[1] < GREY and not DARK < mark[0] < LIGHT:
            return one
        new = to_hex(from_oklch(_moved(mark, base, wanted)))
        if link is None or link.swatch not in palette:
            return new
        return match(new, link.swatch, palette[link.swatch]).link

    return tuple(with_colours(one, changed) if isinstance(one, Paint | Outline) else one for one in effects)


def _main(effects: tuple[AnyEffect, ...], palette: Mapping[str, str]) -> Triple | None:
    paints = [one.fill for one in effects if isinstance(one, Paint) and one.visible and one.blend == "normal"]
    for fill in paints:
        if isinstance(fill, Solid):
            return to_oklch(from_hex(literal(fill.colour, palette)))
        if isinstance(fill, Gradient):
            marks = [to_oklch(from_hex(literal(stop.colour, palette))) for stop in fill.stops]
            return sorted(marks)[len(marks) // 2]
    return None


def _moved(mark: Triple, base: Triple, wanted: Triple) -> Triple:
    """Return an OKLCH colour that differs from ``wanted`` as ``mark`` differs from ``base``."""
    if mark[0] >= base[0]:
        lightness = wanted[0] + (1 - wanted[0]) * (mark[0] - base[0]) / max(1e-6, 1 - base[0])
    else:
        lightness = wanted[0] * mark[0] / max(1e-6, base[0])
    if base[1] < GREY:
        return lightness, wanted[1] * _share(lightness, wanted[0]), wanted[2]
    chroma = mark[1] * wanted[1] / base[1]
    return lightness, chroma, wanted[2] + half_turn(mark[2] - base[2])


def _share(lightness: float, wanted: float) -> float:
    """Return how much of its chroma a colour keeps when it is made lighter or darker, 0 to 1."""
    room = 1 - wanted if lightness > wanted else wanted
    return max(0.0, 1 - abs(lightness - wanted) / max(1e-6, room))
