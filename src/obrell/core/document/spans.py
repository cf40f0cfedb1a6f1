"""Fills that were laid over a group, laid over their own parts so that they look the same."""

from __future__ import annotations

from typing import Any

from obrell.core.document.measures import frame_on_canvas
from obrell.core.document.model import Part
from obrell.core.document.moving import place_of
from obrell.core.effects import AnyEffect
from obrell.core.geometry.plane import Rect, direction
from obrell.core.values.paints import Conic, Linear, Radial


def unshared(part: Part, seen: Part, group: Rect) -> Part:
    """The part with every fill that spans ``group`` its own; ``seen`` is the part as it is drawn."""
    return part.evolve(effects=tuple(_unshared(effect, seen, group) for effect in part.effects))


def _unshared(effect: AnyEffect, seen: Part, group: Rect) -> AnyEffect:
    fill: Any = getattr(effect, "fill", None)
    if getattr(fill, "span", "part") != "group":
        return effect
    own: AnyEffect = effect.evolve(fill=_laid(fill, seen, group))
    return own


def _laid(fill: Any, seen: Part, group: Rect) -> Any:
    if isinstance(fill, Linear):
        return _linear(fill, seen, group)
    if isinstance(fill, Radial) and seen.rotation % 360 == 0:
        return _radial(fill, frame_on_canvas(seen), group)
    if isinstance(fill, Conic):
        return _conic(fill, seen, group)
    return fill.evolve(span="part")


def _conic(fill: Conic, seen: Part, group: Rect) -> Conic:
    """Around the same place, from the same direction."""
    x, y = place_of(seen).undo(group.left + fill.centre_x * group.width, group.top + fill.centre_y * group.height)
    box = seen.shape.box()
    across, down = (x - box.left) / max(box.width, 1e-9), (y - box.top) / max(box.height, 1e-9)
    centre_x, centre_y = (min(10.0, max(-10.0, value)) for value in (across, down))
    return fill.evolve(span="part", centre_x=centre_x, centre_y=centre_y, start=(fill.start - seen.rotation) % 360)


def _linear(fill: Linear, seen: Part, group: Rect) -> Linear:
    """The same rise along the same way: its line measured in the length that CSS makes of the part's box."""
    x, y = direction(fill.angle)
    own_x, own_y = direction(fill.angle - seen.rotation)
    box = seen.shape.box()
    whole = abs(group.width * x) + abs(group.height * y)
    length = max(abs(box.width * own_x) + abs(box.height * own_y), 1e-9)
    middle = frame_on_canvas(seen).centre
    at = ((middle.x - group.centre.x) * x + (middle.y - group.centre.y) * y) / whole
    scale = fill.scale * whole / length
    offset = (fill.offset - at) * whole / length
    return fill.evolve(
        span="part", angle=(fill.angle - seen.rotation) % 360, scale=min(10.0, max(0.001, scale)),
        offset=min(10.0, max(-10.0, offset)),
    )  # fmt: skip


def _radial(fill: Radial, box: Rect, group: Rect) -> Radial:
    x, y = group.left + fill.centre_x * group.width, group.top + fill.centre_y * group.height
    wide, high = max(box.width, 1e-9), max(box.height, 1e-9)
    values = {"centre_x": (x - box.left) / wide, "centre_y": (y - box.top) / high}
    radii = {"radius_x": fill.radius_x * group.width / wide, "radius_y": fill.radius_y * group.height / high}
    kept = {name: min(10.0, max(-10.0, value)) for name, value in values.items()}
    return fill.evolve(span="part", **kept, **{name: min(10.0, max(0.001, r)) for name, r in radii.items()})
