"""Small controls to test with."""

from __future__ import annotations

from io import BytesIO
from typing import Any

import numpy as np
from PIL import Image

from obrell.core.document.model import Canvas, Control, Kit, KitSettings, Part
from obrell.core.document.resolve import Resolved, resolve
from obrell.core.effects import (
    BackdropBlur,
    Bevel,
    Blur,
    Depth,
    DropShadow,
    Effect,
    Gloss,
    Grain,
    InnerGlow,
    InnerShadow,
    Mask,
    OuterGlow,
    Outline,
    Paint,
    Sheen,
)  # fmt: skip
from obrell.core.effects.offsets import Cast
from obrell.core.files import file_id
from obrell.core.findings.sides import sides_of
from obrell.core.raster.layers import Layer
from obrell.core.render.cache import PixelCache
from obrell.core.render.compose import Frame, canvas_box, compose
from obrell.core.shapes import (
    Box,
    Combination,
    Group,
    Icon,
    Line,
    Path,
    Picture,
    Repeat,
    Ring,
    Round,
    Shape,
    Sides,
    Text,
)  # fmt: skip
from obrell.core.shapes.outlined import Contour, Knot
from obrell.core.values.paints import Linear, Radial, Solid, Stop
from obrell.core.values.paints import Picture as PictureFill


class Keeper:
    """Keeps files as a database would."""

    def __init__(self) -> None:
        self.files: dict[str, bytes] = {}

    def find(self, name: str) -> bytes | None:
        return self.files.get(name)

    def keep(self, content: bytes) -> str:
        self.files[file_id(content)] = content
        return file_id(content)


def png(values: np.ndarray) -> bytes:
    """A PNG file of (height, width, 3 or 4) levels."""
    file = BytesIO()
    Image.fromarray(values.astype(np.uint8)).save(file, "PNG")
    return file.getvalue()


