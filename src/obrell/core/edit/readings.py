"""Readings: made, named, removed; what they drive; and edits made while they are at some number."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from contextlib import suppress
from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field

from obrell.core.document.differing import as_json
from obrell.core.document.draft import Draft
from obrell.core.document.mixing import is_number
from obrell.core.document.model import Control
from obrell.core.document.readings import course_of, driven, known_values, place, read, reading_of
from obrell.core.document.tree import descendants
from obrell.core.document.value_paths import is_value, live_at, value_at
from obrell.core.edit.base import Edit, Surroundings, Wrapped, part_of
from obrell.core.edit.states import OfStates
from obrell.core.edit.typed import number_from
from obrell.core.edit.values import described, whose
from obrell.core.errors import BadValue, NoSuchThing, ObrellError, Refused
from obrell.core.values.differences import Where
from obrell.core.values.fields import Id, Live, Name, live_of
from obrell.core.values.readings import MAX_READINGS, Drive, Number, Reading
from obrell.core.values.slugs import free_id

NEAREST = 1e-6
SHARES = Live("%", 1, 0, 100, 100)
"""How ends along a way are typed."""


class AddReading(OfStates):
    """One more reading, of numbers from one end to the other."""

    kind: Literal["add-reading"] = "add-reading"
    name: Name
    start: Number = 0.0
    end: Number = 100.0
    unit: Annotated[str, Field(max_length=12)] = ""

    def apply(self, control: Control, around: Surroundings) -> Control:
        name = self.name.strip()
        if len(control.readings) >= MAX_READINGS:
            raise Refused(f"A control can have at most {MAX_READINGS} readings.")
        if any(one.name.lower() == name.lower() for one in control.readings):
            raise Refused(f"A reading is called “{name}” already.")
        ident = free_id(name, (one.id for one in control.readings), "reading")
        made = Reading(
            id=ident, name=name, start=self.start, end=self.end, value=self.start, unit=self.unit.strip()
        )  # fmt: skip
        return control.evolve(readings=(*control.readings, made))

    def label(self, control: Control) -> str:
        return f"Added the reading “{self.name.strip()}”"


class RemoveReading(OfStates):
    """A reading taken away; what it drove stays as it is where that begins."""

    of_editions: ClassVar[bool] = True
    kind: Literal["remove-reading"] = "remove-reading"
    reading: Id

    def apply(self, control: Control, around: Surroundings) -> Control:
        gone = reading_of(control, self.reading)
        left = tuple(one for one in control.readings if one is not gone)
        return _as_drawn(control, gone.drives, around).evolve(readings=left)

    def removes(self) -> bool:
        return True

    def label(self, control: Control) -> str:
        return f"Removed the reading “{reading_of(control, self.reading).name}”"


class DriveValue(OfStates):
    """A value that a reading drives from now on: at both ends as it is, until it is set at one of them. A place across
    drives that down too where it goes ``along`` another part, from where that is nearest to it."""

    kind: Literal["drive"] = "drive"
    reading: Id
    path: Where
    along: Id | None = None

    def apply(self, control: Control, around: Surroundings) -> Control:
        reading = reading_of(control, self.reading)
        if not is_value(self.path) or self.path.startswith("readings/"):
            raise BadValue("That is no value that a reading could drive.")
        if any(one.path == self.path for one in reading.drives):
            raise Refused(f"{reading.name} drives that already.")
        if self.along is not None:
            drive = Drive(path=self.path, along=self.along, start=self._near(control), end=self._near(control))
            return _with(control, reading.evolve(drives=(*reading.drives, drive)))
        value = as_json(value_at(control, self.path))
        words = "{}" if self.path.endswith("/words") else ""
        drive = Drive(path=self.path, start=value, end=value, format=words)
        return _with(control, reading.evolve(drives=(*reading.drives, drive)))

    def label(self, control: Control) -> str:
        return f"{reading_of(control, self.reading).name} drives {_named(control, self.path)}"

    def _near(self, control: Control) -> float:
        name = self.path.split("/")[1]
        part, other = part_of(control, name), part_of(control, self.along or "")
        if other.id in descendants(control, (name,)):
            raise Refused(f"“{part.name}” cannot go along itself or what lies in it.")
        return round(course_of(control, other.id).share_of(part.x, part.y), 6)


class StopDriving(OfStates):
    """A value that is not driven any more, and stays as it is where the reading begins."""

    kind: Literal["stop-driving"] = "stop-driving"
    reading: Id
    path: Where

    def apply(self, control: Control, around: Surroundings) -> Control:
        reading, gone = _drive_of(control, self.reading, self.path)
        left = reading.evolve(drives=tuple(one for one in reading.drives if one is not gone))
        return _with(_as_drawn(control, (gone,), around), left)

    def removes(self) -> bool:
        return True

    def label(self, control: Control) -> str:
        return f"{reading_of(control, self.reading).name} no longer drives {_named(control, self.path)}"


class SetDrive(OfStates):
    """How a reading drives a value: what it is at the ends, over which part of it, what comes beyond. What is not
    given stays."""

    kind: Literal["set-drive"] = "set-drive"
    reading: Id
    path: Where
    start: Any = None
    end: Any = None
    low: Annotated[float, Field(ge=0, le=1)] | None = None
    high: Annotated[float, Field(ge=0, le=1)] | None = None
    beyond: Literal["clamped", "wrapping"] | None = None
    format: Annotated[str, Field(max_length=80)] | None = None

    def apply(self, control: Control, around: Surroundings) -> Control:
        reading, drive = _drive_of(control, self.reading, self.path)
        ends = {name: _typed(control, drive, getattr(self, name)) for name in ("start", "end")}
        given = ends | {name: getattr(self, name) for name in ("low", "high", "beyond", "format")}
        new = drive.evolve(**{name: value for name, value in given.items() if value is not None})
        changed = _with(control, _in_place(reading, new))
        check_ends(changed, new)
        return changed

    def label(self, control: Control) -> str:
        return f"{reading_of(control, self.reading).name} drives {_named(control, self.path)} otherwise"


class AtReadings(Wrapped):
    """An edit made while readings are at some numbers. A value that one of them drives is set for that number: at an
    end as it is, between them so that the nearer end comes to where it has to be."""

    kind: Literal["at-readings"] = "at-readings"
    values: dict[Id, float]

    def apply(self, control: Control, around: Surroundings) -> Control:
        if not any(one.drives for one in control.readings):
            return self.edit.apply(control, around)
        seen = read(control, known_values(control, self.values), around.palette)
        return self._undriven(control, seen, self.edit.apply(seen, around))

    def look(self, control: Control) -> Control:
        return read(control, known_values(control, self.values), {})

    def _undriven(self, raw: Control, seen: Control, changed: Control) -> Control:
        """What was changed, with driven values as they are stored, and drives as they are wanted now."""
        readings, values = {one.id: one for one in changed.readings}, known_values(raw, self.values)
        draft = Draft(changed)
        for reading, drive in driven(raw):
            try:
                before, after, own = (_values(one, drive) for one in (seen, changed, raw))
            except NoSuchThing:
                continue
            if before != after and reading.id in readings:
                value = values.get(reading.id, reading.value)
                wanted = _wanted(changed, drive, after)
                readings[reading.id] = _in_place(readings[reading.id], _set_at(reading, drive, value, wanted))
            for path, was in zip(drive.paths, own, strict=True):
                draft.set_at(path, was)
        made = draft.control()
        return made.evolve(readings=tuple(readings.values())) if readings else made


def _values(control: Control, drive: Drive) -> tuple[Any, ...]:
    return tuple(value_at(control, path) for path in drive.paths)


def _wanted(control: Control, drive: Drive, values: tuple[Any, ...]) -> Any:
    """What a drive is to come to for its values: the one, or how far along the way the place nearest to them is."""
    return as_json(values[0]) if drive.along is None else course_of(control, drive.along).share_of(*values)


def _typed(control: Control, drive: Drive, value: Any) -> Any:
    """An end of a drive as it was typed, in the unit it is shown in."""
    if not isinstance(value, str) or drive.format:
        return value
    live = SHARES if drive.along else live_at(control, drive.path)
    return value if live is None else number_from(value, live)


def _as_drawn(control: Control, drives: Iterable[Drive], around: Surroundings) -> Control:
    """The control with values of its own that are what drives make of them where their readings begin."""
    seen, draft = read(control, {}, around.palette), Draft(control)
    for drive in drives:
        for path in drive.paths:
            with suppress(NoSuchThing):
                draft.set_at(path, value_at(seen, path))
    return draft.control()


def at_readings(edit: Edit, values: Mapping[str, float]) -> Edit:
    """An edit as it is made while readings are at ``values``."""
    return edit if edit.of_control or not values else AtReadings(values=dict(values), edit=edit)


def _set_at(reading: Reading, drive: Drive, value: float, wanted: Any) -> Drive:
    share = place(reading, drive, value)
    name, other = ("start", drive.end) if share < 0.5 else ("end", drive.start)
    far = share if name == "end" else 1 - share
    if is_number(wanted) and is_number(other) and far > NEAREST:
        wanted = other + (wanted - other) / far
    return drive.evolve(**{name: round(wanted, 6) if is_number(wanted) else wanted})


OFFERED = ("rotation", "x", "y", "opacity")
"""What of any part can be driven, besides the numbers of its shape, the words of a text, and what its effects have."""


def drivable(control: Control, part: str) -> Iterator[str]:
    """The paths of what of a part a reading can drive."""
    found = part_of(control, part)
    words = ["shape/words"] if "words" in type(found.shape).model_fields else []
    shape = [f"shape/{name}" for name, field in type(found.shape).model_fields.items() if live_of(field.metadata)]
    strengths = [f"effects/{one.id}/opacity" for one in found.effects]
    colours = [f"effects/{one.id}/fill/colour" for one in found.effects if hasattr(getattr(one, "fill", 0), "colour")]
    yield from (f"parts/{part}/{path}" for path in (*OFFERED, *words, *shape, *strengths, *colours))


def check_ends(control: Control, drive: Drive) -> None:
    """Raises ``BadValue`` when a value cannot be what it is to be at one of the ends."""
    for end in () if drive.format or drive.along else (drive.start, drive.end):
        try:
            Draft(control).set_at(drive.path, end)
        except NoSuchThing:
            return
        except ObrellError as error:
            raise BadValue(f"It cannot be driven there. {error}") from error


def _with(control: Control, reading: Reading) -> Control:
    return control.evolve(readings=tuple(reading if one.id == reading.id else one for one in control.readings))


def _in_place(reading: Reading, drive: Drive) -> Reading:
    return reading.evolve(drives=tuple(drive if one.path == drive.path else one for one in reading.drives))


def _drive_of(control: Control, reading: str, path: str) -> tuple[Reading, Drive]:
    found = reading_of(control, reading)
    for drive in found.drives:
        if drive.path == path:
            return found, drive
    raise NoSuchThing(f"{found.name} does not drive that any more.")


def _named(control: Control, path: str) -> str:
    try:
        title, _, _ = described(control, path, None)
        return f"{title.lower()}{whose(control, path)}"
    except ObrellError:
        return "something that is gone"
