"""Colours brought into the gamut of sRGB (CSS Color 4, section 13.2.2: chroma reduced in OKLCH, clipped as soon as
that can hardly be seen)."""

from __future__ import annotations

import math

from obrell.core.colour.spaces import Triple, from_oklab, to_oklab

JUST_NOTICED = 0.02
"""Distance in OKLab that is hardly seen."""
PRECISION = 1e-4
ROUNDING = 1e-6
WHITE: Triple = (1.0, 1.0, 1.0)
BLACK: Triple = (0.0, 0.0, 0.0)


def from_oklch(lch: Triple) -> Triple:
    """Encoded sRGB, each channel 0 to 1, of a lightness, chroma and hue in degrees."""
    lightness, chroma, hue = lch
    if lightness >= 1 or lightness <= 0:
        return WHITE if lightness >= 1 else BLACK
    rgb = _srgb(lch)
    return _clipped(rgb) if _fits(rgb) else _reduced(lightness, chroma, hue)


def _reduced(lightness: float, chroma: float, hue: float) -> Triple:
    """By bisection between grey and the chroma that was asked for."""
    least, most, inside = 0.0, chroma, True
    clipped = _clipped(_srgb((lightness, chroma, hue)))
    if _distance(clipped, (lightness, chroma, hue)) < JUST_NOTICED:
        return clipped
    while most - least > PRECISION:
        middle = (least + most) / 2
        rgb = _srgb((lightness, middle, hue))
        if inside and _fits(rgb):
            least = middle
            continue
        clipped = _clipped(rgb)
        away = _distance(clipped, (lightness, middle, hue))
        if away >= JUST_NOTICED:
            most = middle
        elif JUST_NOTICED - away < PRECISION:
            return clipped
        else:
            inside, least = False, middle
    return clipped


def _lab(lch: Triple) -> Triple:
    lightness, chroma, hue = lch
    angle = math.radians(hue)
    return lightness, chroma * math.cos(angle), chroma * math.sin(angle)


def _srgb(lch: Triple) -> Triple:
    return from_oklab(_lab(lch))


def _distance(rgb: Triple, lch: Triple) -> float:
    """In OKLab (CSS Color 4, section 13.2.1)."""
    return math.dist(to_oklab(rgb), _lab(lch))


def _fits(rgb: Triple) -> bool:
    return all(-ROUNDING <= value <= 1 + ROUNDING for value in rgb)


def _clipped(rgb: Triple) -> Triple:
    red, green, blue = (min(1.0, max(0.0, value)) for value in rgb)
    return red, green, blue
