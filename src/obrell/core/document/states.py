"""A control in a state: what differs laid over rest.

A state made of others begins as what they come to, one laid over the other in the order that it names them; its own
differences come last. Within one: where containers are (what lies in them goes along), then what is gone, what is
there besides and orders, then single values. What follows a length is settled at the end. A difference that does not
fit any more, because what it is of was removed, is left out.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, TypeVar

from pydantic import ValidationError

from obrell.core.document.differing import containers_outermost_first
from obrell.core.document.draft import Draft
from obrell.core.document.follows import NO_WORDS, Words, settled
from obrell.core.document.model import REST, Control, Part, State
from obrell.core.document.moving import PLACE
from obrell.core.document.orders import woven
from obrell.core.document.value_paths import value_at, with_value
from obrell.core.effects import EFFECTS, Effect
from obrell.core.errors import NoSuchThing, ObrellError
from obrell.core.shapes import Text
from obrell.core.values.base import Value
from obrell.core.values.differences import Difference, Extra, Gone, Moved, Order, Other
from obrell.core.workspace import OfObject

T = TypeVar("T", bound=Value)
_IN_STATE = OfObject[Control](32)


@dataclass(frozen=True, slots=True)
class Laid:
    """A control with differences laid over it, and those that did not fit."""

    control: Control
    misfits: tuple[Difference, ...]


def state_of(control: Control, name: str) -> State:
    """A state by its id, or what several come to, one after the other, with + between; raises ``NoSuchThing``."""
    found = next((state for state in control.states if state.id == name), None)
    if found is not None:
        return found
    if "+" in name:
        return _of_several(control, tuple(name.split("+")))
    raise NoSuchThing(f"“{control.name}” has no state “{name}”.")


def _of_several(control: Control, names: tuple[str, ...]) -> State:
    """The state that is made of others, or what they come to where none is kept."""
    made = State(id="made", name=" + ".join(state_of(control, name).name for name in names), of=names)
    return next((state for state in control.states if state.of == names), made)


def in_state(control: Control, name: str) -> Control:
    """The control as it looks in a state, by its id, without states of its own; raises ``NoSuchThing``."""
    if not control.states and name == REST:
        return control
    return _IN_STATE.get(control, name, lambda: _in_state(control, name))


def _in_state(control: Control, name: str) -> Control:
    if name == REST:
        return control.evolve(states=())
    state = state_of(control, name)
    look = laid(beginning_of(control, state), state.differences).control.evolve(states=())
    return settled(look, words_of(control))


_WORDS = OfObject[Words](16)


def words_of(control: Control) -> Words:
    """What texts are in states that give them other words or letters, for lengths that follow them."""
    return _WORDS.get(control, "", lambda: _words_of(control)) if control.states else NO_WORDS


def _words_of(control: Control) -> Words:
    found: dict[str, list[Part]] = {}
    texts = [part for part in control.parts if isinstance(part.shape, Text)]
    for state in control.states if texts else ():
        touched = {one.path.split("/")[1] for one in state.differences if _of_words(one)}
        if touched or state.of:
            look = {part.id: part for part in laid(beginning_of(control, state), state.differences).control.parts}
            for text in texts:
                if text.id in look and look[text.id].shape != text.shape:
                    found.setdefault(text.id, []).append(look[text.id])
    return {name: (*some, *(text for text in texts if text.id == name)) for name, some in found.items()}


def _of_words(one: Difference) -> bool:
    return one.path.startswith("parts/") and one.path.split("/")[2:3] == ["shape"]


def settle(control: Control) -> Control:
    """The control with what follows a length settled, for the longest words of all its states."""
    return settled(control, words_of(control))


def beginning_of(control: Control, state: State) -> Control:
    """What a state's own differences are laid over: rest, or what the states that it is made of come to."""
    for name in state.of:
        control = laid(control, state_of(control, name).differences).control
    return control


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
    work.arrange([one for one in differences if isinstance(one, Gone | Extra | Order)])
    for one in values:
        work.set(one, carry=False)
    return Laid(work.draft.control(), tuple(work.misfits))


class _Laying:
    """Differences as they are laid over a control."""

    def __init__(self, control: Control) -> None:
        self.draft = Draft(control)
        self.misfits: list[Difference] = []

    def arrange(self, found: Sequence[Difference]) -> None:
        """What is gone, there besides, or in another order: parts first, then effects of each."""
        of_parts = [one for one in found if one.path.count("/") < 2]
        if of_parts:
            control = self.draft.control()
            self.draft.replace(control.evolve(parts=self._arranged(control.parts, of_parts, part_from)))
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


def misfits(control: Control) -> Iterator[tuple[State, tuple[Difference, ...]]]:
    """Of every state that has some, the differences that do not fit the control."""
    for state in control.states:
        found = laid(beginning_of(control, state), state.differences).misfits
        if found:
            yield state, found


def all_states(control: Control) -> Mapping[str, Control]:
    """The control as it looks at rest and in each state, by their ids."""
    return {REST: in_state(control, REST), **{state.id: in_state(control, state.id) for state in control.states}}
