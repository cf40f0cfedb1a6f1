"""What routes are given to work with."""

from __future__ import annotations

from fastapi import Request, WebSocket

from obrell.store.kits import Kits
from obrell.web.rooms import Rooms


def kits_of(request: Request | WebSocket) -> Kits:
    """The kits of this application."""
    kits: Kits = request.app.state.kits
    return kits


def rooms_of(request: Request | WebSocket) -> Rooms:
    """The open windows of this application."""
    rooms: Rooms = request.app.state.rooms
    return rooms
