"""What follows what, as the sheet says it: a sentence for a part that keeps to another, and the proposal of a fit."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

from obrell.core.document.measures import to_middle
from obrell.core.document.model import Control, Follow, Part
from obrell.core.document.resolve import Resolved
from obrell.core.edit.companions import proposed_fit
from obrell.core.edit.follows import PLACE, RADIUS, SIZE
from obrell.web.fields import FieldView, field_at, shifted

KEPT = dict(zip((*SIZE, RADIUS, *PLACE), ("wider by", "higher by", "corners by", "across by", "down by"), strict=True))
"""Numbers that follow the same number of another part, and how the difference is called."""
LEAST = 2
"""How many of them make one sentence."""


@dataclass(frozen=True, slots=True)
class KeptView:
    """One number that follows at a distance, and the edit that stops it."""

    words: str
    slot: FieldView
    stop: dict[str, str]


@dataclass(frozen=True, slots=True)
class KeepingView:
    """A part that keeps to another one: by how much each of its numbers differs, the edit that ends it, and whether
    its size is in even px, with the edit that changes it, where it keeps a size."""

    source: str
    values: tuple[KeptView, ...]
    stop: dict[str, object]
    even: bool
    evened: dict[str, object] | None


@dataclass(frozen=True, slots=True)
class FitView:
    """A body that can be fitted around another part, with the room that is proposed."""

    body: str
    body_name: str
    inner: str
    inner_name: str
    across: int
    down: int


def keeping(control: Control, part: Part) -> tuple[KeepingView, ...]:
    """The parts that a part keeps to."""
    return tuple(_keeping(control, part, source) for source in dict.fromkeys(f.source for f in kept(part)))


def kept(part: Part) -> list[Follow]:
    """The follows that are said in one sentence: two or more of the same numbers of one part."""
    plain = [follow for follow in part.follows if (follow.path, follow.measure) in KEPT]
    return [follow for follow in plain if sum(other.source == follow.source for other in plain) >= LEAST]


def _keeping(control: Control, part: Part, source: str) -> KeepingView:
    name = next((other.name for other in control.parts if other.id == source), "a part that is gone")
    paths = [follow.path for follow in kept(part) if follow.source == source]
    stop: dict[str, object] = {"kind": "remove-follow", "part": part.id, "paths": paths}
    return KeepingView(name, tuple(_values(control, part, source)), stop, *_evened(part, source))


def _evened(part: Part, source: str) -> tuple[bool, dict[str, object] | None]:
    sizes = [path for path, _ in SIZE]
    found = {n: one for n, one in enumerate(part.follows) if one.source == source and one.path in sizes}
    even = all(one.even for one in found.values())
    changes = [{"path": f"parts/{part.id}/follows/{n}/even", "value": not even} for n in found]
    return even, {"kind": "set", "changes": changes} if changes else None


def _values(control: Control, part: Part, source: str) -> Iterator[KeptView]:
    order = list(KEPT)
    found = [follow for follow in kept(part) if follow.source == source]
    for follow in sorted(found, key=lambda one: order.index((one.path, one.measure))):
        offset = offset_at(control, f"parts/{part.id}/{follow.path}", part.follows.index(follow))
        words = KEPT[follow.path, follow.measure]
        stop = {"kind": "remove-follow", "part": part.id, "path": follow.path}
        yield KeptView(words, replace(offset, title=words), stop)


def offset_at(control: Control, path: str, number: int) -> FieldView:
    """Return how far the number at a part's ``path`` is from what it follows; a place is that of the part's middle, as
    the part's own sentence says it."""
    part = "/".join(path.split("/")[:2])
    return shifted(field_at(control, f"{part}/follows/{number}/offset"), to_middle(control, path))


def fit_of(resolved: Resolved, selected: tuple[str, ...]) -> FitView | None:
    """The fit that is proposed for two selected parts."""
    found = proposed_fit(*(resolved.tree.all[name].part for name in selected)) if len(selected) == 2 else None
    if found is None:
        return None
    return FitView(found.body.id, found.body.name, found.inner.id, found.inner.name, found.across, found.down)
