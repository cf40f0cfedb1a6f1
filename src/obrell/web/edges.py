"""The edge of a part at each density, where it is nearest to the place that was pressed."""

from __future__ import annotations

import math

from obrell.core.document.model import Part
from obrell.core.document.resolve import Resolved
from obrell.core.findings.sides import counted, cure, edge_near, sides_of
from obrell.core.geometry.plane import Point
from obrell.store.kits import Stored
from obrell.web.pictures import Dressed

EDGE_DENSITIES = (1.0, 1.5, 2.0, 3.0)
EDGE_SIZE = (24, 18)
"""Logical px that are shown at each density."""


def edges_of(
    dressed: Dressed, stored: Stored, resolved: Resolved, part: Part | None, near: Point | None
) -> list[dict[str, object]]:  # fmt: skip
    """The edge at each density: a picture of it, how many straight sides there are, which are soft, and the edit
    that makes them crisp. None for a part without an outline."""
    if part is None:
        return []
    edges: list[dict[str, object]] = []
    for density in EDGE_DENSITIES:
        place = edge_near(resolved, part, density, near)
        if place is None:
            continue
        sides = sides_of(resolved, part, density)
        width, height = (round(size * density) for size in EDGE_SIZE)
        left, top = math.floor(place.x) - width // 2, math.floor(place.y) - height // 2
        box = {"left": left, "top": top, "width": width, "height": height}
        mends = cure(resolved, part, density) if sides.soft else None
        edges.append({
            "density": density, "sides": sides.count, "soft": len(sides.soft), "names": counted(sides.soft),
            "cure": mends.edit.model_dump_json() if mends else "",
            "does": mends.words if mends else "",
            "picture": dressed.stored(stored, density, free=1, **box),
        })  # fmt: skip
    return edges
