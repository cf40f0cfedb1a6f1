"""Setting values by their paths."""

from __future__ import annotations

from itertools import pairwise
from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field, ValidationError

from obrell.core.document.draft import Draft
from obrell.core.document.measures import anchor_of, to_middle
from obrell.core.document.model import REST, Control, Light, Part
from obrell.core.document.moving import PLACE
from obrell.core.document.tree import arranged, descendants
from obrell.core.document.value_paths import field_of, is_value, live_at, value_at, with_value
from obrell.core.edit.base import Edit, Surroundings, check_unlocked, moved, part_of, refuse_locked
from obrell.core.edit.nouns import noun_of
from obrell.core.effects import AnyEffect, Mask
from obrell.core.errors import BadValue, NoSuchThing, Refused
from obrell.core.geometry.plane import Similarity
from obrell.core.geometry.svgdata import number, shown
from obrell.core.shapes import Container
from obrell.core.values.base import Value
from obrell.core.values.colours import SwatchLink, link_words
from obrell.core.values.fields import Id, Share
from obrell.core.values.plain import Plain
from obrell.core.values.transitions import Transition

NO_PARTS = "Select parts first: this is set for each of them."
SWITCHED = {
    ("visible", True): "Showed", ("visible", False): "Hid", ("locked", True): "Locked", ("locked", False): "Unlocked",
}  # fmt: skip
"""What is done by setting a value that is yes or no."""
MIDDLES = ("parts/*/x", "parts/*/y")
"""Paths that stand for the middles of many parts."""
ALWAYS_FREE = ("visible", "locked", "name")
"""What may be changed on a locked part."""


class Change(Value):
    """A new value for the one at ``path``."""

    path: Annotated[str, Field(min_length=1, max_length=300)]
    value: Plain


class SetValues(Edit):
    """Several values set at once, as one step of history.

    A path with ``*`` for the part's id stands for that value of all ``parts``; a place is that of their middles then,
    wherever each has its x and y. ``anchor`` names the place of a part's frame that stays where it is when its size or
    turn changes: shares across and down."""

    kind: Literal["set"] = "set"
    changes: Annotated[tuple[Change, ...], Field(min_length=1, max_length=2000)]
    parts: Annotated[tuple[Id, ...], Field(max_length=1000)] = ()
    anchor: tuple[Share, Share] | None = None

    def each(self) -> list[Change]:
        """The changes, those of many parts one by one."""
        return [one for change in self.changes for one in self._one_by_one(change)]

    def _one_by_one(self, change: Change) -> list[Change]:
        if "*" not in change.path:
            return [change]
        return [Change(path=change.path.replace("*", part, 1), value=change.value) for part in self.parts]

    def _placed(self, control: Control) -> list[Change]:
        """Return the changes one by one, with the x and y of each part where the place of many middles is set."""
        return [
            _from_middle(control, one) if change.path in MIDDLES else one
            for change in self.changes
            for one in self._one_by_one(change)
        ]

    def apply(self, control: Control, around: Surroundings) -> Control:
        before, changes = control, self._placed(control)
        if not changes:
            raise Refused(NO_PARTS)
        draft, lamp = Draft(control), around.lamp_of(control)
        for change in changes:
            set_in(draft, change, lamp)
        control = draft.control()
        return control if self.anchor is None else self._anchored(before, control)

    def _anchored(self, before: Control, after: Control) -> Control:
        """Every changed part moved so that its anchor is where it was."""
        ids = {change.path.split("/")[1] for change in self.each() if change.path.startswith("parts/")}
        old, new = arranged(before).all, arranged(after).all
        moves = {}
        for part_id in ids & old.keys() & new.keys():
            was, now = (anchor_of(tree[part_id].part, self.anchor or (0.5, 0.5)) for tree in (old, new))
            moves[part_id] = Similarity(dx=was[0] - now[0], dy=was[1] - now[1])
        return moved(after, moves)

    def sets(self) -> frozenset[str]:
        return frozenset(change.path for change in self.each())

    def removes(self) -> bool:
        return any(change.path == "ground" and change.value is None for change in self.changes)

    def label(self, control: Control) -> str:
        changes = self._placed(control)
        if not changes:
            raise Refused(NO_PARTS)
        first = changes[0]
        if len(changes) > 1:
            return f"Changed {len(changes)} values{'' if self.parts else whose(control, first.path)}"
        switched = SWITCHED.get((first.path.rpartition("/")[2], bool(first.value)))
        if switched is not None:
            thing = (
                whose(control, first.path).removeprefix(" of ") or f"the {first.path.partition('/')[0].rstrip('s')}"
            )
            return f"{switched} {thing}"
        title, before, after = described(control, first.path, first.value)
        return f"{title}{whose(control, first.path)}: {before} → {after}"


def _from_middle(control: Control, change: Change) -> Change:
    """Return the change of a part's x or y that moves its middle to the value."""
    if not isinstance(change.value, int | float):
        return change
    return change.evolve(value=change.value - to_middle(control, change.path))


def described(control: Control, path: str, value: Any) -> tuple[str, str, str]:
    """A value's title, and its old and new content in words."""
    if path.startswith("light/") and control.light is None:
        return ("Light from" if path.endswith("direction") else "Light height"), "the kit's", _shown(value)
    try:
        owner, name = field_of(control, path)
        live = live_at(control, path)
        old = value_at(control, path)
    except NoSuchThing:
        return "Value", "", _shown(value)
    title = noun_of(type(owner).model_fields[name].title or name.replace("_", " "))
    if live is None or not isinstance(value, int | float):
        return title.capitalize(), _shown(old), _shown(value)
    space = "" if live.unit in ("", "°") else " "
    before, after = (f"{shown(v * live.factor)}{space}{live.unit}" for v in (old, value))
    return title.capitalize(), before, after


