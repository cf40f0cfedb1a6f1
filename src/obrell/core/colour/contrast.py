"""Contrast of text against what is behind it (WCAG 2.2, "relative luminance" and "contrast ratio")."""

from __future__ import annotations

import colorsys

from obrell.core.colour.spaces import Triple, decoded, from_hex

ORDINARY = 4.5
"""Least contrast of text that is not large (success criterion 1.4.3, level AA)."""
LUMINANCE = (0.2126, 0.7152, 0.0722)
"""Weights of red, green and blue."""
FLARE = 0.05
"""What the standard adds to either luminance: light that a screen throws back."""
STEPS = 25
"""Saturations that a boundary in the field is drawn through, and halvings that find its value."""
Curve = tuple[tuple[float, float], ...]


def luminance(rgb: Triple) -> float:
    """Relative luminance of encoded sRGB, 0 (black) to 1 (white)."""
    red, green, blue = map(decoded, rgb)
    return weighed((red, green, blue))


def weighed(rgb: Triple) -> float:
    """Return the sum of three channels, each times its weight in luminance."""
    return sum(weight * channel for weight, channel in zip(LUMINANCE, rgb, strict=True))


def contrast(one: str, other: str) -> float:
    """The ratio of two ``#rrggbb``, 1 (none) to 21."""
    return ratio(luminance(from_hex(one)), luminance(from_hex(other)))


def ratio(one: float, other: float) -> float:
    """The contrast of two relative luminances, 0 to 1: 1 (none) to 21."""
    return (max(one, other) + FLARE) / (min(one, other) + FLARE)


def reaches(against: float, target: float = ORDINARY) -> tuple[float, float]:
    """Relative luminances between which a contrast with another one, 0 to 1, is not reached: at most the first and at
    least the second do. Less than 0, or more than 1, where none can."""
    return (against + FLARE) / target - FLARE, (against + FLARE) * target - FLARE


def boundary(hue: float, limit: float) -> Curve:
    """Where colours of a hue, degrees, have a relative luminance, 0 to 1, in a field of HSV saturation across and
    value upwards, both 0 to 100: empty where none has it."""
    found: list[tuple[float, float]] = []
    for step in range(STEPS):
        saturation = step / (STEPS - 1)
        if not 0 < limit <= luminance(colorsys.hsv_to_rgb(hue / 360, saturation, 1.0)):
            continue
        low, high = 0.0, 1.0
        for _ in range(STEPS):
            middle = (low + high) / 2
            reached = luminance(colorsys.hsv_to_rgb(hue / 360, saturation, middle)) >= limit
            low, high = (low, middle) if reached else (middle, high)
        found.append((round(saturation * 100, 2), round(high * 100, 2)))
    return tuple(found) if len(found) > 1 else ()
