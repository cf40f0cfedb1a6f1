"""Short ways to write a sample control down."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from obrell.core.document.model import Canvas, Control, Part
from obrell.core.effects import DropShadow, InnerShadow, Outline, Paint
from obrell.core.effects.offsets import Cast
from obrell.core.values.paints import Linear, Radial, Solid, Stop

Mark = tuple[float, str] | tuple[float, str, float]
"""Position, colour and, unless whole, opacity of a stop."""

NIGHT = "#10222a"


def control(
    id_: str, name: str, width: float, height: float, parts: Sequence[Part], margin: float = 12
) -> Control:  # fmt: skip
    """A control of a size with these parts, back to front."""
    canvas = Canvas(width=width, height=height, margin=margin)
    numbers = [int(e.id[1:]) for part in parts for e in part.effects] + [int(p.id[1:]) for p in parts]
    return Control(id=id_, name=name, canvas=canvas, parts=tuple(parts), next_number=max(numbers) + 1)


def part(
    id_: str, name: str, shape: Any, x: float, y: float, *effects: Any, **values: Any
) -> Part:  # fmt: skip
    """A part at its place, its effects in paint order."""
    numbered = tuple(effect.evolve(id=f"e{number}") for number, effect in enumerate(effects, start=1))
    return Part(id=id_, name=name, shape=shape, x=x, y=y, effects=numbered, **values)


def stops(*marks: Mark) -> tuple[Stop, ...]:
    """Stops from their marks."""
    return tuple(Stop(position=mark[0], colour=mark[1], opacity=mark[2] if len(mark) == 3 else 1.0) for mark in marks)


def linear(*marks: Mark) -> Paint:
    """A linear paint from top to bottom."""
    return Paint(id="e1", fill=Linear(stops=stops(*marks)))


def radial(*marks: Mark) -> Paint:
    """A radial paint."""
    return Paint(id="e1", fill=Radial(stops=stops(*marks)))


def solid(colour: str) -> Paint:
    """A paint of one colour."""
    return Paint(id="e1", fill=Solid(colour=colour))


def falls(down: float) -> Cast:
    """Straight down from the key light, or up when negative."""
    return Cast(distance=down, follow=True) if down >= 0 else Cast(direction=180, distance=-down)


def drop(down: float, blur: float, opacity: float, *, colour: str = NIGHT, spread: float = 0) -> DropShadow:
    """A shadow that falls down by px."""
    return DropShadow(id="e1", offset=falls(down), blur=blur, spread=spread, colour=colour, opacity=opacity)


def inner(
    down: float, blur: float, colour: str, opacity: float, *, spread: float = 0, blend: Any = "normal"
) -> InnerShadow:
    return InnerShadow(
        id="e1", offset=falls(down), blur=blur, spread=spread, colour=colour, opacity=opacity, blend=blend
    )


def outline(width: float, *marks: Mark) -> Outline:
    """An outline inside the edge, its gradient from top to bottom."""
    return Outline(id="e1", width=width, fill=Linear(stops=stops(*marks)))
