"""Soft sides: straight, axis-aligned sides that do not lie on the device grid."""

from __future__ import annotations

from obrell.core.document.model import Part
from obrell.core.document.resolve import Resolved
from obrell.core.effects.outline import OUTER_SHARE, Outline
from obrell.core.geometry.paths import Path, straight_lines
from obrell.core.geometry.rounded import Insets
from obrell.core.raster.layers import NO_BOX
from obrell.core.render.compose import SHARED
from obrell.core.render.site import PartSite, site_of
from obrell.core.shapes import Text

ON_GRID_PX = 0.5 / 255
"""A side nearer to the grid than this changes no eight-bit value."""
LEAST_SIDE_PX = 1.0
"""Device px that a straight stretch is long at least to be a side."""


def soft_sides(resolved: Resolved, part: Part, density: float) -> int:
    """How many of the part's sides, and of its outlines' sides, have partly covered pixels. Sides in one
    line are one; the stems of letters are none."""
    if part.rotation % 90 != 0 or not part.visible or isinstance(part.shape, Text):
        return 0
    site = site_of(resolved, part, density, NO_BOX, SHARED)
    lines = _lines(site, (0.0, 0.0, 0.0, 0.0))
    for effect in part.effects:
        if isinstance(effect, Outline) and effect.visible:
            top, right, bottom, left = effect.widths(site.stroke)
            for share in (OUTER_SHARE[effect.place], OUTER_SHARE[effect.place] - 1):
                lines |= _lines(site, (top * share, right * share, bottom * share, left * share))
    return sum(abs(at - round(at)) > ON_GRID_PX for _, at in lines)


def _lines(site: PartSite, grown: Insets) -> set[tuple[str, float]]:
    """Where the straight sides of the shape, each moved outwards by a length, run on the device grid."""
    sides = site.shape.straight_sides()
    if sides is None:
        path: Path = site.shape.parallel(max(grown)) if any(grown) else site.shape.path()
        return straight_lines(path.transformed(site.place), LEAST_SIDE_PX)
    left, top, right, bottom = sides
    found: set[tuple[str, float]] = set()
    for x, y in ((left - grown[3], top - grown[0]), (right + grown[1], bottom + grown[2])):
        device_x, device_y = site.place.apply(x, y)
        found |= {("down", device_x), ("across", device_y)}
    return found
