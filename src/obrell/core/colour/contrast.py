"""Contrast of text against what is behind it (WCAG 2.2, "relative luminance" and "contrast ratio")."""

from __future__ import annotations

from obrell.core.colour.spaces import Triple, decoded, from_hex

LARGE = 3.0
ORDINARY = 4.5
"""Least contrast of large and of other text (success criterion 1.4.3, level AA)."""


def luminance(rgb: Triple) -> float:
    """Relative luminance of encoded sRGB, 0 (black) to 1 (white)."""
    red, green, blue = (decoded(value) for value in rgb)
    return 0.2126 * red + 0.7152 * green + 0.0722 * blue


def contrast(one: str, other: str) -> float:
    """The ratio of two ``#rrggbb``, 1 (none) to 21."""
    light, dark = sorted((luminance(from_hex(one)), luminance(from_hex(other))), reverse=True)
    return (light + 0.05) / (dark + 0.05)
