"""Any affine transform, as SVG writes them: (x, y) → (a·x + c·y + e, b·x + d·y + f)."""

from __future__ import annotations

import math
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Affine:
    """The six numbers of SVG's ``matrix``."""

    a: float = 1.0
    b: float = 0.0
    c: float = 0.0
    d: float = 1.0
    e: float = 0.0
    f: float = 0.0

    def apply(self, x: float, y: float) -> tuple[float, float]:
        return self.a * x + self.c * y + self.e, self.b * x + self.d * y + self.f

    def turn(self, x: float, y: float) -> tuple[float, float]:
        """A vector transformed, without the move."""
        return self.a * x + self.c * y, self.b * x + self.d * y

    def after(self, first: Affine) -> Affine:
        """``first``, then this one."""
        a, b = self.turn(first.a, first.b)
        c, d = self.turn(first.c, first.d)
        e, f = self.apply(first.e, first.f)
        return Affine(a, b, c, d, e, f)

    def scale(self) -> float:
        """The factor of areas, as a length."""
        return math.sqrt(abs(self.a * self.d - self.b * self.c))

    @property
    def upright(self) -> bool:
        """Whether it neither turns, slants nor mirrors."""
        return self.b == 0 and self.c == 0 and self.a > 0 and self.d > 0


IDENTITY = Affine()
