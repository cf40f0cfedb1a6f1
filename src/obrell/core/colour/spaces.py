"""Eight-bit sRGB, linear light, OKLab and OKLCH (CSS Color 4)."""

from __future__ import annotations

import math

Triple = tuple[float, float, float]
"""Red, green, blue, 0 to 1, sRGB-encoded, unless the name says otherwise."""


def from_hex(text: str) -> Triple:
    """``#rrggbb`` as three shares."""
    return int(text[1:3], 16) / 255, int(text[3:5], 16) / 255, int(text[5:7], 16) / 255


def to_hex(rgb: Triple) -> str:
    """The nearest ``#rrggbb``, each channel clamped, rounded half up."""
    return "#" + "".join(f"{math.floor(min(1.0, max(0.0, v)) * 255 + 0.5):02x}" for v in rgb)


def mixed(one: str, other: str, share: float) -> str:
    """A share of the way from one ``#rrggbb`` to another, in encoded sRGB."""
    red, green, blue = (a + (b - a) * share for a, b in zip(from_hex(one), from_hex(other), strict=True))
    return to_hex((red, green, blue))


def decoded(value: float) -> float:
    """sRGB-encoded, 0 to 1, to linear light (IEC 61966-2-1); negative values mirror."""
    size = abs(value)
    linear = size / 12.92 if size <= 0.04045 else ((size + 0.055) / 1.055) ** 2.4
    return math.copysign(linear, value)


def encoded(value: float) -> float:
    """Linear light, 0 to 1, to sRGB-encoded; negative values mirror."""
    size = abs(value)
    return math.copysign(12.92 * size if size <= 0.0031308 else 1.055 * size ** (1 / 2.4) - 0.055, value)


def to_oklab(rgb: Triple) -> Triple:
    """OKLab: lightness 0 to 1, a, b about -0.4 to 0.4."""
    r, g, b = (decoded(value) for value in rgb)
    long = math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b)
    medium = math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b)
    short = math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b)
    return (
        0.2104542553 * long + 0.7936177850 * medium - 0.0040720468 * short,
        1.9779984951 * long - 2.4285922050 * medium + 0.4505937099 * short,
        0.0259040371 * long + 0.7827717662 * medium - 0.8086757660 * short,
    )


def from_oklab(lab: Triple) -> Triple:
    """sRGB of OKLab; may lie outside 0 to 1 when the colour is out of gamut."""
    lightness, a, b = lab
    long = (lightness + 0.3963377774 * a + 0.2158037573 * b) ** 3
    medium = (lightness - 0.1055613458 * a - 0.0638541728 * b) ** 3
    short = (lightness - 0.0894841775 * a - 1.2914855480 * b) ** 3
    return (
        encoded(4.0767416621 * long - 3.3077115913 * medium + 0.2309699292 * short),
        encoded(-1.2684380046 * long + 2.6097574011 * medium - 0.3413193965 * short),
        encoded(-0.0041960863 * long - 0.7034186147 * medium + 1.7076147010 * short),
    )


def to_oklch(rgb: Triple) -> Triple:
    """Lightness 0 to 1, chroma, hue in degrees [0, 360); greys have hue 0."""
    lightness, a, b = to_oklab(rgb)
    chroma = math.hypot(a, b)
    return lightness, chroma, math.degrees(math.atan2(b, a)) % 360 if chroma > 1e-4 else 0.0
