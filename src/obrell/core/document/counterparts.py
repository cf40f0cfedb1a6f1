"""Which part of one control stands for a part of another: by its name, else by what it does."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Mapping

from obrell.core.document.bodies import body_of, labels_of, outermost
from obrell.core.document.model import Control, Part
from obrell.core.shapes import Container, Icon, Text


def counterparts(source: Control, target: Control) -> Mapping[str, str]:
    """The parts of a control that have one in another, by their ids, each once: of the same name; else the bodies,
    what they lie on, and what is read, words for words first, one after the other."""
    found: dict[str, str] = {}
    named: dict[tuple[str, bool], list[str]] = defaultdict(list)
    for part in target.parts:
        named[_kin(part)].append(part.id)
    for part in source.parts:
        if named[_kin(part)]:
            found[part.id] = named[_kin(part)].pop(0)
    taken = set(found.values())
    for one, other in _by_duty(source, target):
        if one not in found and other not in taken:
            found[one] = other
            taken.add(other)
    return found


def outer_of(source: Control, target: Control, name: str) -> str:
    """What the body of another control lies on, or that body, where a part is what one's own lies on; empty for all
    other parts."""
    one, other = body_of(source), body_of(target)
    if not one or not other or outermost(source, one[0]).id != name:
        return ""
    return outermost(target, other[0]).id


def _kin(part: Part) -> tuple[str, bool]:
    return part.name.casefold(), isinstance(part.shape, Container)


def _by_duty(source: Control, target: Control) -> Iterator[tuple[str, str]]:
    for one, other in zip(body_of(source), body_of(target), strict=False):
        yield one, other
        yield outermost(source, one).id, outermost(target, other).id
    for kind in (Text, Icon, Text | Icon):
        read = ([part.id for part in labels_of(one) if isinstance(part.shape, kind)] for one in (source, target))
        yield from zip(*read, strict=False)


def same_effects(source: Part, target: Part) -> Mapping[str, str]:
    """The effects of a part that have one in another, by their ids: the first of a kind is as the first of that."""
    there: dict[str, list[str]] = defaultdict(list)
    for effect in target.effects:
        there[effect.kind].append(effect.id)
    return {effect.id: there[effect.kind].pop(0) for effect in source.effects if there[effect.kind]}
