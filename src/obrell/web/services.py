"""What routes are given to work with.

Routes are plain functions: the framework runs them in threads, so that none that waits for the disk or for a
drawing holds up another. What has to be read from the request first is a dependency.
"""

from __future__ import annotations

from threading import Semaphore
from typing import Annotated

from fastapi import Body, Depends, Request, WebSocket
from starlette.datastructures import FormData

from obrell.app.memory import Gate
from obrell.core.render.cache import PixelCache
from obrell.store.kits import Kits, Sender
from obrell.web.parcels import Parcels
from obrell.web.presence import Presence

Window = Annotated[str, Body(max_length=60)]
Ident = Annotated[str, Body(max_length=60)]
"""The id that a change was given where it was made; empty for one that is never sent again."""

Based = Annotated[int, Body(ge=0)]
"""The version of the control that a change was based on; 0 when the window does not know."""


def kits_of(request: Request | WebSocket) -> Kits:
    """The kits of this application."""
    kits: Kits = request.app.state.kits
    return kits


def gate_of(request: Request | WebSocket) -> Gate:
    """What lets drawings in."""
    gate: Gate = request.app.state.memory.gate
    return gate


def cache_of(request: Request | WebSocket) -> PixelCache:
    """What this application has drawn."""
    cache: PixelCache = request.app.state.memory.cache
    return cache


def parcels_of(request: Request) -> Parcels:
    """What windows were sent last."""
    parcels: Parcels = request.app.state.parcels
    return parcels


def turn_of(request: Request) -> Semaphore:
    """An edit's turn: with more of them at once each would only take longer."""
    turns: Semaphore = request.app.state.turns
    return turns


def presence_of(request: Request | WebSocket) -> Presence:
    """The open windows of this application."""
    presence: Presence = request.app.state.presence
    return presence


async def _content(request: Request) -> bytes:
    return await request.body()


async def _form(request: Request) -> FormData:
    return await request.form()


Content = Annotated[bytes, Depends(_content)]
"""The body of the request as it came."""
Form = Annotated[FormData, Depends(_form)]
"""All fields of a form."""

__all__ = [
    "Based", "Content", "Form", "Ident", "Sender", "Window", "cache_of", "gate_of", "kits_of", "parcels_of",
    "presence_of", "turn_of",
]  # fmt: skip
