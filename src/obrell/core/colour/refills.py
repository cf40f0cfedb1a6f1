"""What becomes of a fill when it is made one of another kind: its colours stay, in tones where there were too few."""

from __future__ import annotations

from obrell.core.colour.links import adjusted, literal
from obrell.core.values.colours import Colour, SwatchLink
from obrell.core.values.paints import (
    AnyFill,
    Conic,
    Gradient,
    Linear,
    Picture,
    Radial,
    Ramp,
    Solid,
    Space,
    Stop,
    Texture,
)

TONE = 24.0
"""How far the light and the dark tone of a gradient made from one colour are from it, as the tint of a link."""


def toned(colour: Colour, tint: float) -> Colour:
    """A lighter (to 100) or darker (to -100) tone of a colour; one that follows a swatch goes on following."""
    if isinstance(colour, SwatchLink) and colour.own is None:
        return colour.evolve(tint=max(-100.0, min(100.0, colour.tint + tint)))
    return adjusted(literal(colour, {}), tint, 0, 0)


def refilled(fill: AnyFill, kind: str) -> AnyFill:
    """The same colours as another kind of fill. One colour becomes a gradient from its light tone through itself to
    its dark one, or a falloff that ends at no opacity."""
    if kind == fill.kind:
        return fill
    if isinstance(fill, Picture):
        return refilled(Solid(), kind)
    if kind == "solid":
        return Solid(colour=_middle(fill))
    if kind == "texture":
        ends = (fill.stops[0].colour, fill.stops[-1].colour) if isinstance(fill, Gradient) else ()
        return Texture(colour=ends[0], second=ends[1]) if ends else Texture()
    space: Space = fill.space if isinstance(fill, Gradient) else "srgb"
    kinds: dict[str, type[Radial] | type[Ramp] | type[Conic]] = {"radial": Radial, "ramp": Ramp, "conic": Conic}
    return kinds.get(kind, Linear)(stops=_stops(fill, kind), space=space)


def _middle(fill: Gradient | Texture | Solid) -> Colour:
    """Of three stops or more the one in the middle, so that a colour made a gradient comes back as it was."""
    if not isinstance(fill, Gradient):
        return fill.colour
    middle = len(fill.stops) > 2
    return min(fill.stops, key=lambda stop: abs(stop.position - 0.5) if middle else stop.position).colour


def _stops(fill: Gradient | Texture | Solid, kind: str) -> tuple[Stop, ...]:
    if isinstance(fill, Gradient):
        return fill.stops
    if isinstance(fill, Texture):
        ends = (Stop(position=0, colour=fill.colour), Stop(position=1, colour=fill.second))
    elif kind == "ramp":
        ends = (Stop(position=0, colour=fill.colour), Stop(position=1, colour=fill.colour, opacity=0))
    else:
        light, dark = toned(fill.colour, TONE), toned(fill.colour, -TONE)
        return Stop(position=0, colour=light), Stop(position=0.5, colour=fill.colour), Stop(position=1, colour=dark)
    return ends
