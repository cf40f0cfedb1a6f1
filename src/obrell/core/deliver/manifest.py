"""What a delivery says of itself: its files, and what a program needs to make the controls live."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Sequence
from typing import Any

from obrell.core.deliver.plan import File, LeftOut, Plan, body_box
from obrell.core.document.editions import in_editions, sizes_of
from obrell.core.document.model import Control, KitSettings
from obrell.core.document.resolve import DAY, DAY_NAME
from obrell.core.document.touching import touch_data
from obrell.core.geometry.plane import Rect
from obrell.core.values.easings import css_of
from obrell.core.values.transitions import Timing

MANIFEST = "manifest.json"


def manifest(
    kit: KitSettings, planned: Plan, entries: list[dict[str, Any]], left_out: Sequence[LeftOut] = ()
) -> str:  # fmt: skip
    """The manifest as JSON: the kit's name, one entry per file, what there is to know of controls that change, and
    what was left out when anything was."""
    content: dict[str, Any] = {"kit": kit.name, "files": entries}
    if kit.colourways:
        ways = [(DAY, DAY_NAME), *((one.id, one.name) for one in kit.colourways)]
        content["colourways"] = [{"id": ident, "name": name} for ident, name in ways]
    if changing := [about(control) for control in planned.controls if _tells(control)]:
        content["controls"] = changing
    if left_out:
        content["left_out"] = [{"name": one.name, "why": one.words} for one in left_out]
    return json.dumps(content, indent=2, ensure_ascii=False) + "\n"


def entry(file: File, content: bytes) -> dict[str, Any]:
    """What the manifest says of one file; lengths in its own pixels, body without shadows."""
    body = body_box(file.resolved, file.job.density)
    colourway = {"colourway": file.colourway} if file.colourway else {}
    return {
        "name": file.name,
        "control": file.resolved.control.name,
        **({"size": file.size} if file.size else {}),
        **colourway,
        "state": file.state,
        **_state_said(file),
        **({"readings": dict(file.readings)} if file.readings else {}),
        "format": file.format.kind,
        "density": file.job.density,
        "width": file.pixels.width,
        "height": file.pixels.height,
        "body": {
            "left": body.left - file.pixels.left, "top": body.top - file.pixels.top,
            "width": body.width, "height": body.height,
        },
        **({"touch": _touch(file, file.touch)} if file.touch else {}),
        "sha256": hashlib.sha256(content).hexdigest(),
    }  # fmt: skip


def _state_said(file: File) -> dict[str, str]:
    """Return the name and role of a file's state; nothing for rest."""
    return {} if file.called is None else {"state_name": file.called.name, "role": file.called.role}


def _tells(control: Control) -> bool:
    return bool(control.states or control.readings or control.touch or control.editions)


def _touch(file: File, touch: Rect) -> dict[str, float]:
    """Around where it is touched, in a file's own pixels."""
    density = file.job.density
    return {
        "left": round(touch.left * density - file.pixels.left, 3),
        "top": round(touch.top * density - file.pixels.top, 3),
        "width": round(touch.width * density, 3), "height": round(touch.height * density, 3),
    }  # fmt: skip


def about(control: Control) -> dict[str, Any]:
    """How a control changes and is touched: its sizes, its states and how long they take to become each other, its
    readings, and the outline of its touch area as SVG path data, in logical px of its canvas."""
    found: dict[str, Any] = {"control": control.name}
    if control.touch:
        found["touch"] = touch_data(control)
    if control.sizes:
        found["sizes"] = [_sized(control, ident, name) for ident, name in sizes_of(control)]
    if control.arts:
        found["densities_with_own_art"] = [one.density for one in control.arts]
    if control.states:
        found["states"] = [{"id": one.id, "name": one.name, "role": one.role} for one in control.states]
        found["transition"] = _timed(control.timing)
        found["transitions"] = [{"from": one.start, "to": one.end, **_timed(one)} for one in control.transitions]
    if control.readings:
        found["readings"] = [
            {"id": one.id, "name": one.name, "from": one.start, "to": one.end, "step": one.step, "begins": one.value,
             "unit": one.unit}
            for one in control.readings
        ]  # fmt: skip
    return found


def _sized(control: Control, size: str, name: str) -> dict[str, Any]:
    """A size: its canvas in logical px, and its own touch area."""
    shown = in_editions(control, (size,))
    touch = {"touch": touch_data(shown)} if shown.touch else {}
    return {"id": size, "name": name, "width": shown.canvas.width, "height": shown.canvas.height, **touch}


def _timed(timing: Timing) -> dict[str, Any]:
    return {"duration_ms": timing.duration, "delay_ms": timing.delay, "easing": css_of(timing.easing)}
