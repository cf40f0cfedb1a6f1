"""A gradient's ramp prepared for the kernels: stops with premultiplied colour, as plain arrays."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

SOLID, LINEAR, RADIAL, CONIC, FOCAL = range(5)
ONCE, REPEATED, MIRRORED = range(3)
HARD = 1e-9
"""Stops closer than this share of the ramp make an edge."""


@dataclass(frozen=True, slots=True)
class Pigment:
    """What a box is filled with, in device space.

    ``shape`` SOLID: the first stop everywhere. LINEAR: t = a·x + b·y + c at the pixel's centre.
    RADIAL: t = |(a·x + b·y + c, d·x + e·y + f)|. FOCAL: the same circle of radius 1, but t runs straight from
    (g, h), inside of it, to its edge (SVG 2, section 14.2.3). CONIC: t = the turn of that vector from (0, 1), in
    whole turns, clockwise. ``field`` holds (a … h).
    ``stops`` has shape (n, 6): position, premultiplied red, green, blue, alpha, and the exponent
    that bends the way to the next stop (1: straight).
    """

    shape: int
    field: NDArray[np.float64]
    stops: NDArray[np.float64]
    oklab: bool = False
    spread: int = ONCE
    """What lies beyond t = 0 and t = 1: the end's colour, the ramp again, or the ramp turned round."""

    @property
    def opaque(self) -> bool:
        """Whether no pixel of it lets anything through."""
        return bool(np.all(self.stops[:, 4] >= 1.0))


def midpoint_exponent(midpoint: float) -> float:
    """log(0.5) / log(midpoint), CSS Images 4, section 3.5.1; ``midpoint`` is a share of the way, clamped near 0 and
    1."""
    middle = min(max(midpoint, 0.001), 0.999)
    return float(np.log(0.5) / np.log(middle))
