"""How far something has come after a share of its time: easing functions (CSS Easing Functions 2)."""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Sequence
from itertools import pairwise
from typing import Annotated, Literal

from pydantic import Field, ValidationError, field_validator, model_validator

from obrell.core.errors import BadValue
from obrell.core.values.base import Value
from obrell.core.values.fields import Live, Share, WideShare

MAX_STEPS, MAX_PLACES = 100, 60
NEAR = 1e-7
Far = Annotated[float, Live("", 0.05, -0.5, 1.5), Field(ge=-10, le=10)]
"""How far something has come: 0 is its beginning and 1 its end; it may go beyond both."""


class Bezier(Value):
    """A cubic Bézier curve from 0, 0 to 1, 1 through two handles (section 2.2)."""

    kind: Literal["curve"] = "curve"
    x1: Share = Field(0.25, title="first handle, time")
    y1: Far = Field(0.1, title="first handle, way")
    x2: Share = Field(0.25, title="second handle, time")
    y2: Far = Field(1.0, title="second handle, way")

    def at(self, share: float) -> float:
        """How far it has come after a share of its time, 0 to 1."""
        return _bezier(self.y1, self.y2, self._parameter(share))

    def css(self) -> str:
        """The same in CSS."""
        return f"cubic-bezier({', '.join(map(_number, (self.x1, self.y1, self.x2, self.y2)))})"

    def _parameter(self, share: float) -> float:
        """Where along the curve so much time has gone by: it only grows, so halving finds it."""
        low, high = 0.0, 1.0
        while high - low > NEAR:
            middle = (low + high) / 2
            if _bezier(self.x1, self.x2, middle) < share:
                low = middle
            else:
                high = middle
        return (low + high) / 2


class Steps(Value):
    """So many steps of equal length, that jump at its start, at its end, at neither or at both (section 2.3)."""

    kind: Literal["steps"] = "steps"
    count: Annotated[int, Live("", 1, 1, 12), Field(ge=1, le=MAX_STEPS)] = Field(4, title="steps")
    jump: Literal["start", "end", "none", "both"] = Field("end", title="jumps at")

    @model_validator(mode="after")
    def _jumps_at_all(self) -> Steps:
        if self.jump == "none" and self.count == 1:
            raise ValueError("steps that jump at neither end are two at least.")
        return self

    def at(self, share: float) -> float:
        """How far it has come after a share of its time, 0 to 1."""
        done = math.floor(share * self.count + 1e-9) + (self.jump in {"start", "both"})
        jumps = self.count + {"none": -1, "both": 1}.get(self.jump, 0)
        return min(1.0, done / jumps)

    def css(self) -> str:
        """The same in CSS."""
        return f"steps({self.count}, jump-{self.jump})"


class Stop(Value):
    """How far something has come after a share of its time, which may lie outside of it."""

    time: WideShare = Field(title="time")
    way: Far = Field(title="way")


class Stops(Value):
    """Straight from stop to stop (section 2.1)."""

    kind: Literal["stops"] = "stops"
    stops: Annotated[tuple[Stop, ...], Field(min_length=2, max_length=MAX_PLACES)] = (
        Stop(time=0, way=0), Stop(time=1, way=1),
    )  # fmt: skip

    @field_validator("stops")
    @classmethod
    def _in_order(cls, stops: tuple[Stop, ...]) -> tuple[Stop, ...]:
        return tuple(sorted(stops, key=lambda stop: stop.time))

    def at(self, share: float) -> float:
        """How far it has come after a share of its time, 0 to 1; before the first stop and after the last one it goes
        on as it does beside them."""
        gone = sum(stop.time <= share for stop in self.stops)
        place = min(max(gone - 1, 0), len(self.stops) - 2)
        one, other = self.stops[place], self.stops[place + 1]
        if one.time == other.time:
            return other.way if share >= other.time else one.way
        return one.way + (other.way - one.way) * (share - one.time) / (other.time - one.time)

    def css(self) -> str:
        """The same in CSS."""
        return f"linear({', '.join(f'{_number(stop.way)} {_number(stop.time * 100)}%' for stop in self.stops)})"


