"""Lengths that follow other parts: a body its label, a rim its body, a gloss the rim.

A follow says which number of a part is a measure of another part plus an offset. They are settled
after every edit, so the numbers in the document are always those that are drawn.
"""

from __future__ import annotations

from obrell.core.document.circles import CANVAS, in_order
from obrell.core.document.draft import Draft
from obrell.core.document.measures import measured
from obrell.core.document.model import Control, Follow, Part
from obrell.core.document.paths import value_at, with_value
from obrell.core.document.tree import arranged
from obrell.core.errors import ObrellError
from obrell.core.shapes import Container


def settled(control: Control) -> Control:
    """The control with every following number at what it follows. A number that cannot be, because the
    other part is gone or the result is not allowed, stays as it is."""
    if not any(part.follows for part in control.parts) and not control.follows:
        return control
    draft = Draft(control)
    for owner, follow in in_order(control.parts, control.follows):
        try:
            _follow(draft, owner, follow)
        except ObrellError:
            continue
    return draft.control()


def _follow(draft: Draft, owner: str, follow: Follow) -> None:
    source = _seen(draft, follow.source)
    if source is None:
        return
    value = round(max(measured(source, follow.measure) + follow.offset, follow.least), 6)
    if owner == CANVAS:
        control = draft.control()
        if value_at(control, follow.path) != value:
            draft.replace(with_value(control, follow.path, value))
    elif value_at(draft.part(owner), follow.path) != value:
        draft.set(owner, follow.path, value)


def _seen(draft: Draft, name: str) -> Part | None:
    """A part as it is drawn; a container's shape is made of what it holds."""
    part = draft.find(name)
    if part is None or not isinstance(part.shape, Container):
        return part
    return arranged(draft.control()).all[name].part
