"""How well what lies on a colour can be read while that is chosen, and which colours would do."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

import numpy as np

from obrell.app.wall import WallRequest, following, tried
from obrell.core.aside import SECONDS, patience
from obrell.core.document.resolve import Resolved, resolve
from obrell.core.document.tree import arranged, walk
from obrell.core.edit.values import SetValues
from obrell.core.effects import Paint
from obrell.core.render.cache import PixelCache
from obrell.core.render.label_contrast import Contrast, is_label, label_contrast, label_contrasts, looked
from obrell.core.render.readable_field import Curve, readable_field
from obrell.core.scene.bounds import bounds_of
from obrell.core.values.paints import Solid
from obrell.store.kits import Kits


@dataclass(frozen=True, slots=True)
class Reading:
    """The contrast of the label that a colour lies under, what it is called, and where in the field of a hue it is
    just read at 4.5 : 1, as curves of saturation and value, both 0 to 100."""

    contrast: Contrast
    name: str
    boundaries: tuple[Curve, ...]


@dataclass(frozen=True, slots=True)
class Weakest:
    """The label with the lowest contrast: its control's name, its own, and the ratio."""

    control: str
    label: str
    ratio: float


def coloured(made: SetValues, colour: str) -> SetValues:
    """Return an edit of a colour with a ``#rrggbb`` in place of the colour that it sets."""
    changes = (one.evolve(value=colour) if one.path.endswith("colour") else one for one in made.changes)
    return made.evolve(changes=tuple(changes))


def reading(
    resolved: Resolved, part: str, hue: float, with_colour: Callable[[str], Resolved] | None,
    cache: PixelCache | None = None,
) -> Reading | None:  # fmt: skip
    """Return how well the weakest label on a part can be read, in the field of a hue, degrees, or None without one.
    ``with_colour`` gives the control with a ``#rrggbb`` in the place of the colour that is chosen."""
    names = [part] if is_label(resolved, part) else list(_over(resolved, part))
    found = [one for name in names if (one := label_contrast(resolved, name, cache)) is not None]
    weakest = min(found, key=lambda one: one.ratio, default=None)
    if weakest is None:
        return None
    curves = readable_field(weakest.part, with_colour, hue, cache) if with_colour else ()
    return Reading(weakest, resolved.tree.all[weakest.part].part.name, curves)


def _over(resolved: Resolved, part: str) -> Iterator[str]:
    """Yield the labels in front of a part that lie on it and are seen."""
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
    """Return whether anything of a label is seen. One of the colour that it stands on would be in another."""
    found = looked(resolved, name)
    if found is not None and not np.array_equal(found[2], found[3]):
        return True
    pictures = [looked(_painted(resolved, name, colour), name) for colour in ("#000000", "#ffffff")]
    black, white = (None if one is None else one[2] for one in pictures)
    return black is not None and white is not None and not np.array_equal(black, white)


def _painted(resolved: Resolved, name: str, colour: str) -> Resolved:
    """Return the control with one part in a plain colour."""
    paint = Paint(id="e1", fill=Solid(colour=colour))
    parts = (one.evolve(effects=(paint,)) if one.id == name else one for one in resolved.control.parts)
    control = resolved.control.evolve(parts=tuple(parts))
    return replace(resolved, control=control, tree=arranged(control))


def weakest_on_wall(kits: Kits, kit: str, wanted: WallRequest, cache: PixelCache | None = None) -> Weakest | None:
    """Return the label with the lowest contrast in the controls in view that follow the swatches, or None."""
    index, found = tried(kits.index(kit), wanted), []
    for tile in following(kits, kit, wanted):
        resolved = resolve(index, kits.by_hash(tile.hash), colourway=wanted.colourway)
        with patience(SECONDS):
            weak = next(iter(label_contrasts(resolved, cache)), None)
        if weak is not None:
            found.append(Weakest(tile.name, resolved.tree.all[weak.part].part.name, weak.ratio))
    return min(found, key=lambda one: one.ratio, default=None)
