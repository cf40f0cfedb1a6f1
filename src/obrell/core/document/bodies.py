"""What a control is pressed on, what is read of it, and what lies on what.

A control's body is what its label lies on: the front-most part behind it that holds its middle and is painted whole;
without a label the largest that is. What lies on a body are the parts in front of it whose middles it holds.
"""

from __future__ import annotations

from collections.abc import Iterable

from obrell.core.document.measures import frame_on_canvas
from obrell.core.document.model import Control, Part
from obrell.core.document.tree import arranged, descendants
from obrell.core.document.value_paths import value_at
from obrell.core.effects import Paint
from obrell.core.geometry.plane import Rect
from obrell.core.shapes import Icon, Text

SOLID = 0.85
"""The strength from which a paint hides what is behind it."""


def body_of(control: Control) -> tuple[str, ...]:
    """The part that a control is pressed on, by its id; nothing where none is painted whole."""
    solid = [part for part in control.parts if part.visible and _hides(part)]
    for label in reversed(labels_of(control)):
        behind = control.parts[: control.parts.index(label)]
        under = [part for part in solid if part in behind and not is_read(part) and _holds(control, part, label)]
        if under:
            return (under[-1].id,)
    largest = max(solid, key=lambda part: _area(box_of(control, part)), default=None)
    return () if largest is None else (largest.id,)


def labels_of(control: Control) -> list[Part]:
    """What is read of a control: its texts and icons, back to front."""
    return [part for part in control.parts if is_read(part)]


def is_read(part: Part) -> bool:
    """Whether it is a text or an icon that is shown."""
    return part.visible and isinstance(part.shape, Text | Icon)


def _hides(part: Part) -> bool:
    paints = (effect for effect in part.effects if isinstance(effect, Paint) and effect.seen)
    return part.opacity >= SOLID and part.blend == "normal" and any(map(_covers, paints))


def _covers(paint: Paint) -> bool:
    stops = getattr(paint.fill, "stops", ())
    return paint.opacity >= SOLID and paint.blend == "normal" and all(stop.opacity >= SOLID for stop in stops)


def box_of(control: Control, part: Part) -> Rect:
    """Around a part's frame on the canvas."""
    return frame_on_canvas(arranged(control).all[part.id].part)


def _area(box: Rect) -> float:
    return box.width * box.height


def _holds(control: Control, outer: Part, inner: Part) -> bool:
    box, other = box_of(control, outer), box_of(control, inner)
    x, y = other.centre.x, other.centre.y
    return box.meets(Rect(x, y, x, y)) and _area(box) >= _area(other)


def lying_on(control: Control, body: Iterable[str]) -> tuple[str, ...]:
    """The body with all that lies on it, back to front; what lies in a container goes with that."""
    ids = frozenset(body)
    found = set(ids)
    for name in ids:
        base: Part = value_at(control, f"parts/{name}")
        front = control.parts[control.parts.index(base) + 1 :]
        found |= {part.id for part in front if _holds(control, base, part)}
    inner = descendants(control, found) - found
    return tuple(part.id for part in control.parts if part.id in found and part.id not in inner)


def outermost(control: Control, body: str) -> Part:
    """The largest part that a body lies on, or the body."""
    base: Part = value_at(control, f"parts/{body}")
    behind = [
        part
        for part in control.parts
        if part.visible and part.within is None and _hides(part) and _holds(control, part, base)
    ]
    return max(behind, key=lambda part: _area(box_of(control, part)), default=base)