Easing = Annotated[Bezier | Steps | Stops, Field(discriminator="kind")]

NAMED: dict[str, Bezier | Steps | Stops] = {
    "linear": Stops(),
    "ease": Bezier(),
    "ease-in": Bezier(x1=0.42, y1=0, x2=1, y2=1),
    "ease-out": Bezier(x1=0, y1=0, x2=0.58, y2=1),
    "ease-in-out": Bezier(x1=0.42, y1=0, x2=0.58, y2=1),
    "step-start": Steps(count=1, jump="start"),
    "step-end": Steps(count=1, jump="end"),
}
"""Easings that CSS has names for."""
BEGINNINGS = {"curve": "ease-in-out", "steps": "steps(4)", "stops": "linear(0, 0.5 50%, 1)"}
"""What each kind begins as, in CSS."""


def css_of(easing: Bezier | Steps | Stops) -> str:
    """An easing in CSS, by its name where it has one."""
    return next((name for name, one in NAMED.items() if one == easing), easing.css())


def easing_from(text: str) -> Bezier | Steps | Stops:
    """The easing that is written so in CSS; raises ``BadValue``."""
    text = text.strip().lower()
    if text in NAMED:
        return NAMED[text]
    found = re.fullmatch(r"(cubic-bezier|steps|linear)\((.*)\)", text)
    try:
        if found is None:
            raise ValueError
        return _READERS[found[1]]([one.split() for one in found[2].split(",")])
    except (ValueError, ValidationError) as error:
        raise BadValue(
            "An easing is a name such as ease-out, or as CSS has it: cubic-bezier(0.2, 0, 0, 1), steps(4, jump-end), "
            "linear(0, 0.8 40%, 1)."
        ) from error


def _read_bezier(words: list[list[str]]) -> Bezier:
    x1, y1, x2, y2 = (float(word) for (word,) in words)
    return Bezier(x1=x1, y1=y1, x2=x2, y2=y2)


def _read_steps(words: list[list[str]]) -> Steps:
    (count,), jump = words[0], words[1] if len(words) > 1 else ["end"]
    if len(words) > 2:
        raise ValueError
    return Steps.model_validate({"count": int(count), "jump": jump[0].removeprefix("jump-")})


def _read_stops(words: list[list[str]]) -> Stops:
    """Stops without a time lie evenly between those that have one; one with two times stands at both."""
    ways: list[float] = []
    times: list[float | None] = []
    for pieces in words:
        way = [float(piece) for piece in pieces if not piece.endswith("%")]
        at = [float(piece.removesuffix("%")) / 100 for piece in pieces if piece.endswith("%")]
        if len(way) != 1 or len(at) > 2:
            raise ValueError
        ways += way * max(1, len(at))
        times += at or [None]
    return Stops(stops=tuple(Stop(time=time, way=way) for time, way in zip(_spread(times), ways, strict=True)))


_READERS: dict[str, Callable[[list[list[str]]], Bezier | Steps | Stops]] = {
    "cubic-bezier": _read_bezier,
    "steps": _read_steps,
    "linear": _read_stops,
}


def _spread(times: list[float | None]) -> list[float]:
    """The times of stops, those that are not said evenly between the others."""
    times = [0.0 if times[0] is None else times[0], *times[1:]]
    times = [*times[:-1], 1.0 if times[-1] is None else times[-1]]
    known = [place for place, time in enumerate(times) if time is not None]
    said = dict(zip(known, _risen([times[place] or 0.0 for place in known]), strict=True))
    for one, other in pairwise(known):
        for place in range(one + 1, other):
            said[place] = said[one] + (said[other] - said[one]) * (place - one) / (other - one)
    return [said[place] for place in range(len(times))]


def _risen(times: Sequence[float]) -> list[float]:
    """Times that never fall: one that would is as late as the one before it."""
    risen: list[float] = []
    for time in times:
        risen.append(max(time, risen[-1]) if risen else time)
    return risen


def _bezier(first: float, second: float, t: float) -> float:
    return 3 * (1 - t) ** 2 * t * first + 3 * (1 - t) * t * t * second + t**3


def _number(value: float) -> str:
    return f"{round(value, 4):g}"
