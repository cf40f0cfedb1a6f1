"""Soft sides: straight, axis-aligned sides that do not lie on the device grid."""

from __future__ import annotations

import math
from dataclasses import dataclass
from itertools import product

from obrell.core.document.model import Part
from obrell.core.document.resolve import Resolved
from obrell.core.edit.parts import MoveParts
from obrell.core.edit.values import Change, SetValues
from obrell.core.effects.base import Stand
from obrell.core.effects.kinds.outline import OUTER_SHARE, Outline
from obrell.core.findings.base import Cure
from obrell.core.geometry.combine import combined
from obrell.core.geometry.nearest import nearest_on
from obrell.core.geometry.paths import Path, straight_lines
from obrell.core.geometry.plane import Point
from obrell.core.geometry.rounded import Insets
from obrell.core.geometry.svgdata import number
from obrell.core.icons import GRID
from obrell.core.scene.stands import stand_of
from obrell.core.shapes import Icon, Text

ON_GRID_PX = 0.5 / 255
"""A side nearer to the grid than this changes no eight-bit value."""
LEAST_SIDE_PX = 1.0
"""Device px that a straight stretch is long at least to be a side."""
FITS = ("off", "sides", "strokes")
NONE: Insets = (0.0, 0.0, 0.0, 0.0)
Line = tuple[str, float]
"""Which way a side runs, ``across`` or ``down``, and where, device px."""


@dataclass(frozen=True, slots=True)
class Sides:
    """A part's straight sides at one density: how many there are, and the soft ones by name."""

    count: int
    soft: tuple[str, ...]


def edge_near(resolved: Resolved, part: Part, density: float, near: Point | None = None) -> Point | None:
    """Return the place of a part's edge, device px, that is seen and nearest to ``near``, logical px of the canvas, or
    to the upper left of its frame; None when no edge is seen."""
    stand = stand_of(resolved, part, density)
    corner = stand.place.apply(stand.box.left, stand.box.top)
    at = Point(*corner) if near is None else Point(near.x * density, near.y * density)
    return nearest_on(_seen(resolved, part, stand, density), at.x, at.y)


def sides_of(resolved: Resolved, part: Part, density: float) -> Sides:
    """Return the part's sides and its outlines' sides. Those in one line are one; the stems of letters are none."""
    stand = stand_of(resolved, part, density)
    if part.rotation % 90 != 0 or isinstance(part.shape, Text) or stand.outline.bounds().empty:
        return Sides(0, ())
    own = _lines(stand, NONE)
    lines = _outlined(part, stand) | {line: _side(line, own) for line in own}
    soft = tuple(lines[line] for line in sorted(lines) if abs(line[1] - round(line[1])) > ON_GRID_PX)
    return Sides(len(lines), soft)


def _seen(resolved: Resolved, part: Part, stand: Stand, density: float) -> Path:
    """Return the outline of what is seen of a part on the device grid, within all that clips it or what it lies in."""
    node, clips = resolved.tree.all.get(part.id), []
    while node is not None:
        clips += [stand_of(resolved, clip, density).outline for clip in node.clips]
        node = resolved.tree.all.get(node.part.within or "")
    outline = stand.outline
    for clip in clips:
        outline = combined("intersection", (outline, clip))
    return outline


def cure(resolved: Resolved, part: Part, density: float) -> Cure | None:
    """Return what makes the part's soft sides crisp at a density: fitting that it does not have yet, a move, or for an
    icon a size that its grid fits. Return None when nothing does."""
    now = part.fit or resolved.fit
    for fit in FITS[FITS.index(now) + 1 :]:
        if not sides_of(resolved, part.evolve(fit=fit), density).soft:
            edit = SetValues(changes=(Change(path=f"parts/{part.id}/fit", value=fit),))
            return Cure("Fit its edges to pixels", edit)
    stand = stand_of(resolved, part, density)
    lines = _lines(stand, NONE)
    dx, dy = (_to_grid([at for way, at in lines if way == axis], density) for axis in ("down", "across"))
    moved = part.evolve(x=part.x + dx, y=part.y + dy)
    if (dx or dy) and not sides_of(resolved, moved, density).soft:
        return Cure("Move it to the grid", MoveParts(parts=(part.id,), dx=dx, dy=dy))
    return _sized_to_grid(resolved, part, density) if isinstance(part.shape, Icon) else None


def _sized_to_grid(resolved: Resolved, part: Part, density: float) -> Cure | None:
    """Return what makes all sides of an icon crisp: the nearest size that does, and a move by half a device px if that
    needs it. Return None when no size does."""
    now, half = part.shape.frame().width, 0.5 / density
    sizes = {GRID / 2 * max(1, count) for count in (math.floor(2 * now / GRID), math.ceil(2 * now / GRID))}
    for size, dx, dy in product(sorted({now, *sizes}, key=lambda one: abs(one - now)), (0, half), (0, half)):
        values = {"shape/width": size, "shape/height": size, "x": part.x + dx, "y": part.y + dy}
        sized = part.evolve(shape=part.shape.resized(size, size), x=values["x"], y=values["y"])
        if not sides_of(resolved, sized, density).soft:
            moved = {"x": dx, "y": dy, "shape/width": size != now, "shape/height": size != part.shape.frame().height}
            changes = tuple(
                Change(path=f"parts/{part.id}/{path}", value=values[path]) for path in moved if moved[path]
            )
            words = f"Make it {number(size)} px large" if size != now else "Move it to the grid"
            return Cure(words, SetValues(changes=changes))
    return None


def _to_grid(places: list[float], density: float) -> float:
    """How far all of them move, logical px, to lie on the grid; 0 when no one move does that."""
    away = {round(round(at) - at, 6) for at in places}
    return away.pop() / density if len(away) == 1 else 0.0


def _outlined(part: Part, stand: Stand) -> dict[Line, str]:
    """The straight sides of a part's outlines, inner and outer, and what each is called."""
    lines: dict[Line, str] = {}
    for effect in part.effects:
        if isinstance(effect, Outline) and effect.visible and max(effect.widths()) > 0 and not effect.drawn:
            top, right, bottom, left = effect.widths(stand.stroke)
            for share in (OUTER_SHARE[effect.place], OUTER_SHARE[effect.place] - 1):
                found = _lines(stand, (top * share, right * share, bottom * share, left * share))
                lines |= {line: f"{_side(line, found)} of the outline" for line in found}
    return lines


def _lines(stand: Stand, grown: Insets) -> set[Line]:
    """Where the straight sides of the shape, each moved outwards by a length, run on the device grid."""
    sides = stand.shape.straight_sides()
    if sides is None:
        path: Path = stand.shape.parallel(max(grown)) if any(grown) else stand.shape.path()
        return straight_lines(path.transformed(stand.place), LEAST_SIDE_PX)
    left, top, right, bottom = sides
    found: set[Line] = set()
    for x, y in ((left - grown[3], top - grown[0]), (right + grown[1], bottom + grown[2])):
        device_x, device_y = stand.place.apply(x, y)
        found |= {("down", round(device_x, 4)), ("across", round(device_y, 4))}
    return found


def _side(line: Line, lines: set[Line]) -> str:
    """What one of several sides is called."""
    way, at = line
    places = [place for other, place in lines if other == way]
    first, last = ("left", "right") if way == "down" else ("top", "bottom")
    if at == min(places):
        return first
    return last if at == max(places) else "inner"


def counted(names: tuple[str, ...]) -> str:
    """Names, each once, with how often it was there."""
    return ", ".join(
        name if names.count(name) == 1 else f"{names.count(name)} {name}" for name in dict.fromkeys(names)
    )
