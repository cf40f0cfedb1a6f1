"""Arrays that are kept ready, counted in bytes."""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Callable, Hashable
from typing import Any

from numpy.typing import NDArray


class Kept:
    """The arrays used last, up to a limit in bytes; one larger than that is made each time. Safe to use from several
    threads."""

    def __init__(self, limit: int) -> None:
        self.limit = limit
        self.size = 0
        self._entries: OrderedDict[Hashable, NDArray[Any]] = OrderedDict()
        self._lock = threading.Lock()

    def get(self, key: Hashable, make: Callable[[], NDArray[Any]]) -> NDArray[Any]:
        """The array for ``key``, made when it is not there."""
        with self._lock:
            found = self._entries.get(key)
            if found is not None:
                self._entries.move_to_end(key)
                return found
        made = make()
        with self._lock:
            if key not in self._entries and made.nbytes <= self.limit:
                self._entries[key] = made
                self.size += made.nbytes
            while self.size > self.limit:
                _, oldest = self._entries.popitem(last=False)
                self.size -= oldest.nbytes
        return made
