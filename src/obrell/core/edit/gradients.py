"""What is done to one gradient: its stops, its ends, where it lies."""

from __future__ import annotations

from abc import abstractmethod
from itertools import pairwise
from random import Random
from typing import Annotated, Literal, Self

from pydantic import Field

from obrell.core.colour.stops import MOST_CHARACTERS, stops_from
from obrell.core.document.colours import with_colours
from obrell.core.document.gradients import laid
from obrell.core.document.measures import spans_of
from obrell.core.document.model import Control
from obrell.core.document.tree import arranged
from obrell.core.document.value_paths import value_at, with_value
from obrell.core.edit.base import Edit, Surroundings, effect_of, part_of
from obrell.core.edit.leading import Lead, Led
from obrell.core.edit.values import Change, SetValues, check_lock, whose
from obrell.core.errors import NoSuchThing, Refused
from obrell.core.geometry.svgdata import number
from obrell.core.paint.fills import sample
from obrell.core.values.colours import Colour, follows
from obrell.core.values.fields import Id, Place, Share
from obrell.core.values.paints import Gradient, Linear, reversed_stops
from obrell.core.values.slugs import slug

SNAPPING = ("from", "to", "centre", "down")
ROOM = 0.97
"""A ramp whose last stop lies beyond this place has no room to come back."""


class GradientEdit(Edit):
    """Base of the edits of one gradient, by its path."""

    path: str

    def apply(self, control: Control, around: Surroundings) -> Control:
        check_lock(control, self.path)
        found = value_at(control, self.path)
        if not isinstance(found, Gradient):
            raise Refused("Only a gradient has stops.")
        changed: Control = with_value(control, self.path, self.changed(found))
        return changed

    @abstractmethod
    def changed(self, gradient: Gradient) -> Gradient:
        """What it makes of the gradient."""


class AddStop(GradientEdit):
    """A stop put on the ramp where its colour is what the ramp already shows; without a position in the middle of the
    widest gap."""

    kind: Literal["add-stop"] = "add-stop"
    position: Annotated[float, Field(ge=0, le=1)] | None = None

    def changed(self, gradient: Gradient) -> Gradient:
        position = widest_gap(gradient) if self.position is None else self.position
        stop = sample(_literal_enough(gradient), position)
        return gradient.evolve(stops=(*gradient.stops, stop))

    def label(self, control: Control) -> str:
        at = "" if self.position is None else f" at {number(self.position * 100)} %"
        return f"Added a stop{at}{whose(control, self.path)}"


class WriteStops(GradientEdit):
    """All stops as they are written in the notation of CSS."""

    kind: Literal["write-stops"] = "write-stops"
    text: Annotated[str, Field(max_length=MOST_CHARACTERS)]

    def apply(self, control: Control, around: Surroundings) -> Control:
        known = {slug(one.name, one.id): one.id for one in around.swatches}
        known |= {one.id: one.id for one in around.swatches}

        def named(colour: Colour) -> Colour:
            link = follows(colour)
            return colour if link is None else link.evolve(swatch=known.get(link.swatch, link.swatch))

        written = super().apply(control, around)
        gradient: Gradient = value_at(written, self.path)
        changed: Control = with_value(written, self.path, with_colours(gradient, named))
        return changed

    def changed(self, gradient: Gradient) -> Gradient:
        return gradient.evolve(stops=stops_from(self.text))

    def label(self, control: Control) -> str:
        return f"Wrote the stops{whose(control, self.path)}"


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

    def removes(self) -> bool:
        return True

    def label(self, control: Control) -> str:
        return f"Removed a stop{whose(control, self.path)}"


class ReverseStops(GradientEdit):
    """The ramp turned end for end, midpoints included."""

    kind: Literal["reverse-stops"] = "reverse-stops"

    def changed(self, gradient: Gradient) -> Gradient:
        return gradient.evolve(stops=reversed_stops(gradient.stops))

    def label(self, control: Control) -> str:
        return f"Reversed the gradient{whose(control, self.path)}"


class SpaceStops(GradientEdit):
    """Stops spaced evenly from the first to the last."""

    kind: Literal["space-stops"] = "space-stops"

    def changed(self, gradient: Gradient) -> Gradient:
        stops = gradient.stops
        first, last = stops[0].position, stops[-1].position
        step = (last - first) / (len(stops) - 1)
        return gradient.evolve(stops=tuple(stop.evolve(position=first + step * n) for n, stop in enumerate(stops)))

    def label(self, control: Control) -> str:
        return f"Spaced the stops evenly{whose(control, self.path)}"


class CloseSeam(GradientEdit):
    """A conic gradient that comes back to its first colour at its end, so that no seam shows: no colour of it is lost,
    those that reach the end make room."""

    kind: Literal["close-seam"] = "close-seam"

    def changed(self, gradient: Gradient) -> Gradient:
        stops = gradient.stops
        last = stops[0].evolve(position=1.0, midpoint=0.5)
        if stops[-1].position > ROOM:
            share = (len(stops) - 1) / len(stops)
            stops = tuple(stop.evolve(position=stop.position * share) for stop in stops)
        return gradient.evolve(stops=(*stops, last))

    def label(self, control: Control) -> str:
        return f"Closed the seam{whose(control, self.path)}"


