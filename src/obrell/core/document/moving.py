"""Moving parts on the canvas: what lies in a container moves, turns and scales with it."""

from __future__ import annotations

from collections.abc import Callable

from obrell.core.document.model import Control, Part
from obrell.core.document.paths import value_at
from obrell.core.geometry.plane import Similarity

PLACE = ("x", "y", "rotation")


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
