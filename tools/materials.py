"""The contact sheets of the shipped materials: every one on a pill, a circle, a star and a word.

``python -m tools.materials`` writes ``docs/screenshots/materials.png``, at 60 and 24 px, and
``docs/screenshots/materials-240.webp``, at 240 px.
"""

from __future__ import annotations

import math
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
from obrell.core.workspace import Workspace

FOLDER = Path("docs/screenshots")
GROUND = (226, 224, 216)
AIR_PX = 18
KIT = KitSettings(id="sheet", name="Materials")


def shapes(height: float) -> list[tuple[Shape, float]]:
    """Each shape with the room it takes across."""
    return [
        (Box(width=height * 2.4, height=height, corners="round"), height * 2.4),
        (Round(width=height, height=height), height),
        (Sides(count=5, width=height * 1.1, height=height * 1.1, inner=0.5, radius=height * 0.04), height * 1.1),
        (Text(words="Lock", size=height, weight=800), height * 2.2),
    ]


def control(material: str, *heights: float) -> Control:
    """One row: the four shapes at each height."""
    parts: list[Part] = []
    x, middle = float(AIR_PX), max(heights) / 2 + 1.4 * AIR_PX
    for height in heights:
        for shape, width in shapes(height):
            parts.append(Part(id=f"p{len(parts) + 1}", name="Part", shape=shape, x=x + width / 2, y=middle))
            x += width + AIR_PX + height / 12
    canvas = Canvas(width=math.ceil(x), height=2 * middle)
    row = Control(id="c1", name="Row", canvas=canvas, parts=tuple(parts), next_number=100)
    lay = LayMaterial(parts=tuple(part.id for part in parts), material=material)
    return lay.apply(row, Surroundings())


def sheet(columns: int, *heights: float) -> Image.Image:
    """All materials, one below the other in columns."""
    rows = []
    font = ImageFont.load_default(13)
    for material in SHIPPED:
        pixels = picture(resolve(KIT, control(material.id, *heights)), 1.0).astype(np.float64)
        alpha = pixels[..., 3:] / 255
        image = Image.fromarray((pixels[..., :3] * alpha + np.array(GROUND) * (1 - alpha)).round().astype(np.uint8))
        ImageDraw.Draw(image).text((12, 2), material.name, (70, 72, 70), font=font)
        rows.append(np.asarray(image))
    each = -(-len(rows) // columns)
    while len(rows) < columns * each:
        rows.append(np.full_like(rows[0], GROUND, dtype=np.uint8))
    return Image.fromarray(np.hstack([np.vstack(rows[at : at + each]) for at in range(0, len(rows), each)]))


def main() -> None:
    """Draw both sheets."""
    sheet(2, 60.0, 24.0).save(FOLDER / "materials.png")
    sheet(1, 240.0).save(FOLDER / "materials-240.webp", quality=82, method=6)
    print(f"{FOLDER}: {len(SHIPPED)} materials, twice")


if __name__ == "__main__":
    with Workspace().entered():
        main()