class CopyStop(GradientEdit):
    """A stop once more, half way to the next one, or to the one before the last."""

    kind: Literal["copy-stop"] = "copy-stop"
    index: Annotated[int, Field(ge=0)]

    def changed(self, gradient: Gradient) -> Gradient:
        stops = gradient.stops
        if self.index >= len(stops):
            raise NoSuchThing("That stop is no longer there.")
        stop, beside = stops[self.index], stops[self.index + 1 if self.index + 1 < len(stops) else self.index - 1]
        return gradient.evolve(stops=(*stops, stop.evolve(position=(stop.position + beside.position) / 2)))

    def label(self, control: Control) -> str:
        return f"Copied a stop{whose(control, self.path)}"


class JitterStops(GradientEdit):
    """Every inner stop moved a little along the ramp, at random from a seed; their order stays."""

    kind: Literal["jitter-stops"] = "jitter-stops"
    seed: Annotated[int, Field(ge=0, le=2**31)] = 0
    amount: Share = 0.5

    def changed(self, gradient: Gradient) -> Gradient:
        stops, chance = gradient.stops, Random(self.seed)
        if len(stops) < 3:
            raise Refused("Only stops between the first and the last are jittered: add one first.")
        places = [stop.position for stop in stops]
        for at in range(1, len(stops) - 1):
            way = chance.uniform(-1, 1) * self.amount * 0.9
            room = places[at + 1] - places[at] if way > 0 else places[at] - places[at - 1]
            places[at] = round(places[at] + way * room, 3)
        return gradient.evolve(stops=tuple(s.evolve(position=p) for s, p in zip(stops, places, strict=True)))

    def label(self, control: Control) -> str:
        return f"Jittered the stops{whose(control, self.path)}"


class MoveGradient(Led):
    """A handle of a gradient, or one of its stops, taken to a place on the canvas; ``steps`` keeps angles to whole
    steps, ``centred`` takes the other end of a linear one the other way. Stops stay on their line and do not snap."""

    kind: Literal["move-gradient"] = "move-gradient"
    part: Id
    effect: Id
    handle: Annotated[str, Field(pattern=r"^(from|to|line|centre|down|focus|stop \d{1,2})$")]
    x: Place
    y: Place
    steps: bool = False
    centred: bool = False

    def apply(self, control: Control, around: Surroundings) -> Control:
        return self.settled(control)._set(control).apply(control, around)

    def label(self, control: Control) -> str:
        return self._set(control).label(control)

    def lead(self, control: Control) -> Lead:
        fixed = self.steps or self.handle not in SNAPPING
        return Lead(None if fixed else self.x, None if fixed else self.y)

    def shifted(self, dx: float, dy: float) -> Self:
        return self.evolve(x=self.x + dx, y=self.y + dy, snap=None)

    def _set(self, control: Control) -> SetValues:
        """The values that this comes to."""
        effect, tree = effect_of(part_of(control, self.part), self.effect), arranged(control)
        seen = tree.all[self.part].part
        found = laid(seen, effect, spans_of(control, tree, seen))
        values = found.moved(self.handle, self.x, self.y, steps=self.steps, centred=self.centred) if found else {}
        if found is None or not values:
            raise Refused("That gradient has no such handle.")
        base = f"parts/{self.part}/effects/{self.effect}/{found.path}"
        return SetValues(changes=tuple(Change(path=f"{base}/{name}", value=value) for name, value in values.items()))


class TurnGradient(GradientEdit):
    """A linear gradient turned clockwise by degrees."""

    kind: Literal["turn-gradient"] = "turn-gradient"
    degrees: Annotated[float, Field(ge=-360, le=360)] = 90.0

    def changed(self, gradient: Gradient) -> Gradient:
        if not isinstance(gradient, Linear):
            raise Refused("Only a linear gradient has a direction to turn.")
        return gradient.evolve(angle=(gradient.angle + self.degrees) % 360)

    def label(self, control: Control) -> str:
        return f"Turned the gradient by {number(self.degrees)}°{whose(control, self.path)}"


def widest_gap(gradient: Gradient) -> float:
    """The middle of the widest gap between two stops."""
    places = [stop.position for stop in gradient.stops]
    low, high = max(pairwise(places), key=lambda gap: gap[1] - gap[0])
    return (low + high) / 2


def _literal_enough(gradient: Gradient) -> Gradient:
    """Links are followed only when drawn, so a new stop between links takes the nearer link."""
    if all(isinstance(stop.colour, str) for stop in gradient.stops):
        return gradient
    plain = tuple(stop if isinstance(stop.colour, str) else stop.evolve(colour="#808080") for stop in gradient.stops)
    return gradient.evolve(stops=plain)
