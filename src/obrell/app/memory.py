"""The memory of this process: how much may be drawn at once, and what is let go of when it grows beyond its bound."""

from __future__ import annotations

import ctypes
import gc
import os
import resource
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager, suppress

from obrell.core.render.cache import PixelCache
from obrell.core.workspace import Workspace

USUAL_MEGABYTES = 1000
"""The bound when ``OBRELL_MEMORY`` does not say another."""
LEAST_MEGABYTES = 400
CACHE_SHARE = 0.15
"""Of the bound, for composites and masks that are kept."""
TIGHT = 0.75
"""Of the bound, from where on everything that can be made again is let go of."""
BYTES_PER_PIXEL = 64
"""What a drawing takes at most, caches not counted (``rendering.md``, Truth and speed)."""
LOOKED_AT_S = 0.5
RESTED_S = 30.0
"""How long nothing more is let go of where that did not help: what is still held is in use."""
FRAMES_S = 0.4
"""How long after a frame of a stage the next one is expected."""
AT_ONCE = 2
"""How many pictures are drawn at the same time beside the frames of the stages: as many as there are cores."""


class Gate:
    """Lets drawings in as long as there is room; one that is larger than all the room goes in alone. While a stage is
    drawn, one place fewer is given away."""

    def __init__(self, pixels: int, places: int = AT_ONCE) -> None:
        self._room, self._pixels = pixels, pixels
        self._places, self._for_frames = places, min(1, places - 1)
        self._turn = threading.Condition()
        self._frames_until = 0.0

    def frame(self) -> None:
        """A stage is being drawn: for a moment, all else leaves a place to it."""
        self._frames_until = time.monotonic() + FRAMES_S

    def _free(self, wanted: int) -> bool:
        kept = self._for_frames if time.monotonic() < self._frames_until else 0
        return self._room >= wanted and self._places > kept

    @contextmanager
    def room(self, pixels: int) -> Iterator[None]:
        """Within, a picture of that many device px may be drawn."""
        wanted = min(pixels, self._pixels)
        with self._turn:
            while not self._free(wanted):
                self._turn.wait(FRAMES_S)
            self._room -= wanted
            self._places -= 1
        try:
            yield
        finally:
            with self._turn:
                self._room += wanted
                self._places += 1
                self._turn.notify_all()


class Memory:
    """Keeps the process under its bound, in megabytes, as long as it lives, by letting go of what was made."""

    def __init__(self, megabytes: int, workspace: Workspace) -> None:
        self.bound = max(LEAST_MEGABYTES, megabytes) << 20
        self.cache = PixelCache(int(self.bound * CACHE_SHARE))
        """What was drawn, for whatever is drawn next."""
        self.gate = Gate(int(self.bound * 0.3 / BYTES_PER_PIXEL))
        self._workspace = workspace
        self._ended = threading.Event()
        threading.Thread(target=self._watch, daemon=True).start()

    def close(self) -> None:
        self._ended.set()

    def let_go(self) -> None:
        """Everything that can be made again, and what the C library keeps of it."""
        self.cache.clear()
        self._workspace.forget()
        gc.collect()
        with suppress(OSError, AttributeError):
            ctypes.CDLL(None).malloc_trim(0)

    def _watch(self) -> None:
        pause = LOOKED_AT_S
        while not self._ended.wait(pause):
            if self._tight():
                self.let_go()
            pause = RESTED_S if self._tight() else LOOKED_AT_S

    def _tight(self) -> bool:
        return resident() > self.bound * TIGHT


def bound_from_environment() -> int:
    """What ``OBRELL_MEMORY`` says, in megabytes."""
    try:
        return int(os.environ.get("OBRELL_MEMORY", USUAL_MEGABYTES))
    except ValueError:
        return USUAL_MEGABYTES


def resident() -> int:
    """The memory this process has now, bytes."""
    with open("/proc/self/statm", encoding="ascii") as pages:
        return int(pages.read().split()[1]) * resource.getpagesize()
