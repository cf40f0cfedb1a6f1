"""Simulated sources as tables of numbers over time, which the script in the browser looks up too."""

from __future__ import annotations

import math
from bisect import bisect_right
from dataclasses import asdict, dataclass
from functools import cache
from random import Random
from typing import Any

from obrell.core.values.sources import Chance, Course, Recorded, Source, Steady, Steps, Switches, Turns, Wave

WAVE_STEPS = 240
"""Numbers of a period of a wave; those between them lie on straight lines, within 1/5000 of its height."""
CHANCES = 256
"""Numbers of a random course before it begins anew."""


@dataclass(frozen=True, slots=True)
class Series:
    """Numbers at times, s, which go up from 0; all of it again after ``period`` s. Between two times the number goes
    evenly from one to the other, or stays as it is."""

    times: tuple[float, ...]
    values: tuple[float, ...]
    period: float
    even: bool

    def at(self, time: float) -> float:
        """The number at a time, s, 0 or more."""
        if len(self.values) == 1:
            return self.values[0]
        time = math.fmod(time, self.period)
        at = bisect_right(self.times, time) - 1
        if at < 0:
            return self.values[0]
        if not self.even or at + 1 == len(self.times):
            return self.values[at]
        share = (time - self.times[at]) / (self.times[at + 1] - self.times[at])
        return self.values[at] + (self.values[at + 1] - self.values[at]) * share


@cache
def series_of(course: Course) -> Series:
    """A course as a table."""
    if isinstance(course, Steady):
        return Series((0.0,), (course.value,), 1.0, even=False)
    if isinstance(course, Wave):
        return _wave(course)
    if isinstance(course, Steps):
        times = tuple(course.every * number for number in range(len(course.values)))
        return Series(times, course.values, course.every * len(course.values), even=False)
    if isinstance(course, Chance):
        return _chance(course)
    return _recorded(course)


def _wave(course: Wave) -> Series:
    shares = [step / WAVE_STEPS for step in range(WAVE_STEPS + 1)]
    heights = (
        [0.5 + 0.5 * math.sin(2 * math.pi * share) for share in shares]
        if course.form == "sine"
        else [1 - abs(1 - 2 * share) for share in shares]
    )
    values = tuple(course.low + (course.high - course.low) * height for height in heights)
    return Series(tuple(share * course.period for share in shares), values, course.period, even=True)


def _chance(course: Chance) -> Series:
    """Python's Mersenne Twister gives the same numbers for a seed everywhere."""
    chance = Random(course.seed)
    values = [course.low + (course.high - course.low) * chance.random() for _ in range(CHANCES)]
    times = tuple(course.every * number for number in range(CHANCES + 1))
    return Series(times, (*values, values[0]), course.every * CHANCES, even=True)


def _recorded(course: Recorded) -> Series:
    first = course.rows[0].time
    times = tuple(row.time - first for row in course.rows)
    return Series(times, tuple(row.value for row in course.rows), max(times[-1], 1e-3), even=True)


def table_of(source: Source) -> dict[str, Any]:
    """A source as JSON: its series, and what it moves: a reading, or none where it switches on and off."""
    moves = [
        {"placement": one.placement, "reading": "", "when": one.when, "than": one.than}
        if isinstance(one, Switches)
        else {"placement": one.placement, "reading": one.reading, "when": "", "than": 0.0}
        for one in source.moves
    ]
    series = asdict(series_of(source.course))
    return {"id": source.id, "name": source.name, "unit": source.unit, "series": series, "moves": moves}


def moved(source: Source, time: float) -> list[tuple[str, str, float]]:
    """What a source does at a time, s: to which placement, to which of its readings, and the number; to none, and 1 or
    0, where it puts something on or off."""
    number = series_of(source.course).at(time)
    return [
        (move.placement, move.reading, number) if isinstance(move, Turns) else
        (move.placement, "", float(number > move.than if move.when == "above" else number < move.than))
        for move in source.moves
    ]  # fmt: skip
