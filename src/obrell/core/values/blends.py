"""The sixteen blend modes of Compositing and Blending 1, by their published names."""

from __future__ import annotations

from typing import Literal, get_args

Blend = Literal[
    "normal", "multiply", "screen", "overlay", "darken", "lighten", "color-dodge", "color-burn",
    "hard-light", "soft-light", "difference", "exclusion", "hue", "saturation", "color",
    "luminosity",
]  # fmt: skip

BLENDS: tuple[Blend, ...] = get_args(Blend)
BLEND_CODES: dict[Blend, int] = {blend: code for code, blend in enumerate(BLENDS)}
