"""Whether a control's states lie on each other: what of a body or a label lies elsewhere than was asked."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from obrell.core.document.bodies import body_of, box_of, labels_of
from obrell.core.document.model import REST, Control, Part
from obrell.core.document.states import in_state, state_of
from obrell.core.geometry.plane import Rect
from obrell.core.values.differences import Moved

SLACK_PX = 0.05
"""What nobody sees."""
SIZES = ("shape/width", "shape/height", "rotation", "mirrored")


@dataclass(frozen=True, slots=True)
class Jump:
    """A part that lies so many px further right, lower, wider and higher than it was asked to."""

    part: Part
    across: float
    down: float
    wider: float
    higher: float


def jumps(control: Control, name: str) -> Iterator[Jump]:
    """The bodies and labels of a control that move in a state, by its id, without having been told to."""
    state = state_of(control, name)
    rest, look = in_state(control, REST), in_state(control, name)
    told = {one.path: one for one in state.differences}
    there = {part.id: part for part in look.parts}
    watched = dict.fromkeys((*body_of(rest), *(part.id for part in labels_of(rest))))
    for part in (one for one in rest.parts if one.id in watched and one.id in there):
        if any(f"parts/{part.id}/{path}" in told or _shape_told(told, part) for path in SIZES):
            continue
        across, down = (_asked(told, f"parts/{part.id}/{axis}") for axis in ("x", "y"))
        jump = _between(box_of(rest, part), box_of(look, there[part.id]), part, across, down)
        if f"parts/{part.id}/shape/words" in told:
            now = there[part.id]
            jump = Jump(part, now.x - part.x - across, now.y - part.y - down, 0.0, 0.0)
        if max(map(abs, (jump.across, jump.down, jump.wider, jump.higher))) > SLACK_PX:
            yield jump


def _shape_told(told: Mapping[str, object], part: Part) -> bool:
    """Whether its shape was told to be another, words of a text apart."""
    base = f"parts/{part.id}/shape"
    return any(path == base or (path.startswith(f"{base}/") and not path.endswith("/words")) for path in told)


def _asked(told: Mapping[str, object], path: str) -> float:
    found = told.get(path)
    return found.by if isinstance(found, Moved) else 0.0


def _between(rest: Rect, now: Rect, part: Part, across: float, down: float) -> Jump:
    wider, higher = now.width - rest.width, now.height - rest.height
    return Jump(
        part, now.centre.x - rest.centre.x - across, now.centre.y - rest.centre.y - down,
        0.0 if part.shape.kind == "text" else wider, 0.0 if part.shape.kind == "text" else higher,
    )  # fmt: skip
