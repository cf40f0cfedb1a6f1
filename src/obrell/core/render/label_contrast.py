"""The contrast of words against the pixels that really lie behind them, letter by letter (WCAG 2.2, "contrast
ratio")."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from obrell.core.colour.contrast import LUMINANCE, ratio
from obrell.core.document.bodies import is_read
from obrell.core.document.nodes import Node
from obrell.core.document.resolve import Resolved
from obrell.core.document.tree import arranged
from obrell.core.effects import Paint
from obrell.core.geometry.plane import Rect
from obrell.core.paint.areas import touched
from obrell.core.raster.quantise import Pixels
from obrell.core.render.cache import PixelCache
from obrell.core.render.compose import Frame, canvas_box, compose, draw
from obrell.core.scene.stands import stand_of
from obrell.core.shapes import Text
from obrell.core.values.paints import Solid
from obrell.core.workspace import OfObject

LETTER_PX = 48.0
"""How tall letters are looked at, device px; strokes of less than a px have no pixel that is theirs alone."""
DENSEST = 8.0
WITHIN = 0.98
"""Coverage from which a pixel shows the letter and nothing else; where none does, those with the most."""
TOUCHED = 0.02
AIR_PX = 2
"""How far around a letter what lies behind it counts, device px."""
Mask = NDArray[np.bool_]
Ink = NDArray[np.float32]
Eye = Callable[[Pixels, float], Pixels]
"""What somebody gets of pixels of a density, device px per logical px."""


@dataclass(frozen=True, slots=True)
class Contrast:
    """The weakest letter of a part: the ratio, 1 to 21, where it stands, logical px of the canvas, the relative
    luminance of what is behind it, and its own, both 0 to 1."""

    part: str
    ratio: float
    box: Rect
    behind: float
    own: float


def label_contrasts(resolved: Resolved, cache: PixelCache | None = None) -> list[Contrast]:
    """Of every text and icon that is seen, the weakest letter, the weakest part first; those without ink on the canvas
    are left out."""
    found = (
        label_contrast(resolved, part.id, cache) for part in resolved.control.parts if is_label(resolved, part.id)
    )
    return sorted((one for one in found if one is not None), key=lambda one: one.ratio)


def is_label(resolved: Resolved, name: str) -> bool:
    """Whether a part is read: a text or an icon that is shown."""
    node = resolved.tree.all.get(name)
    return node is not None and is_read(node.part)


def label_contrast(
    resolved: Resolved, name: str, cache: PixelCache | None = None, eye: Eye | None = None
) -> Contrast | None:  # fmt: skip
    """The weakest letter of one part on what the control stands on, as it is or as an ``eye`` sees it."""
    found = looked(resolved, name, cache)
    if found is None:
        return None
    frame, ink, shown, bare = found
    with_it, behind = (_luminance(one if eye is None else eye(one, frame.density)) for one in (shown, bare))
    letters = [_letter(name, ink, with_it, behind, frame, place) for place in _letters(ink)]
    return min(letters, key=lambda one: one.ratio, default=None)


Looked = tuple[Frame, Ink, Pixels, Pixels]
"""Where a part is looked at, how much of each pixel it covers, and what is seen there with it and without."""
_LOOKED = OfObject["Looked | None"](48)
"""What is looked at of a part: the same for every eye."""


def looked(resolved: Resolved, name: str, cache: PixelCache | None = None) -> Looked | None:
    """What is looked at of a text or icon; None where it has no ink on the canvas."""
    return _LOOKED.get(resolved, name, lambda: _looked(resolved, name, cache))


def letter_pixels(found: Looked) -> Iterator[tuple[NDArray[np.float64], NDArray[np.float64]]]:
    """Of each letter its own pixels and those behind it, as on white paper: count × 3, 0 to 1."""
    _, ink, shown, bare = found
    for place in _letters(ink):
        inside, near = _of_letter(ink, place)
        yield _on_paper(shown[place][inside]), _on_paper(bare[near].reshape(-1, 4))


def _looked(resolved: Resolved, name: str, cache: PixelCache | None) -> Looked | None:
    part = resolved.tree.all[name].part
    tall = part.shape.size if isinstance(part.shape, Text) else part.shape.frame().height
    density = min(DENSEST, max(1.0, LETTER_PX / max(1.0, tall)))
    outline = touched(stand_of(resolved, part, density).outline)
    box = outline.grown(AIR_PX).meet(canvas_box(resolved, density))
    if box.empty:
        return None
    frame = Frame(density, box)
    shown, bare = (draw(one.standing(), frame, cache) for one in (resolved, _without(resolved, name)))
    return frame, _coverage(resolved, name, frame), shown, bare


def _coverage(resolved: Resolved, name: str, frame: Frame) -> NDArray[np.float32]:
    """How much of each pixel the part's shape covers, 0 to 1, height × width."""
    plain = Paint(id="e1", fill=Solid(colour="#000000"))
    bare = resolved.tree.all[name].part.evolve(effects=(plain,), opacity=1.0, blend="normal", visible=True, clip=None)
    alone = replace(resolved, tree=replace(resolved.tree, nodes=(Node(bare),)))
    alpha: NDArray[np.float32] = compose(alone, frame, PixelCache(0)).planes[3]
    return alpha


