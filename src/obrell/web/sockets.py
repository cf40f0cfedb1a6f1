"""Sockets on which a window asks for pictures: at most one message ahead; the newest wins and nothing queues.

An answer is a JSON header, its length before it as four bytes, and pixels.
"""

from __future__ import annotations

import asyncio
import contextlib
import json
import struct
from collections.abc import Callable
from dataclasses import dataclass, field

from fastapi import WebSocket, WebSocketDisconnect

from obrell.web.presence import Place
from obrell.web.services import gate_of, presence_of

MAX_MESSAGE = 1_000_000
Answer = Callable[[str], bytes]
"""What answers one request, in a thread of its own."""


@dataclass(slots=True)
class Newest:
    """Holds the newest request only."""

    wanted: str | None = None
    news: asyncio.Event = field(default_factory=asyncio.Event)


async def serve(window: WebSocket, place: Place, answer: Answer) -> None:
    """Answer a window, which hears of what is done at a place, until it is gone."""
    await window.accept()
    presence, newest = presence_of(window), Newest()
    presence.enter(place, window)
    painter = asyncio.create_task(_paint(window, answer, newest))
    try:
        while True:
            text = await window.receive_text()
            if len(text) <= MAX_MESSAGE:
                newest.wanted = text
                newest.news.set()
    except WebSocketDisconnect:
        pass
    finally:
        presence.leave(place, window)
        painter.cancel()
        with contextlib.suppress(asyncio.CancelledError):
            await painter


async def _paint(window: WebSocket, answer: Answer, newest: Newest) -> None:
    gate = gate_of(window)
    while True:
        await newest.news.wait()
        newest.news.clear()
        text, newest.wanted = newest.wanted, None
        if text is not None:
            gate.frame()
            try:
                await window.send_bytes(await asyncio.to_thread(answer, text))
            except (RuntimeError, WebSocketDisconnect):
                return


def packed(header: dict[str, object], pixels: bytes = b"") -> bytes:
    """An answer, its pixels at a multiple of four bytes."""
    text = json.dumps(header).encode()
    text += b" " * (-len(text) % 4)
    return struct.pack("<I", len(text)) + text + pixels
