"""What would never come to an end: parts cut or masked by what they belong to, lengths that follow each other.

Both are rules of the model, so neither an edit nor a file can bring them in.
"""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterable, Iterator, Mapping
from typing import TYPE_CHECKING, Generic, TypeVar

from obrell.core.effects import Mask
from obrell.core.effects.kinds.mask import PartCover

if TYPE_CHECKING:
    from obrell.core.document.model import Follow, Part

MOST_STEPS = 60
"""How long a chain of parts that need each other to be drawn may be."""
Value = tuple[str, str]
"""A part, or ``CANVAS``, and what of it: ``x``, ``y``, ``turn``, ``size``, or ``whole`` for all that it holds."""
CANVAS = ""
PLACES = ("x", "y", "turn")
OWN = (*PLACES, "size")
ASPECTS = {"x": "x", "y": "y", "rotation": "turn"}
Step = TypeVar("Step", bound=Hashable)


class Circle(Exception, Generic[Step]):
    """``step`` needs itself."""

    def __init__(self, step: Step) -> None:
        super().__init__(step)
        self.step = step


def ordered(starts: Iterable[Step], needs: Callable[[Step], Iterable[Step]]) -> list[Step]:
    """The starts and all that they need, each behind what it needs itself; raises ``Circle``. Depth first, with a
    stack of its own: chains may be as long as there are parts."""
    order: list[Step] = []
    done: dict[Step, bool] = {}
    for start in starts:
        if start in done:
            continue
        done[start] = False
        stack = [(start, iter(needs(start)))]
        while stack:
            step, rest = stack[-1]
            following = next((other for other in rest if not done.get(other, False)), None)
            if following is None:
                done[step] = True
                order.append(step)
                stack.pop()
            elif following in done:
                raise Circle(following)
            else:
                done[following] = False
                stack.append((following, iter(needs(following))))
    return order


def check_drawn_in_order(parts: tuple[Part, ...]) -> None:
    """Raises ``ValueError`` when drawing a part would need the part itself, as when it is clipped to the group
    that it lies in."""
    if not any(part.clip or _cover_parts(part) for part in parts):
        return
    by_id = {part.id: part for part in parts}
    held: dict[str, list[str]] = {}
    for part in parts:
        held.setdefault(part.within or "", []).append(part.id)

    def needs(step: tuple[str, bool]) -> Iterator[tuple[str, bool]]:
        """A part needs what it holds, its clip, and what masks it: that without its own clip and masks."""
        name, bare = step
        yield from ((inner, False) for inner in held.get(name, ()))
        part = by_id[name]
        if bare:
            return
        if part.clip in by_id:
            yield str(part.clip), False
        yield from ((cover, True) for cover in _cover_parts(part) if cover in by_id and cover != name)

    heights: dict[tuple[str, bool], int] = {}
    try:
        for step in ordered([(part.id, False) for part in parts], needs):
            heights[step] = 1 + max((heights[other] for other in needs(step)), default=0)
    except Circle as circle:
        raise ValueError(
            f"“{by_id[circle.step[0]].name}” would be cut or masked by something that it belongs to itself, in a "
            "circle. Choose a part that does not hold it and is not cut by it."
        ) from circle
    if max(heights.values()) > MOST_STEPS:
        raise ValueError(f"parts are cut, masked or held by each other in a chain of more than {MOST_STEPS}.")


def _cover_parts(part: Part) -> list[str]:
    covers = (effect.cover for effect in part.effects if isinstance(effect, Mask))
    return [cover.part for cover in covers if isinstance(cover, PartCover) and cover.part]


Owned = tuple[str, "Follow"]
"""The id of the part a follow belongs to, or ``CANVAS``, and the follow."""


def in_order(parts: tuple[Part, ...], canvas: Iterable[Follow]) -> list[Owned]:
    """Every follow after those that its source depends on; raises ``ValueError`` when there is no such order."""
    owned: list[Owned] = [(part.id, follow) for part in parts for follow in part.follows]
    owned += [(CANVAS, follow) for follow in canvas]
    owned = [(owner, follow) for owner, follow in owned if owner != follow.source]
    needs = _Needs(parts, owned)
    try:
        order = ordered(needs.written, needs.of)
    except Circle as circle:
        raise ValueError(
            f"a length of “{needs.name(circle.step[0])}” would follow itself, round in a circle. "
            "End the follow of the other part first."
        ) from circle
    return [item for value in order for item in needs.written.get(value, ())]


class _Needs:
    """Which values depend on which. A path below the part, as ``effects/e1/width``, is a value of its own that
    nothing depends on."""

    def __init__(self, parts: tuple[Part, ...], owned: list[Owned]) -> None:
        self._names: Mapping[str, str] = {part.id: part.name for part in parts}
        self._held: dict[str, list[str]] = {}
        self._within = {part.id: part.within for part in parts}
        for part in parts:
            if part.within:
                self._held.setdefault(part.within, []).append(part.id)
        self.written: dict[Value, list[Owned]] = {}
        for owner, follow in owned:
            aspect = "size" if follow.path.startswith("shape/") else ASPECTS.get(follow.path, follow.path)
            self.written.setdefault((owner, aspect), []).append((owner, follow))

    def name(self, part: str) -> str:
        return self._names.get(part, "the canvas")

    def of(self, value: Value) -> Iterator[Value]:
        part, aspect = value
        for _, follow in self.written.get(value, ()):
            if follow.source in self._names:
                yield from self._measured(follow.source, follow.measure)
        if aspect == "whole":
            yield from ((part, own) for own in OWN)
            yield from ((inner, "whole") for inner in self._held.get(part, ()))
        outer = self._within.get(part)
        if outer and aspect in PLACES:
            yield from ((outer, place) for place in PLACES if self._moves(outer))

    def _moves(self, part: str) -> bool:
        """Whether a follow moves it, or something that it lies in."""
        here: str | None = part
        while here:
            if any((here, place) in self.written for place in PLACES):
                return True
            here = self._within.get(here)
        return False

    def _measured(self, source: str, measure: str) -> Iterator[Value]:
        if source in self._held:
            yield source, "whole"
            return
        yield source, "size"
        if measure in ("width", "height", "radius"):
            return
        yield source, "turn"
        yield source, "x" if measure in ("left", "right", "middle across") else "y"
