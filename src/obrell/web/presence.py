"""Who is looking at which control, so that every window shows the newest version."""

from __future__ import annotations

import asyncio
from collections import defaultdict
from collections.abc import Callable

from fastapi import WebSocket

Place = tuple[str, str]
"""Kit and control; no control for its Wall."""
Message = dict[str, object]


PANEL = "trial/"
"""What the places of windows on panels begin with."""


def panel_place(kit: str, panel: str) -> Place:
    """The place of windows on a panel of Trial."""
    return kit, f"{PANEL}{panel}"


def _is_panel(place: Place) -> bool:
    return place[1].startswith(PANEL)


class Presence:
    """The open windows by the control they show. Entered and left on the event loop; told from any thread."""

    def __init__(self) -> None:
        self._windows: defaultdict[Place, set[WebSocket]] = defaultdict(set)
        self._loop: asyncio.AbstractEventLoop | None = None

    def enter(self, place: Place, window: WebSocket) -> None:
        self._loop = asyncio.get_running_loop()
        self._windows[place].add(window)

    def leave(self, place: Place, window: WebSocket) -> None:
        self._windows[place].discard(window)
        if not self._windows[place]:
            del self._windows[place]

    def tell(self, place: Place, message: Message) -> None:
        """Send a message to every window on a control; nothing waits for it. Whatever the Wall of a kit is told, its
        panels are too, on which any of its controls may stand."""
        kit, where = place
        self._later(lambda found: found == place or (not where and found[0] == kit and _is_panel(found)), message)

    def tell_kit(self, kit: str, message: Message) -> None:
        """Send a message to every window on any control of a kit."""
        self._later(lambda found: found[0] == kit, message)

    def _later(self, wanted: Callable[[Place], bool], message: Message) -> None:
        if self._loop is not None and self._loop.is_running():
            asyncio.run_coroutine_threadsafe(self._send(wanted, message), self._loop)

    async def _send(self, wanted: Callable[[Place], bool], message: Message) -> None:
        """One window that is gone is no matter to the others."""
        for place in [place for place in self._windows if wanted(place)]:
            for window in list(self._windows.get(place, ())):
                try:
                    await window.send_json(message)
                except (RuntimeError, OSError):
                    self.leave(place, window)
