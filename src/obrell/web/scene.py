"""What the stage needs to know to draw frames, handles and dimensions over the art."""

from __future__ import annotations

from obrell.core.document.model import Control, KitSettings, Part


def scene_of(control: Control, kit: KitSettings) -> dict[str, object]:
    """Canvas, light and every part's frame, in logical px; parts back to front."""
    light = control.light or kit.light
    return {
        "canvas": [control.canvas.width, control.canvas.height, control.canvas.margin],
        "light": light.direction,
        "parts": [_part(part) for part in control.parts],
    }


def _part(part: Part) -> dict[str, object]:
    frame = part.shape.frame()
    return {
        "id": part.id, "name": part.name, "kind": part.shape.kind,
        "x": part.x, "y": part.y, "turn": part.rotation,
        "frame": [frame.left, frame.top, frame.right, frame.bottom],
        "locked": part.locked, "visible": part.visible,
    }  # fmt: skip
