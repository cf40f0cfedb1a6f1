"""Where a control is touched."""

from __future__ import annotations

from obrell.core.document.bodies import body_of
from obrell.core.document.model import REST, Control
from obrell.core.document.moving import place_of
from obrell.core.document.states import in_state
from obrell.core.geometry.combine import grown, union
from obrell.core.geometry.paths import Path, PathBuilder, joined
from obrell.core.geometry.plane import Rect, Similarity
from obrell.core.geometry.svgdata import path_data, read_again
from obrell.core.shapes import Box, Round
from obrell.core.values.touches import TouchesBody, TouchesBox, TouchesOutline, TouchesRound
from obrell.core.workspace import OfObject

_OUTLINES = OfObject[Path](256)


def touch_outline(control: Control) -> Path:
    """The outline of where a control is touched, on its canvas, the same in all states: what was said of it, else that
    of its body; nothing where it has none."""
    return _OUTLINES.get(control, None, lambda: _outline(control))


def touch_box(control: Control) -> Rect:
    """Around where a control is touched; its canvas where it is nowhere."""
    box = touch_outline(control).bounds()
    return Rect(0, 0, control.canvas.width, control.canvas.height) if box.empty else box


def body_box(control: Control) -> Rect:
    """Around the body of a control at rest; its canvas where it has none."""
    box = body_outline(control).bounds()
    return Rect(0, 0, control.canvas.width, control.canvas.height) if box.empty else box


def _outline(control: Control) -> Path:
    touch = control.touch or TouchesBody(by=0)
    if isinstance(touch, TouchesBody):
        return grown(body_outline(control), touch.by, "round")
    if isinstance(touch, TouchesOutline):
        return grown(read_again(touch.data), touch.by, "round")
    return _shape(touch).path().transformed(Similarity(dx=touch.x, dy=touch.y))


def _shape(touch: TouchesBox | TouchesRound) -> Box | Round:
    if isinstance(touch, TouchesRound):
        return Round(width=touch.width, height=touch.height)
    return Box(width=touch.width, height=touch.height, radius=touch.radius)


def body_outline(control: Control) -> Path:
    """Around the body of a control at rest."""
    look = in_state(control, REST)
    parts = {part.id: part for part in look.parts}
    outlines = [parts[name].shape.path().transformed(place_of(parts[name])) for name in body_of(look)]
    return union(joined(outlines)) if outlines else PathBuilder().path()


def touch_data(control: Control) -> str:
    """The outline of a touch area as path data; empty where a control has none apart from its body."""
    return path_data(touch_outline(control)) if control.touch else ""