def _without(resolved: Resolved, name: str) -> Resolved:
    parts = tuple(part.evolve(visible=False) if part.id == name else part for part in resolved.control.parts)
    control = resolved.control.evolve(parts=parts)
    return replace(resolved, control=control, tree=arranged(control))


def _luminance(pixels: NDArray[np.uint8]) -> NDArray[np.float64]:
    """Relative luminance of pixels on white paper, height × width."""
    result: NDArray[np.float64] = linear(_on_paper(pixels)) @ np.array(LUMINANCE)
    return result


def linear(encoded: NDArray[np.float64]) -> NDArray[np.float64]:
    """Return channels of encoded sRGB, 0 to 1, as linear light (CSS Color 4, section 10.2)."""
    return np.where(encoded <= 0.04045, encoded / 12.92, ((encoded + 0.055) / 1.055) ** 2.4)


def _on_paper(pixels: NDArray[np.uint8]) -> NDArray[np.float64]:
    """Pixels as they are on white paper, where that is seen through them, 0 to 1."""
    values = pixels.astype(np.float64) / 255
    shown: NDArray[np.float64] = values[..., :3] * values[..., 3:] + 1 - values[..., 3:]
    return shown


def _letters(ink: NDArray[np.float32]) -> Iterator[tuple[slice, slice]]:
    """Boxes of what stands apart from what is beside it, line by line; letters that touch are one."""
    covered: Mask = ink > TOUCHED
    for rows in _runs(np.any(covered, axis=1)):
        for columns in _runs(np.any(covered[rows], axis=0)):
            yield rows, columns


def _runs(found: Any) -> Iterator[slice]:
    edges = np.flatnonzero(np.diff(np.concatenate(([False], found, [False])).astype(np.int8)))
    for start, end in zip(edges[::2].tolist(), edges[1::2].tolist(), strict=True):
        yield slice(start, end)


def _letter(
    name: str, ink: NDArray[np.float32], with_it: NDArray[np.float64], behind: NDArray[np.float64],
    frame: Frame, place: tuple[slice, slice],
) -> Contrast:  # fmt: skip
    rows, columns = place
    inside, near = _of_letter(ink, place)
    light, dark = float(with_it[place][inside].mean()), float(behind[near].mean())
    left, top, d = frame.region.left, frame.region.top, frame.density
    box = Rect((left + columns.start) / d, (top + rows.start) / d, (left + columns.stop) / d, (top + rows.stop) / d)
    return Contrast(name, ratio(light, dark), box, dark, light)


def _of_letter(ink: Ink, place: tuple[slice, slice]) -> tuple[Mask, tuple[slice, slice]]:
    """Which pixels of its box are a letter's own, and the box of what counts as behind it."""
    own = ink[place]
    rows, columns = (slice(max(0, one.start - AIR_PX), one.stop + AIR_PX) for one in place)
    return own >= min(WITHIN, float(own.max())), (rows, columns)


def plainly(ratio: float) -> str:
    """A ratio as it is read, cut rather than rounded, so that 4.49 is not called 4.5."""
    return f"{math.floor(ratio * 10 + 1e-9) / 10:g} : 1"
