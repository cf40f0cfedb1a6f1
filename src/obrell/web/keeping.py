"""What follows what, as the sheet says it: a sentence for a part that keeps to another, and the proposal of a fit."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from obrell.core.document.measures import frame_on_canvas
from obrell.core.document.model import Control, Follow, Part
from obrell.core.document.resolve import Resolved
from obrell.core.geometry.svgdata import number
from obrell.core.shapes import Box, Round
from obrell.web.slots import SlotView, slot

KEPT = {
    ("shape/width", "width"): "wider by", ("shape/height", "height"): "higher by",
    ("shape/radius", "radius"): "corners by", ("x", "middle across"): "across by", ("y", "middle down"): "down by",
}  # fmt: skip
"""Numbers that follow the same number of another part, and how the difference is called."""
LEAST = 2
"""How many of them make one sentence."""
ROOM = (16.0, 8.0)
"""Room across and down that is proposed where a body has none around its label."""


@dataclass(frozen=True, slots=True)
class KeptView:
    """One number that keeps a distance."""

    words: str
    slot: SlotView


@dataclass(frozen=True, slots=True)
class KeepingView:
    """A part that keeps to another one: by how much each of its numbers differs, and the edit that ends it."""

    source: str
    values: tuple[KeptView, ...]
    stop: dict[str, str]


@dataclass(frozen=True, slots=True)
class FitView:
    """A body that can be fitted around another part, with the room that is proposed."""

    body: str
    body_name: str
    inner: str
    inner_name: str
    across: str
    down: str


def keeping(control: Control, part: Part) -> tuple[KeepingView, ...]:
    """The parts that a part keeps to."""
    return tuple(_keeping(control, part, source) for source in dict.fromkeys(f.source for f in kept(part)))


def kept(part: Part) -> list[Follow]:
    """The follows that are said in one sentence: two or more of the same numbers of one part."""
    plain = [follow for follow in part.follows if (follow.path, follow.measure) in KEPT]
    return [follow for follow in plain if sum(other.source == follow.source for other in plain) >= LEAST]


def _keeping(control: Control, part: Part, source: str) -> KeepingView:
    name = next((other.name for other in control.parts if other.id == source), "a part that is gone")
    stop = {"kind": "remove-follow", "part": part.id, "source": source}
    return KeepingView(name, tuple(_values(control, part, source)), stop)


def _values(control: Control, part: Part, source: str) -> Iterator[KeptView]:
    order = list(KEPT)
    found = [follow for follow in kept(part) if follow.source == source]
    for follow in sorted(found, key=lambda one: order.index((one.path, one.measure))):
        offset = slot(control, f"parts/{part.id}/follows/{part.follows.index(follow)}/offset")
        yield KeptView(KEPT[follow.path, follow.measure], offset)


def fit_of(resolved: Resolved, selected: tuple[str, ...]) -> FitView | None:
    """Which of two selected parts can be fitted around the other: a box or a round, the larger where both are."""
    if len(selected) != 2:
        return None
    pair = [resolved.tree.all[name].part for name in selected]
    bodies = sorted((one for one in pair if isinstance(one.shape, Box | Round)), key=_area, reverse=True)
    if not bodies:
        return None
    body = bodies[0]
    inner = next(one for one in pair if one is not body)
    box, within = frame_on_canvas(body), frame_on_canvas(inner)
    room = (box.width - within.width) / 2, (box.height - within.height) / 2
    holds = box.union(within) == box and min(room) > 0
    across, down = room if holds else ROOM
    return FitView(
        body.id, body.name, inner.id, inner.name, number(round(across * 2) / 2), number(round(down * 2) / 2)
    )  # fmt: skip


def _area(part: Part) -> float:
    frame = part.shape.frame()
    return frame.width * frame.height
