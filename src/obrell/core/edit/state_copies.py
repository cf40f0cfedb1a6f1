"""A state of one control, made for another: the same steps from what that is at rest.

Parts and effects are those that stand for each other (``document/counterparts``). A colour takes the same step in
OKLCH, a number the same share of what it is, all else becomes what it is there; what the other control has nothing for
is left out.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, Literal

from obrell.core.colour.links import literal
from obrell.core.colour.steps import of_one_hue, step_between
from obrell.core.document.bodies import body_of
from obrell.core.document.colours import with_colours
from obrell.core.document.counterparts import counterparts, outer_of, same_effects
from obrell.core.document.differing import as_json
from obrell.core.document.draft import Draft
from obrell.core.document.mixing import is_number
from obrell.core.document.model import REST, Control, Part
from obrell.core.document.restating import in_one_state
from obrell.core.document.states import beginning_of, in_state, state_of
from obrell.core.document.value_paths import value_at, with_number
from obrell.core.edit.base import NEW, Surroundings, add_parts, each_part
from obrell.core.edit.companions import main_colour
from obrell.core.edit.convert import GrowParts
from obrell.core.edit.starts import with_literal
from obrell.core.edit.states import AddState, OfStates
from obrell.core.effects import EFFECTS
from obrell.core.errors import ObrellError, Refused
from obrell.core.values.colours import Colour, SwatchLink
from obrell.core.values.differences import Extra, Gone, Moved, Order, Other
from obrell.core.values.fields import Id

HEX = re.compile(r"#[0-9a-f]{6}")


class CopyState(OfStates):
    """A state as another control has it."""

    kind: Literal["copy-state"] = "copy-state"
    source: Control
    state: Id

    def apply(self, control: Control, around: Surroundings) -> Control:
        state = state_of(self.source, self.state)
        if state.of:
            raise Refused(f"“{state.name}” is made of other states: copy those.")
        made = AddState(name=state.name).apply(control, around)
        return in_one_state(made, made.states[-1].id, lambda look: self._carried(look, around)[0])

    def left_out(self, control: Control, around: Surroundings) -> int:
        """How much of what differs has nothing that it could differ in there."""
        return self._carried(in_state(control, REST), around)[1]

    def _carried(self, look: Control, around: Surroundings) -> tuple[Control, int]:
        state = state_of(self.source, self.state)
        rest = beginning_of(self.source, state)
        work = _Carrying(rest, in_state(self.source, self.state), look, around, dict(counterparts(rest, look)))
        for one in state.differences:
            work.carry(one)
        return work.draft.control(), work.left

    def label(self, control: Control) -> str:
        return f"“{state_of(self.source, self.state).name}” as {self.source.name} has it"


@dataclass
class _Carrying:
    """Differences on their way from one control to another."""

    rest: Control
    look: Control
    target: Control
    around: Surroundings
    parts: dict[str, str]
    left: int = 0
    done: set[str] = field(default_factory=set)
    """The colours that have taken their step."""

    def __post_init__(self) -> None:
        self.draft = Draft(self.target)

    def carry(self, one: Other | Moved | Gone | Extra | Order) -> None:
        """One difference; counted where there is nothing for it."""
        try:
            there = self._carry(one)
        except (ObrellError, ValueError, KeyError):
            there = False
        self.left += not there

    def _carry(self, one: Other | Moved | Gone | Extra | Order) -> bool:
        if isinstance(one, Gone):
            return self._take_away(one.path)
        if isinstance(one, Extra):
            return self._add_effect(one) if "/effects/" in one.path else self._add_part(one)
        if isinstance(one, Order) or not one.path.startswith("parts/"):
            return False
        here, below = self._place(one.path)
        part = self.draft.part(here)
        if isinstance(one, Moved):
            self.draft.put(part.evolve(**{below: round(getattr(part, below) + one.by, 9)}))
        else:
            self._set(part, one.path.split("/")[1], below, one.path.split("/", 2)[2])
        return True

    def _place(self, path: str) -> tuple[str, str]:
        """The other control's part for a path, and the path below it; raises ``NoSuchThing`` or ``ValueError``."""
        _, name, below = path.split("/", 2)
        if name not in self.parts:
            raise ValueError(name)
        return self.parts[name], self._below(name, below)

    def _below(self, name: str, below: str) -> str:
        steps = below.split("/")
        if steps[0] == "effects" and len(steps) > 1:
            known = same_effects(_part(self.rest, name), self.draft.part(self.parts[name]))
            if steps[1] not in known:
                raise ValueError(below)
            steps[1] = known[steps[1]]
        return "/".join(steps)

    def _set(self, part: Part, name: str, below: str, was_below: str) -> None:
        before, after = _part(self.rest, name), _part(self.look, name)
        at = _colour_at(before, was_below)
        if at:
            below = "/".join(below.split("/")[: at.count("/") + 1])
            if f"{part.id}/{below}" not in self.done:
                self.done.add(f"{part.id}/{below}")
                step = self._step(value_at(before, at), value_at(after, at))
                self.draft.put(with_number(part, below, with_literal(value_at(part, below), step, self.around)))
            return
        was, now, own = (as_json(value_at(*one)) for one in ((before, was_below), (after, was_below), (part, below)))
        self.draft.put(with_number(part, below, _alike(was, now, own)))

    def _step(self, before: Colour, after: Colour) -> Callable[[str], str]:
        return step_between(*(literal(one, self.around.palette) for one in (before, after)))

    def _take_away(self, path: str) -> bool:
        if path.count("/") == 1:
            gone = self.parts[path.split("/")[1]]
            control = self.draft.control()
            self.draft.replace(control.evolve(parts=tuple(part for part in control.parts if part.id != gone)))
            return True
        here, below = self._place(path)
        part, gone = self.draft.part(here), below.split("/")[1]
        self.draft.put(part.evolve(effects=tuple(one for one in part.effects if one.id != gone)))
        return True

    def _add_effect(self, one: Extra) -> bool:
        _, name, _, _ = one.path.split("/")
        here, value = self.parts[name], dict(one.value) if isinstance(one.value, dict) else {}
        extra = with_colours(EFFECTS[str(value["kind"])].model_validate(value | {"id": NEW}), self._of_body)
        part = self.draft.part(here)
        known = same_effects(_part(self.rest, name), part)
        order = [effect.id for effect in part.effects]
        after = known.get(one.after or "")
        at = 0 if one.after is None else order.index(after) + 1 if after else len(order)
        effects = (*part.effects[:at], extra, *part.effects[at:])
        self.draft.replace(each_part(self.draft.control(), [here], lambda old: old.evolve(effects=effects)))
        return True

    def _add_part(self, one: Extra) -> bool:
        """A part that follows another one, as large as it is beside that; any other stays as it is."""
        part = with_colours(Part.model_validate(one.value), self._of_body)
        there = {follow.source: self._kept_to(follow.source) for follow in part.follows}
        if not all(there.values()):
            return False
        follows = tuple(follow.evolve(source=there[follow.source]) for follow in part.follows)
        part = part.evolve(within=None, clip=None, follows=follows)
        control = add_parts(self.draft.control(), [part])
        if follows:
            outer = _part(self.rest, _followed(one))
            control = self._beside(control, control.parts[-1], outer, self.draft.part(follows[0].source))
        self.draft.replace(control)
        return True

    def _kept_to(self, name: str) -> str:
        return outer_of(self.rest, self.target, name) or self.parts.get(name, "")

    def _beside(self, control: Control, part: Part, outer: Part, other: Part) -> Control:
        """A part that keeps to one, beside another one in its place: of its form, where it was of that of the one."""
        place = {"x": part.x + other.x - outer.x, "y": part.y + other.y - outer.y}
        alike = isinstance(part.shape, type(outer.shape))
        shape = other.shape if alike else part.shape
        control = each_part(control, [part.id], lambda old: old.evolve(**place, shape=shape))
        if alike:
            by = (part.shape.frame().width - outer.shape.frame().width) / 2
            control = GrowParts(parts=(part.id,), by=by).apply(control, self.around)
        return each_part(control, [part.id], _with_what_follows)

    def _of_body(self, colour: Colour) -> Colour:
        """A colour that is of the hue of the one's body takes that of the other's."""
        one, other = (_body_colour(control) for control in (self.rest, self.target))
        seen = literal(colour, self.around.palette)
        if one is None or other is None or not of_one_hue(seen, literal(one, self.around.palette)):
            return colour
        return with_literal(other, step_between(literal(one, self.around.palette), seen), self.around)


