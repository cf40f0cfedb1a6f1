"""Moving parts on the canvas: what lies in a container moves, turns and scales with it."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping

from obrell.core.document.model import Control, Part
from obrell.core.document.value_paths import value_at
from obrell.core.effects import Effect, Mask
from obrell.core.effects.kinds.mask import PartCover
from obrell.core.geometry.plane import Similarity

PLACE = ("x", "y", "rotation", "mirrored")


def shift_at(control: Control, path: str) -> float:
    """What is added to the number at ``path`` to show it: a point of a path that is not turned is
    shown by where it lies on the canvas."""
    steps = path.split("/")
    if steps[0] != "parts" or "knots" not in steps or steps[-1] not in ("x", "y"):
        return 0.0
    part: Part = value_at(control, "/".join(steps[:2]))
    return 0.0 if part.rotation or part.mirrored else float(getattr(part, steps[-1]))


def place_of(part: Part) -> Similarity:
    """From the part's own space to the canvas."""
    return Similarity(1.0, part.rotation, part.x, part.y, part.mirrored)


def way_of(part: Part) -> Similarity:
    """From directions of the part's own space to those of the canvas."""
    return Similarity(turn=part.rotation, mirror=part.mirrored)


def carried_by(old: Part, new: Part) -> Callable[[Part], Part]:
    """What takes along what lies in a container that is placed anew."""
    by = place_of(new).after(place_of(old).inverse())
    return lambda part: carried(part, by)


def carried(part: Part, by: Similarity) -> Part:
    """The part moved, turned and mirrored on the canvas."""
    to = by.after(place_of(part))
    rotation = to.turn % 360 if by.turn or by.mirror else part.rotation
    return part.evolve(x=round(to.dx, 9), y=round(to.dy, 9), rotation=rotation, mirrored=to.mirror)


def carried_together(parts: Iterable[Part], by: Mapping[str, Similarity]) -> tuple[Part, ...]:
    """The parts, those named in ``by`` moved and turned. A mask whose part is carried along is not moved again."""
    return tuple(_refitted(carried(part, by[part.id]), by) if part.id in by else part for part in parts)


def _refitted(part: Part, along: Mapping[str, Similarity]) -> Part:
    if not any(covering(effect) in along for effect in part.effects):
        return part
    by = along[part.id]
    effects = tuple(
        effect.fitted_to(*by.apply(effect.fitted_x, effect.fitted_y))
        if isinstance(effect, Mask) and covering(effect) in along
        else effect
        for effect in part.effects
    )
    return part.evolve(effects=effects)


def covering(effect: Effect) -> str | None:
    """The id of the part that an effect masks by; None for all that do not."""
    cover = effect.cover if isinstance(effect, Mask) else None
    return cover.part if isinstance(cover, PartCover) else None
