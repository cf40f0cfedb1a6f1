"""How well what is nearest can be read while a colour is chosen, and which colours would do."""

from __future__ import annotations

from dataclasses import dataclass

from obrell.core.colour.contrast import Curve, boundary, reaches
from obrell.core.document.resolve import Resolved
from obrell.core.render.cache import PixelCache
from obrell.core.render.label_contrast import Contrast, is_label, label_contrast
from obrell.core.scene.bounds import bounds_of


@dataclass(frozen=True, slots=True)
class Reading:
    """The contrast of the label that is nearest to what is coloured, what it is called, and the boundaries in the
    field of a hue beyond which it reaches 4.5 : 1, as pairs of saturation and value, both 0 to 100."""

    contrast: Contrast
    name: str
    boundaries: tuple[Curve, ...]


def reading(resolved: Resolved, part: str, hue: float, cache: PixelCache | None = None) -> Reading | None:
    """For a part that is being coloured, in the field of a hue, degrees; None when there is nothing to read."""
    name = _nearest(resolved, part)
    found = None if name is None else label_contrast(resolved, name, cache)
    if name is None or found is None:
        return None
    # Another part's colour is taken to be what is behind the label; the label's own is on what is there.
    against = found.behind if name == part else found.own
    curves = tuple(curve for limit in reversed(reaches(against)) if (curve := boundary(hue, limit)))
    return Reading(found, resolved.tree.all[name].part.name, curves)


def _nearest(resolved: Resolved, part: str) -> str | None:
    """The part itself when it is read, else the label whose middle is nearest to its own."""
    labels = [one.id for one in resolved.control.parts if is_label(resolved, one.id)]
    if part in labels or not labels:
        return part if labels else None
    node = resolved.tree.all.get(part)
    if node is None:
        return labels[-1]
    x, y = _middle(resolved, part)

    def away(name: str) -> float:
        across, down = _middle(resolved, name)
        return (across - x) ** 2 + (down - y) ** 2

    return min(reversed(labels), key=away)


def _middle(resolved: Resolved, part: str) -> tuple[float, float]:
    box = bounds_of(resolved, resolved.tree.all[part])
    return box.left + box.width / 2, box.top + box.height / 2