def _followed(one: Extra) -> str:
    """The part that an extra one follows first."""
    return Part.model_validate(one.value).follows[0].source


def _part(control: Control, name: str) -> Part:
    part: Part = value_at(control, f"parts/{name}")
    return part


def _with_what_follows(part: Part) -> Part:
    """A part without follows of numbers that it has not."""
    return part.evolve(follows=tuple(one for one in part.follows if _has(part, one.path)))


def _has(part: Part, path: str) -> bool:
    try:
        value_at(part, path)
    except ObrellError:
        return False
    return True


def _body_colour(control: Control) -> Colour | None:
    body = body_of(control)
    return main_colour(_part(control, body[0])) if body else None


def _colour_at(part: Part, path: str) -> str:
    """The path of the colour that a path leads to or into; empty where it leads to none."""
    steps = path.split("/")
    for count in range(1, len(steps) + 1):
        at = "/".join(steps[:count])
        found = value_at(part, at)
        if isinstance(found, SwatchLink) or (isinstance(found, str) and HEX.fullmatch(found)):
            return at
    return ""


def _alike(before: Any, after: Any, there: Any) -> Any:
    """What a value becomes where another one, that was ``before``, became ``after``: lengths and strengths by the same
    share, all else the same."""
    if is_number(before) and is_number(after) and is_number(there) and before != there and before * after > 0:
        return there * after / before
    return after
