"""Differences laid over a control.

First where containers are (what lies in them goes along), then what is gone, what is there besides and orders, then
single values. What does not fit any more, because what it is of was removed, is left out.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, TypeVar

from pydantic import ValidationError

from obrell.core.document.differing import containers_outermost_first
from obrell.core.document.draft import Draft
from obrell.core.document.model import Control, Part
from obrell.core.document.moving import PLACE
from obrell.core.document.orders import woven
from obrell.core.document.value_paths import value_at, with_value
from obrell.core.effects import EFFECTS, Effect
from obrell.core.errors import ObrellError
from obrell.core.values.base import Value
from obrell.core.values.differences import Difference, Extra, Gone, Moved, Order, Other

T = TypeVar("T", bound=Value)


@dataclass(frozen=True, slots=True)
class Laid:
    """A control with differences laid over it, and those that did not fit."""

    control: Control
    misfits: tuple[Difference, ...]


def laid(control: Control, differences: Sequence[Difference]) -> Laid:
    """Differences laid over a control, but those that do not fit; lengths that follow others are not settled yet."""
    try:
        return _laid(control, differences)
    except ObrellError:
        fitting = _fitting(control, (), differences)
    done = _laid(control, fitting)
    left_out = tuple(one for one in differences if one not in fitting)
    return Laid(done.control, (*done.misfits, *left_out))


def _fitting(control: Control, taken: Sequence[Difference], more: Sequence[Difference]) -> Sequence[Difference]:
    """Those that were taken, and of the others those that break no rule between parts."""
    try:
        _laid(control, (*taken, *more))
    except ObrellError:
        if len(more) <= 1:
            return taken
        half = len(more) // 2
        return _fitting(control, _fitting(control, taken, more[:half]), more[half:])
    return (*taken, *more)


def _laid(control: Control, differences: Sequence[Difference]) -> Laid:
    work = _Laying(control)
    values = work.place([one for one in differences if isinstance(one, Other | Moved)])
    work.arrange([one for one in differences if isinstance(one, Gone | Extra | Order)], _containers_of(differences))
    for one in values:
        work.set(one, carry=False)
    return Laid(work.draft.control(), tuple(work.misfits))


def _containers_of(differences: Sequence[Difference]) -> dict[str, Any]:
    """What parts lie in where that differs, by their ids."""
    others = ((one.path.split("/"), one.value) for one in differences if isinstance(one, Other))
    return {way[1]: value for way, value in others if len(way) == 3 and way[0] == "parts" and way[2] == "within"}


class _Laying:
    """Differences as they are laid over a control."""

    def __init__(self, control: Control) -> None:
        self.draft = Draft(control)
        self.misfits: list[Difference] = []

    def arrange(self, found: Sequence[Difference], within: Mapping[str, Any]) -> None:
        """What is gone, there besides, or in another order: parts first, then effects of each. What lay ``within``
        something that is gone lies elsewhere in the same moment."""
        of_parts = [one for one in found if one.path.count("/") < 2]
        if of_parts:
            control = self.draft.control()
            parts = self._arranged(control.parts, of_parts, part_from)
            moved = (one.evolve(within=within[one.id]) if one.id in within else one for one in parts)
            self.draft.replace(control.evolve(parts=tuple(moved)))
        by_part: dict[str, list[Difference]] = {}
        for one in found:
            if one.path.count("/") >= 2:
                by_part.setdefault(one.path.split("/")[1], []).append(one)
        for name, some in by_part.items():
            part = self.draft.find(name)
            if part is None:
                self.misfits += some
            else:
                self.draft.put(part.evolve(effects=self._arranged(part.effects, some, effect_from)))

    def _arranged(self, items: tuple[Any, ...], found: Iterable[Difference], read: Any) -> tuple[Any, ...]:
        known = {item.id: item for item in items}
        order = list(known)
        for one in found:
            name = one.path.rpartition("/")[2]
            if isinstance(one, Gone) and name in known:
                order.remove(name)
                del known[name]
            elif isinstance(one, Extra) and name not in known and (made := read(name, one.value)) is not None:
                known[name] = made
                order.insert(place_in(order, one.after), name)
            elif isinstance(one, Order):
                order = woven([name for name in one.order if name in known], order)
            else:
                self.misfits.append(one)
        return tuple(known[name] for name in order)

    def place(self, found: Sequence[Other | Moved]) -> Iterable[Other | Moved]:
        """Where containers are, the outermost first; the other values, which are counted from there."""
        by_path = {one.path: one for one in found}
        carrying = [
            by_path.pop(path)
            for name in containers_outermost_first(self.draft.control().parts)
            for path in (f"parts/{name}/{field}" for field in PLACE)
            if path in by_path
        ]
        for one in carrying:
            self.set(one, carry=True)
        return by_path.values()

    def set(self, one: Other | Moved, *, carry: bool) -> None:
        """A value; what lies in a container goes along with its place when that is to ``carry``."""
        try:
            self._put(one, carry=carry)
        except ObrellError:
            self.misfits.append(one)

    def _put(self, one: Other | Moved, *, carry: bool) -> None:
        root, _, rest = one.path.partition("/")
        name, _, below = rest.partition("/")
        if root != "parts":
            self.draft.replace(_with(self.draft.control(), one.path, one))
        elif carry:
            self.draft.set(name, below, _value(self.draft.part(name), below, one))
        else:
            self.draft.put(_with(self.draft.part(name), below, one))


def _with(root: T, path: str, one: Other | Moved) -> T:
    changed: T = with_value(root, path, _value(root, path, one))
    return changed


def _value(root: Value, path: str, one: Other | Moved) -> Any:
    return one.value if isinstance(one, Other) else round(value_at(root, path) + one.by, 9)


def place_in(order: Sequence[str], after: str | None) -> int:
    """Right in front of another; in front of all where that is gone."""
    if after is None:
        return 0
    return order.index(after) + 1 if after in order else len(order)


def part_from(name: str, value: Any) -> Part | None:
    """A part as it was written down, under its id; None when it cannot be read."""
    return _read(Part, name, value)


def effect_from(name: str, value: Any) -> Effect | None:
    """The same of an effect."""
    kind = EFFECTS.get(value.get("kind", "")) if isinstance(value, dict) else None
    return None if kind is None else _read(kind, name, value)


def _read(model: type[T], name: str, value: Any) -> T | None:
    """What was written down, under its id; None when it cannot be read."""
    try:
        made = model.model_validate(value)
    except ValidationError:
        return None
    return made if getattr(made, "id", "") == name else None