def slope(width: int, height: int) -> np.ndarray:
    """Red rises to the right, green downwards; the right half is half transparent."""
    y, x = np.mgrid[:height, :width]
    alpha = np.where(x < width / 2, 255, 128)
    return np.stack([x * 255 // (width - 1), y * 255 // (height - 1), 0 * x + 90, alpha], axis=2)


KEEPER = Keeper()
SLOPE = KEEPER.keep(png(slope(48, 32)))

KIT = KitSettings(id="k", name="Test kit")

SHAPES_TRIED: dict[str, Shape] = {
    "box": Box(width=40, height=24, radius=6),
    "round": Round(width=34, height=22),
    "ring": Ring(outer=20, inner=12, sweep=230, start=30, ends="round"),
    "sides": Sides(count=5, width=40, height=36, inner=0.6, radius=3),
    "line": Line(across=36, down=20, width=5, caps="round", arrows="end", dash=8, gap=7),
    "path": Path(
        contours=(
            Contour(
                knots=(
                    Knot(x=-18, y=10, radius=3),
                    Knot(x=0, y=-14, in_x=-9, out_x=9),
                    Knot(x=18, y=10),
                    Knot(x=0, y=4),
                )
            ),
        )
    ),
    "icon": Icon(icon="bell", width=34, height=34, line=3),
    "text": Text(words="Lock", size=20),
    "picture": Picture(file=SLOPE, width=36, height=24, lies="stretched"),
}

CONTAINERS_TRIED: dict[str, Shape] = {
    "group": Group(),
    "combination": Combination(mode="difference"),
    "repeat": Repeat(way="row", count=2, across=32, down=3, last_size=0.6),
}

EFFECTS_TRIED: dict[str, Effect] = {
    "paint": Paint(
        id="e1",
        fill=Linear(stops=(Stop(position=0, colour="#204060"), Stop(position=1, colour="#e0c080"))),
    ),
    "inner-shadow": InnerShadow(id="e1", offset=Cast(distance=3), blur=5, spread=1, colour="#102030"),
    "outline": Outline(id="e1", place="centre", width=3, fill=Solid(colour="#c03020")),
    "drop-shadow": DropShadow(id="e1", offset=Cast(distance=4), blur=6, spread=1, colour="#000000"),
    "outer-glow": OuterGlow(id="e1", extent=7),
    "inner-glow": InnerGlow(id="e1", extent=5),
    "bevel": Bevel(id="e1", side="straddling", width=6, rise=4, softness=1),
    "gloss": Gloss(id="e1", inset=0, softness=5),
    "sheen": Sheen(id="e1", distance=4, blur=6),
    "depth": Depth(id="e1", direction=160, distance=5),
    "grain": Grain(id="e1", opacity=0.3, scale=4),
    "blur": Blur(id="e1", radius=3),
    "backdrop-blur": BackdropBlur(id="e1", radius=4),
    "mask": Mask(id="e1", fitted_x=40, fitted_y=30),
}
"""One of every kind, with values that show."""

RAMP = Linear(stops=(Stop(position=0, colour="#204060"), Stop(position=1, colour="#e0c080")))
VARIANTS = {
    "outline along": Outline(id="e1", place="centre", width=4, run="along the path", fill=RAMP),
    "outline across": Outline(id="e1", place="outside", width=4, run="across its width", fill=RAMP),
    "outline by sides": Outline(
        id="e1", place="centre", sides="each its own", top=4, right=0, bottom=0, left=2, fill=RAMP
    ),
    "outline dashed": Outline(id="e1", width=1.5, dash=5, gap=3, fill=RAMP),
    "rough bevel": Bevel(id="e1", width=5, rise=2, texture="hammered", texture_depth=1, texture_scale=5),
    "rough rim": Bevel(id="e1", side="outside", width=5, rise=2, texture="grain", texture_depth=1, texture_scale=6),
    "shadow with a falloff": DropShadow(id="e1", blur=8, falloff="soft", shows_through=True),
    "inner shadow with a falloff": InnerShadow(id="e1", blur=8, falloff="late"),
    "focus": Paint(id="e1", fill=Radial(stops=RAMP.stops, focus_x=0.5, focus_y=-0.4)),
    "tiles": Paint(id="e1", fill=PictureFill(file=SLOPE, fit="tiled, mirrored", scale=0.6, turn=20, across=3)),
    "reaching paint": Paint(id="e1", fill=RAMP, blend="multiply", through=True),
    "reaching outline": Outline(id="e1", place="centre", width=4, fill=RAMP, blend="screen", through=True),
}
"""Forms of effects that are drawn in ways of their own."""


def part(shape: Shape, *effects: Effect, x: float = 40, y: float = 30, **values: Any) -> Part:
    """A part in the middle of the test canvas; effects get their numbers as ids."""
    numbered = tuple(effect.evolve(id=f"e{number}") for number, effect in enumerate(effects, start=1))
    return Part(**({"id": "p1", "name": "Part", "shape": shape, "x": x, "y": y, "effects": numbered} | values))


def with_inner(kind: str, *effects: Effect, **values: Any) -> tuple[Part, ...]:
    """A part of a kind, with what lies in it before it. Alone on a canvas it is the last part; the ids
    that ``control`` gives fit that."""
    if kind in SHAPES_TRIED:
        return (part(SHAPES_TRIED[kind], *effects, **values),)
    inner = solid("#7090b0")
    box = part(Box(width=24, height=18, radius=4), inner, x=34, y=26, within="p3")
    disc = part(Round(width=16, height=16), inner, x=46, y=32, within="p3")
    return box, disc, part(CONTAINERS_TRIED[kind], *effects, **values)


def control(*parts: Part, width: float = 80, height: float = 60) -> Control:
    """A control of 80 × 60."""
    named = tuple(p.evolve(id=f"p{number}") for number, p in enumerate(parts, start=1))
    return Control(id="c1", name="Control", canvas=Canvas(width=width, height=height), parts=named, next_number=100)


def resolved(*parts: Part, fit: str = "off", **size: float) -> Resolved:
    """The control of these parts, not fitted to pixels unless asked."""
    return resolve(KIT.evolve(fit=fit), control(*parts, **size))


def layer(shown: Resolved, density: float = 1.0) -> Layer:
    """The whole canvas as floats, drawn without any cache."""
    return compose(shown, Frame(density, canvas_box(shown, density)), PixelCache())


def solid(colour: str, **values: Any) -> Paint:
    """A plain paint."""
    return Paint(id="e1", fill=Solid(colour=colour), **values)


def kit(*controls: Control) -> Kit:
    """A kit of these controls."""
    return Kit(id="k", name="Test kit", controls=controls)


def soft_sides(shown: Resolved, one: Part, density: float) -> int:
    """How many of a part's sides, and of its outlines' sides, have partly covered pixels."""
    return len(sides_of(shown, one, density).soft) if one.visible else 0