def _shown(value: Any) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, int | float):
        return shown(value)
    if isinstance(value, str):
        return f"“{value[:40]}”" if " " in value else value[:40]
    if isinstance(value, tuple) and all(isinstance(one, int | float) for one in value):
        return " ".join(number(one) for one in value) or "none"
    link = _link_of(value)
    if link is not None:
        return link.own or link_words(link, {})
    if isinstance(value, BaseModel) and "kind" in type(value).model_fields:
        return str(getattr(value, "kind", ""))
    if isinstance(value, dict) and "kind" in value:
        return str(value["kind"])
    return "another" if value is not None else "none"


def _link_of(value: Any) -> SwatchLink | None:
    try:
        return SwatchLink.model_validate(value) if isinstance(value, SwatchLink | dict) else None
    except ValidationError:
        return None


def whose(control: Control, path: str) -> str:
    """`` of Inner shadow on Body`` for a path below a part's effect, `` of rest to hover`` for one of a timing."""
    steps = path.split("/")
    if steps[0] == "touch" and len(steps) > 1:
        return " of the touch area"
    if steps[0] == "readings" and len(steps) > 2:
        return f" of {value_at(control, '/'.join(steps[:2])).name}"
    if steps[0] in {"timing", "transitions"}:
        return f" of {_timed(control, steps)}"
    if steps[0] != "parts" or len(steps) < 2:
        return ""
    part: Part = value_at(control, "/".join(steps[:2]))
    if len(steps) > 4 and steps[2] == "effects":
        return f"{_stop_said(steps)} of {told_apart(part, value_at(part, f'effects/{steps[3]}'))} on {part.name}"
    return f" of {part.name}"


def _stop_said(steps: list[str]) -> str:
    """Return `` of stop 2`` for the path of a value of a gradient's second stop, empty for all others."""
    for name, place in pairwise(steps):
        if name == "stops" and place.isdigit():
            return f" of stop {int(place) + 1}"
    return ""


def told_apart(part: Part, effect: AnyEffect) -> str:
    """Return an effect's kind in words, with its number, counted from the front as the sheet lists them, where the
    part has several of the kind."""
    if effect.name:
        return effect.said
    alike = [one.id for one in reversed(part.effects) if one.kind == effect.kind]
    number = f" {alike.index(effect.id) + 1}" if len(alike) > 1 else ""
    return f"{effect.said}{number}"


def _timed(control: Control, steps: list[str]) -> str:
    """Whose timing a path leads to: that of all transitions, or of one, by the names of its states."""
    if steps[0] == "timing":
        return "all transitions"
    names = {REST: "rest"} | {state.id: state.name for state in control.states}
    own: Transition = value_at(control, "/".join(steps[:2]))
    return f"{names.get(own.start, own.start)} to {names.get(own.end, own.end)}".lower()


def check_lock(control: Control, path: str) -> None:
    """Raises ``Refused`` when the path leads to what a locked part keeps."""
    steps = path.split("/")
    if steps[0] == "parts" and len(steps) > 2 and steps[2] not in ALWAYS_FREE:
        part = part_of(control, steps[1])
        places = steps[2] in PLACE and isinstance(part.shape, Container)
        check_unlocked(control, descendants(control, [part.id]) if places else [part.id])


def set_in(draft: Draft, change: Change, lamp: Light) -> None:
    """One value set in a control under way; raises ``Refused`` for what is no value, is locked, or is not allowed."""
    path = change.path
    if not is_value(path):
        raise BadValue("Only values can be set; parts and effects are added, moved and removed.", path)
    root, _, rest = path.partition("/")
    if root == "parts":
        name, _, below = rest.partition("/")
        _set_of_part(draft, name, below, change.value, lamp.direction)
        return
    control = draft.control()
    if root == "light" and rest and control.light is None:
        draft.replace(control.evolve(light=lamp))
    draft.set_at(path, change.value, lamp.direction)


def _set_of_part(draft: Draft, name: str, path: str, value: Any, light: float) -> None:
    old = draft.part(name)
    field = path.partition("/")[0]
    if field in PLACE and isinstance(old.shape, Container):
        check_lock(draft.control(), f"parts/{name}/{path}")
    elif field not in ALWAYS_FREE:
        refuse_locked(old)
    new = draft.set(name, path, value, light)
    if field == "effects":
        draft.put(_fitted_mask(old, new, path))
    elif field == "shape":
        new = new.evolve(shape=new.shape.pushed(old.shape))
        problem = new.shape.problem_since(old.shape)
        if problem:
            raise BadValue(problem, path)
        draft.put(_renamed(old, new))


def _fitted_mask(old: Part, part: Part, path: str) -> Part:
    """Return the part with its mask adjusted to a changed field: fitted to the part's place when it begins or ends to
    move along, its stops converted when its measure changes."""
    steps = path.split("/")
    name = "/".join(steps[:2])
    mask, field = value_at(part, name), "/".join(steps[2:])
    if not isinstance(mask, Mask):
        return part
    if field == "measure":
        mask = value_at(old, name).measured_by(mask.measure)
    elif field in ("moves", "cover/part"):
        mask = mask.fitted_to(part.x, part.y)
    fitted: Part = with_value(part, name, mask)
    return fitted


def _renamed(old: Part, new: Part) -> Part:
    """A part that is still called as its kind or its words suggest goes on being called so."""
    if old.name != old.shape.suggested_name() or new.shape.suggested_name() == old.name:
        return new
    return new.evolve(name=new.shape.suggested_name())
