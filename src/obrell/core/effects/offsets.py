"""Where a shadow falls: by direction and distance, or by across and down."""

from __future__ import annotations

import math
from typing import Annotated, Literal

from pydantic import Field

from obrell.core.effects.mirrors import Mirrored, flipped_once, seen_from
from obrell.core.geometry.plane import degrees_of, direction, flipped_direction, opposite
from obrell.core.values.base import Value
from obrell.core.values.fields import Angle, Length, Signed


def shorter(length: float, share: float) -> float:
    """Return a share of a length, px, either sign, but at least 1 px; lengths up to 1 px stay."""
    return math.copysign(max(min(abs(length), 1.0), abs(length) * share), length)


class Cast(Value):
    """Light comes *from* ``direction``, so the shadow falls the other way by ``distance``."""

    kind: Literal["cast"] = "cast"
    direction: Angle = Field(0.0, title="from")
    distance: Length = Field(2.0, title="by")
    follow: bool = Field(False, title="follow light")
    mirrored: Mirrored = Field("no", title="light mirrored")

    def vector(self, light: float) -> tuple[float, float]:
        """(across, down) in logical px; ``light`` is the key light's direction in degrees."""
        x, y = direction(self._from(light))
        return -x * self.distance, -y * self.distance

    def shortened(self, share: float) -> Cast:
        """Return the offset shortened to a share, as ``shorter`` does."""
        return self.evolve(distance=shorter(self.distance, share))

    def opposite(self, light: float) -> Cast:
        """Falling the other way."""
        return self.evolve(follow=False, direction=opposite(self._from(light)))

    def flipped(self, *, across: bool) -> Cast:
        """Falling as in a mirror, left to right or top to bottom."""
        if self.follow:
            return self.evolve(mirrored=flipped_once(self.mirrored, across=across))
        return self.evolve(direction=flipped_direction(self.direction, across=across))

    def hidden_fields(self) -> tuple[str, ...]:
        if not self.follow:
            return ("mirrored",)
        return ("direction",) if self.mirrored != "no" else ("direction", "mirrored")

    def falling(self, across: float, down: float, light: float, *, steps: bool) -> Cast:
        """Return the same falling that far, to whole degrees and half px; in ``steps`` of 15°. What follows the light
        stays on its line."""
        if self.follow:
            x, y = direction(self._from(light))
            return self.evolve(distance=max(0.0, _halves(-across * x - down * y)))
        distance = _halves(math.hypot(across, down))
        turn = 15 if steps else 1
        came_from = round(degrees_of(-across, -down) / turn) * turn % 360 if distance else self.direction
        return self.evolve(direction=float(came_from), distance=distance)

    def _from(self, light: float) -> float:
        return seen_from(light, self.mirrored) if self.follow else self.direction


class Shift(Value):
    """Moved right and down; negative is left and up."""

    kind: Literal["shift"] = "shift"
    across: Signed = Field(0.0, title="across")
    down: Signed = Field(2.0, title="down")

    def vector(self, light: float) -> tuple[float, float]:
        """(across, down) in logical px."""
        return self.across, self.down

    def shortened(self, share: float) -> Shift:
        """Return the offset shortened to a share, as ``shorter`` does."""
        return self.evolve(across=shorter(self.across, share), down=shorter(self.down, share))

    def opposite(self, light: float) -> Shift:
        """Falling the other way."""
        return self.evolve(across=-self.across, down=-self.down)

    def flipped(self, *, across: bool) -> Shift:
        """Falling as in a mirror, left to right or top to bottom."""
        return self.evolve(across=-self.across) if across else self.evolve(down=-self.down)

    def falling(self, across: float, down: float, light: float, *, steps: bool) -> Shift:
        """Return the same falling that far, to half px; with ``steps`` along one axis."""
        if steps:
            across, down = (across, 0.0) if abs(across) >= abs(down) else (0.0, down)
        return self.evolve(across=_halves(across), down=_halves(down))


def _halves(length: float) -> float:
    """Return a length to half px."""
    return math.floor(length * 2 + 0.5) / 2


Offset = Annotated[Cast | Shift, Field(discriminator="kind")]
OFFSET_KINDS = ("cast", "shift")
DECIMALS = 3
"""Kept when one way is converted to the other: far below what an eye or a pixel can tell."""


def converted(offset: Cast | Shift, kind: str, light: float) -> Cast | Shift:
    """The same fall, written the other way; ``kind`` is ``cast`` or ``shift``."""
    across, down = offset.vector(light)
    if kind == offset.kind:
        return offset
    if kind == "shift":
        return Shift(across=round(across, DECIMALS), down=round(down, DECIMALS))
    distance = (across * across + down * down) ** 0.5
    came_from = degrees_of(-across, -down) if distance else 0.0
    return Cast(direction=round(came_from, DECIMALS), distance=round(distance, DECIMALS))
