"""Playing: how one look becomes another on a panel, as frames that are rendered beforehand."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable
from typing import TypeVar

from obrell.core.document.model import Control
from obrell.core.document.transitions import timing_of
from obrell.core.errors import TooLarge

T = TypeVar("T")
FRAME_MS = 1000 / 60
"""How long a frame is shown: a screen of 60 Hz."""
MAX_FRAMES = 60
MAX_TALL_PX = 16_000
"""Device px that all frames of a transition are tall, one under the other."""


def frame_count(control: Control, start: str, end: str, density: float) -> int:
    """How many frames a transition has at a density; none where it takes no time."""
    whole = timing_of(control, start, end).whole
    most = max(1, int(MAX_TALL_PX // math.ceil(control.canvas.height * density)))
    return min(math.ceil(whole / FRAME_MS), MAX_FRAMES, most)


def by_pair(states: Iterable[str], of: Callable[[str, str], T]) -> dict[str, T]:
    """What is so of every state that becomes another, as start>end, where that is not what is so of all others; that
    is under ""."""
    names = tuple(dict.fromkeys(states))
    usual = of("", "")
    pairs = ((f"{start}>{end}", of(start, end)) for start in names for end in names if start != end)
    return {"": usual, **{pair: own for pair, own in pairs if own != usual}}


def check_frames(count: int, height: float) -> None:
    """Raises ``TooLarge`` for frames that would be taller together than they may."""
    if count > 1 and count * height > MAX_TALL_PX + count:
        raise TooLarge("So many frames of this are too tall for one picture.")
