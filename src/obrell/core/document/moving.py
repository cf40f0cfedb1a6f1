"""Moving parts on the canvas: what lies in a container moves, turns and scales with it."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from obrell.core.document.model import Control, Part
from obrell.core.document.paths import value_at, with_value
from obrell.core.document.tree import descendants
from obrell.core.geometry.plane import Similarity
from obrell.core.shapes import Container

PLACE = ("x", "y", "rotation")


def set_value(control: Control, path: str, value: Any, light: float = 0.0) -> Control:
    """The control with another value at ``path`` (``paths.with_value``); when that is the place or the
    turn of a container, all that lies in it goes along."""
    changed: Control = with_value(control, path, value, light)
    *way, name = path.split("/")
    if len(way) != 2 or way[0] != "parts" or name not in PLACE:
        return changed
    old: Part = value_at(control, "/".join(way))
    if not isinstance(old.shape, Container):
        return changed
    new: Part = value_at(changed, "/".join(way))
    inner = descendants(control, (old.id,)) - {old.id}
    along = carried_by(old, new)
    return changed.evolve(parts=tuple(along(p) if p.id in inner else p for p in changed.parts))


def shift_at(control: Control, path: str) -> float:
    """What is added to the number at ``path`` to show it: a point of a path that is not turned is
    shown by where it lies on the canvas."""
    steps = path.split("/")
    if steps[0] != "parts" or "knots" not in steps or steps[-1] not in ("x", "y"):
        return 0.0
    part: Part = value_at(control, "/".join(steps[:2]))
    return 0.0 if part.rotation else float(getattr(part, steps[-1]))


def place_of(part: Part) -> Similarity:
    """From the part's own space to the canvas."""
    return Similarity(1.0, part.rotation, part.x, part.y)


def carried_by(old: Part, new: Part) -> Callable[[Part], Part]:
    """What takes along what lies in a container that is placed anew."""
    by = place_of(new).after(place_of(old).inverse())
    return lambda part: carried(part, by)


def carried(part: Part, by: Similarity) -> Part:
    """The part moved and turned on the canvas."""
    x, y = by.apply(part.x, part.y)
    rotation = (part.rotation + by.turn) % 360 if by.turn else part.rotation
    return part.evolve(x=round(x, 9), y=round(y, 9), rotation=rotation)
