"""How well labels on a panel are read under conditions: their contrast as it reaches the eye."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from functools import partial

import numpy as np

from obrell.core.colour.contrast import ORDINARY
from obrell.core.document.model import Control, KitSettings
from obrell.core.document.resolve import colourway_or_day, resolve
from obrell.core.raster.quantise import Pixels
from obrell.core.render.cache import PixelCache
from obrell.core.render.label_contrast import is_label, label_contrast
from obrell.core.trial.composing import Seen
from obrell.core.trial.conditions import Conditions, seen_under
from obrell.core.values.panels import Panel
from obrell.core.workspace import OfObject


@dataclass(frozen=True, slots=True)
class Label:
    """A label of something on a panel: the control it is of, the part's name, and its contrast, 1 to 21 (WCAG 2.2),
    of its weakest letter."""

    control: str
    part: str
    ratio: float

    @property
    def weak(self) -> bool:
        """Whether it is less than ordinary text needs."""
        return self.ratio < ORDINARY


def labels_under(
    kit: KitSettings, panel: Panel, seen: Iterable[Seen], conditions: Conditions, cache: PixelCache | None = None
) -> list[Label]:
    """Every label on a panel, each kind once, the weakest first."""
    found: dict[tuple[str, str, float], Label] = {}
    for one in seen:
        for label in _labels(kit, panel, one, conditions, cache):
            found.setdefault((label.control, label.part, label.ratio), label)
    return sorted(found.values(), key=lambda label: label.ratio)


def _labels(
    kit: KitSettings, panel: Panel, seen: Seen, conditions: Conditions, cache: PixelCache | None
) -> Iterator[Label]:
    control = _STOOD.get(seen.control, panel.ground.model_dump_json(), lambda: _on(seen.control, panel))
    resolved = resolve(kit, control, seen.state, colourway_or_day(kit, seen.colourway), seen.readings)
    eye = None if conditions.plain else partial(_seen, conditions, panel.millimetre)
    for part in resolved.control.parts:
        if is_label(resolved, part.id):
            contrast = label_contrast(resolved, part.id, cache, eye)
            if contrast is not None:
                yield Label(control.name, part.name, contrast.ratio)


_STOOD = OfObject[Control](200)


def _on(control: Control, panel: Panel) -> Control:
    """A control that stands on what the panel is made of."""
    return control.evolve(ground=panel.ground, stands="own")


def _seen(conditions: Conditions, px_per_mm: float, pixels: Pixels, density: float) -> Pixels:
    """What is seen of pixels over white, which all of them cover."""
    alpha = pixels[:, :, 3:].astype(np.float64) / 255
    shown = np.floor(pixels[:, :, :3] * alpha + 255 * (1 - alpha) + 0.5).astype(np.uint8)
    result = np.full_like(pixels, 255)
    result[:, :, :3] = seen_under(conditions, shown, px_per_mm * density)
    return result
