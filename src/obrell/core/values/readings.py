"""Readings of a control: numbers that drive values."""

from __future__ import annotations

import re
from typing import Annotated, Literal

from pydantic import Field, model_validator

from obrell.core.values.base import Value
from obrell.core.values.curves import Curve
from obrell.core.values.differences import Where
from obrell.core.values.fields import Id, Live, Name, Share
from obrell.core.values.plain import Plain

MAX_DRIVES = 60
MAX_READINGS = 12
Number = Annotated[float, Live("", 1, -100, 100), Field(ge=-1e6, le=1e6)]


class Drive(Value):
    """A value, by its path below the control, that goes from one end to the other while a reading does, or a part of
    that, ``low`` to ``high``; straight, or along a ``curve``. Words of a text are the number itself, as ``format`` has
    it, where {} stands for it. A place goes ``along`` the way of another part: its path is that of the place across,
    its ends are shares of the way then."""

    path: Where
    along: Id | None = None
    start: Plain = None
    end: Plain = None
    low: Share = Field(0.0, title="beginning of the way")
    high: Share = Field(1.0, title="end of the way")
    curve: Curve | None = None
    beyond: Literal["clamped", "wrapping"] = Field("clamped", title="beyond that")
    format: Annotated[str, Field(max_length=80)] = ""
    decimals: Annotated[int, Live("", 1, 0, 3), Field(ge=0, le=6)] = Field(0, title="decimals")

    @property
    def id(self) -> str:
        """What tells it apart from the others of its reading, as one step of a path."""
        return self.path.replace("/", "-")

    @property
    def paths(self) -> tuple[str, ...]:
        """The paths of all values that it drives."""
        return (self.path,) if self.along is None else (self.path, f"{self.path[:-1]}y")

    @model_validator(mode="after")
    def _goes_along_by_shares(self) -> Drive:
        if self.along is None:
            return self
        if not re.fullmatch(r"parts/[^/]+/x", self.path):
            raise ValueError("only the place of a part goes along another.")
        if not all(isinstance(end, int | float) and -10 <= end <= 10 for end in (self.start, self.end)):
            raise ValueError("what goes along a part has shares of its way as ends, -1000 to 1000 %.")
        return self

    @model_validator(mode="after")
    def _range_is_one(self) -> Drive:
        if self.low >= self.high:
            raise ValueError("the part of a reading that drives a value ends after it begins.")
        return self


class Reading(Value):
    """A number of a control, from one end to the other, and what it drives."""

    id: Id
    name: Name
    start: Number = Field(0.0, title="from")
    end: Number = Field(100.0, title="to")
    step: Annotated[float, Live("", 1, 0.1, 10), Field(gt=0, le=1e6)] = Field(1.0, title="step")
    value: Number = Field(0.0, title="begins at")
    unit: Annotated[str, Field(max_length=12)] = Field("", title="unit")
    drives: Annotated[tuple[Drive, ...], Field(max_length=MAX_DRIVES)] = ()

    @model_validator(mode="after")
    def _has_two_ends(self) -> Reading:
        if self.start == self.end:
            raise ValueError("a reading has two ends that differ.")
        low, high = sorted((self.start, self.end))
        if not low <= self.value <= high:
            raise ValueError(f"it begins between its ends, {low:g} and {high:g}.")
        return self

    def share(self, value: float) -> float:
        """How far a value is from its start, where its end is 1."""
        return (value - self.start) / (self.end - self.start)
