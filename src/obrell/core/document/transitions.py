"""A control on the way from one state to another.

What has a way between travels it: numbers, colours in OKLab, the stops of gradients and the points of paths where both
have equally many. The key light goes over the object the shortest way. All else, and what only one of the two has,
cross-fades: the picture with the one over the picture with the other.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

from obrell.core.document.differing import OF_THE_CONTROL, as_json, values_between
from obrell.core.document.draft import Draft
from obrell.core.document.mixing import NoWay, travelled
from obrell.core.document.model import Control, KitSettings, Light, Part
from obrell.core.document.readings import Readings
from obrell.core.document.resolve import DAY, Resolved, resolve
from obrell.core.document.tree import arranged
from obrell.core.document.value_paths import value_at, with_number
from obrell.core.errors import BadValue
from obrell.core.values.transitions import Timing, Transition

STAYING = ("seed",)
"""Numbers with nothing between them: each is another pattern."""
HALVINGS = 24
"""Steps of the bisection that finds the end of a range."""


@dataclass(frozen=True, slots=True)
class Travel:
    """A value, by its path, that goes from one to another; both as they are written down."""

    path: str
    start: object
    end: object


@dataclass(frozen=True, slots=True)
class Way:
    """What differs between two looks: what travels, whether the light does, and the paths of what cross-fades."""

    travels: tuple[Travel, ...]
    light: bool
    fades: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Between:
    """Two looks that are one but for what cross-fades, of which the second covers ``weight``, 0 to 1."""

    first: Resolved
    second: Resolved
    weight: float

    @property
    def only(self) -> Resolved | None:
        """The one that is seen where there are not two of them; None where there are."""
        if self.first is self.second or self.weight in {0.0, 1.0}:
            return self.second if self.weight == 1.0 else self.first
        return None


def own_timing(control: Control, start: str, end: str) -> Transition | None:
    """The timing that two states, by their ids, have of their own."""
    return next((one for one in control.transitions if (one.start, one.end) == (start, end)), None)


def timing_of(control: Control, start: str, end: str) -> Timing:
    """How long one state takes to become another, both by their ids."""
    return own_timing(control, start, end) or control.timing


class Journey:
    """A control, resolved in two states, on the way from one to the other."""

    def __init__(self, start: Resolved, end: Resolved) -> None:
        self.start, self.end = start, end
        self.way = _way(start, end)

    def at(self, far: float) -> Between:
        """What it looks like so far on its way: at 0 the first and at 1 the second; beyond both, what travels goes on
        as far as it can."""
        weight = min(1.0, max(0.0, far))
        if far in {0.0, 1.0}:
            there = self.end if far else self.start
            return Between(there, there, weight)
        light = _light_between(self.start.light, self.end.light, weight)
        first = _travelled(self.start, self.way, far, light)
        return Between(first, _travelled(self.end, self.way, far, light) if self.way.fades else first, weight)


def moment(
    kit: KitSettings, control: Control, start: str, end: str, time: float, colourway: str = DAY,
    readings: Readings = (),
) -> Between:  # fmt: skip
    """A control ``time`` ms after one state began to become another, both by their ids; raises as ``resolve``."""
    one, other = (resolve(kit, control, state, colourway, readings) for state in (start, end))
    return Journey(one, other).at(timing_of(control, start, end).way(time))


def moments(
    kit: KitSettings, control: Control, start: str, end: str, count: int, colourway: str = DAY,
    readings: Readings = (),
) -> Iterator[Between]:  # fmt: skip
    """A control at so many moments of the time that one state takes to become another, evenly apart, the last of them
    its end; raises as ``resolve``."""
    one, other = (resolve(kit, control, state, colourway, readings) for state in (start, end))
    journey, timing = Journey(one, other), timing_of(control, start, end)
    for number in range(1, count + 1):
        yield journey.at(timing.way(timing.whole * number / count))


def _way(start: Resolved, end: Resolved) -> Way:
    travels, fades = [], []
    for path, one, other in _differing(start.control, end.control):
        try:
            _check_way(path, one, other)
        except NoWay:
            fades.append(path)
        else:
            travels.append(Travel(path, one, other))
    fades += _of_one_only(start.control, end.control)
    return Way(tuple(travels), start.light != end.light, tuple(fades))


def _check_way(path: str, start: object, end: object) -> None:
    if path.rpartition("/")[2] in STAYING:
        raise NoWay
    travelled(start, end, 0.5, {})


def _differing(start: Control, end: Control) -> Iterator[tuple[str, object, object]]:
    """The values of what both have that differ, by their paths, as they are written down."""
    there = {part.id: part for part in end.parts}
    for part in start.parts:
        other = there.get(part.id)
        if other is None or other == part:
            continue
        for path in _paths(part, other):
            below = path.partition("/")[2].partition("/")[2]
            yield path, as_json(value_at(part, below)), as_json(value_at(other, below))


def _paths(part: Part, other: Part) -> Iterator[str]:
    base = f"parts/{part.id}"
    for name in type(part).model_fields:
        if name != "effects" and name not in OF_THE_CONTROL:
            yield from (
                one.path for one in values_between(f"{base}/{name}", getattr(part, name), getattr(other, name))
            )
    there = {effect.id: effect for effect in other.effects}
    for effect in part.effects:
        if effect.id in there:
            yield from (one.path for one in values_between(f"{base}/effects/{effect.id}", effect, there[effect.id]))


def _of_one_only(start: Control, end: Control) -> Iterator[str]:
    """Parts and effects that only one of the two has, and orders that differ."""
    yield from _unlike("parts", [part.id for part in start.parts], [part.id for part in end.parts])
    there = {part.id: part for part in end.parts}
    for part in start.parts:
        if part.id in there:
            path = f"parts/{part.id}/effects"
            yield from _unlike(path, [one.id for one in part.effects], [one.id for one in there[part.id].effects])


def _unlike(path: str, start: list[str], end: list[str]) -> Iterator[str]:
    yield from (f"{path}/{name}" for name in start if name not in end)
    yield from (f"{path}/{name}" for name in end if name not in start)
    if [name for name in start if name in end] != [name for name in end if name in start]:
        yield path


def _travelled(look: Resolved, way: Way, far: float, light: Light) -> Resolved:
    """A look with all that travels as far as it has come."""
    draft = Draft(look.control)
    for one in way.travels:
        _put(draft, one, far)
    control = draft.control()
    return replace(look, control=control, tree=arranged(control), light=light)


def _put(draft: Draft, one: Travel, far: float) -> None:
    """Set a value ``far`` along its way, at most to the end of its range."""
    _, name, below = one.path.split("/", 2)
    part = draft.part(name)

    def fits(value: object) -> bool:
        try:
            with_number(part, below, value)
        except BadValue:
            return False
        return True

    value = travelled(one.start, one.end, far, {})
    draft.put(with_number(part, below, value if fits(value) else _within_range(one, far, fits)))


def _within_range(one: Travel, far: float, fits: Callable[[object], bool]) -> object:
    """Return the last valid value on the way to ``far``; each item of a list is limited by itself."""
    inside = min(1.0, max(0.0, far))
    start, end = one.start, one.end
    if not (isinstance(start, list) and isinstance(end, list) and len(start) == len(end)):
        return _farthest(start, end, (inside, far), fits)
    items = [travelled(a, b, inside, {}) for a, b in zip(start, end, strict=True)]
    for number, (a, b) in enumerate(zip(start, end, strict=True)):
        before, after = items[:number], items[number + 1 :]

        def fits_there(item: object, before: list[object] = before, after: list[object] = after) -> bool:
            return fits([*before, item, *after])

        items[number] = _farthest(a, b, (inside, far), fits_there)
    return items


def _farthest(start: object, end: object, way: tuple[float, float], fits: Callable[[object], bool]) -> object:
    """Return the last valid value between two shares of the way; the first share is valid."""
    inside, far = way
    if fits(whole := travelled(start, end, far, {})):
        return whole
    for _ in range(HALVINGS):
        middle = (inside + far) / 2
        inside, far = (middle, far) if fits(travelled(start, end, middle, {})) else (inside, middle)
    return travelled(start, end, inside, {})


def _light_between(start: Light, end: Light, share: float) -> Light:
    """From one direction to another straight through the space above the object."""
    if start == end:
        return start
    x, y, z = (a + (b - a) * share for a, b in zip(_direction(start), _direction(end), strict=True))
    flat = math.hypot(x, y)
    if flat < 1e-9:
        return Light(direction=start.direction if share < 0.5 else end.direction, height=90.0)
    return Light(direction=math.degrees(math.atan2(x, y)), height=math.degrees(math.atan2(max(z, 0.0), flat)))


def _direction(light: Light) -> tuple[float, float, float]:
    """A unit vector to the right, up, and towards who looks."""
    turn, height = math.radians(light.direction), math.radians(light.height)
    return math.sin(turn) * math.cos(height), math.cos(turn) * math.cos(height), math.sin(height)
