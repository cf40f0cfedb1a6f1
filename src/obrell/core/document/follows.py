"""Lengths that follow other parts: a body its label, a rim its body, a gloss the rim.

A follow says which number of a part is a measure of another part plus an offset. They are settled
after every edit, so the numbers in the document are always those that are drawn.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping

from obrell.core.document.canvas import with_edges
from obrell.core.document.circles import CANVAS, in_order
from obrell.core.document.draft import Draft
from obrell.core.document.measures import measured
from obrell.core.document.model import Control, Follow, Part
from obrell.core.document.tree import arranged
from obrell.core.document.value_paths import value_at
from obrell.core.errors import ObrellError, Refused
from obrell.core.shapes import Container

SLACK_PX = 0.02
"""What the canvas, and a length in even px, may be too short by."""


Words = Mapping[str, tuple[Part, ...]]
"""Texts that have other words in other states: what they are there, by their ids."""
NO_WORDS: Words = {}


def settled(control: Control, words: Words = NO_WORDS) -> Control:
    """The control with every following number at what it follows; the length of a text is that of the longest of its
    ``words``. A number that cannot be, because the other part is gone or the result is not allowed, stays as it is."""
    if not any(part.follows for part in control.parts) and not control.follows:
        return control
    draft = Draft(control)
    for owner, follow in in_order(control.parts, control.follows):
        try:
            _follow(draft, owner, follow, words)
        except ObrellError:
            continue
    return draft.control()


def _follow(draft: Draft, owner: str, follow: Follow, words: Words) -> None:
    source = _seen(draft, follow.source)
    if source is None:
        return
    value = round(max(_length(source, follow, words) + follow.offset, follow.least), 6)
    if follow.even:
        value = 2.0 * math.ceil((value - SLACK_PX) / 2)
    if owner == CANVAS:
        draft.replace(_fitted(draft.control(), follow.path, value))
    elif value_at(draft.part(owner), follow.path) != value:
        draft.set(owner, follow.path, value)


def _length(source: Part, follow: Follow, words: Words) -> float:
    own = measured(source, follow.measure)
    if follow.own_words or follow.measure not in ("width", "height"):
        return own
    return max((own, *(measured(one, follow.measure) for one in words.get(source.id, ()))))


def _fitted(control: Control, path: str, wanted: float) -> Control:
    """The canvas at least that long, grown or shrunk by as many whole px on both sides, so that what is in its middle
    stays there and on the pixel grid."""
    side = math.ceil((wanted - float(value_at(control, path))) / 2 - SLACK_PX)
    if side == 0:
        return control
    return with_edges(control, side, 0, side, 0) if path == "canvas/width" else with_edges(control, 0, side, 0, side)


def kept_by_hand(before: Control, after: Control, words: Words = NO_WORDS) -> Control:
    """The control after an edit, with new distances for the numbers that the edit changed although they follow:
    whoever sets one says how far it is to be from what it follows, and an odd one is not made even. Raises ``Refused``
    where it would be less than it may be."""
    known = {(owner, f.path): f for owner, f in _all(before)}
    changed: dict[tuple[str, str], Follow] = {}
    tree = None
    for owner, follow in _all(after):
        root = "" if owner == CANVAS else f"parts/{owner}/"
        if known.get((owner, follow.path)) != follow:
            continue
        new = float(value_at(after, root + follow.path))
        if new == value_at(before, root + follow.path):
            continue
        tree = tree or arranged(after)
        if follow.source not in tree.all:
            continue
        if new < follow.least - SLACK_PX:
            name = tree.all[follow.source].part.name
            raise Refused(f"It follows “{name}” and is at least {follow.least:g} px; the sheet says so below it.")
        offset = round(new - _length(tree.all[follow.source].part, follow, words), 6)
        if offset != follow.offset:
            changed[owner, follow.path] = follow.evolve(offset=offset, even=follow.even and new % 2 == 0)
    return _with_follows(after, changed) if changed else after


def _all(control: Control) -> Iterator[tuple[str, Follow]]:
    yield from ((CANVAS, follow) for follow in control.follows)
    yield from ((part.id, follow) for part in control.parts for follow in part.follows)


def _with_follows(control: Control, changed: Mapping[tuple[str, str], Follow]) -> Control:
    def new(owner: str, follows: tuple[Follow, ...]) -> tuple[Follow, ...]:
        return tuple(changed.get((owner, follow.path), follow) for follow in follows)

    parts = tuple(p.evolve(follows=new(p.id, p.follows)) if p.follows else p for p in control.parts)
    return control.evolve(parts=parts, follows=new(CANVAS, control.follows))


def _seen(draft: Draft, name: str) -> Part | None:
    """A part as it is drawn; a container's shape is made of what it holds."""
    part = draft.find(name)
    if part is None or not isinstance(part.shape, Container):
        return part
    return arranged(draft.control()).all[name].part
