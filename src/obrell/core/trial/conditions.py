"""Conditions under which a screen is looked at, and what the eye gets of its pixels then.

In this order: the display is dimmed, light on the glass is added, the eye blurs, colours are seen as by an eye that
lacks some, or as by night, or without any. All of it is done in linear light (IEC 61966-2-1).
"""

from __future__ import annotations

import math
from functools import lru_cache
from typing import Annotated, Literal

import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from obrell.core.colour.contrast import LUMINANCE
from obrell.core.colour.spaces import decoded, encoded
from obrell.core.raster.blur import blur, support_px
from obrell.core.raster.layers import Coverage, PixelBox
from obrell.core.trial.composing import Screen
from obrell.core.values.base import Value
from obrell.core.values.fields import Live, Share

Light = NDArray[np.float32]
"""Shape (height, width, 3): linear red, green, blue; 1 is the display's white."""
Deficiency = Literal["usual", "protan", "deutan", "tritan"]
WHITE_CD = 350.0
"""Luminance of white of a display by day, cd/m²."""
LUMA = np.array(LUMINANCE, np.float32)
"""Of linear sRGB (IEC 61966-2-1)."""
TO_XYZ = np.array(
    [[0.4124564, 0.3575761, 0.1804375], [0.2126729, 0.7151522, 0.0721750], [0.0193339, 0.1191920, 0.9503041]],
    np.float32,
)
"""Linear sRGB to CIE XYZ, D65."""
RODS_CD, CONES_CD = 0.01, 10.0
"""Luminances below which only rods see, and above which only cones do, cd/m² (CIE 191:2010, rounded)."""
ROD_TINT = np.array([0.72, 0.92, 1.32], np.float32)
"""What rods see looks a little blue (Thompson, Shirley and Ferwerda 2002, section 3); linear RGB of luminance 1."""
DIM_POWER = 1.0 / 3.0
"""Brightness goes with about this power of luminance, as the eye adapts (Stevens 1961)."""
ARCMINUTE = math.radians(1 / 60)
FWHM = 2.3548
"""Full width at half maximum of a Gaussian, standard deviations."""
Luminance = Annotated[float, Live("", 50, 0, 2000), Field(ge=0, le=20_000)]


class Conditions(Value):
    """How a screen is looked at. ``sun`` is the luminance of what its glass throws back, cd/m², ``night`` that of its
    white where it is dimmed, cd/m², 0 for by day; ``distance`` that of the eye, m, 0 for as near as one likes, and
    ``acuity`` its decimal visual acuity."""

    sun: Luminance = Field(0.0, title="sunlight on glass")
    night: Annotated[float, Live("", 0.5, 0, 20), Field(ge=0, le=WHITE_CD)] = Field(0.0, title="dimmed to")
    vision: Deficiency = Field("usual", title="colour vision")
    severity: Share = Field(1.0, title="severity")
    distance: Annotated[float, Live("m", 0.1, 0, 5), Field(ge=0, le=100)] = Field(0.0, title="distance")
    acuity: Annotated[float, Live("", 0.1, 0.1, 1.6), Field(gt=0.01, le=3)] = Field(1.0, title="acuity")
    grey: bool = Field(False, title="without colour")

    @property
    def plain(self) -> bool:
        """Whether the screen is seen as it is."""
        return not (self.sun or self.night or self.distance or self.grey or self._lacking)

    @property
    def _lacking(self) -> bool:
        return self.vision != "usual" and self.severity > 0

    def matrix(self) -> NDArray[np.float32] | None:
        """What the eye makes of linear RGB; None where it sees as usual."""
        return deficiency(self.vision, self.severity) if self.vision != "usual" and self.severity > 0 else None


AS_IT_IS = Conditions()


@lru_cache(maxsize=64)
def deficiency(kind: str, severity: float) -> NDArray[np.float32]:
    """The matrix of a colour-vision deficiency on linear RGB, its severity 0 to 1 between the tabulated tenths
    (Machado, Oliveira and Fernandes 2009, table 1)."""
    # Read where it is first asked for: it takes a twentieth of a start, and nothing that is drawn needs it.
    from coloraide.filters import cvd

    table = {"protan": cvd.MACHADO_PROTAN, "deutan": cvd.MACHADO_DEUTAN, "tritan": cvd.MACHADO_TRITAN}[kind]
    below = min(9, math.floor(severity * 10))
    one, other = (np.array(table[step], np.float64) for step in (below, below + 1))
    mixed: NDArray[np.float32] = (one + (other - one) * (severity * 10 - below)).astype(np.float32)
    return mixed


