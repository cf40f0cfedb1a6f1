"""What is kept because it may be needed again: results by their arguments, arrays counted in bytes. All of it can be
forgotten at once, and made again."""

from __future__ import annotations

import threading
from collections.abc import Callable, Hashable
from functools import lru_cache
from typing import Any, Generic, TypeVar, cast

from cachetools import LRUCache
from numpy.typing import NDArray

T = TypeVar("T")
F = TypeVar("F", bound=Callable[..., Any])

_forgetting: list[Callable[[], None]] = []


def forgets(forget: Callable[[], None]) -> None:
    """Have something called whenever all is forgotten; for what lives as long as the process."""
    _forgetting.append(forget)


def forget() -> None:
    """Let go of everything that is kept."""
    for one in _forgetting:
        one()


def remembered(most: int) -> Callable[[F], F]:
    """The results of a pure function, by its arguments, for the ``most`` that were asked for last."""

    def kept(function: F) -> F:
        made = lru_cache(maxsize=most)(function)
        forgets(made.cache_clear)
        return cast(F, made)

    return kept


class OfObject(Generic[T]):
    """What was made of objects that never change, found by which object it is and by what else it depends on:
    documents share all that an edit did not change. At most ``most`` are kept; asked thousands of times an edit, so
    that counting uses would take longer than what it saves."""

    def __init__(self, most: int) -> None:
        self._most = most
        self._known: dict[tuple[int, Hashable], tuple[object, T]] = {}
        forgets(self._known.clear)

    def get(self, of: object, besides: Hashable, make: Callable[[], T]) -> T:
        """What was made of an object, made now when it was not before."""
        key = (id(of), besides)
        found = self._known.get(key)
        if found is not None and found[0] is of:
            return found[1]
        made = make()
        if len(self._known) >= self._most:
            self._known.clear()
        self._known[key] = (of, made)
        return made


class Kept:
    """The arrays used last, up to a limit in bytes; one larger than that is made each time. Safe to use from several
    threads."""

    def __init__(self, limit: int) -> None:
        self._entries: LRUCache[Hashable, NDArray[Any]] = LRUCache(limit, getsizeof=lambda array: array.nbytes)
        self._lock = threading.Lock()
        forgets(self.clear)

    @property
    def size(self) -> int:
        """Bytes kept now."""
        return int(self._entries.currsize)

    def get(self, key: Hashable, make: Callable[[], NDArray[Any]]) -> NDArray[Any]:
        """The array for ``key``, made when it is not there."""
        with self._lock:
            found = self._entries.get(key)
        if found is not None:
            return found
        made = make()
        if made.nbytes <= self._entries.maxsize:
            with self._lock:
                self._entries[key] = made
        return made

    def clear(self) -> None:
        """Let go of all of them."""
        with self._lock:
            self._entries.clear()
