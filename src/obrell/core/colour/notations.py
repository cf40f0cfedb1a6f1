"""The spaces that people type colours in.

Sources: CSS Color 4 (sRGB, HSL, OKLCH); HSV is the hexcone of the same hue.
"""

from __future__ import annotations

import colorsys
from collections.abc import Callable
from dataclasses import dataclass

from obrell.core.colour.gamut import from_oklch
from obrell.core.colour.spaces import Triple, to_oklch


@dataclass(frozen=True, slots=True)
class Space:
    """A space that people type colours in: three numbers from encoded sRGB and back. On the way back hues wrap, and
    other values are clamped to their range."""

    of: Callable[[Triple], Triple]
    back: Callable[[Triple], Triple]
    decimals: int
    """Digits after the point that are shown."""


def _hsl(rgb: Triple) -> Triple:
    hue, light, saturation = colorsys.rgb_to_hls(*rgb)
    return hue * 360, saturation * 100, light * 100


def _hsv(rgb: Triple) -> Triple:
    hue, saturation, value = colorsys.rgb_to_hsv(*rgb)
    return hue * 360, saturation * 100, value * 100


def _oklch(rgb: Triple) -> Triple:
    lightness, chroma, hue = to_oklch(rgb)
    return lightness * 100, chroma, hue


SPACES: dict[str, Space] = {
    "rgb": Space(lambda c: (c[0] * 255, c[1] * 255, c[2] * 255), lambda v: _shares(v, 255), 0),
    "hsl": Space(_hsl, lambda v: colorsys.hls_to_rgb(v[0] / 360 % 1, _unit(v[2] / 100), _unit(v[1] / 100)), 1),
    "hsv": Space(_hsv, lambda v: colorsys.hsv_to_rgb(v[0] / 360 % 1, _unit(v[1] / 100), _unit(v[2] / 100)), 1),
    "oklch": Space(_oklch, lambda v: from_oklch((_unit(v[0] / 100), min(0.5, max(0.0, v[1])), v[2] % 360)), 3),
}
"""As people read them: rgb 0 to 255; hsl and hsv as °, %, %; oklch as %, chroma, °."""


def _shares(values: Triple, whole: float) -> Triple:
    first, second, third = values
    return _unit(first / whole), _unit(second / whole), _unit(third / whole)


def _unit(value: float) -> float:
    return min(1.0, max(0.0, value))
