"""The parts of a control as they lie in each other, every container with the shape it has."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass

from obrell.core.document.copies import copies_of
from obrell.core.document.model import Control, Part
from obrell.core.document.nodes import Node, drawn
from obrell.core.effects import Mask
from obrell.core.effects.kinds.mask import PartCover
from obrell.core.errors import GONE, NoSuchThing
from obrell.core.geometry.combine import Mode
from obrell.core.shapes.containers import Container
from obrell.core.shapes.gathered import Gathered, Piece
from obrell.core.shapes.kinds.combination import Combination
from obrell.core.shapes.kinds.group import Group
from obrell.core.shapes.kinds.repeat import Repeat
from obrell.core.workspace import OfObject


class Nodes(dict[str, Node]):
    """Nodes by id; one that is not there is no longer there."""

    def __missing__(self, name: str) -> Node:
        raise NoSuchThing(GONE)


@dataclass(frozen=True, slots=True)
class Tree:
    """``nodes`` are the outermost parts, back to front; ``all`` is every part of the document by id,
    those that make up a combination or the source of a repeat too."""

    nodes: tuple[Node, ...]
    all: Mapping[str, Node]


_TREES = OfObject[Tree](64)
"""Each edit asks several times: what it snaps to, what it changes, how that looks."""


def arranged(control: Control) -> Tree:
    """The control's parts as they lie in each other."""
    return _TREES.get(control, None, lambda: _arranged(control.parts))


def _arranged(parts: tuple[Part, ...]) -> Tree:
    arranger = _Arranger(parts)
    return Tree(arranger.nodes(None), Nodes({part.id: arranger.node(part) for part in parts}))


def walk(nodes: Iterable[Node]) -> Iterator[Node]:
    """Every shown node, containers before what they hold."""
    for node in nodes:
        if node.part.visible:
            yield node
            yield from walk(node.children)


def descendants(control: Control, ids: Iterable[str]) -> frozenset[str]:
    """The ids themselves and those of all parts inside of them."""
    found = set(ids)
    grown = True
    while grown:
        inner = {part.id for part in control.parts if part.within in found} - found
        grown = bool(inner)
        found |= inner
    return frozenset(found)


class _Arranger:
    def __init__(self, parts: tuple[Part, ...]) -> None:
        self._held: dict[str | None, list[Part]] = {}
        for part in parts:
            self._held.setdefault(part.within, []).append(part)
        self._made: dict[str, Node] = {}
        self._by_id = {part.id: part for part in parts}

    def nodes(self, within: str | None) -> tuple[Node, ...]:
        return tuple(self.node(part) for part in self._held.get(within, []))

    def node(self, part: Part) -> Node:
        if part.id not in self._made:
            self._made[part.id] = self._make(part)
        return self._made[part.id]

    def _make(self, part: Part) -> Node:
        clips, covers, shape = self._clips(part), tuple(self._covers(part)), part.shape
        if not isinstance(shape, Container):
            return Node(part, clips=clips, covers=covers)
        children = self.nodes(part.id)
        if isinstance(shape, Repeat):
            shown = [node for node in children if node.part.visible]
            children = tuple(copy for copies in _rows(shape, part, shown) for copy in copies)
        mode: Mode = shape.mode if isinstance(shape, Combination) else "union"
        seen = drawn(part, _gathered(part, mode, children))
        through = isinstance(shape, Repeat) or (isinstance(shape, Group) and shape.through)
        return Node(seen, () if isinstance(shape, Combination) else children, through, clips, covers)

    def _covers(self, part: Part) -> Iterator[tuple[str, Node]]:
        """The parts that mask this one, without masks of their own, so that no circle can come of it."""
        for effect in part.effects:
            found = effect.cover.part if isinstance(effect, Mask) and isinstance(effect.cover, PartCover) else None
            if found in self._by_id and found != part.id:
                bare = self._by_id[found]
                effects = tuple(own for own in bare.effects if not isinstance(own, Mask))
                yield effect.id, self._make(bare.evolve(effects=effects, visible=True, clip=None))

    def _clips(self, part: Part) -> tuple[Part, ...]:
        found = self._by_id.get(part.clip) if part.clip else None
        if found is None or found is part:
            return ()
        node = self.node(found)
        return (node.part, *node.clips)


def _rows(repeat: Repeat, part: Part, sources: list[Node]) -> list[tuple[Node, ...]]:
    """Copies of all sources, in the order in which they lie on each other."""
    return list(zip(*(_copies(repeat, part.x, part.y, source) for source in sources), strict=True))


def _copies(repeat: Repeat, x: float, y: float, source: Node) -> tuple[Node, ...]:
    """Of one source; those of a part that has nothing in it are the same as long as that part is."""
    if source.children or source.clips or source.covers:
        return tuple(copies_of(repeat, x, y, source))
    return _COPIES.get(source.part, (repeat, x, y), lambda: tuple(copies_of(repeat, x, y, source)))


_COPIES = OfObject[tuple[Node, ...]](256)
"""A scale around a knob is the same at every number."""


def _gathered(part: Part, mode: Mode, children: tuple[Node, ...]) -> Gathered:
    seen = [node.part for node in children if node.part.visible]
    pieces = tuple(Piece(shape=p.shape, x=p.x, y=p.y, rotation=p.rotation, mirrored=p.mirrored) for p in seen)
    return Gathered(
        kind=part.shape.kind, mode=mode, pieces=pieces, x=part.x, y=part.y, rotation=part.rotation,
        mirrored=part.mirrored,
    )  # fmt: skip
