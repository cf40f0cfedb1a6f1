"""Readers of everything that comes from outside: files, and text that is pasted or typed in a notation.

A reader is registered here or it does not read: what is registered is not the function but the door in front of it,
which holds the size to a limit and runs the function in a process of its own, with a budget of processor time and
memory (``aside``). Nothing that is read can hold up the server.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from importlib import import_module
from typing import Any, Concatenate, Generic, ParamSpec, TypeVar

from obrell.core.aside import MEGABYTES, OUTLINES, READING, SECONDS, Pool, Room, aside, patience
from obrell.core.errors import BadDocument, TooLarge

Content = TypeVar("Content", bytes, str)
More = ParamSpec("More")
Made = TypeVar("Made")


@dataclass(frozen=True, slots=True)
class Reader(Generic[Content, More, Made]):
    """A reader of one kind of content. It is called like the function it was made of."""

    name: str
    what: str
    """What it does, as the beginning of a sentence: "Reading this font"."""
    most: int
    """Bytes, or characters of a text."""
    words: str
    """The message for larger content."""
    function: Callable[Concatenate[Content, More], Made]
    seconds_per_mb: float
    """Extra processor time, s, for each million bytes or characters."""
    megabytes_per_mb: float
    """Extra memory for each million bytes or characters."""
    pool: Pool
    ready: Callable[[], object] | None

    def __call__(self, content: Content, *more: More.args, **named: More.kwargs) -> Made:
        """Return what the function returns. Raise its ``ObrellError``s, ``TooLarge`` beyond a limit of size, time or
        memory, and ``Broke`` for any other error."""
        if len(content) > self.most:
            raise TooLarge(self.words)
        millions = len(content) / 1e6
        room = Room(self.pool, MEGABYTES + int(self.megabytes_per_mb * millions), self.ready)
        with patience(SECONDS + self.seconds_per_mb * millions):
            made: Made = aside(self.what, _read, self.function.__module__, self.name, content, more, named, room=room)
        return made


READERS: dict[str, Reader[Any, Any, Any]] = {}
"""Readers by name; one is here once its module is loaded."""


def reads(
    name: str,
    what: str,
    *,
    most: int,
    words: str,
    seconds_per_mb: float = 0.0,
    megabytes_per_mb: float = 0.0,
    short: bool = False,
    ready: Callable[[], object] | None = None,
) -> Callable[[Callable[Concatenate[Content, More], Made]], Reader[Content, More, Made]]:
    """Register a module's function as a reader. It takes the content first and returns something that can be pickled.
    A ``short`` reader is used while somebody types and does not wait for files. ``ready`` runs first, uncounted."""

    def made(function: Callable[Concatenate[Content, More], Made]) -> Reader[Content, More, Made]:
        pool = OUTLINES if short else READING
        READERS[name] = Reader(name, what, most, words, function, seconds_per_mb, megabytes_per_mb, pool, ready)
        return READERS[name]

    return made


def _read(module: str, name: str, content: Any, more: tuple[Any, ...], named: dict[str, Any]) -> Any:
    import_module(module)
    try:
        return READERS[name].function(content, *more, **named)
    except RecursionError as error:
        raise BadDocument("This is nested too deeply to be read.") from error
