"""How well what lies on a colour can be read while that is chosen, and which colours would do."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

import numpy as np

from obrell.app.wall import WallRequest, following, tried
from obrell.core.document.resolve import Resolved, resolve
from obrell.core.document.tree import arranged, walk
from obrell.core.effects import Paint
from obrell.core.render.cache import PixelCache
from obrell.core.render.label_contrast import Contrast, is_label, label_contrast, label_contrasts, looked
from obrell.core.render.readable_field import Curve, readable_field
from obrell.core.scene.bounds import bounds_of
from obrell.core.values.paints import Solid
from obrell.store.kits import Kits

HUE_SHOWN = "#808080"
"""A colour in the middle of all: by it the field is tried."""


@dataclass(frozen=True, slots=True)
class Reading:
    """The contrast of the label that a colour lies under, what it is called, and where in the field of a hue it is
    just read at 4.5 : 1, as curves of saturation and value, both 0 to 100."""

    contrast: Contrast
    name: str
    boundaries: tuple[Curve, ...]


@dataclass(frozen=True, slots=True)
class Weakest:
    """A control, its label that is read least, and the contrast of that."""

    control: str
    label: str
    ratio: float


def reading(
    resolved: Resolved, part: str, hue: float, with_colour: Callable[[str], Resolved] | None,
    cache: PixelCache | None = None,
) -> Reading | None:  # fmt: skip
    """For a part that is being coloured, in the field of a hue, degrees; None when nothing is read on it.
    ``with_colour`` gives the control with a ``#rrggbb`` in the colour's place, where that can be told."""
    names = [part] if is_label(resolved, part) else list(_over(resolved, part))
    found = [one for name in names if (one := label_contrast(resolved, name, cache)) is not None]
    weakest = min(found, key=lambda one: one.ratio, default=None)
    if weakest is None:
        return None
    curves = readable_field(weakest.part, with_colour, HUE_SHOWN, hue, cache) if with_colour else ()
    return Reading(weakest, resolved.tree.all[weakest.part].part.name, curves)


def _over(resolved: Resolved, part: str) -> Iterator[str]:
    """The labels in front of a part that lie on it, and are not hidden by what lies in front of them."""
    node = resolved.tree.all.get(part)
    order = [one.part.id for one in walk(resolved.tree.nodes)]
    if node is None or part not in order:
        return
    under, at = bounds_of(resolved, node), order.index(part)
    for name in order[at + 1 :]:
        lies_on = is_label(resolved, name) and not bounds_of(resolved, resolved.tree.all[name]).meet(under).empty
        if lies_on and _is_seen(resolved, name):
            yield name


def _is_seen(resolved: Resolved, name: str) -> bool:
    """Whether a label could be seen in some colour: nothing hides all of it."""
    pictures = [looked(_painted(resolved, name, colour), name) for colour in ("#000000", "#ffffff")]
    black, white = (None if one is None else one[2] for one in pictures)
    return black is not None and white is not None and not np.array_equal(black, white)


def _painted(resolved: Resolved, name: str, colour: str) -> Resolved:
    """The control with one part in a plain colour."""
    paint = Paint(id="e1", fill=Solid(colour=colour))
    parts = (one.evolve(effects=(paint,)) if one.id == name else one for one in resolved.control.parts)
    control = resolved.control.evolve(parts=tuple(parts))
    return replace(resolved, control=control, tree=arranged(control))


def weakest_on_wall(kits: Kits, kit: str, wanted: WallRequest, cache: PixelCache | None = None) -> Weakest | None:
    """The label that is read least among the controls in view that follow the swatches; None where nothing is read."""
    index, found = tried(kits.index(kit), wanted), []
    for tile in following(kits, kit, wanted):
        resolved = resolve(index, kits.by_hash(tile.hash), colourway=wanted.colourway)
        weak = next(iter(label_contrasts(resolved, cache)), None)
        if weak is not None:
            found.append(Weakest(tile.name, resolved.tree.all[weak.part].part.name, weak.ratio))
    return min(found, key=lambda one: one.ratio, default=None)
