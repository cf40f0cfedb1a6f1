"""Effects as the shelf is made of them, for a part that is 40 px high."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from obrell.core.effects import DropShadow, Effect, InnerShadow, Paint
from obrell.core.effects.offsets import Cast
from obrell.core.values.blends import Blend
from obrell.core.values.colours import Colour
from obrell.core.values.paints import Fill, Linear, Radial, Solid, Stop

EXTENT = 40.0
Mark = tuple[float, Colour] | tuple[float, Colour, float]
"""A stop: its place from 0 to 1, its colour, and its opacity from 0 to 1 when it is not 1."""


def numbered(effects: Sequence[Effect]) -> tuple[Effect, ...]:
    """The effects under ids of their own, back to front."""
    return tuple(effect.evolve(id=f"e{number}") for number, effect in enumerate(effects, start=1))


def stops(*marks: Mark) -> tuple[Stop, ...]:
    """The stops of a gradient."""
    return tuple(Stop(position=mark[0], colour=mark[1], opacity=mark[2] if len(mark) == 3 else 1.0) for mark in marks)


def paint(*marks: Mark, angle: float = 180, blend: Blend = "normal", opacity: float = 1.0) -> Paint:
    """A paint of one colour, or of a straight gradient at an angle in degrees."""
    fill: Fill = Solid(colour=marks[0][1]) if len(marks) == 1 else Linear(stops=stops(*marks), angle=angle)
    return Paint(id="e0", fill=fill, blend=blend, opacity=opacity)


def pool(*marks: Mark, x: float = 0.5, y: float = 0.5, rx: float = 0.5, ry: float = 0.5, **more: Any) -> Paint:
    """A paint that spreads from a place in the frame, both given as shares of it."""
    fill = Radial(stops=stops(*marks), centre_x=x, centre_y=y, radius_x=rx, radius_y=ry)
    return Paint(id="e0", fill=fill, **more)


def drop(by: float, blur: float, opacity: float, colour: str = "#0c181c", spread: float = 0.0) -> DropShadow:
    """A shadow that falls away from the key light, px."""
    offset = Cast(distance=by, follow=True)
    return DropShadow(id="e0", offset=offset, blur=blur, opacity=opacity, colour=colour, spread=spread)


def inner(by: float, blur: float, opacity: float, colour: str, blend: Blend = "normal") -> InnerShadow:
    """A shadow within the outline, px: away from the key light, or from below for a distance below 0."""
    cast = Cast(distance=abs(by), follow=by >= 0, direction=180)
    return InnerShadow(id="e0", offset=cast, blur=blur, opacity=opacity, colour=colour, blend=blend)
