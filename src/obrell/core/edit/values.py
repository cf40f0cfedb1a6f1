"""Setting values by their paths, and the ramp's own edits."""

from __future__ import annotations

from abc import abstractmethod
from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field, JsonValue

from obrell.core.document.measures import anchor_of
from obrell.core.document.model import Control, Light, Part
from obrell.core.document.moving import set_value
from obrell.core.document.paths import field_of, live_at, value_at, with_value
from obrell.core.document.tree import arranged
from obrell.core.edit.base import Edit, Surroundings, check_unlocked, moved
from obrell.core.effects import Mask
from obrell.core.effects.pigments import sample
from obrell.core.errors import BadValue, NoSuchThing, Refused
from obrell.core.geometry.plane import Similarity
from obrell.core.geometry.svgdata import number
from obrell.core.values.base import Value
from obrell.core.values.fields import Id, Share
from obrell.core.values.paints import Gradient, Linear, Stop

ALWAYS_FREE = ("visible", "locked", "name")
"""What may be changed on a locked part."""


class Change(Value):
    """A new value for the one at ``path``."""

    path: Annotated[str, Field(min_length=1, max_length=300)]
    value: JsonValue


class SetValues(Edit):
    """Several values set at once, as one step of history.

    A path with ``*`` for the part's id stands for that value of all ``parts``. ``anchor`` names the
    place of a part's frame that stays where it is when its size or turn changes: shares across and
    down."""

    kind: Literal["set"] = "set"
    changes: Annotated[tuple[Change, ...], Field(min_length=1, max_length=2000)]
    parts: Annotated[tuple[Id, ...], Field(max_length=1000)] = ()
    anchor: tuple[Share, Share] | None = None

    def each(self) -> list[Change]:
        """The changes, those of many parts one by one."""
        return [
            Change(path=change.path.replace("*", part, 1), value=change.value)
            for change in self.changes
            for part in (self.parts if "*" in change.path else ("",))
        ]

    def apply(self, control: Control, around: Surroundings) -> Control:
        before = control
        for change in self.each():
            control = self._changed(control, change, around)
        return control if self.anchor is None else self._anchored(before, control)

    def _changed(self, control: Control, change: Change, around: Surroundings) -> Control:
        light = around.light_of(control)
        if change.path.startswith("light/") and control.light is None:
            control = control.evolve(light=Light(direction=light))
        _check_lock(control, change.path)
        changed = set_value(control, change.path, change.value, light)
        changed = _fitted_mask(changed, change.path)
        _check_part(changed, change.path)
        return _renamed(control, changed, change.path)

    def _anchored(self, before: Control, after: Control) -> Control:
        """Every changed part moved so that its anchor is where it was."""
        ids = {change.path.split("/")[1] for change in self.each() if change.path.startswith("parts/")}
        old, new = arranged(before).all, arranged(after).all
        moves = {}
        for part_id in ids & old.keys() & new.keys():
            was, now = (anchor_of(tree[part_id].part, self.anchor or (0.5, 0.5)) for tree in (old, new))
            moves[part_id] = Similarity(dx=was[0] - now[0], dy=was[1] - now[1])
        return moved(after, moves)

    def label(self, control: Control) -> str:
        changes = self.each()
        first = changes[0]
        if len(changes) > 1:
            return f"Changed {len(changes)} values{'' if self.parts else _whose(control, first.path)}"
        title, before, after = described(control, first.path, first.value)
        return f"{title}{_whose(control, first.path)}: {before} → {after}"


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
    title = type(owner).model_fields[name].title or name.replace("_", " ")
    if live is None or not isinstance(value, int | float):
        return title.capitalize(), _shown(old), _shown(value)
    before, after = (f"{number(v * live.factor)} {live.unit}".strip() for v in (old, value))
    return title.capitalize(), before, after


def _shown(value: Any) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, int | float):
        return number(value)
    if isinstance(value, str):
        return f"“{value[:40]}”" if " " in value else value[:40]
    if isinstance(value, BaseModel) and "kind" in type(value).model_fields:
        return str(getattr(value, "kind", ""))
    return "another" if value is not None else "none"


def _whose(control: Control, path: str) -> str:
    """`` of Inner shadow on Body`` for a path below a part's effect."""
    steps = path.split("/")
    if steps[0] != "parts" or len(steps) < 2:
        return ""
    part: Part = value_at(control, "/".join(steps[:2]))
    if len(steps) > 4 and steps[2] == "effects":
        effect = value_at(control, "/".join(steps[:4]))
        return f" of {effect.label.lower()} on {part.name}"
    return f" of {part.name}"


def _check_lock(control: Control, path: str) -> None:
    steps = path.split("/")
    if steps[0] == "parts" and len(steps) > 2 and steps[2] not in ALWAYS_FREE:
        check_unlocked(control, [steps[1]])


def _check_part(control: Control, path: str) -> None:
    steps = path.split("/")
    if steps[0] == "parts" and len(steps) > 3 and steps[2] == "shape":
        part: Part = value_at(control, "/".join(steps[:2]))
        problem = part.shape.problem()
        if problem:
            raise BadValue(problem, path)


def _fitted_mask(control: Control, path: str) -> Control:
    """A mask that begins or ends to move with its part fits it where that is now."""
    steps = path.split("/")
    mask = value_at(control, "/".join(steps[:4])) if steps[2:3] == ["effects"] and len(steps) > 4 else None
    if not isinstance(mask, Mask) or (steps[4] != "moves" and steps[4:6] != ["cover", "part"]):
        return control
    part: Part = value_at(control, "/".join(steps[:2]))
    fitted: Control = with_value(control, "/".join(steps[:4]), mask.fitted_to(part.x, part.y))
    return fitted


