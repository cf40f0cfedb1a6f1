"""What a control's readings make of it: they drive values, after the state has been settled."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Annotated, Any

from pydantic import Field

from obrell.core.document.draft import Draft
from obrell.core.document.follows import NO_WORDS, Words, settled
from obrell.core.document.mixing import mixed
from obrell.core.document.model import Control, Part
from obrell.core.document.moving import PLACE, place_of
from obrell.core.document.states import in_state, words_of
from obrell.core.document.tree import arranged
from obrell.core.document.value_paths import with_number
from obrell.core.errors import GONE, BadValue, NoSuchThing, ObrellError
from obrell.core.geometry.along import Course
from obrell.core.geometry.paths import Path
from obrell.core.shapes import Container
from obrell.core.values.readings import Drive, Reading
from obrell.core.workspace import OfObject

Readings = tuple[tuple[str, float], ...]
"""Numbers of readings by their ids."""


def reading_of(control: Control, name: str) -> Reading:
    """A reading by its id; raises ``NoSuchThing``."""
    found = next((one for one in control.readings if one.id == name), None)
    if found is None:
        raise NoSuchThing(f"“{control.name}” has no reading “{name}”.")
    return found


def seen(control: Control, state: str, values: Readings, palette: Mapping[str, str]) -> Control:
    """The control as it is seen in a state, by its id, with readings at ``values``; it has neither of its own any
    more. Raises as ``in_state`` and ``read`` do."""
    look = in_state(control, state)
    if not look.readings and not values:
        return look
    key = (state, values, tuple(palette.items()))
    words = words_of(control)
    return _SEEN.get(control, key, lambda: read(look, dict(values), palette, words).evolve(readings=()))


_SEEN = OfObject[Control](128)


def read(
    control: Control, values: Mapping[str, float], palette: Mapping[str, str], words: Words = NO_WORDS
) -> Control:  # fmt: skip
    """The control with its readings at ``values``, by their ids, or where they begin. A value that is no longer there
    is not driven; raises ``NoSuchThing`` for a reading that is not, ``BadValue`` for a number that is out of its
    range."""
    for name, value in values.items():
        _check(reading_of(control, name), value)
    if not any(one.drives for one in control.readings):
        return control
    draft = Draft(control)
    for one, drive in driven(control):
        try:
            value = at(one, drive, values.get(one.id, one.value), palette)
            for path, part in zip(drive.paths, where(draft.control(), drive, value), strict=True):
                _put(draft, path, part)
        except ObrellError:
            continue
    return settled(draft.control(), words)


NumbersText = Annotated[
    str, Field(pattern=r"^([a-z][a-z0-9-]{0,39}:-?\d{1,9}(\.\d{1,20})?(e-?\d{1,2})?(,|$))*$", max_length=600)
]
"""Numbers of readings, as they are written in addresses: id:number, with commas between."""


def numbers_in(text: str) -> dict[str, float]:
    """The numbers that are written so."""
    pairs = (one.partition(":") for one in text.split(",") if one)
    return {name: float(value) for name, _, value in pairs}


def known_values(control: Control, values: Mapping[str, float]) -> dict[str, float]:
    """The numbers of those readings that a control has, each between its ends: what is looked at may be older."""
    ends = {one.id: sorted((one.start, one.end)) for one in control.readings}
    return {name: min(max(value, ends[name][0]), ends[name][1]) for name, value in values.items() if name in ends}


def readings_in(text: str, control: Control) -> Readings:
    """The numbers in a text of those readings that a control has, each between its ends."""
    return tuple(known_values(control, numbers_in(text)).items())


def driven(control: Control) -> Iterator[tuple[Reading, Drive]]:
    """Every value that is driven, with its reading, in order: of two that drive one value the last one does."""
    for one in control.readings:
        for drive in one.drives:
            yield one, drive


def where(control: Control, drive: Drive, value: Any) -> tuple[Any, ...]:
    """What the values of a drive are: the one, or a place so far along the way of another part; raises
    ``NoSuchThing`` where that is gone or leads nowhere."""
    if drive.along is None:
        return (value,)
    place = course_of(control, drive.along).at(value)
    return round(place.x, 6), round(place.y, 6)


def course_of(control: Control, name: str) -> Course:
    """The way of a part, by its id, on the canvas: the line that it was drawn along, or its outline; raises
    ``NoSuchThing``."""
    part = next((one for one in control.parts if one.id == name), None)
    if part is None:
        raise NoSuchThing(GONE)
    seen = arranged(control).all[name].part if isinstance(part.shape, Container) else part
    try:
        return _COURSES.get(seen, None, lambda: Course(_way(seen)))
    except ValueError as error:
        raise NoSuchThing(f"“{part.name}” leads nowhere.") from error


_COURSES = OfObject[Course](256)


def _way(part: Part) -> Path:
    return (part.shape.as_line() or part.shape).centre_line().transformed(place_of(part))


def at(reading: Reading, drive: Drive, value: float, palette: Mapping[str, str]) -> Any:
    """What a value is while its reading is at a number."""
    if drive.format:
        return drive.format.replace("{}", f"{value:.{drive.decimals}f}")
    return mixed(drive.start, drive.end, place(reading, drive, value), palette)


def place(reading: Reading, drive: Drive, value: float) -> float:
    """How far a driven value has gone from its start, 0 to 1."""
    share = (reading.share(value) - drive.low) / (drive.high - drive.low)
    share = share % 1.0 if drive.beyond == "wrapping" and not 0 <= share <= 1 else min(1.0, max(0.0, share))
    return share if drive.curve is None else drive.curve.at(share)


def _check(reading: Reading, value: float) -> None:
    low, high = sorted((reading.start, reading.end))
    if not low <= value <= high:
        raise BadValue(f"{reading.name} goes from {reading.start:g} to {reading.end:g}; {value:g} is outside of that.")


def _put(draft: Draft, path: str, value: Any) -> None:
    """A value in its place; what lies in a container goes where that goes."""
    root, _, rest = path.partition("/")
    name, _, below = rest.partition("/")
    if root != "parts":
        draft.replace(with_number(draft.control(), path, value))
    elif below in PLACE:
        draft.set(name, below, value)
    else:
        draft.put(with_number(draft.part(name), below, value))
