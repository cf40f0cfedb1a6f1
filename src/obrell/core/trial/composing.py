"""The pixels of a panel: its ground, and over it what stands there, each as it looks at a moment."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from obrell.core.document.model import REST, Control, KitSettings
from obrell.core.document.readings import Readings
from obrell.core.document.resolve import colourway_or_day, palette, resolve
from obrell.core.document.transitions import Between, moment
from obrell.core.edit.admission import check_drawable, try_drawing
from obrell.core.raster.layers import PixelBox
from obrell.core.raster.quantise import Pixels
from obrell.core.render.between import draw_between
from obrell.core.render.cache import PixelCache
from obrell.core.render.compose import Frame, canvas_box, draw
from obrell.core.render.limits import check_region
from obrell.core.trial.screen import screen_of
from obrell.core.values.panels import Panel
from obrell.core.workspace import Kept, OfObject

Screen = NDArray[np.uint8]
"""Shape (height, width, 3): opaque red, green, blue; sRGB-encoded."""
_LOOKS = Kept[Pixels](32 << 20, size=lambda pixels: pixels.nbytes)
_ONES = OfObject[object](1200)
"""What stands for a control in keys: documents are too large to be compared."""
_GROUNDS = Kept[Screen](32 << 20, size=lambda pixels: pixels.nbytes)


@dataclass(frozen=True, slots=True)
class Seen:
    """Something on a panel as it looks: its control there, where its canvas lies, logical px, its colourway, and its
    state; where it ``came`` from another one, ``time`` ms ago."""

    control: Control
    x: float
    y: float
    colourway: str
    state: str = REST
    readings: Readings = ()
    came: str = ""
    time: float = 0.0


def size_of(panel: Panel, density: float) -> tuple[int, int]:
    """Width and height of its screen, device px."""
    box = PixelBox.around(0, 0, panel.width * density, panel.height * density)
    return box.width, box.height


def bare(panel: Panel) -> Panel:
    """A panel with nothing but what its empty screen shows: two with the same show the same."""
    return panel.evolve(id="panel", name="Panel", across=1, bezel=True, placements=(), sources=(), next_number=1)


def check_screen(kit: KitSettings, panel: Panel, before: Panel) -> None:
    """Raises ``Refused``, in words, for a screen that is another than ``before`` and cannot be drawn: one of too many
    device px, or made of a picture that is not here."""
    if bare(panel) != bare(before):
        check_region(PixelBox(0, 0, *size_of(panel, panel.density)))
        check_drawable(kit, screen_of(panel))


def try_screen(kit: KitSettings, panel: Panel) -> None:
    """Draw the screen of a panel once, very small, and let errors of drawing through."""
    check_region(PixelBox(0, 0, *size_of(panel, panel.density)))
    try_drawing(kit, screen_of(panel))


def ground_of(kit: KitSettings, panel: Panel, density: float, cache: PixelCache | None = None) -> Screen:
    """The screen without what stands on it; what is not painted there is white."""
    panel = bare(panel)
    key = (panel, tuple(palette(kit).items()), kit.light, kit.fit, density)

    def make() -> Screen:
        resolved = resolve(kit, screen_of(panel))
        pixels = draw(resolved, Frame(density, canvas_box(resolved, density)), cache)
        screen = np.full((*pixels.shape[:2], 3), 255, np.uint8)
        _lay(screen, pixels, 0, 0)
        return screen

    return _GROUNDS.get(key, make)


def composed(
    kit: KitSettings, panel: Panel, seen: Iterable[Seen], density: float, cache: PixelCache | None = None
) -> Screen:  # fmt: skip
    """The whole screen at a density, device px per logical px, back to front. Canvases lie on whole device px."""
    screen = ground_of(kit, panel, density, cache).copy()
    for one in seen:
        _lay(screen, pixels_of(kit, one, density, cache), *corner(one, density))
    return screen


def corner(seen: Seen, density: float) -> tuple[int, int]:
    """The device px at which the canvas of something begins."""
    return int(np.floor(seen.x * density + 0.5)), int(np.floor(seen.y * density + 0.5))


def pixels_of(kit: KitSettings, seen: Seen, density: float, cache: PixelCache | None = None) -> Pixels:
    """What something looks like at that moment: the delivered picture of all of its canvas."""
    colours = tuple(palette(kit, colourway_or_day(kit, seen.colourway)).items())
    key = (
        _ONES.get(seen.control, None, object), kit.light, kit.fit, colours, density,
        seen.state, seen.readings, seen.came, seen.time,
    )  # fmt: skip
    return _LOOKS.get(key, lambda: _drawn(kit, seen, density, cache))


def _drawn(kit: KitSettings, seen: Seen, density: float, cache: PixelCache | None) -> Pixels:
    there = _moment(kit, seen)
    return draw_between(there, Frame(density, canvas_box(there.first, density)), cache)


def _moment(kit: KitSettings, seen: Seen) -> Between:
    colourway = colourway_or_day(kit, seen.colourway)
    if seen.came and seen.came != seen.state:
        return moment(kit, seen.control, seen.came, seen.state, seen.time, colourway, seen.readings)
    there = resolve(kit, seen.control, seen.state, colourway, seen.readings)
    return Between(there, there, 1.0)


def _lay(screen: Screen, pixels: Pixels, left: int, top: int) -> None:
    """Straight pixels over opaque ones (Compositing and Blending 1, section 5.1), rounded half up."""
    box = PixelBox(left, top, left + pixels.shape[1], top + pixels.shape[0])
    seen = box.meet(PixelBox(0, 0, screen.shape[1], screen.shape[0]))
    if seen.empty:
        return
    over = pixels[seen.top - top : seen.bottom - top, seen.left - left : seen.right - left]
    under = screen[seen.top : seen.bottom, seen.left : seen.right]
    alpha = over[:, :, 3:].astype(np.uint32)
    mixed = over[:, :, :3] * alpha + under * (255 - alpha)
    under[:] = (2 * mixed + 255) // 510


def opaque(screen: Screen) -> Pixels:
    """The same pixels with an alpha that is whole everywhere."""
    pixels = np.full((*screen.shape[:2], 4), 255, np.uint8)
    pixels[:, :, :3] = screen
    return pixels
