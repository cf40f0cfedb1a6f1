"""The contact sheet of the shipped materials: every one on a pill, a circle, a star and a word, large and small.

``python -m tools.materials`` writes ``docs/screenshots/materials.png``.
"""

from __future__ import annotations

from pathlib import Path

import numpy as np
from PIL import Image, ImageDraw, ImageFont

from obrell.core.document.model import Canvas, Control, KitSettings, Part
from obrell.core.document.resolve import resolve
from obrell.core.edit.base import Surroundings
from obrell.core.edit.materials import LayMaterial
from obrell.core.render.picture import picture
from obrell.core.shapes import Box, Round, Shape, Sides, Text
from obrell.core.shelf import SHIPPED

OUT = Path("docs/screenshots/materials.png")
GROUND = (226, 224, 216)
LARGE, SMALL = 60.0, 24.0
LABEL_PX = 26
KIT = KitSettings(id="sheet", name="Materials")


def shapes(height: float) -> list[tuple[Shape, float]]:
    """Each shape with the room it takes across."""
    return [
        (Box(width=height * 2.4, height=height, corners="round"), height * 2.4),
        (Round(width=height, height=height), height),
        (Sides(count=5, width=height * 1.1, height=height * 1.1, inner=0.5, radius=height * 0.04), height * 1.1),
        (Text(words="Lock", size=height, weight=800), height * 2.2),
    ]


def control(material: str) -> Control:
    """One row: the four shapes large, then small."""
    parts: list[Part] = []
    x = 16.0
    for height in (LARGE, SMALL):
        for shape, width in shapes(height):
            parts.append(Part(id=f"p{len(parts) + 1}", name="Part", shape=shape, x=x + width / 2, y=48))
            x += width + 22
    row = Control(id="c1", name="Row", canvas=Canvas(width=x, height=96), parts=tuple(parts), next_number=100)
    lay = LayMaterial(parts=tuple(part.id for part in parts), material=material)
    return lay.apply(row, Surroundings())


def main() -> None:
    """Draw the sheet."""
    rows = []
    font = ImageFont.load_default(13)
    for material in SHIPPED:
        pixels = picture(resolve(KIT, control(material.id)), 1.0).astype(np.float64)
        alpha = pixels[..., 3:] / 255
        image = Image.fromarray((pixels[..., :3] * alpha + np.array(GROUND) * (1 - alpha)).round().astype(np.uint8))
        ImageDraw.Draw(image).text((12, 2), material.name, (70, 72, 70), font=font)
        rows.append(np.asarray(image))
    half = -(-len(rows) // 2)
    while len(rows) < 2 * half:
        rows.append(np.full_like(rows[0], GROUND, dtype=np.uint8))
    sheet = np.hstack([np.vstack(rows[:half]), np.vstack(rows[half:])])
    Image.fromarray(sheet).save(OUT)
    print(f"{OUT}: {len(SHIPPED)} materials")


if __name__ == "__main__":
    main()
