"""A control under way: many values set one after the other, put together and checked once."""

from __future__ import annotations

from typing import Any

from obrell.core.document.model import Control, Part
from obrell.core.document.moving import PLACE, carried_by
from obrell.core.document.tree import descendants
from obrell.core.document.value_paths import with_value
from obrell.core.errors import GONE, NoSuchThing
from obrell.core.shapes import Container


class Draft:
    """The parts of a control by id. What is changed is checked by itself; rules between parts when the control is
    asked for."""

    def __init__(self, control: Control) -> None:
        self._base = control
        self._parts = {part.id: part for part in control.parts}
        self._changed = False

    def control(self) -> Control:
        """The control as it stands."""
        if self._changed:
            self._base, self._changed = self._base.evolve(parts=tuple(self._parts.values())), False
        return self._base

    def replace(self, control: Control) -> None:
        """Go on with another version of the whole control."""
        self._base, self._changed = control, False
        self._parts = {part.id: part for part in control.parts}

    def part(self, name: str) -> Part:
        """A part as it stands; raises ``NoSuchThing``."""
        if name not in self._parts:
            raise NoSuchThing(GONE)
        return self._parts[name]

    def find(self, name: str) -> Part | None:
        """The same, or None."""
        return self._parts.get(name)

    def put(self, part: Part) -> None:
        """A part in place of that with its id."""
        if self._parts[part.id] is not part:
            self._parts[part.id], self._changed = part, True

    def set_at(self, path: str, value: Any, light: float = 0.0) -> None:
        """Another value at a path below the control."""
        root, _, rest = path.partition("/")
        name, _, below = rest.partition("/")
        if root == "parts" and below:
            self.set(name, below, value, light)
        else:
            self.replace(with_value(self.control(), path, value, light))

    def set(self, name: str, path: str, value: Any, light: float = 0.0) -> Part:
        """Another value at a path below a part (``paths.with_value``); what lies in a container goes where its place
        or turn goes."""
        old = self.part(name)
        new: Part = with_value(old, path, value, light)
        self.put(new)
        if path in PLACE and isinstance(old.shape, Container):
            along = carried_by(old, new)
            for inner in descendants(self._base, (name,)) - {name}:
                self.put(along(self._parts[inner]))
        return new
