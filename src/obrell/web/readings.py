"""The readings of a control as the sheet says them."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

from obrell.core.document.model import Control
from obrell.core.document.readings import Readings, driven
from obrell.core.document.tree import descendants
from obrell.core.document.value_paths import live_at
from obrell.core.edit.readings import drivable
from obrell.core.edit.values import described, whose
from obrell.core.errors import ObrellError
from obrell.core.geometry.svgdata import number
from obrell.core.values.readings import Drive, Reading
from obrell.web.fields import FieldView, each_field, field_at
from obrell.web.sheet import SheetView


@dataclass(frozen=True, slots=True)
class DriveView:
    """One driven value: what it is, what it is at both ends as it is typed, and how it goes from one to the other."""

    path: str
    words: str
    start: str
    end: str
    unit: str
    format: str
    way: tuple[FieldView, FieldView, FieldView]
    """Where on the reading's way it begins and ends, and how it goes on beyond."""
    curve: FieldView | None
    """The curve that it goes along; none where it goes straight."""
    place: str
    """The path of what says how it is driven."""


@dataclass(frozen=True, slots=True)
class ReadingView:
    """One reading: its live values, the number it is at, and what it drives."""

    id: str
    name: FieldView
    start: FieldView
    end: FieldView
    step: FieldView
    value: FieldView
    unit: FieldView
    at: float
    low: float
    high: float
    drives: tuple[DriveView, ...]


def readings_of(stored: Control, seen: Control, values: Readings) -> tuple[ReadingView, ...]:
    """The readings of a control, at the numbers that are looked at."""
    at = dict(values)
    return tuple(_view(stored, seen, one, at.get(one.id, one.value)) for one in stored.readings)


def _view(stored: Control, seen: Control, one: Reading, at: float) -> ReadingView:
    names = ("name", "start", "end", "step", "value", "unit")
    name, start, end, step, value, unit = (field_at(stored, f"readings/{one.id}/{field}") for field in names)
    low, high = sorted((one.start, one.end))
    drives = tuple(_drive(stored, seen, one, drive) for drive in one.drives)
    return ReadingView(one.id, name, start, end, step, value, unit, at, low, high, drives)


def at_others(control: Control, values: Readings) -> str:
    """The numbers of readings that are not where they begin, as addresses have them."""
    begins = {one.id: one.value for one in control.readings}
    return ",".join(f"{name}:{value:g}" for name, value in values if value != begins[name])


def offered(stored: Control, seen: Control, part: str) -> tuple[tuple[str, str], ...]:
    """What of a part a reading can drive, as it is seen, and none does: paths, and what each is called."""
    taken = {path for _, drive in driven(stored) for path in drive.paths}
    return tuple((path, _words(seen, path)) for path in drivable(seen, part) if path not in taken)


def ways(stored: Control, seen: Control, part: str) -> tuple[tuple[str, str], ...]:
    """The parts that a part can go along, front to back: ids and names; none where a reading drives its place."""
    taken = {path for _, drive in driven(stored) for path in drive.paths}
    if f"parts/{part}/x" in taken:
        return ()
    held = descendants(seen, (part,))
    return tuple((one.id, one.name) for one in reversed(seen.parts) if one.id not in held)


def _named(control: Control, part: str) -> str:
    return next((one.name for one in control.parts if one.id == part), "something that is gone")


def _words(control: Control, path: str) -> str:
    title, _, _ = described(control, path, None)
    return f"{title.lower()}{whose(control, path).partition(' on ')[0]}" if "/effects/" in path else title.lower()


def _drive(stored: Control, control: Control, reading: Reading, drive: Drive) -> DriveView:
    at = f"readings/{reading.id}/drives/{drive.id}"
    low, high, beyond = (field_at(stored, f"{at}/{name}") for name in ("low", "high", "beyond"))
    curve = field_at(stored, f"{at}/curve") if drive.curve else None
    words, one, other, unit = _ends(control, drive)
    return DriveView(drive.path, words, one, other, unit, drive.format, (low, high, beyond), curve, at)


def _ends(control: Control, drive: Drive) -> tuple[str, str, str, str]:
    """What a driven value is called, what it is at both ends, and its unit."""
    if drive.along is not None:
        words = f"Place{whose(control, drive.path)} along {_named(control, drive.along)}"
        return words, _typed(drive.start, 100), _typed(drive.end, 100), "%"
    try:
        title, _, _ = described(control, drive.path, None)
        words, live = f"{title}{whose(control, drive.path)}", live_at(control, drive.path)
    except ObrellError:
        return "Something that is not here", "", "", ""
    one, other = (_typed(value, live.factor if live else 1.0) for value in (drive.start, drive.end))
    return words, one, other, live.unit if live else ""


def _typed(value: Any, factor: float) -> str:
    if isinstance(value, int | float) and not isinstance(value, bool):
        return number(value * factor)
    return value if isinstance(value, str) else ""


def driving(sheet: SheetView, control: Control) -> SheetView:
    """The sheet with a mark at every value that a reading drives."""
    names = {path: reading.name for reading, drive in driven(control) for path in drive.paths}
    if not names:
        return sheet
    return each_field(sheet, lambda found: replace(found, driven=names[found.path]) if found.path in names else found)
