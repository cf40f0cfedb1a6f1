"""The states of a control as the Bench shows them: the column with all of them, and what differs in the one that is
drawn."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Any

from obrell.core.document.fingerprint import whole_fingerprint
from obrell.core.document.model import REST, Control, Differing, KitSettings, State
from obrell.core.document.readings import Readings
from obrell.core.document.resolve import DAY, resolve
from obrell.core.document.states import beginning_of, in_state
from obrell.core.edit.starts import STARTS, StartState, role_of, told_apart
from obrell.core.edit.states import AddState, free_name_for, pairs_of
from obrell.core.edit.values import described, whose
from obrell.core.errors import ObrellError
from obrell.core.geometry.svgdata import number
from obrell.core.values.differences import Difference, Extra, Gone, Moved, Order
from obrell.core.values.roles import ROLES, Role, role_called
from obrell.core.values.slugs import free_id
from obrell.web.fields import FieldView, each_field, field_at, named_colours
from obrell.web.pictures import Dressed, shown_address
from obrell.web.scales import scale_in
from obrell.web.sheet import PartView, SheetView

WIDTH, HEIGHT = 216.0, 300.0
"""Logical px that the column at the right has for a control."""
NARROW = 92.0
"""Up to this wide two states stand beside each other."""
MOST_SAID = 80
LISTS = ("ramp", "curve")
WAYS = {"x": ("further right", "further left"), "y": ("lower", "higher")}


@dataclass(frozen=True, slots=True)
class StateView:
    """One state's card: how many values differ in it, the address of its picture at one and two pixels per pixel."""

    id: str
    name: str
    role: str
    """Its role, if its name does not say it."""
    count: int
    made: bool
    """Whether it is made of others."""
    drawn: bool
    also: bool
    """Whether what is done goes to it too."""
    single: str
    double: str


@dataclass(frozen=True, slots=True)
class StartView:
    """What a state can begin with: the edit, the id of the state then, what it is called, what it does."""

    edit: StartState
    state: str
    name: str
    does: str


@dataclass(frozen=True, slots=True)
class RoleView:
    """A free role, with edits that add its state: empty, and as usual."""

    role: Role
    name: str
    empty: dict[str, Any]
    usual: tuple[StartView, ...]


@dataclass(frozen=True, slots=True)
class DifferenceView:
    """One thing that differs: what it is, its live value where it has one, and what it is at rest."""

    words: str
    path: str
    field: FieldView | None = None
    rest: str = ""


@dataclass(frozen=True, slots=True)
class StatesView:
    """All states, rest first, and what differs in the one that is drawn from ``base``, which is rest or what the
    state is made of."""

    drawn: str
    name: str
    base: str
    all: tuple[StateView, ...]
    differences: tuple[DifferenceView, ...]
    count: int
    paths: frozenset[str]
    role: Role | None
    """The role of the drawn state; None for rest and for a state made of others."""
    roles: tuple[RoleView, ...]
    """Roles that no state has."""
    others: tuple[tuple[str, str], ...]
    """States that a new one can be copied from, by id and name."""
    starts: tuple[StartView, ...]
    """What the one that is drawn can begin with, as long as nothing differs in it."""
    pairs: tuple[tuple[dict[str, Any], str], ...]
    """States of two that could be made: edits, and what they are called."""
    scale: float
    width: int
    height: int
    narrow: bool


def states_of(control: Control, here: Dressed, values: Readings, also: frozenset[str]) -> StatesView:
    """The states of a control, looked at as one of them is drawn."""
    settings, way, drawn, canvas = here.settings, here.colourway, here.state, control.canvas
    scale = scale_in(canvas.width, canvas.height, WIDTH, HEIGHT)
    state = next((one for one in control.states if one.id == drawn), None)
    found = () if state is None else state.differences

    def card(one: State | None) -> StateView:
        name = REST if one is None else one.id
        dressed = replace(here, state=name)
        shown = whole_fingerprint(resolve(settings, control, name, way, values))
        single, double = (
            shown_address(here.kit, control.id, shown, round(density * scale, 3), **dressed.query)
            for density in (1, 2)
        )
        label, count = ("Rest", 0) if one is None else (one.name, len(one.differences))
        return StateView(
            name, label, _role_said(one), count, bool(one and one.of), name == drawn, name in also, single, double
        )

    return StatesView(
        drawn, "Rest" if state is None else state.name, _base_name(control, state),
        (card(None), *map(card, control.states)),
        () if state is None else said_of(state, beginning_of(control, state), in_state(control, drawn), settings, way),
        len(found), frozenset(one.path for one in found),
        None if state is None or state.of else state.role, tuple(_free_roles(control)),
        tuple((one.id, one.name) for one in control.states if not one.of),
        _starts(control, state.id) if state is not None and not state.of and not found else (),
        tuple((one.model_dump(mode="json"), one.called(control)) for one in pairs_of(control)),
        scale, round(canvas.width * scale), round(canvas.height * scale), canvas.width * scale <= NARROW,
    )  # fmt: skip


