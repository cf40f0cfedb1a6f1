"""What is drawn, as a tree of values that every output reads: bodies, groups, and what is done to the whole of one.

An output knows no documents: which effect is painted when, what is isolated, how clips, masks and blurs follow each
other, and where everything stands is settled here.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from obrell.core.effects.base import Effect, Stand
from obrell.core.paint.areas import Filled
from obrell.core.paint.sources import Laid
from obrell.core.values.blends import Blend


@dataclass(frozen=True, slots=True)
class Body:
    """A part as it is painted, in the layers of ``rendering.md``, each back to front; faded and blended as one."""

    stand: Stand
    cast: tuple[Effect, ...] = ()
    """What lies behind it."""
    surface: tuple[Effect, ...] = ()
    edge: tuple[Effect, ...] = ()
    reaching: tuple[Effect, ...] = ()
    """What is laid over the finished part, blended with what lies below that too."""
    held: tuple[Item, ...] = ()
    """What lies in it, below its surface."""
    opacity: float = 1.0
    blend: Blend = "normal"
    uncut: bool = False
    """Whether all that it casts is seen under its own surface too."""

    @property
    def effects(self) -> tuple[Effect, ...]:
        """All that it paints itself."""
        return (*self.cast, *self.surface, *self.edge, *self.reaching)


@dataclass(frozen=True, slots=True)
class Group:
    """Items laid over each other; ``isolated`` from what lies below them, or each blended with that."""

    items: tuple[Item, ...]
    isolated: bool = False


@dataclass(frozen=True, slots=True)
class Mask:
    """How much of something is seen: ``cover`` over everything, by its opacity or its lightness."""

    cover: Laid | tuple[Item, ...]
    measure: Literal["opacity", "lightness"]
    inverted: bool
    strength: float


@dataclass(frozen=True, slots=True)
class Treated:
    """A body or group of which whatever it casts, and then itself, is each blurred, clipped and masked, in this
    order, and only then blended with what lies below it."""

    item: Body | Group
    deviation: float = 0.0
    """Of a Gaussian, device px."""
    clips: tuple[Filled, ...] = ()
    masks: tuple[Mask, ...] = ()

    @property
    def casts(self) -> bool:
        """Whether there is more than one thing that is treated by itself."""
        return isinstance(self.item, Body) and bool(self.item.cast)


Item = Body | Group | Treated
