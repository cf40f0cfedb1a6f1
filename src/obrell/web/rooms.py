"""Who is looking at which control, so that every window shows the newest version."""

from __future__ import annotations

from collections import defaultdict

from fastapi import WebSocket

Place = tuple[str, str]
"""Kit and control."""


class Rooms:
    """The open windows by the control they show."""

    def __init__(self) -> None:
        self._windows: defaultdict[Place, set[WebSocket]] = defaultdict(set)

    def enter(self, place: Place, window: WebSocket) -> None:
        self._windows[place].add(window)

    def leave(self, place: Place, window: WebSocket) -> None:
        self._windows[place].discard(window)
        if not self._windows[place]:
            del self._windows[place]

    async def tell(self, place: Place, message: dict[str, object]) -> None:
        """Send a message to every window on a control; one that is gone is no matter."""
        for window in list(self._windows.get(place, ())):
            try:
                await window.send_json(message)
            except (RuntimeError, OSError):
                self.leave(place, window)

    async def tell_kit(self, kit: str, message: dict[str, object]) -> None:
        """Send a message to every window on any control of a kit."""
        for place in [place for place in self._windows if place[0] == kit]:
            await self.tell(place, message)
