"""What differs between a control and as it is to be in a state or an edition.

Only parts and the light differ in states, in editions also how readings drive them, in sizes the canvas and the touch
area; guides, names and all else belong to the control. The counterpart of ``laying``: places of containers are
compared first, because what lies in one goes where it goes.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from typing import Any, TypeGuard

from pydantic import JsonValue, TypeAdapter

from obrell.core.document.draft import Draft
from obrell.core.document.model import Control, Part
from obrell.core.document.moving import PLACE
from obrell.core.effects import AnyEffect
from obrell.core.shapes import Container
from obrell.core.values.base import Value
from obrell.core.values.curves import CurvePoint
from obrell.core.values.differences import Difference, Extra, Gone, Moved, Order, Other
from obrell.core.values.paints import Stop

OF_THE_CONTROL = frozenset(("id", "name", "locked", "versions"))
"""Fields of a part that are the same in all states."""
SORTED_BY: dict[type[Value], tuple[str, ...]] = {Stop: ("position",), CurvePoint: ("x",)}
"""What the items of a list are kept in order by."""
_ANYTHING = TypeAdapter[Any](Any)


def differences(rest: Control, state: Control) -> tuple[Difference, ...]:
    """What makes the one of the other. Numbers that follow another part are made anew, and are not among them."""
    found = [*_items("parts", rest.parts, state.parts), *values_between("light", rest.light, state.light)]
    known = {part.id: part for part in _placed(rest, state, found).parts}
    for part in state.parts:
        if part.id in known:
            found += _of_part(known[part.id], part)
    return tuple(found)


def edition_differences(control: Control, edition: Control, own: Sequence[str]) -> tuple[Difference, ...]:
    """The same of an edition: with its ``own`` fields of the control, and what readings drive."""
    return (*differences(control, edition), *_of_all_states(control, edition, own))


def _of_all_states(control: Control, edition: Control, own: Sequence[str]) -> Iterator[Difference]:
    for name in own:
        yield from values_between(name, getattr(control, name), getattr(edition, name))
    known = {(one.id, drive.id): drive for one in control.readings for drive in one.drives}
    for one in edition.readings:
        for drive in one.drives:
            if (one.id, drive.id) in known:
                yield from values_between(f"readings/{one.id}/drives/{drive.id}", known[one.id, drive.id], drive)


def as_json(value: Any) -> JsonValue:
    """A value as it is written down."""
    written: JsonValue = _ANYTHING.dump_python(value, mode="json")
    return written


def _items(path: str, rest: tuple[Any, ...], state: tuple[Any, ...]) -> Iterator[Difference]:
    before, after = [one.id for one in rest], [one.id for one in state]
    if before == after:
        return
    here, there = frozenset(before), frozenset(after)
    for name in before:
        if name not in there:
            yield Gone(path=f"{path}/{name}")
    behind: str | None = None
    for one in state:
        if one.id not in here:
            yield Extra(path=f"{path}/{one.id}", value=as_json(one), after=behind)
        behind = one.id
    if [name for name in before if name in there] != [name for name in after if name in here]:
        yield Order(path=path, order=tuple(after))


def _placed(rest: Control, state: Control, found: list[Difference]) -> Control:
    """Rest with its containers where the state has them, the outermost first; how they get there is added to what
    was found."""
    draft, there = Draft(rest), {part.id: part for part in state.parts}
    for name in containers_outermost_first(rest.parts):
        if name not in there:
            continue
        for field in PLACE:
            was, now = getattr(draft.part(name), field), getattr(there[name], field)
            if was == now:
                continue
            draft.set(name, field, now)
            if field not in _following(there[name]):
                found.append(placed_otherwise(f"parts/{name}/{field}", was, now))
    return draft.control()


def placed_otherwise(path: str, was: Any, now: Any) -> Difference:
    """Another value in place of one, kept as a distance where it is a place on the canvas."""
    if path.rpartition("/")[2] in ("x", "y") and path.count("/") == 2:
        return Moved(path=path, by=round(now - was, 9))
    return Other(path=path, value=as_json(now))


def containers_outermost_first(parts: Iterable[Part]) -> list[str]:
    """The ids of what holds parts, each before what lies in it."""
    inside = {part.id: part.within for part in parts}

    def depth(name: str) -> int:
        outer = inside.get(name)
        return 0 if outer is None else 1 + depth(outer)

    return sorted((part.id for part in parts if isinstance(part.shape, Container)), key=depth)


def _following(part: Part) -> frozenset[str]:
    """The paths of its numbers that follow another part."""
    return frozenset(follow.path for follow in part.follows)


def _of_part(was: Part, now: Part) -> Iterator[Difference]:
    if was is now or was == now:
        return
    base, following = f"parts/{now.id}", _following(now)
    for name in type(now).model_fields:
        if name in OF_THE_CONTROL or name == "effects" or name in following:
            continue
        path, old, new = f"{base}/{name}", getattr(was, name), getattr(now, name)
        if name not in ("x", "y"):
            yield from (one for one in values_between(path, old, new) if one.path[len(base) + 1 :] not in following)
        elif old != new:
            yield placed_otherwise(path, old, new)
    yield from _effects(f"{base}/effects", was.effects, now.effects)


def _effects(path: str, was: tuple[AnyEffect, ...], now: tuple[AnyEffect, ...]) -> Iterator[Difference]:
    yield from _items(path, was, now)
    before = {effect.id: effect for effect in was}
    for effect in now:
        if effect.id in before:
            yield from values_between(f"{path}/{effect.id}", before[effect.id], effect)


def values_between(path: str, was: Any, now: Any) -> Iterator[Other]:
    """What of one value is otherwise in another, down to single numbers, words and colours as long as both have the
    same form."""
    if was is now or was == now:
        return
    if isinstance(was, Value) and type(was) is type(now):
        for name in type(was).model_fields:
            yield from values_between(f"{path}/{name}", getattr(was, name), getattr(now, name))
    elif _numbered(was) and _numbered(now) and len(was) == len(now) and _in_one_order(was, now):
        for place, (one, other) in enumerate(zip(was, now, strict=True)):
            yield from values_between(f"{path}/{place}", one, other)
    else:
        yield Other(path=path, value=as_json(now))


def _in_one_order(was: tuple[Value, ...], now: tuple[Value, ...]) -> bool:
    """Stops and points of curves are sorted by where they are: one that moves may come to have another number."""
    return all(getattr(one, name) == getattr(other, name)
        for one, other in zip(was, now, strict=True)
        for name in SORTED_BY.get(type(one), ())
    )  # fmt: skip


def _numbered(values: object) -> TypeGuard[tuple[Value, ...]]:
    """Whether it is a list whose items are found by their number, as stops and points are."""
    return isinstance(values, tuple) and bool(values) and all(isinstance(one, Value) for one in values) and (
        not any(hasattr(one, "id") for one in values)
    )  # fmt: skip
