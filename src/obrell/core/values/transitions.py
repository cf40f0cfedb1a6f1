"""How one state becomes another in time (CSS Transitions 1)."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from obrell.core.values.base import Value
from obrell.core.values.easings import NAMED, Easing
from obrell.core.values.fields import Id, Live

MAX_TRANSITIONS = 200
LONGEST_MS = 10_000
Milliseconds = Annotated[float, Live("ms", 10, 0, 1000), Field(ge=0, le=LONGEST_MS)]


class Timing(Value):
    """How long a change takes, after how long it begins, and how far it has come in between."""

    duration: Milliseconds = Field(160.0, title="duration")
    delay: Milliseconds = Field(0.0, title="delay")
    easing: Easing = Field(NAMED["ease-out"], title="easing")

    @property
    def whole(self) -> float:
        """When it has ended, in ms."""
        return self.delay + self.duration

    def way(self, time: float) -> float:
        """How far it has come ``time`` ms after the state changed: 0 at its beginning, 1 at its end, and beyond both
        where its easing goes there."""
        if time < self.delay:
            return 0.0
        if time >= self.whole:
            return 1.0
        return self.easing.at((time - self.delay) / self.duration)


class Transition(Timing):
    """The timing of one state becoming another, both by their ids, where it is not that of all."""

    start: Id
    end: Id

    @property
    def id(self) -> str:
        """What tells it apart from the others of its control."""
        return f"{self.start}-to-{self.end}"
