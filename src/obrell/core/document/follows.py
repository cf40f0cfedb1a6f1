"""Lengths that follow other parts: a body its label, a rim its body, a gloss the rim.

A follow says which number of a part is a measure of another part plus an offset. They are settled
after every edit, so the numbers in the document are always those that are drawn.
"""

from __future__ import annotations

from obrell.core.document.circles import CANVAS, in_order
from obrell.core.document.measures import measured
from obrell.core.document.model import Control, Follow, Part
from obrell.core.document.moving import PLACE, carried_by
from obrell.core.document.paths import value_at, with_value
from obrell.core.document.tree import arranged, descendants
from obrell.core.errors import ObrellError
from obrell.core.shapes import Container


def settled(control: Control) -> Control:
    """The control with every following number at what it follows. A number that cannot be, because the
    other part is gone or the result is not allowed, stays as it is."""
    if not any(part.follows for part in control.parts) and not control.follows:
        return control
    work = _Work(control)
    for owner, follow in in_order(control.parts, control.follows):
        work.follow(owner, follow)
    return work.control()


class _Work:
    """A control under way: its parts by id, put together only when all of it is needed."""

    def __init__(self, control: Control) -> None:
        self._base = control
        self._parts = {part.id: part for part in control.parts}
        self._changed = False

    def control(self) -> Control:
        if self._changed:
            self._base, self._changed = self._base.evolve(parts=tuple(self._parts.values())), False
        return self._base

    def follow(self, owner: str, follow: Follow) -> None:
        source = self._seen(follow.source)
        if source is None:
            return
        value = round(max(measured(source, follow.measure) + follow.offset, follow.least), 6)
        try:
            if owner == CANVAS:
                self._set_on_canvas(follow.path, value)
            else:
                self._set(self._parts[owner], follow.path, value)
        except ObrellError:
            return

    def _seen(self, name: str) -> Part | None:
        """A part as it is drawn; a container's shape is made of what it holds."""
        part = self._parts.get(name)
        if part is None or not isinstance(part.shape, Container):
            return part
        return arranged(self.control()).all[name].part

    def _set_on_canvas(self, path: str, value: float) -> None:
        control = self.control()
        if value_at(control, path) != value:
            self._base = with_value(control, path, value)

    def _set(self, part: Part, path: str, value: float) -> None:
        if value_at(part, path) == value:
            return
        new: Part = with_value(part, path, value)
        self._parts[part.id], self._changed = new, True
        if path in PLACE and isinstance(part.shape, Container):
            by = carried_by(part, new)
            for inner in descendants(self._base, (part.id,)) - {part.id}:
                self._parts[inner] = by(self._parts[inner])
