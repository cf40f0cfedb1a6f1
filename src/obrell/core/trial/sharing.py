"""A panel as one page: everything that can be seen of what stands on it, in the fewest bytes that keep every pixel."""

from __future__ import annotations

from collections import deque
from collections.abc import Iterator
from dataclasses import dataclass
from io import BytesIO

import numpy as np
from PIL import Image

from obrell.core.document.model import Control, KitSettings
from obrell.core.document.readings import Readings
from obrell.core.document.resolve import DAY
from obrell.core.document.transitions import timing_of
from obrell.core.raster.layers import PixelBox
from obrell.core.raster.quantise import Pixels, premultiplied
from obrell.core.render.cache import PixelCache
from obrell.core.render.picture import box_around
from obrell.core.trial.composing import Screen, Seen, pixels_of
from obrell.core.trial.instances import looks_of, numbers_of, piece_of, standing_of
from obrell.core.trial.operating import Event, Now, Piece, shown_as, step
from obrell.core.trial.playing import by_pair, frame_count
from obrell.core.values.panels import Placement
from obrell.core.values.readings import Reading

MOST_NUMBERS = 40
"""Numbers of a reading that are pictured; those between them look like the nearest."""
SAMPLES = 24
"""Places of an easing's curve."""
HAPPENINGS = ("enter", "leave", "press", "release", "key", "unkey", "focus", "blur")
LONG_MS = 20_000.0
MOST_FRAMES_PX = 8_000_000
"""Device px that are rendered for the frames of one page: what comes after is faded."""
SAME = 2
"""Steps of 255 by which a frame may differ from both its ends faded over each other, without being carried along."""
Box = tuple[int, int, int, int]
"""Left, top, width, height, device px."""


@dataclass(frozen=True, slots=True)
class Numbers:
    """How a reading looks: the numbers that are pictured, the box that they change, and by look what is in that box
    at each of them, one under the other, as WebP."""

    reading: str
    values: tuple[float, ...]
    box: Box
    strips: dict[str, bytes]


@dataclass(frozen=True, slots=True)
class Frames:
    """A transition that looks different when it is faded: the box in which it does, and what is in that box in each of
    ``count`` frames, one under the other, as WebP."""

    count: int
    box: Box
    strip: bytes


@dataclass(frozen=True, slots=True)
class Pictured:
    """All looks of something on a panel: each state as WebP, what numbers change in them, and how long one takes to
    become another, ms, with the way it has come at even times; those of all others under "". ``frames`` are those of
    the pairs, as start>end, that would look different when faded; ``rendered`` is how many device px were rendered to
    find them."""

    looks: dict[str, bytes]
    numbers: Numbers | None
    timings: dict[str, tuple[float, tuple[float, ...]]]
    frames: dict[str, Frames]
    rendered: int


def pictured(
    kit: KitSettings, control: Control, placement: Placement, density: float, *, switched: bool = False,
    most: int = MOST_FRAMES_PX, cache: PixelCache | None = None,
) -> Pictured:  # fmt: skip
    """Return all that can be seen of a control as it stands on a panel; ``switched`` when a source puts it on and off.
    At most ``most`` device px of frames are rendered; pairs beyond that are faded."""
    states = list(dict.fromkeys(_states(control, placement, switched)))
    seen = _Seen(kit, control, placement.colourway or DAY, density, cache)
    numbers = numbers_of(control, placement)
    looks = {state: smallest(seen.at(state, numbers)) for state in states}
    moved = control.readings[0] if control.readings else None
    shown = None if moved is None else _numbers(seen, moved, numbers, states)
    timings = by_pair(states, lambda start, end: _timing(control, start, end))
    frames, rendered = {}, 0
    pairs = dict.fromkeys(_pairs(control, placement, switched))
    # Single states are seen most often, so they come before combined ones.
    for start, end in sorted(pairs, key=lambda pair: "".join(pair).count("+")):
        found, drawn = _frames(seen, start, end, numbers, most - rendered)
        rendered += drawn
        if found is not None:
            frames[f"{start}>{end}"] = found
    return Pictured(looks, shown, timings, frames, rendered)


@dataclass(frozen=True, slots=True)
class _Seen:
    kit: KitSettings
    control: Control
    colourway: str
    density: float
    cache: PixelCache | None

    def at(self, state: str, readings: Readings, came: str = "", time: float = 0.0) -> Pixels:
        return pixels_of(
            self.kit, Seen(self.control, 0, 0, self.colourway, state, readings, came, time), self.density, self.cache
        )  # fmt: skip


