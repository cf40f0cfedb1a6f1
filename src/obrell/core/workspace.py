"""What work on documents has at hand: the files that they refer to, and what was made before and may be asked for
again.

Outlines of letters and pixels of pictures are asked for from a hundred places that know nothing but a value; so a
workspace is not handed from one to the next but entered, and holds for all that runs within. Whoever opens a database
has one, and two of them share nothing. Outside any nothing is remembered and no file is found.
"""

from __future__ import annotations

import inspect
import threading
from collections.abc import Callable, Hashable, Iterator, Mapping
from contextlib import contextmanager
from contextvars import ContextVar
from functools import lru_cache, wraps
from types import MappingProxyType
from typing import Any, Generic, ParamSpec, TypeVar, cast

from cachetools import LRUCache

T = TypeVar("T")
P = ParamSpec("P")

_here: ContextVar[Workspace | None] = ContextVar("workspace", default=None)


class Workspace:
    """Finds files by their ids, and keeps what was made. Safe to be entered by several threads at once; a thread
    that is begun within has to be run in a copy of the context."""

    def __init__(self, find: Callable[[str], bytes | None] = lambda _: None) -> None:
        self.find = find
        self._kept: dict[object, Any] = {}

    @contextmanager
    def entered(self) -> Iterator[None]:
        """Within, this is the workspace."""
        token = _here.set(self)
        try:
            yield
        finally:
            _here.reset(token)

    def forget(self, *owners: object) -> None:
        """Let go of what was made for owners, such as functions whose results are remembered; without any, of all."""
        for owner in owners or tuple(self._kept):
            self._kept.pop(inspect.unwrap(owner) if callable(owner) else owner, None)

    def of(self, owner: object, begin: Callable[[], T]) -> T:
        """What is kept here for an owner, begun when there is nothing yet."""
        found: T | None = self._kept.get(owner)
        return self._kept.setdefault(owner, begin()) if found is None else found


_brought: ContextVar[Mapping[str, bytes]] = ContextVar("brought", default=MappingProxyType({}))


def file_content(name: str) -> bytes | None:
    """Return the bytes of a stored file, or of one that is being brought in; None if there is none."""
    here, brought = _here.get(), _brought.get().get(name)
    return brought if brought is not None or here is None else here.find(name)


@contextmanager
def bringing(files: Mapping[str, bytes]) -> Iterator[None]:
    """Let files be found that are not stored yet, by id, so that an edit that needs them can be checked first."""
    token = _brought.set(files)
    try:
        yield
    finally:
        _brought.reset(token)


def remembered(most: int) -> Callable[[Callable[P, T]], Callable[P, T]]:
    """The results of a pure function, by its arguments, for the ``most`` that were asked for last."""

    def kept(function: Callable[P, T]) -> Callable[P, T]:
        def begin() -> Callable[P, T]:
            return cast(Callable[P, T], lru_cache(maxsize=most)(function))

        @wraps(function)
        def asked(*args: P.args, **kwargs: P.kwargs) -> T:
            here = _here.get()
            return (function if here is None else here.of(function, begin))(*args, **kwargs)

        return asked

    return kept


class OfObject(Generic[T]):
    """What was made of objects that never change, found by which object it is and by what else it depends on:
    documents share all that an edit did not change. At most ``most`` are kept; asked thousands of times an edit, so
    that counting uses would take longer than what it saves."""

    def __init__(self, most: int) -> None:
        self._most = most

    def get(self, of: object, besides: Hashable, make: Callable[[], T]) -> T:
        """What was made of an object, made now when it was not before."""
        here = _here.get()
        if here is None:
            return make()
        known: dict[tuple[int, Hashable], tuple[object, T]] = here.of(self, dict)
        key = (id(of), besides)
        found = known.get(key)
        if found is not None and found[0] is of:
            return found[1]
        made = make()
        if len(known) >= self._most:
            known.clear()
        known[key] = (of, made)
        return made


class Kept(Generic[T]):
    """What was asked for last by a key, up to a limit of what ``size`` measures; one larger than that is not kept.
    Safe to use from several threads."""

    def __init__(self, limit: int, size: Callable[[T], int] = lambda _: 1) -> None:
        self._limit, self._size = limit, size
        self._lock = threading.Lock()

    def find(self, key: Hashable) -> T | None:
        """What is kept for a key."""
        with self._lock:
            return self._entries().get(key)

    def put(self, key: Hashable, entry: T) -> None:
        """Keep an entry, and let those go that were not asked for for longest."""
        if self._size(entry) <= self._limit:
            with self._lock:
                self._entries()[key] = entry

    def get(self, key: Hashable, make: Callable[[], T]) -> T:
        """The entry for a key, made when it is not there."""
        found = self.find(key)
        if found is None:
            found = make()
            self.put(key, found)
        return found

    def total(self) -> int:
        """What all entries measure together."""
        return int(self._entries().currsize)

    def _entries(self) -> LRUCache[Hashable, T]:
        here = _here.get()
        return self._begun() if here is None else here.of(self, self._begun)

    def _begun(self) -> LRUCache[Hashable, T]:
        return LRUCache(self._limit, getsizeof=self._size)
