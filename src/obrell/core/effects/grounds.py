"""What effects take up of the ground's colour."""

from __future__ import annotations

from typing import TypeVar

from obrell.core.colour.spaces import mixed
from obrell.core.effects.base import Effect

Kind = TypeVar("Kind", bound=Effect)


def taking_up(effect: Kind, ground: str) -> Kind:
    """The effect with as much of a ground's colour, ``#rrggbb``, in its own as its ``takes_up`` says."""
    share: float = getattr(effect, "takes_up", 0.0)
    own = getattr(effect, "colour", ground)
    return effect.evolve(colour=mixed(str(own), ground, share), takes_up=0.0) if share else effect