def _renamed(before: Control, control: Control, path: str) -> Control:
    """A part that is still called as its kind or its words suggest goes on being called so."""
    steps = path.split("/")
    if steps[0] != "parts" or steps[2:3] != ["shape"]:
        return control
    where = "/".join(steps[:2])
    old, new = value_at(before, where), value_at(control, where)
    if old.name != old.shape.suggested_name() or new.shape.suggested_name() == old.name:
        return control
    renamed: Control = with_value(control, f"{where}/name", new.shape.suggested_name())
    return renamed


class GradientEdit(Edit):
    """Base of the edits of one gradient, by its path."""

    path: str

    def apply(self, control: Control, around: Surroundings) -> Control:
        _check_lock(control, self.path)
        found = value_at(control, self.path)
        if not isinstance(found, Gradient):
            raise Refused("Only a gradient has stops.")
        changed: Control = with_value(control, self.path, self.changed(found))
        return changed

    @abstractmethod
    def changed(self, gradient: Gradient) -> Gradient:
        """What it makes of the gradient."""


class AddStop(GradientEdit):
    """A stop put on the ramp where its colour is what the ramp already shows."""

    kind: Literal["add-stop"] = "add-stop"
    position: Annotated[float, Field(ge=0, le=1)]

    def changed(self, gradient: Gradient) -> Gradient:
        stop = sample(_literal_enough(gradient), self.position)
        return gradient.evolve(stops=(*gradient.stops, stop))

    def label(self, control: Control) -> str:
        return f"Added a stop at {number(self.position * 100)} %{_whose(control, self.path)}"


class RemoveStop(GradientEdit):
    """A stop taken off the ramp; the last two stay."""

    kind: Literal["remove-stop"] = "remove-stop"
    index: Annotated[int, Field(ge=0)]

    def changed(self, gradient: Gradient) -> Gradient:
        stops = gradient.stops
        if len(stops) <= 2:
            raise Refused("A gradient keeps at least two stops. For one colour, make it solid.")
        if self.index >= len(stops):
            raise NoSuchThing("That stop is no longer there.")
        return gradient.evolve(stops=stops[: self.index] + stops[self.index + 1 :])

    def label(self, control: Control) -> str:
        return f"Removed a stop{_whose(control, self.path)}"


class ReverseStops(GradientEdit):
    """The ramp turned end for end, midpoints included."""

    kind: Literal["reverse-stops"] = "reverse-stops"

    def changed(self, gradient: Gradient) -> Gradient:
        return gradient.evolve(stops=reversed_stops(gradient.stops))

    def label(self, control: Control) -> str:
        return f"Reversed the gradient{_whose(control, self.path)}"


class SpaceStops(GradientEdit):
    """Stops spaced evenly from the first to the last."""

    kind: Literal["space-stops"] = "space-stops"

    def changed(self, gradient: Gradient) -> Gradient:
        stops = gradient.stops
        first, last = stops[0].position, stops[-1].position
        step = (last - first) / (len(stops) - 1)
        return gradient.evolve(stops=tuple(stop.evolve(position=first + step * n) for n, stop in enumerate(stops)))

    def label(self, control: Control) -> str:
        return f"Spaced the stops evenly{_whose(control, self.path)}"


class CloseSeam(GradientEdit):
    """The last stop of a conic gradient made the first again, at its end, so that no seam shows."""

    kind: Literal["close-seam"] = "close-seam"

    def changed(self, gradient: Gradient) -> Gradient:
        stops = gradient.stops
        last = stops[0].evolve(position=1.0, midpoint=0.5)
        kept = stops[:-1] if stops[-1].position >= 1 and len(stops) > 2 else stops
        return gradient.evolve(stops=(*kept, last))

    def label(self, control: Control) -> str:
        return f"Closed the seam{_whose(control, self.path)}"


class TurnGradient(GradientEdit):
    """A linear gradient turned clockwise by degrees."""

    kind: Literal["turn-gradient"] = "turn-gradient"
    degrees: Annotated[float, Field(ge=-360, le=360)] = 90.0

    def changed(self, gradient: Gradient) -> Gradient:
        if not isinstance(gradient, Linear):
            raise Refused("Only a linear gradient has a direction to turn.")
        return gradient.evolve(angle=(gradient.angle + self.degrees) % 360)

    def label(self, control: Control) -> str:
        return f"Turned the gradient by {number(self.degrees)}°{_whose(control, self.path)}"


def reversed_stops(stops: tuple[Stop, ...]) -> tuple[Stop, ...]:
    """Positions mirrored; each midpoint goes with the stretch it bends, mirrored too."""
    bends = [1 - stop.midpoint for stop in stops[-2::-1]]
    return tuple(
        stop.evolve(position=1 - stop.position, midpoint=bend)
        for stop, bend in zip(stops[::-1], [*bends, 0.5], strict=True)
    )


def _literal_enough(gradient: Gradient) -> Gradient:
    """Links are followed only when drawn, so a new stop between links takes the nearer link."""
    if all(isinstance(stop.colour, str) for stop in gradient.stops):
        return gradient
    plain = tuple(stop if isinstance(stop.colour, str) else stop.evolve(colour="#808080") for stop in gradient.stops)
    return gradient.evolve(stops=plain)