def _base_name(control: Control, state: State | None) -> str:
    if state is None or not state.of:
        return "rest"
    names = {one.id: one.name for one in control.states}
    return " + ".join(names[name] for name in state.of).lower()


def _role_said(state: State | None) -> str:
    """Return the role for a state's card; empty if its name says it, or if it is made of others."""
    plain = state is not None and not state.of
    return state.role if plain and state is not None and state.role != role_called(state.name) else ""


def _free_roles(control: Control) -> Iterator[RoleView]:
    for role in ROLES:
        if role == "own" or control.state_in_role(role) is not None:
            continue
        name = free_name_for(role, control)
        empty = AddState(name=name, role=role).model_dump(mode="json")
        yield RoleView(
            role, role.title(), empty, tuple(one for one in _starts(control) if role_of(one.edit.start) == role)
        )


def _starts(control: Control, state: str | None = None) -> tuple[StartView, ...]:
    """Return what a state can begin with, or what new ones can."""
    return tuple(
        StartView(
            StartState(start=one, state=state),
            state or free_id(name, control.state_ids, "state"),
            told_apart(one),
            does,
        )
        for one, (name, does) in STARTS.items()
    )


def differences_of(settings: KitSettings, control: Control, state: State) -> tuple[DifferenceView, ...]:
    """What differs in a state of a control by day."""
    return said_of(state, beginning_of(control, state), in_state(control, state.id), settings, DAY)


def said_of(
    one: Differing, base: Control, look: Control, settings: KitSettings, way: str
) -> tuple[DifferenceView, ...]:  # fmt: skip
    """What differs in a state or an edition, from what it is laid over."""
    return named_colours(tuple(_differences(one, base, look)), settings, way)


def _differences(kept: Differing, base: Control, look: Control) -> Iterator[DifferenceView]:
    for one in kept.differences[:MOST_SAID]:
        try:
            yield _difference(base, look, one)
        except ObrellError:
            yield DifferenceView("Something that is no longer there", one.path)


def _difference(base: Control, look: Control, one: Difference) -> DifferenceView:
    if isinstance(one, Gone):
        return DifferenceView(f"{_thing(base, one.path)} is not here", one.path)
    if isinstance(one, Extra):
        return DifferenceView(f"{_thing(look, one.path)} is here only", one.path)
    if isinstance(one, Order):
        return DifferenceView(f"Another order{whose(look, one.path) or ' of parts'}", one.path)
    field = _field(look, one.path)
    if isinstance(one, Moved):
        words = WAYS[one.path.rpartition("/")[2]][one.by < 0]
        return DifferenceView(f"{whose(look, one.path)[4:]} lies {number(abs(one.by))} px {words}", one.path)
    title, before, after = described(base, one.path, one.value)
    words = f"{title}{whose(look, one.path)}"
    return DifferenceView(words, one.path, field, before) if field else DifferenceView(f"{words}: {after}", one.path)


def _thing(control: Control, path: str) -> str:
    """A part by its name, or one of its effects."""
    said = whose(control, f"{path}/visible").removeprefix(" of ")
    return said[:1].upper() + said[1:]


def _field(control: Control, path: str) -> FieldView | None:
    """The live value at a path, where one stands in the sheet."""
    try:
        found = field_at(control, path)
    except ObrellError:
        return None
    return found if found.kind not in LISTS else None


def departing(sheet: SheetView, paths: frozenset[str]) -> SheetView:
    """The sheet with a mark at every value, effect and part that differs in the state or edition that is drawn, by
    the paths of what does."""
    if not paths:
        return sheet
    by_part = Counter(path.split("/")[1] for path in paths if path.startswith("parts/"))
    effects = frozenset("/".join(path.split("/")[:4]) for path in paths if "/effects/" in path)
    only = frozenset(path for path in effects & paths)

    def marked(found: FieldView) -> FieldView:
        return replace(found, departs=at) if (at := _departs(found, paths)) else found

    def counted(part: PartView) -> PartView:
        at = f"parts/{part.id}/effects"
        marked_effects = tuple(
            replace(one, departs=(path := f"{at}/{one.id}") in effects, only=path in only) for one in part.effects
        )
        return replace(part, departs=by_part[part.id], effects=marked_effects)

    return each_field(replace(sheet, parts=tuple(map(counted, sheet.parts))), marked)


def _departs(found: FieldView, paths: frozenset[str]) -> str:
    """The path at which a live value differs: its own, or that of what it is a value of; empty where it does not."""
    steps = found.path.split("/")
    # What is there in this state only has one way back, at its line: not one at each of its values.
    least = 5 if steps[2:3] == ["effects"] else 3
    above = ("/".join(steps[:count]) for count in range(least, len(steps) + 1))
    at = next((path for path in above if path in paths), "")
    if not at and found.kind in LISTS and any(path.startswith(f"{found.path}/") for path in paths):
        return found.path
    return at