def blur_px(conditions: Conditions, px_per_mm: float) -> float:
    """Standard deviation of the eye's blur, device px, where there are ``px_per_mm`` of them: two lines that an eye of
    that acuity just tells apart, one minute of arc over the acuity, are as far apart as its Gaussian is wide at half
    its height (ISO 8596)."""
    least = math.tan(ARCMINUTE / conditions.acuity) * conditions.distance * 1000.0
    return least * px_per_mm / FWHM


def reach_px(conditions: Conditions, px_per_mm: float) -> int:
    """Device px around a box within which pixels still matter to it."""
    deviation = blur_px(conditions, px_per_mm)
    return support_px(deviation) if deviation > 0 else 0


def seen_under(conditions: Conditions, screen: Screen, px_per_mm: float) -> Screen:
    """The pixels of a screen as they look under conditions. The same pixels come out where nothing is asked for."""
    if conditions.plain:
        return screen
    light = _DECODED[screen]
    if conditions.night:
        light = light * np.float32((conditions.night / WHITE_CD) ** DIM_POWER)
    if conditions.sun:
        light = veiled(light, conditions.sun)
    if conditions.distance:
        light = _blurred(light, blur_px(conditions, px_per_mm))
    matrix = conditions.matrix()
    if matrix is not None:
        light = light @ matrix.T
    if conditions.night:
        light = _by_night(light, conditions.night)
    if conditions.grey:
        light = np.repeat((light @ LUMA)[:, :, None], 3, axis=2)
    return _encoded(light)


def veiled(light: Light, sun: float) -> Light:
    """Light with the veil of what the glass throws back added, cd/m², seen by an eye that takes the brightest white
    there as white (ISO 9241-307: contrast under ambient light)."""
    veil = np.float32(sun / WHITE_CD)
    made: Light = (light + veil) / (np.float32(1) + veil)
    return made


def rod_share(luminance: NDArray[np.float32]) -> NDArray[np.float32]:
    """How much of what is seen comes from rods, 0 to 1, evenly over the logarithm of luminance in cd/m²."""
    low, high = math.log10(RODS_CD), math.log10(CONES_CD)
    share = (high - np.log10(np.maximum(luminance, 1e-6))) / (high - low)
    made: NDArray[np.float32] = np.clip(share, 0, 1).astype(np.float32)
    return made


def scotopic(xyz: NDArray[np.float32]) -> NDArray[np.float32]:
    """What rods get of a colour given as XYZ (Larson, Rushmeier and Piatko 1997, section 5.2)."""
    x, y, z = xyz[:, :, 0], xyz[:, :, 1], xyz[:, :, 2]
    made: NDArray[np.float32] = np.maximum(0, y * (1.33 * (1 + (y + z) / np.maximum(x, 1e-6)) - 1.68))
    return made


WHITE_OF_RODS = float(scotopic(TO_XYZ.sum(axis=1)[None, None, :])[0, 0])


def _by_night(light: Light, white: float) -> Light:
    share = rod_share(light @ LUMA * np.float32(white / (white / WHITE_CD) ** DIM_POWER))[:, :, None]
    rods = (scotopic(light @ TO_XYZ.T) / np.float32(WHITE_OF_RODS))[:, :, None] * ROD_TINT
    made: Light = light + (rods - light) * share
    return made


def _blurred(light: Light, deviation: float) -> Light:
    """Blurred as the eye does; what lies beyond the screen is as its edge."""
    if deviation < 0.05:
        return light
    reach = support_px(deviation)
    height, width = light.shape[:2]
    wide = np.pad(light, ((reach, reach), (reach, reach), (0, 0)), mode="edge")
    there = PixelBox(0, 0, width + 2 * reach, height + 2 * reach)
    box = PixelBox(reach, reach, reach + width, reach + height)
    planes = [blur(Coverage(there, np.ascontiguousarray(wide[:, :, k])), deviation, box).values for k in range(3)]
    return np.stack(planes, axis=2)


_DECODED = np.array([decoded(level / 255) for level in range(256)], np.float32)
_STEPS = 1 << 16
_LEVELS = np.array([math.floor(255 * encoded(step / _STEPS) + 0.5) for step in range(_STEPS + 1)], np.uint8)
"""Levels of linear light, by its share in steps."""


def _encoded(light: Light) -> Screen:
    steps = np.clip(light * np.float32(_STEPS) + np.float32(0.5), 0, _STEPS).astype(np.int32)
    levels: Screen = _LEVELS[steps]
    return levels
