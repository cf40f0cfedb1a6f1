"""Answers held back: what a window shows and takes while the server is slow.

A server of the fleet looks for a file beside its database, with milliseconds one after the other; each answer about a
kit waits for the next of them. Without the file nothing waits.
"""

import asyncio
import itertools
import os
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

LATENESS: tuple[tuple[int, ...], ...] = ((0,), (150,), (700,), (0, 700, 150, 20))
"""Milliseconds, as journeys meet them by turns: at once, late, very late, and unevenly."""
HELD = ("/kits/", "/colour")
QUICK = ("/pictures/", "/picture/", "/live", "/news")


def place_of(data: Path) -> Path:
    """The file that says how late the answers of a server are."""
    return data.with_name(f"{data.name}.late")


def hold_back(data: Path, late: tuple[int, ...]) -> None:
    """Have a server's answers come late from now on."""
    place_of(data).write_text(" ".join(map(str, late)))


def let_go(data: Path) -> None:
    """Have a server's answers come at once again."""
    place_of(data).unlink(missing_ok=True)


def turn_of(name: str) -> tuple[int, ...]:
    """How late answers are for a journey: late in one of four, by turns, or for all as ``OBRELL_LATE`` says."""
    chosen, turn = os.environ.get("OBRELL_LATE"), sum(name.encode())
    if chosen:
        return LATENESS[int(chosen)]
    return LATENESS[turn // 4 % len(LATENESS)] if turn % 4 == 0 else LATENESS[0]


class Late:
    """ASGI middleware that keeps answers back once they are there: what was asked for is done at once."""

    def __init__(self, app: Callable[..., Any], data: Path) -> None:
        self.app, self.place = app, place_of(data)
        self.known: str = ""
        self.turns: Iterator[int] = itertools.repeat(0)

    async def __call__(self, scope: dict[str, Any], receive: Any, send: Any) -> None:
        path = scope.get("path", "")
        held = scope["type"] == "http" and path.startswith(HELD) and not any(one in path for one in QUICK)
        if not held or not self.place.exists():
            await self.app(scope, receive, send)
            return
        by = self._next() / 1000

        async def late(message: dict[str, Any]) -> None:
            if message["type"] == "http.response.start":
                await asyncio.sleep(by)
            await send(message)

        await self.app(scope, receive, late)

    def _next(self) -> int:
        said = self.place.read_text()
        if said != self.known:
            self.known, self.turns = said, itertools.cycle(map(int, said.split() or ["0"]))
        return next(self.turns)
