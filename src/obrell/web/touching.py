"""Where a control is touched, as the sheet says it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from obrell.core.document.model import Control
from obrell.core.document.touching import body_outline, touch_outline
from obrell.core.geometry.plane import Rect
from obrell.core.values.touches import TouchesBody, TouchesBox, TouchesRound
from obrell.web.fields import FieldView, field_at

FIELDS = {
    "body": ("by",), "outline": ("by",), "box": ("width", "height", "x", "y", "radius"),
    "round": ("width", "height", "x", "y"),
}  # fmt: skip
GROWN_PX = 8.0
"""How far beyond the body a touch area begins."""


@dataclass(frozen=True, slots=True)
class TouchView:
    """What the touch area is, its live values by their names, its size, and what else it could be: words and edits."""

    kind: str
    fields: dict[str, FieldView]
    size: tuple[int, int]
    others: tuple[tuple[str, dict[str, Any]], ...]


def touch_view(control: Control, selected: tuple[str, ...]) -> TouchView:
    """The touch area of a control; where it has none apart from its body, its kind is empty."""
    kind = control.touch.kind if control.touch else ""
    bounds = touch_outline(control).bounds()
    return TouchView(
        kind, {name: field_at(control, f"touch/{name}") for name in FIELDS.get(kind, ())},
        (round(bounds.width), round(bounds.height)), tuple(_others(control, kind, selected)),
    )  # fmt: skip


def _others(control: Control, kind: str, selected: tuple[str, ...]) -> list[tuple[str, dict[str, Any]]]:
    box = body_outline(control).bounds()
    whole = Rect(0, 0, control.canvas.width, control.canvas.height) if box.empty else box.grown(GROWN_PX)
    place = {
        "x": round(whole.centre.x, 2), "y": round(whole.centre.y, 2),
        "width": round(whole.width, 2), "height": round(whole.height, 2),
    }  # fmt: skip
    kinds: dict[str, TouchesBody | TouchesBox | TouchesRound] = {
        "grown from its body": TouchesBody(by=GROWN_PX),
        "a box": TouchesBox(**place),
        "a round": TouchesRound(**place),
    }
    found = [(words, _setting(touch)) for words, touch in kinds.items() if touch.kind != kind]
    if len(selected) == 1:
        found.append(("where the selected part lies", {"kind": "touch-as", "part": selected[0]}))
    return found


def _setting(touch: TouchesBody | TouchesBox | TouchesRound) -> dict[str, Any]:
    return {"kind": "set", "changes": [{"path": "touch", "value": touch.model_dump(mode="json")}]}
