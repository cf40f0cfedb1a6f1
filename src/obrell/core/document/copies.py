"""What a repeat draws: copies of what it holds, each at its own place."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from obrell.core.document.model import Part
from obrell.core.document.moving import place_of
from obrell.core.document.nodes import Node
from obrell.core.effects import AnyEffect, Outline, Paint
from obrell.core.errors import BadValue, TooLarge
from obrell.core.geometry.combine import grown
from obrell.core.geometry.plane import Similarity, about, mirror_at
from obrell.core.shapes import Shape
from obrell.core.shapes.gathered import Gathered
from obrell.core.shapes.kinds.path import path_from
from obrell.core.shapes.kinds.repeat import Own, Repeat
from obrell.core.values.fields import LIMIT_PX
from obrell.core.values.paints import Solid

PLAIN = Own()
LEAST_FACTOR = 1e-3


@dataclass(frozen=True, slots=True)
class Look:
    """How the effects of one copy differ from those of its source."""

    width: float = 1.0
    colour: str | None = None


def copies_of(repeat: Repeat, x: float, y: float, source: Node) -> Iterator[Node]:
    """The source once for every copy that is not left out; (x, y) is the repeat's place. Copies have
    ids of their own, made from the source's and the copy's number."""
    if repeat.way == "mirrored":
        yield from (source, _mirrored(source, x))
        return
    own = {item.copy_number: item for item in repeat.own}
    skipped = set(repeat.left_out)
    places = _places(repeat)
    for number in range(repeat.count):
        if number in skipped:
            continue
        mine = own.get(number, PLAIN)
        share = number / (repeat.count - 1) if repeat.count > 1 else 0.0
        look = Look(mine.width * (1 + (repeat.last_width - 1) * share), str(mine.colour) if mine.coloured else None)
        factor = max(1 + (repeat.last_size - 1) * share, LEAST_FACTOR)
        by = Similarity(dx=mine.across, dy=mine.down).after(_way(repeat, places[number], factor, x, y, source.part))
        ring = _ring(source, repeat.step * places[number]) if repeat.way == "rings" else source
        copy = _copied(ring, by, number, look)
        fade = mine.opacity * (1 + (repeat.last_opacity - 1) * share)
        yield copy.evolved(copy.part.evolve(opacity=copy.part.opacity * min(1.0, max(0.0, fade))), copy.children)


def _copied(node: Node, by: Similarity, number: int, look: Look) -> Node:
    try:
        return _carried(node, by, number, look)
    except BadValue as error:
        raise TooLarge(
            f"Copy {number + 1} of the repeat would lie, or be larger, than {LIMIT_PX:,.0f} px allow. "
            "Use fewer copies, a smaller step or less growth."
        ) from error


def moved_node(node: Node, by: Similarity) -> Node:
    """The node and all in it moved, turned and scaled on the canvas."""
    return node if by == Similarity() else _carried(node, by, 0, Look())


def _mirrored(node: Node, x: float) -> Node:
    """What is in the node as a mirror at ``x`` shows it."""
    return _carried(node, mirror_at(2 * x, across=True), 1, Look())


def _ring(node: Node, distance: float) -> Node:
    """The node with every side of what is in it moved outwards by a distance, as parallel outlines; a
    shape that would be gone is the least there can be."""
    children = tuple(_ring(child, distance) for child in node.children)
    part = node.part
    if distance == 0:
        return node
    if isinstance(part.shape, Gathered):
        pieces = tuple(piece.evolve(shape=_parallel(piece.shape, distance)) for piece in part.shape.pieces)
        shape: Shape = part.shape.evolve(pieces=pieces)
    else:
        shape = _parallel(part.shape, distance)
    return node.evolved(part.evolve(shape=shape), children)


def _parallel(shape: Shape, distance: float) -> Shape:
    kept = shape.as_ring(distance)
    if kept is not None:
        return kept
    outline = grown(shape.path(), distance)
    return path_from(outline) if outline else shape.stretched(LEAST_FACTOR, LEAST_FACTOR)


def _way(repeat: Repeat, place: float, factor: float, x: float, y: float, part: Part) -> Similarity:
    """From the source to one copy."""
    size = about(part.x, part.y, scale=factor)
    if repeat.way == "row":
        return Similarity(dx=repeat.across * place, dy=repeat.down * place).after(size)
    if repeat.way == "rings":
        return size
    around = about(x, y, turn=place)
    if repeat.turned:
        return around.after(size)
    to_x, to_y = around.apply(part.x, part.y)
    return Similarity(dx=to_x - part.x, dy=to_y - part.y).after(size)


def _places(repeat: Repeat) -> list[float]:
    """Where copies stand, in steps from the first."""
    at, step, places = 0.0, 1.0, []
    for number in range(repeat.count):
        shake = repeat.irregular * (_random(repeat.seed, number) - 0.5) * step if number else 0.0
        places.append(at + shake)
        at += step
        step = min(step * repeat.growth, 1e6)
    if repeat.way != "around":
        return places
    whole = at if abs(repeat.sweep) == 360 else (places[-1] or 1.0)
    return [place / whole * repeat.sweep for place in places]


def _random(seed: int, number: int) -> float:
    """A number in [0, 1) that is the same everywhere for the same two integers (SplitMix64)."""
    mask = (1 << 64) - 1
    z = (seed * 0x9E3779B97F4A7C15 + (number + 1) * 0xBF58476D1CE4E5B9) & mask
    z = ((z ^ (z >> 30)) * 0xBF58476D1CE4E5B9) & mask
    z = ((z ^ (z >> 27)) * 0x94D049BB133111EB) & mask
    return ((z ^ (z >> 31)) >> 11) / (1 << 53)


def _carried(node: Node, by: Similarity, number: int, look: Look) -> Node:
    part = node.part
    to = by.after(place_of(part))
    shape = part.shape.carried(by) if isinstance(part.shape, Gathered) else part.shape.stretched(by.scale, by.scale)
    effects = tuple(_changed(effect.flipped(across=True) if by.mirror else effect, look) for effect in part.effects)
    copy = part.evolve(
        id=f"{part.id}-{number}", shape=shape, x=to.dx, y=to.dy, rotation=to.turn % 360, mirrored=to.mirror,
        effects=effects,
    )  # fmt: skip
    return node.evolved(copy, tuple(_carried(child, by, number, look) for child in node.children))


def _changed(effect: AnyEffect, look: Look) -> AnyEffect:
    if isinstance(effect, Outline):
        fill = effect.fill if look.colour is None else Solid(colour=look.colour)
        return effect.evolve(width=min(4096.0, effect.width * look.width), fill=fill)
    if isinstance(effect, Paint) and look.colour is not None:
        return effect.evolve(fill=Solid(colour=look.colour))
    return effect
