"""Where a control is touched, as the sheet says it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from obrell.core.document.model import Control
from obrell.core.document.touching import touch_outline
from obrell.core.values.fields import live_of
from obrell.web.fields import FieldView, field_at

OTHERS = {"body": "grown from its body", "box": "a box", "round": "a round"}
"""What it can be, in words."""


@dataclass(frozen=True, slots=True)
class TouchView:
    """What the touch area is, its live values by their names, its size, and what else it could be: words and edits."""

    kind: str
    fields: dict[str, FieldView]
    size: tuple[int, int]
    others: tuple[tuple[str, dict[str, Any]], ...]


def touch_view(control: Control, selected: tuple[str, ...]) -> TouchView:
    """The touch area of a control; where it has none apart from its body, its kind and size are empty: what is sent
    with every edit says nothing of parts."""
    if control.touch is None:
        return TouchView("", {}, (0, 0), _others("", selected))
    kind, bounds = control.touch.kind, touch_outline(control).bounds()
    numbers = (name for name, field in type(control.touch).model_fields.items() if live_of(field.metadata))
    fields = {name: field_at(control, f"touch/{name}") for name in numbers}
    return TouchView(kind, fields, (round(bounds.width), round(bounds.height)), _others(kind, selected))


def _others(kind: str, selected: tuple[str, ...]) -> tuple[tuple[str, dict[str, Any]], ...]:
    forms = ((words, {"kind": "begin-touch", "form": form}) for form, words in OTHERS.items() if form != kind)
    as_part = (
        [("where the selected part lies", {"kind": "touch-as", "part": selected[0]})] if len(selected) == 1 else []
    )
    return (*forms, *as_part)
