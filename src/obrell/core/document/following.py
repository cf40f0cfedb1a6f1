"""What became of a control, brought into a copy that follows it and has changes of its own.

Where the copy was like the original before, it becomes like the original after; what differs in it stays. Parts,
effects and guides are found by their ids, everything else by its field.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, TypeGuard, TypeVar

from obrell.core.document.model import Control
from obrell.core.document.numbering import next_number as counted
from obrell.core.document.orders import woven
from obrell.core.document.states import settle
from obrell.core.values.base import Value

IDENTITY = frozenset(("id", "next_number"))
"""Fields of a control that no other document of it or its original says."""
OWN = IDENTITY | {"name", "original"}
"""Fields of a control that a copy has for itself."""
ROOM = 1_000_000
"""How far the numbers of parts that are drawn in a copy are from those of its original, so that none meet."""
T = TypeVar("T")
V = TypeVar("V", bound=Value)


def copy_of(control: Control, ident: str) -> Control:
    """A copy under another id that follows the control."""
    next_number = (counted(control) // ROOM + 1) * ROOM + 1
    return control.evolve(id=ident, original=control.id, next_number=next_number)


def followed(copy: Control, before: Control, after: Control) -> Control:
    """The copy after its original has become ``after``, what follows a length of its own included; raises ``BadValue``
    when that and what the copy has of its own cannot be together, as when a group is gone that something of its own
    lies in."""
    return settle(_brought_in(copy, before, after, OWN))


def stepped(value: V, before: V, after: V) -> V:
    """A control, or a kit's own values, after what one step changed, from ``before`` to ``after``, has come on top of
    what it is; raises ``BadValue`` as ``followed`` does."""
    changed: Any = _brought_in(value, before, after, IDENTITY)
    if isinstance(changed, Control):
        changed = settle(changed)
    arrived: V = changed
    return arrived


def _brought_in(value: V, before: V, after: V, own: frozenset[str]) -> V:
    fields = {
        name: _merged(getattr(before, name), getattr(value, name), getattr(after, name))
        for name in type(value).model_fields
        if name not in own
    }
    return value.evolve(**fields)


def _merged(was: T, own: T, now: T) -> T:
    if now in (was, own):
        return own
    if own == was:
        return now
    if isinstance(own, Value) and type(own) is type(was) is type(now):
        fields = type(own).model_fields
        return own.evolve(**{name: _merged(*(getattr(one, name) for one in (was, own, now))) for name in fields})
    if _named(was) and _named(own) and _named(now):
        return _merged_by_id(was, own, now)  # type: ignore[return-value]
    return own


def _named(values: object) -> TypeGuard[tuple[Any, ...]]:
    return isinstance(values, tuple) and all(hasattr(value, "id") for value in values)


def _merged_by_id(was: tuple[Any, ...], own: tuple[Any, ...], now: tuple[Any, ...]) -> tuple[Any, ...]:
    """In the original's order, but where the copy has an order of its own."""
    before, mine, after = ({one.id: one for one in some} for some in (was, own, now))
    moved = [name for name in mine if name in before] != [name for name in before if name in mine]
    order = woven(list(mine), list(after)) if moved else woven(list(after), list(mine))
    return tuple(_one(name, before, mine, after) for name in order if _stays(name, before, mine, after))


def _stays(name: str, before: Mapping[str, Any], mine: Mapping[str, Any], after: Mapping[str, Any]) -> bool:
    """What either took away is gone, but what the copy has changed of it."""
    if name in before and name not in mine:
        return False
    return name in after or name not in before or mine[name] != before[name]


def _one(name: str, before: Mapping[str, Any], mine: Mapping[str, Any], after: Mapping[str, Any]) -> Any:
    if name in before and name in mine and name in after:
        return _merged(before[name], mine[name], after[name])
    return mine[name] if name in mine else after[name]
