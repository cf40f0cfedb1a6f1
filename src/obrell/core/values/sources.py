"""Simulated sources: numbers that change in time, the same every time, and what they move on a panel."""

from __future__ import annotations

from itertools import pairwise
from typing import Annotated, Literal

from pydantic import Field, model_validator

from obrell.core.values.base import Value
from obrell.core.values.fields import Id, Live, Name
from obrell.core.values.paints import Seed

MAX_ROWS = 5000
MAX_MOVES = 40
Amount = Annotated[float, Live("", 1, -100, 100), Field(ge=-1e6, le=1e6)]
Seconds = Annotated[float, Live("s", 0.1, 0.1, 60), Field(ge=0.05, le=86_400)]
"""A length of time that passes again and again."""


class Steady(Value):
    """One number for ever."""

    kind: Literal["steady"] = "steady"
    value: Amount = Field(0.0, title="at")


class Wave(Value):
    """Up and down between two numbers: from the middle up, or in a triangle from the lower one."""

    kind: Literal["wave"] = "wave"
    low: Amount = Field(0.0, title="from")
    high: Amount = Field(100.0, title="to")
    period: Seconds = Field(8.0, title="in")
    form: Literal["sine", "triangle"] = Field("sine", title="form")


class Steps(Value):
    """Numbers one after the other, each for a while, and again from the first."""

    kind: Literal["steps"] = "steps"
    values: Annotated[tuple[Amount, ...], Field(min_length=1, max_length=200)] = (0.0, 100.0)
    every: Seconds = Field(2.0, title="every")


class Chance(Value):
    """Numbers between two others in the order that a seed gives, gone over evenly."""

    kind: Literal["random"] = "random"
    low: Amount = Field(0.0, title="from")
    high: Amount = Field(100.0, title="to")
    every: Seconds = Field(1.0, title="every")
    seed: Seed = Field(1, title="seed")


class Row(Value):
    """A number and when it was, s."""

    time: Annotated[float, Field(ge=0, le=86_400)]
    value: Amount


class Recorded(Value):
    """Numbers that were recorded, gone over evenly, and again from the first."""

    kind: Literal["recorded"] = "recorded"
    rows: Annotated[tuple[Row, ...], Field(min_length=1, max_length=MAX_ROWS)]

    @model_validator(mode="after")
    def _in_order(self) -> Recorded:
        times = [row.time for row in self.rows]
        if any(one >= other for one, other in pairwise(times)):
            raise ValueError("the times of a recording go up from row to row.")
        return self


Course = Annotated[Steady | Wave | Steps | Chance | Recorded, Field(discriminator="kind")]


class Turns(Value):
    """A reading of what stands on the panel is at the number of its source."""

    kind: Literal["reading"] = "reading"
    placement: Id
    reading: Id


class Switches(Value):
    """What stands on the panel is on while its source is above a number, or below it."""

    kind: Literal["on"] = "on"
    placement: Id
    when: Literal["above", "below"] = Field("above", title="while it is")
    than: Amount = Field(0.0, title="than")


Move = Annotated[Turns | Switches, Field(discriminator="kind")]


class Source(Value):
    """A number of a simulated machine: what it is called, its unit, its course in time, and what it moves."""

    id: Id
    name: Name
    unit: Annotated[str, Field(max_length=12)] = Field("", title="unit")
    course: Course = Field(default_factory=Wave)
    moves: Annotated[tuple[Move, ...], Field(max_length=MAX_MOVES)] = ()
