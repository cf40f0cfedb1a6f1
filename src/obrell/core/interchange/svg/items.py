"""What was read, before it has ids: parts with what lies in them, what cuts them and what masks them."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field, replace
from typing import Any

from obrell.core.document.measures import around
from obrell.core.document.model import Part
from obrell.core.document.moving import place_of
from obrell.core.effects import Mask, Outline
from obrell.core.effects.kinds.mask import PartCover
from obrell.core.geometry.plane import Rect
from obrell.core.shapes import Group


@dataclass(frozen=True, slots=True)
class Item:
    """A part without an id of its own yet."""

    part: Part
    held: tuple[Item, ...] = ()
    clip: Item | None = None
    cover: Item | None = None
    measure: str = "lightness"
    """What of the cover masks it."""
    baseline: bool = False
    """Whether its place is on the baseline of its words."""

    @property
    def plain(self) -> bool:
        """Whether something can still be done to the whole of it without a group around it."""
        return self.clip is None and self.cover is None and self.part.opacity == 1 and self.part.blend == "normal"

    def evolved(self, **changes: Any) -> Item:
        """The same with other values of its part."""
        return replace(self, part=self.part.evolve(**changes))

    def bounds(self) -> Rect:
        """Around what it paints on the canvas."""
        if self.held:
            return around(item.bounds() for item in self.held)
        reach = max((e.reach(0.0) for e in self.part.effects if isinstance(e, Outline)), default=0.0)
        return self.part.shape.path().transformed(place_of(self.part)).hull().grown(reach)


def grouped(items: Iterable[Item], name: str, **fields: Any) -> Item:
    """Items in a group of their own."""
    held = tuple(items)
    middle = around(Rect(item.part.x, item.part.y, item.part.x, item.part.y) for item in held).centre
    through = not fields
    group = Part(id="p0", name=name, shape=Group(through=through), x=middle.x, y=middle.y, **fields)
    return Item(group, held)


@dataclass
class Numbered:
    """Items as the parts of a document, each below what it lies in."""

    parts: list[Part] = field(default_factory=list)
    baselines: list[str] = field(default_factory=list)
    count: int = 0

    def add_all(self, items: Iterable[Item]) -> None:
        for item in items:
            self.parts.extend(self._parts(item, None))

    def _parts(self, item: Item, within: str | None) -> Iterator[Part]:
        name = self._next()
        changes: dict[str, Any] = {"id": name, "within": within}
        for other, what in ((item.clip, "clip"), (item.cover, "cover")):
            if other is None:
                continue
            hidden = list(self._parts(other.evolved(visible=False), within))
            yield from hidden
            changes[what] = hidden[-1].id
        if item.baseline:
            self.baselines.append(name)
        for held in item.held:
            yield from self._parts(held, name)
        cover = changes.pop("cover", None)
        if cover is not None:
            mask = Mask(id="mask", cover=PartCover(part=cover), measure=item.measure)
            changes["effects"] = (*item.part.effects, mask.fitted_to(item.part.x, item.part.y))
        yield item.part.evolve(**changes)

    def _next(self) -> str:
        self.count += 1
        return f"p{self.count}"
