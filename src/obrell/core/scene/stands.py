"""Parts as their effects find them at a density."""

from __future__ import annotations

from obrell.core.document.measures import spans_of
from obrell.core.document.model import Part
from obrell.core.document.moving import place_of
from obrell.core.document.resolve import Resolved
from obrell.core.effects.base import Stand
from obrell.core.geometry.paths import Path
from obrell.core.geometry.plane import Point, Rect, Similarity
from obrell.core.shapes import Shape
from obrell.core.shapes.base import fitted_at
from obrell.core.workspace import remembered


def stand_of(resolved: Resolved, part: Part, density: float) -> Stand:
    """The part on the device grid of a density, fitted as the part or kit asks unless it is blurred."""
    fit = "off" if is_blurred(part) else part.fit or resolved.fit
    shape: Shape = part.shape.at_density(density)
    place = Point(part.x, part.y)
    if fit != "off":
        shape, place = fitted_at(shape, place_of(part), density)
    to_device = Similarity(density, part.rotation, place.x * density, place.y * density, part.mirrored)
    box, outline = placed(shape, to_device)
    spans = spans_of(resolved.control, resolved.tree, part)
    return Stand(
        shape, to_device, resolved.lamp, box, outline, density if fit == "strokes" else 0.0, spans, fit != "off"
    )


def is_blurred(part: Part) -> bool:
    """Return whether a part is blurred. Such a part has no edges to fit to pixels."""
    return any(effect.seen and effect.deviation > 0 for effect in part.effects)


def stand_unfitted(resolved: Resolved, part: Part) -> Stand:
    """The part in the canvas's own space, logical px, on no grid."""
    place = place_of(part)
    box, outline = placed(part.shape, place)
    spans = spans_of(resolved.control, resolved.tree, part)
    return Stand(part.shape, place, resolved.lamp, box, outline, spans=spans)


@remembered(4096)
def placed(shape: Shape, place: Similarity) -> tuple[Rect, Path]:
    """A shape's own box and its outline in device space; kept, because most parts stay as they are."""
    return shape.box(), shape.path().transformed(place)
