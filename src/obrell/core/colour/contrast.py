"""Contrast of text against what is behind it (WCAG 2.2, "relative luminance" and "contrast ratio")."""

from __future__ import annotations

from obrell.core.colour.spaces import Triple, decoded, from_hex

ORDINARY = 4.5
"""Least contrast of text that is not large (success criterion 1.4.3, level AA)."""
LUMINANCE = (0.2126, 0.7152, 0.0722)
"""Weights of red, green and blue."""
FLARE = 0.05
"""What the standard adds to either luminance: light that a screen throws back."""


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
