"""Soft sides: straight, axis-aligned sides that do not lie on the device grid."""

from __future__ import annotations

from obrell.core.document.model import Part
from obrell.core.document.resolve import Resolved
from obrell.core.effects.outline import OUTER_SHARE, Outline
from obrell.core.raster.layers import NO_BOX
from obrell.core.render.compose import SHARED
from obrell.core.render.site import PartSite, site_of

ON_GRID_PX = 0.5 / 255
"""A side nearer to the grid than this changes no eight-bit value."""


def soft_sides(resolved: Resolved, part: Part, density: float) -> int:
    """How many of the part's sides, and of its outlines' sides, have partly covered pixels."""
    if part.rotation % 90 != 0 or not part.visible:
        return 0
    site = site_of(resolved, part, density, NO_BOX, SHARED)
    sides = site.shape.straight_sides()
    if sides is None:
        return 0
    lines = _lines(sides, 0.0, site)
    for effect in part.effects:
        if isinstance(effect, Outline) and effect.visible and effect.width > 0:
            width = site.stroke(effect.width)
            outer = width * OUTER_SHARE[effect.place]
            for edge in {outer, outer - width} - {0.0}:
                lines |= _lines(sides, edge, site)
    return sum(abs(line - round(line)) > ON_GRID_PX for _, line in lines)


def _lines(sides: tuple[float, float, float, float], grown: float, site: PartSite) -> set[tuple[str, float]]:
    """Device positions of four sides grown by ``grown``, each with the direction it runs in."""
    left, top, right, bottom = sides
    corners = ((left - grown, top - grown), (right + grown, bottom + grown))
    found: set[tuple[str, float]] = set()
    for x, y in corners:
        device_x, device_y = site.place.apply(x, y)
        found |= {("down", device_x), ("across", device_y)}
    return found
