"""A least-recently-used cache with a limit in bytes."""

from __future__ import annotations

import threading
from collections.abc import Callable, Hashable
from typing import TypeVar

from cachetools import LRUCache

from obrell.core.paint.areas import Area, Twins
from obrell.core.raster.layers import Coverage, Layer, PixelBox

T = TypeVar("T", Coverage, Layer)

LIMIT_BYTES = 192 * 1024 * 1024
GROUNDS = 32
"""How many stages are remembered to find what is being changed on them."""
LARGEST_SHARE = 0.25
"""One entry may take at most this share of the limit; a larger one is not kept."""


class PixelCache:
    """Masks and layers by what they show. Safe to use from several threads; the limit also holds
    during a draw, because every entry is counted as it is made."""

    def __init__(self, limit: int = LIMIT_BYTES) -> None:
        self.limit = limit
        self._entries: LRUCache[Hashable, Coverage | Layer] = LRUCache(limit, getsizeof=_bytes)
        self._last: LRUCache[Hashable, tuple[tuple[Hashable, ...], int]] = LRUCache(GROUNDS)
        self._lock = threading.Lock()

    @property
    def size(self) -> int:
        """Bytes kept now."""
        return int(self._entries.currsize)

    def get(self, key: Hashable, make: Callable[[], T]) -> T:
        """The entry for ``key``, made when it is not there."""
        with self._lock:
            found = self._entries.get(key)
        if found is not None:
            return found  # type: ignore[return-value]
        made = make()
        self.put(key, made)
        return made

    def over(self, area: Area, box: PixelBox) -> Coverage:
        """The coverage of an area over a box."""
        if not area.kept:
            return area.over(box, self)
        return self.get((area, box), lambda: area.over(box, self))

    def within(self, area: Area, region: PixelBox) -> Coverage:
        """The coverage of an area over as much of a region as it is anything in."""
        return self.over(area, area.extent.meet(region))

    def both(self, twins: Twins, box: PixelBox) -> tuple[Coverage, Coverage]:
        """Two masks that are made together, each kept by itself."""
        made: list[tuple[Coverage, Coverage]] = []

        def one(number: int) -> Coverage:
            if not made:
                made.append(twins.over(box, self))
            return made[0][number]

        return self.get((twins, box, 0), lambda: one(0)), self.get((twins, box, 1), lambda: one(1))

    def clear(self) -> None:
        """Let go of everything."""
        with self._lock:
            self._entries.clear()
            self._last.clear()

    def find(self, key: Hashable) -> Layer | None:
        """The layer for ``key`` when it is there."""
        with self._lock:
            found = self._entries.get(key)
        return found if isinstance(found, Layer) else None

    def settled(self, ground: Hashable, parts: tuple[Hashable, ...]) -> int:
        """How many parts from the back on are the same as when this ground was last drawn, short of
        all: where a composite is worth keeping. Remembers ``parts`` for the next time."""
        with self._lock:
            last, settled = self._last.get(ground, ((), 0))
            same = 0
            for old, new in zip(last, parts, strict=False):
                if old is not new and old != new:
                    break
                same += 1
            settled = same if same < len(parts) else min(settled, len(parts))
            self._last[ground] = (parts, settled)
            return settled

    def put(self, key: Hashable, entry: Coverage | Layer) -> None:
        """Keep an entry, and let those go that were not asked for for longest until the limit holds."""
        if _bytes(entry) <= self.limit * LARGEST_SHARE:
            with self._lock:
                self._entries[key] = entry


def _bytes(entry: Coverage | Layer) -> int:
    return entry.values.nbytes if isinstance(entry, Coverage) else entry.planes.nbytes
