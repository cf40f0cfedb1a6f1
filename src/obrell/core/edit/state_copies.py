"""A state of one control, made for another: the same steps from what that is at rest.

Parts and effects are those that stand for each other (``document/counterparts``). A colour takes the same step in
OKLCH, a number the same share of what it is, all else becomes what it is there; what the other control has nothing for
is left out.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any, Literal

from obrell.core.colour.links import literal
from obrell.core.colour.steps import of_one_hue, step_between
from obrell.core.document.bodies import body_of
from obrell.core.document.colours import places, with_colours
from obrell.core.document.counterparts import counterparts, outer_of, same_effects
from obrell.core.document.differing import as_json
from obrell.core.document.draft import Draft
from obrell.core.document.laying import effect_from, part_from, place_in
from obrell.core.document.mixing import is_number
from obrell.core.document.model import REST, Control, Part, State
from obrell.core.document.restating import in_one_state
from obrell.core.document.states import beginning_of, in_state, state_of
from obrell.core.document.value_paths import value_at, with_number
from obrell.core.edit.base import NEW, Edit, Surroundings, add_parts, each_part
from obrell.core.edit.companions import main_colour
from obrell.core.edit.convert import GrowParts
from obrell.core.edit.effects import RemoveEffect
from obrell.core.edit.parts import RemoveParts
from obrell.core.edit.starts import with_literal
from obrell.core.edit.states import AddState, OfStates
from obrell.core.errors import GONE, NoSuchThing, ObrellError, Refused
from obrell.core.values.colours import Colour
from obrell.core.values.differences import Extra, Gone, Moved, Order, Other
from obrell.core.values.fields import Id
from obrell.core.values.roles import Role


class CopyState(OfStates):
    """A state as another control has it."""

    kind: Literal["copy-state"] = "copy-state"
    source: Control
    state: Id

    def apply(self, control: Control, around: Surroundings) -> Control:
        state = state_of(self.source, self.state)
        if state.of:
            raise Refused(f"“{state.name}” is made of other states: copy those.")
        made = AddState(name=state.name, role=self._role(control, state)).apply(control, around)
        return in_one_state(made, made.states[-1].id, lambda look: self._carried(look, around)[0])

    @staticmethod
    def _role(control: Control, state: State) -> Role:
        """Return the role of a copied state; ``own`` if another state of the control has it."""
        return state.role if control.state_in_role(state.role) is None else "own"

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
    stepped: set[tuple[str, str]] = field(default_factory=set)
    """The colours that have taken their step, by the part and the path below it."""

    def __post_init__(self) -> None:
        self.draft = Draft(self.target)

    def carry(self, one: Other | Moved | Gone | Extra | Order) -> None:
        """One difference; counted where there is nothing for it."""
        try:
            self._carry(one)
        except ObrellError:
            self.left += 1

    def _carry(self, one: Other | Moved | Gone | Extra | Order) -> None:
        """Raises ``ObrellError`` where there is nothing for it."""
        if isinstance(one, Order) or not one.path.startswith("parts/"):
            raise NoSuchThing(GONE)
        _, name, *below = one.path.split("/")
        if isinstance(one, Extra):
            self._add_effect(name, below[-1], one) if below else self._add_part(name, one)
        elif isinstance(one, Gone):
            self._take_away(name, below)
        elif isinstance(one, Moved):
            part, (axis,) = self._there(name), below
            self.draft.put(part.evolve(**{axis: round(getattr(part, axis) + one.by, 9)}))
        else:
            self._set(name, below)

    def _there(self, name: str) -> Part:
        """The other control's part; raises ``NoSuchThing``."""
        return self.draft.part(self.parts.get(name, ""))

    def _effects(self, name: str) -> Mapping[str, str]:
        return same_effects(_part(self.rest, name), self._there(name))

    def _below(self, name: str, below: list[str]) -> str:
        """A path below the other control's part; raises ``NoSuchThing``."""
        if below[0] != "effects" or len(below) == 1:
            return "/".join(below)
        known = self._effects(name)
        if below[1] not in known:
            raise NoSuchThing(GONE)
        return "/".join(("effects", known[below[1]], *below[2:]))

    def _set(self, name: str, below: list[str]) -> None:
        before, after, part = _part(self.rest, name), _part(self.look, name), self._there(name)
        path = "/".join(below)
        colour = next((one for one in places(before) if f"{path}/".startswith(f"{one.path}/")), None)
        if colour is None:
            there = self._below(name, below)
            values = (as_json(value_at(*at)) for at in ((before, path), (after, path), (part, there)))
            self.draft.put(with_number(part, there, _alike(*values)))
            return
        there = self._below(name, colour.path.split("/"))
        if (part.id, there) not in self.stepped:
            self.stepped.add((part.id, there))
            step = step_between(*(self._seen(one) for one in (colour.colour, value_at(after, colour.path))))
            self.draft.put(with_number(part, there, with_literal(value_at(part, there), step, self.around)))

    def _seen(self, colour: Colour) -> str:
        return literal(colour, self.around.palette)

    def _take_away(self, name: str, below: list[str]) -> None:
        part = self._there(name)
        edit: Edit = RemoveParts(parts=(part.id,))
        if below:
            edit = RemoveEffect(part=part.id, effect=self._below(name, below).partition("/")[2])
        self.draft.replace(edit.apply(self.draft.control(), self.around))

    def _add_effect(self, name: str, ident: str, one: Extra) -> None:
        part, found = self._there(name), effect_from(ident, one.value)
        if found is None:
            raise NoSuchThing(GONE)
        extra = with_colours(found.evolve(id=NEW), self._of_body)
        after = None if one.after is None else self._effects(name).get(one.after, "")
        at = place_in([effect.id for effect in part.effects], after)
        effects = (*part.effects[:at], extra, *part.effects[at:])
        self.draft.replace(each_part(self.draft.control(), [part.id], lambda old: old.evolve(effects=effects)))

    def _add_part(self, name: str, one: Extra) -> None:
        """A part that follows another one, as large as it is beside that; any other stays as it is."""
        found = part_from(name, one.value)
        if found is None:
            raise NoSuchThing(GONE)
        keeps = {follow.source: self._kept_to(follow.source) for follow in found.follows}
        follows = tuple(follow.evolve(source=keeps[follow.source].id) for follow in found.follows)
        part = with_colours(found, self._of_body).evolve(within=None, clip=None, follows=follows)
        control = add_parts(self.draft.control(), [part])
        if follows:
            outer = found.follows[0].source
            control = self._beside(control, control.parts[-1], _part(self.rest, outer), keeps[outer])
        self.draft.replace(control)

    def _kept_to(self, name: str) -> Part:
        """What a part keeps to there; raises ``NoSuchThing``."""
        return self.draft.part(outer_of(self.rest, self.target, name) or self.parts.get(name, ""))

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
        if one is None or other is None or not of_one_hue(self._seen(colour), self._seen(one)):
            return colour
        return with_literal(other, step_between(self._seen(one), self._seen(colour)), self.around)


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


def _alike(before: Any, after: Any, there: Any) -> Any:
    """What a value becomes where another one, that was ``before``, became ``after``: lengths and strengths by the same
    share, all else the same."""
    if is_number(before) and is_number(after) and is_number(there) and before != there and before * after > 0:
        return there * after / before
    return after
