"""A contact sheet: one screen under every combination of conditions, each with its words."""

from __future__ import annotations

import math
from collections.abc import Iterator
from itertools import product

import numpy as np

from obrell.core.document.model import KitSettings
from obrell.core.render.cache import PixelCache
from obrell.core.trial.composing import Screen, ground_of
from obrell.core.trial.conditions import AS_IT_IS, Conditions, Deficiency, seen_under
from obrell.core.values.paints import Solid
from obrell.core.values.panels import Fixture, Panel

Values = dict[str, float]
WIDEST_PX, TALLEST_PX = 300, 560
"""Of one picture on the sheet; a larger screen is made smaller by a whole number."""
NARROWEST_PX = 210
"""Of the place of one, so that its words fit under it."""
GAP_PX, CAPTION_PX = 20, 26
SUN_CD, NIGHT_CD, FAR_M = 300.0, 2.0, 2.0
"""What is shown of conditions that are not set."""
VISIONS: tuple[tuple[Deficiency, str], ...] = (
    ("usual", "usual vision"), ("protan", "weak for red"), ("deutan", "weak for green"), ("tritan", "weak for blue"),
)  # fmt: skip


def combinations(chosen: Conditions = AS_IT_IS) -> Iterator[tuple[str, Conditions]]:
    """Every combination, by words: by day, in the sun and at night, near and far, by all eyes and without colour; how
    much of each is as chosen, else what is usual."""
    lights: tuple[tuple[str, Values], ...] = (
        ("day", {}), (f"sun {chosen.sun or SUN_CD:g} cd/m²", {"sun": chosen.sun or SUN_CD}),
        (f"night {chosen.night or NIGHT_CD:g} cd/m²", {"night": chosen.night or NIGHT_CD}),
    )  # fmt: skip
    far = chosen.distance or FAR_M
    distances: tuple[tuple[str, Values], ...] = (
        ("near", {}),
        (f"{far:g} m", {"distance": far, "acuity": chosen.acuity}),
    )
    eyes: list[tuple[str, dict[str, object]]] = [
        (words, {"vision": kind, "severity": chosen.severity}) for kind, words in VISIONS
    ]
    eyes.append(("no colour", {"grey": True}))
    for (light, a), (distance, b), (eye, c) in product(lights, distances, eyes):
        yield f"{light}, {distance}, {eye}", Conditions.model_validate(a | b | c)


def contact_sheet(
    kit: KitSettings, panel: Panel, screen: Screen, density: float, chosen: Conditions = AS_IT_IS,
    cache: PixelCache | None = None,
) -> Screen:  # fmt: skip
    """The pixels of a screen of a density under every combination of conditions, five beside each other."""
    px_per_mm = panel.millimetre * density
    factor = max(1, math.ceil(screen.shape[1] / WIDEST_PX), math.ceil(screen.shape[0] / TALLEST_PX))
    shown = [(words, _smaller(seen_under(one, screen, px_per_mm), factor)) for words, one in combinations(chosen)]
    height, width = shown[0][1].shape[:2]
    across, columns = max(width, NARROWEST_PX) + GAP_PX, len(VISIONS) + 1
    places = [
        (GAP_PX + at % columns * across, GAP_PX + at // columns * (height + CAPTION_PX + GAP_PX))
        for at in range(len(shown))
    ]
    captions = tuple(
        Fixture(id=f"f{at}", x=x, y=y + height + 4, height=18, words=words)
        for at, ((words, _), (x, y)) in enumerate(zip(shown, places, strict=True))
    )
    rows = math.ceil(len(shown) / columns)
    sheet = Panel(
        id="sheet", name="Sheet", width=GAP_PX + columns * across,
        height=GAP_PX + rows * (height + CAPTION_PX + GAP_PX), ground=Solid(colour="#f4f2ec"), fixtures=captions,
    )  # fmt: skip
    pixels = ground_of(kit, sheet, 1.0, cache).copy()
    for (_, one), (x, y) in zip(shown, places, strict=True):
        pixels[y : y + height, x : x + width] = one
    return pixels


def _smaller(screen: Screen, factor: int) -> Screen:
    """Means of squares of pixels, at most as large as the screen; what is left over at the right and below is cut
    off."""
    factor = min(factor, *screen.shape[:2])
    height, width = (size // factor for size in screen.shape[:2])
    cut = screen[: height * factor, : width * factor].reshape(height, factor, width, factor, 3)
    means: Screen = np.floor(cut.mean(axis=(1, 3)) + 0.5).astype(np.uint8)
    return means