def _states(control: Control, placement: Placement, switched: bool) -> Iterator[str]:
    """The states that can be seen there, the one that it begins in first."""
    looks = looks_of(control)
    for now in reached(piece_of(control, placement), standing_of(control, placement), switched=switched):
        yield looks[shown_as(piece_of(control, placement), now)]


def _pairs(control: Control, placement: Placement, switched: bool) -> Iterator[tuple[str, str]]:
    """Yield the states of which one becomes the other there by a single event."""
    looks, piece = looks_of(control), piece_of(control, placement)
    for here in reached(piece, standing_of(control, placement), switched=switched):
        for event in _events(switched):
            start, end = (looks[shown_as(piece, now)] for now in (here, step(piece, here, event).now))
            if start != end:
                yield start, end


def _events(switched: bool) -> list[Event]:
    lights = [Event(0, "light", amount=amount) for amount in (0.0, 1.0)] if switched else []
    return [*(Event(0, kind) for kind in HAPPENINGS), Event(LONG_MS, "tick"), *lights]


def reached(piece: Piece, now: Now, *, switched: bool = False) -> Iterator[Now]:
    """How something can stand by whatever happens to it, as far as that is seen, each way once."""
    known: set[tuple[str, bool, bool, bool]] = set()
    waiting = deque([now])
    events = _events(switched)
    while waiting:
        here = waiting.popleft()
        key = (here.phase, here.over, here.focused, here.on)
        if key in known:
            continue
        known.add(key)
        yield here
        waiting.extend(step(piece, here, event).now for event in events)


def _numbers(seen: _Seen, reading: Reading, numbers: Readings, states: list[str]) -> Numbers | None:
    values = _pictured_values(reading)
    others = tuple((name, value) for name, value in numbers if name != reading.id)
    frames = {
        state: [seen.at(state, (*others, (reading.id, value))) for value in values] for state in states
    }  # fmt: skip
    box = _differing([frame for some in frames.values() for frame in some], len(values))
    if box is None:
        return None
    strips = {
        state: smallest(np.concatenate([one[box.top : box.bottom, box.left : box.right] for one in some]))
        for state, some in frames.items()
    }
    return Numbers(reading.id, values, (box.left, box.top, box.width, box.height), strips)


def _pictured_values(reading: Reading) -> tuple[float, ...]:
    """Evenly over the reading, whole steps where those are few."""
    way = reading.end - reading.start
    count = min(MOST_NUMBERS, round(abs(way) / reading.step) + 1)
    return tuple(reading.start + way * number / max(1, count - 1) for number in range(count))


def _differing(frames: list[Pixels], each: int) -> PixelBox | None:
    """Around all that numbers change, in whichever look."""
    differs = np.zeros(frames[0].shape[:2], bool)
    for at, frame in enumerate(frames):
        differs |= (frame != frames[at - at % each]).any(axis=2)
    return box_around(differs)


def _frames(seen: _Seen, start: str, end: str, numbers: Readings, most: int) -> tuple[Frames | None, int]:
    """Return the frames of a transition, and how many device px were rendered. There are no frames where fading looks
    the same, or where they have more than ``most`` device px."""
    count = frame_count(seen.control, start, end, seen.density)
    timing = timing_of(seen.control, start, end)
    first, last = (premultiplied(seen.at(state, numbers)) for state in (start, end))
    drawn = count * first.shape[0] * first.shape[1]
    if drawn > most:
        return None, 0
    times = [timing.whole * (number + 1) / count for number in range(count)]
    frames = [seen.at(end, numbers, start, time) for time in times]
    differs = np.zeros(first.shape[:2], bool)
    for frame, time in zip(frames, times, strict=True):
        faded = first + (last - first) * np.float32(min(1.0, max(0.0, timing.way(time))))
        differs |= (np.abs(premultiplied(frame) - faded) > SAME).any(axis=2)
    box = box_around(differs)
    if box is None:
        return None, drawn
    strip = np.concatenate([frame[box.top : box.bottom, box.left : box.right] for frame in frames])
    return Frames(count, (box.left, box.top, box.width, box.height), smallest(strip)), drawn


def _timing(control: Control, start: str, end: str) -> tuple[float, tuple[float, ...]]:
    timing = timing_of(control, start, end)
    times = (timing.whole * sample / SAMPLES for sample in range(SAMPLES + 1))
    return timing.whole, tuple(round(timing.way(time), 4) for time in times)


def smallest(pixels: Pixels | Screen) -> bytes:
    """A picture as lossless WebP: the same pixels, in about two thirds of a PNG's bytes."""
    file = BytesIO()
    Image.fromarray(pixels).save(file, "WEBP", lossless=True, quality=70, method=4, exact=False)
    return file.getvalue()
