"""The effects a part is drawn with: its own, and what its kind itself shows."""

from __future__ import annotations

from typing import TypeVar

from obrell.core.document.model import Part
from obrell.core.effects import Effect, Paint
from obrell.core.effects.stain import Stain
from obrell.core.shapes import Shape
from obrell.core.workspace import remembered

Effects = tuple[Effect, ...]
Kind = TypeVar("Kind", bound=Effect)


def effects_of(part: Part) -> Effects:
    """In paint order. A picture's own pixels lie below all; the colours of a text's runs lie on the paint
    at the bottom, below whatever finishes both."""
    return part.effects if part.shape.plain else _with_own(part.shape, part.effects)


@remembered(1024)
def _with_own(shape: Shape, effects: Effects) -> Effects:
    ground = shape.ground()
    if ground is not None:
        return (Paint(id="own", fill=ground), *effects)
    stains = tuple(
        Stain(id=f"own{number}", piece=piece, colour=colour) for number, (piece, colour) in enumerate(shape.stains())
    )
    first = next((number for number, effect in enumerate(effects) if isinstance(effect, Paint)), -1)
    return (*effects[: first + 1], *stains, *effects[first + 1 :])


def shown_of(part: Part, kind: type[Kind]) -> list[Kind]:
    """The effects of one kind that are to be seen, in their order."""
    return [effect for effect in part.effects if isinstance(effect, kind) and effect.seen]


def painted_of(part: Part) -> list[Effect]:
    """The effects that paint, in their order: those to be seen, without those of the whole part."""
    shown = [effect for effect in effects_of(part) if effect.seen]
    return [effect for effect in shown if effect.lies_in() != "whole"]
