"""What one step of a part's build-up changes, as a heat map."""

from __future__ import annotations

import numpy as np

from obrell.core.raster.quantise import Pixels, premultiplied

COLD, WARM, HOT = (np.array(colour, np.float64) for colour in ((24, 38, 66), (214, 84, 44), (255, 236, 170)))
FULL = 96.0
"""Difference in premultiplied 8-bit levels that is shown as the hottest."""


def heat(before: Pixels, after: Pixels) -> Pixels:
    """The largest difference of the premultiplied channels, from night blue over rust to pale yellow. What
    stays transparent in both is left out."""
    away = np.abs(premultiplied(after) - premultiplied(before)).max(axis=2)
    share = np.sqrt(np.clip(away / FULL, 0, 1))[..., None]
    lower, upper = np.clip(share * 2, 0, 1), np.clip(share * 2 - 1, 0, 1)
    colours = COLD + lower * (WARM - COLD) + upper * (HOT - WARM)
    seen = np.maximum(before[..., 3:], after[..., 3:])
    result: Pixels = np.concatenate([np.rint(colours), seen], axis=2).astype(np.uint8)
    return result
