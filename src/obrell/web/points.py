"""The chosen points of a path as the sheet shows them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from obrell.core.document.measures import points_on_canvas
from obrell.core.document.model import Control, Part
from obrell.core.document.moving import place_of
from obrell.core.geometry.plane import Point
from obrell.core.geometry.svgdata import number
from obrell.core.shapes import Path
from obrell.web.fields import FieldView, field_at


@dataclass(frozen=True, slots=True)
class PointsView:
    """Chosen points: how they are called, their place on the canvas where they share it, of one its handles by side
    and the pieces about its corner."""

    words: str
    x: str
    y: str
    handles: tuple[tuple[str, str, str], ...] = ()
    corner: tuple[str | FieldView, ...] = (".",)


def chosen_points(control: Control, part: Part, chosen: Sequence[tuple[int, int]]) -> PointsView | None:
    """Where the chosen points of a path lie on the canvas; of one also its handles, and its corner's radius."""
    if not isinstance(part.shape, Path) or not chosen:
        return None
    places = points_on_canvas(part)
    if not set(chosen) <= places.keys():
        return None
    at = _common([places[spot] for spot in chosen])
    if len(chosen) > 1:
        return PointsView(f"{len(chosen)} points", *at)
    contour, index = chosen[0]
    knot, place = part.shape.contours[contour].knots[index], place_of(part)
    handles = (("in", knot.in_x, knot.in_y), ("out", knot.out_x, knot.out_y))
    ends = ((side, Point(*place.apply(knot.x + dx, knot.y + dy))) for side, dx, dy in handles if dx or dy)
    seen = tuple((side, *_common([end])) for side, end in ends)
    radius = field_at(control, f"parts/{part.id}/shape/contours/{contour}/knots/{index}/radius")
    return PointsView("Point", *at, seen, (", corner ", radius, "."))


def _common(places: Sequence[Point]) -> tuple[str, str]:
    """The coordinates that all places share, as they are written; empty where they differ."""
    across, down = ({number(round(at.x, 3)) for at in places}, {number(round(at.y, 3)) for at in places})
    return across.pop() if len(across) == 1 else "", down.pop() if len(down) == 1 else ""
