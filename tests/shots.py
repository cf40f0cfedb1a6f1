"""Pictures of what a page shows."""

import io
from typing import Any

import numpy as np
from PIL import Image
from playwright.sync_api import Error, Page

MISSED = "Unable to capture screenshot"
"""What Chromium says where a busy machine made no frame in time; it does when it is asked again."""


def shot_of(page: Page, **how: Any) -> Image.Image:
    """What a page shows now."""
    try:
        content = page.screenshot(**how)
    except Error as error:
        if MISSED not in error.message:
            raise
        content = page.screenshot(**how)
    return Image.open(io.BytesIO(content)).convert("RGBA")


def premultiplied(pixels: np.ndarray) -> np.ndarray:
    """8-bit levels of straight colour, as float64 with colour times coverage."""
    values = pixels.astype(np.float64)
    return np.concatenate([values[..., :3] * values[..., 3:] / 255, values[..., 3:]], axis=2)
