"""Edits that lead one place by hand, which comes to lie on what is near."""

from __future__ import annotations

from abc import abstractmethod
from collections.abc import Callable
from dataclasses import dataclass
from typing import Self

from obrell.core.document.model import Control
from obrell.core.edit.base import Edit
from obrell.core.edit.snapping import Snap, Snapping, pulled_by, snap_point
from obrell.core.geometry.plane import Point, along_eighths

STILL = 1e-9


@dataclass(frozen=True, slots=True)
class Lead:
    """A place on the canvas that is led, logical px, each coordinate None where it may not give way; the ids of what
    moves with it, and places of its own that stay."""

    x: float | None
    y: float | None
    moving: tuple[str, ...] = ()
    own: tuple[Point, ...] = ()


class Led(Edit):
    """Base of such edits: with ``snap`` the place is drawn to what is near."""

    snap: Snapping | None = None

    @abstractmethod
    def lead(self, control: Control) -> Lead:
        """What is led, and to where by hand."""

    @abstractmethod
    def shifted(self, dx: float, dy: float) -> Self:
        """The same edit leading so much further, without snapping."""

    def snaps(self, control: Control) -> tuple[Snap, ...]:
        if self.snap is None:
            return ()
        lead = self.lead(control)
        return snap_point(control, lead.moving, lead.x, lead.y, self.snap, lead.own)

    def settled(self, control: Control) -> Self:
        """The edit with its place where it comes to lie."""
        return self if self.snap is None else self.shifted(*pulled_by(self.snaps(control)))


@dataclass(frozen=True, slots=True)
class Way:
    """A way on the canvas as a constraint leaves it, logical px, and whether it may still give way across and down:
    along an axis only along it, aslant not at all."""

    dx: float
    dy: float
    across: bool = True
    down: bool = True

    def end(self, start: Point) -> Point:
        """Where it ends."""
        return Point(start.x + self.dx, start.y + self.dy)

    def lead(self, start: Point, moving: tuple[str, ...] = (), own: tuple[Point, ...] = ()) -> Lead:
        """What is led along it from ``start``."""
        end = self.end(start)
        return Lead(end.x if self.across else None, end.y if self.down else None, moving, own)


def freely(dx: float, dy: float, constrain: Callable[[float, float], tuple[float, float]] | None) -> Way:
    """The way as the constraint leaves it."""
    if constrain is None:
        return Way(dx, dy)
    across, down = constrain(dx, dy)
    return Way(across, down, abs(down) < STILL, abs(across) < STILL)


def ray(start: Point, x: float, y: float, *, constrained: bool) -> Way:
    """The way from one place to another, ``constrained`` to multiples of 45°."""
    return freely(x - start.x, y - start.y, along_eighths if constrained else None)
