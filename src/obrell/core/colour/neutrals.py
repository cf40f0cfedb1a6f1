"""Whites and blacks that are not quite: tinted with a colour, or plain."""

from __future__ import annotations

from obrell.core.colour.gamut import from_oklch
from obrell.core.colour.spaces import from_hex, to_hex, to_oklch

WHITES = ((0.985, 0.006), (0.965, 0.010), (0.94, 0.014), (0.90, 0.018))
BLACKS = ((0.14, 0.010), (0.19, 0.016), (0.24, 0.020), (0.30, 0.024))
"""Lightness and chroma of OKLCH."""


def neutrals(main: str | None) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """Off-whites and off-blacks in the hue of a colour, each after the pure one; grey without one."""
    chroma, hue = (0.0, 0.0) if main is None else to_oklch(from_hex(main))[1:]

    def tinted(steps: tuple[tuple[float, float], ...]) -> tuple[str, ...]:
        return tuple(to_hex(from_oklch((lightness, min(chroma, most), hue))) for lightness, most in steps)

    return ("#ffffff", *tinted(WHITES)), ("#000000", *tinted(BLACKS))
