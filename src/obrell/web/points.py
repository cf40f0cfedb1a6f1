"""The chosen points of a path as the sheet shows them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from obrell.core.document.model import Control, Part
from obrell.core.document.moving import place_of
from obrell.core.geometry.svgdata import number
from obrell.core.shapes import Path
from obrell.web.slots import SlotView, slot


@dataclass(frozen=True, slots=True)
class PointsView:
    """Chosen points: how they are called, their place on the canvas where they share it, of one its handles by side
    and the pieces about its corner."""

    words: str
    x: str
    y: str
    handles: tuple[tuple[str, str, str], ...] = ()
    corner: tuple[str | SlotView, ...] = (".",)


def chosen_points(control: Control, part: Part, chosen: Sequence[tuple[int, int]]) -> PointsView | None:
    """Where the chosen points of a path lie on the canvas; of one also its handles, and its corner's radius."""
    if not isinstance(part.shape, Path) or not chosen:
        return None
    runs, place = part.shape.contours, place_of(part)
    knots = [runs[c].knots[k] for c, k in chosen if c < len(runs) and k < len(runs[c].knots)]
    if len(knots) < len(chosen):
        return None
    at = _common([place.apply(knot.x, knot.y) for knot in knots])
    if len(knots) > 1:
        return PointsView(f"{len(knots)} points", *at)
    knot, (contour, index) = knots[0], chosen[0]
    handles = (("in", knot.in_x, knot.in_y), ("out", knot.out_x, knot.out_y))
    seen = tuple((side, *_common([place.apply(knot.x + dx, knot.y + dy)])) for side, dx, dy in handles if dx or dy)
    radius = slot(control, f"parts/{part.id}/shape/contours/{contour}/knots/{index}/radius")
    return PointsView("Point", *at, seen, (", corner ", radius, "."))


def _common(places: Sequence[tuple[float, float]]) -> tuple[str, str]:
    """The coordinates that all places share, as they are written; empty where they differ."""
    written = ({number(round(place[axis], 3)) for place in places} for axis in (0, 1))
    across, down = (values.pop() if len(values) == 1 else "" for values in written)
    return across, down
