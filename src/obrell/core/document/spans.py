"""Fills that were laid over a group, laid over their own parts so that they look the same."""

from __future__ import annotations

from typing import Any

from obrell.core.document.model import Part
from obrell.core.document.moving import place_of
from obrell.core.effects import AnyEffect
from obrell.core.geometry.plane import Rect, direction
from obrell.core.values.paints import Conic, Linear, Radial, Stop, Texture

MOST, LEAST, MOST_PX = 1000.0, 0.001, 4096.0
"""What shares of a box, and how far something is moved, can be."""


def unshared(part: Part, seen: Part, group: Rect, span: str = "group") -> Part:
    """The part with every fill that spans ``group``, a box on the canvas, its own; ``seen`` is the part as it is
    drawn."""
    return part.evolve(effects=tuple(_unshared(effect, seen, group, span) for effect in part.effects))


def _unshared(effect: AnyEffect, seen: Part, group: Rect, span: str) -> AnyEffect:
    fill: Any = getattr(effect, "fill", None)
    if getattr(fill, "span", "part") != span:
        return effect
    own: AnyEffect = effect.evolve(fill=_laid(fill, seen, group))
    return own


def _laid(fill: Any, seen: Part, group: Rect) -> Any:
    if isinstance(fill, Linear):
        return _linear(fill, seen, group)
    if isinstance(fill, Radial):
        return _radial(fill, seen, group)
    if isinstance(fill, Conic):
        return _conic(fill, seen, group)
    if isinstance(fill, Texture):
        return _texture(fill, seen, group)
    return fill.evolve(span="part")


def _conic(fill: Conic, seen: Part, group: Rect) -> Conic:
    """Around the same place, from the same direction, and the other way round on a part that is mirrored."""
    centre, place = _centre(fill, seen, group), place_of(seen)
    own = fill.evolve(span="part", start=place.own(fill.start) % 360, **centre)
    return own.evolve(stops=turned_round(fill.stops)) if place.mirror else own


def turned_round(stops: tuple[Stop, ...]) -> tuple[Stop, ...]:
    """The ramp run through from its other end."""
    back = stops[::-1]
    bends = (*(1 - stop.midpoint for stop in back[1:]), 0.5)
    return tuple(
        stop.evolve(position=1 - stop.position, midpoint=bend) for stop, bend in zip(back, bends, strict=True)
    )


def _linear(fill: Linear, seen: Part, group: Rect) -> Linear:
    """The same rise along the same way: its line measured in the length that CSS makes of the part's box."""
    place = place_of(seen)
    x, y = direction(fill.angle)
    own_x, own_y = direction(place.own(fill.angle))
    box = seen.shape.box()
    whole = abs(group.width * x) + abs(group.height * y)
    length = max(abs(box.width * own_x) + abs(box.height * own_y), 1e-9)
    middle_x, middle_y = place.apply(box.centre.x, box.centre.y)
    at = ((middle_x - group.centre.x) * x + (middle_y - group.centre.y) * y) / max(whole, 1e-9)
    scale, offset = fill.scale * whole / length, (fill.offset - at) * whole / length
    return fill.evolve(span="part", angle=place.own(fill.angle) % 360, scale=_extent(scale), offset=_share(offset))


def _radial(fill: Radial, seen: Part, group: Rect) -> Radial:
    """The same ellipse, turned back by as much as the part is turned."""
    box, place = seen.shape.box(), place_of(seen)
    radii = (fill.radius_x * group.width, fill.radius_y * group.height)
    turn, focus = fill.turn - place.turn, fill.focus_y
    if place.mirror:
        turn, focus = 180 - (fill.turn - place.turn), -fill.focus_y
    return fill.evolve(
        span="part", turn=turn % 360, focus_y=focus, radius_x=_extent(radii[0] / max(box.width, 1e-9)),
        radius_y=_extent(radii[1] / max(box.height, 1e-9)), **_centre(fill, seen, group),
    )  # fmt: skip


def _texture(fill: Texture, seen: Part, group: Rect) -> Texture:
    """Around the same place, running the same way."""
    box, place = seen.shape.box(), place_of(seen)
    x, y = place.undo(group.centre.x + fill.across, group.centre.y + fill.down)
    return fill.evolve(
        span="part", angle=place.own(fill.angle) % 360, mirrored=fill.mirrored != place.mirror,
        across=_moved(x - box.centre.x), down=_moved(y - box.centre.y),
    )  # fmt: skip


def _centre(fill: Radial | Conic, seen: Part, group: Rect) -> dict[str, float]:
    box = seen.shape.box()
    x, y = place_of(seen).undo(group.left + fill.centre_x * group.width, group.top + fill.centre_y * group.height)
    return {
        "centre_x": _share((x - box.left) / max(box.width, 1e-9)),
        "centre_y": _share((y - box.top) / max(box.height, 1e-9)),
    }


def _share(value: float) -> float:
    return min(MOST, max(-MOST, value))


def _extent(value: float) -> float:
    return min(MOST, max(LEAST, value))


def _moved(value: float) -> float:
    return min(MOST_PX, max(-MOST_PX, value))
