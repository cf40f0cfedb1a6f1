"""The live path: while the hand drags, frames of the changed region flow to the stage.

A window sends what it wants to see, at most one message ahead; the newest wins and nothing queues.
An answer is a JSON header, its length before it as four bytes, and the straight RGBA bytes of a box.
"""

from __future__ import annotations

import asyncio
import contextlib
import json
import logging
import struct
from dataclasses import dataclass, field
from typing import Any

from fastapi import APIRouter, WebSocket, WebSocketDisconnect
from pydantic import ValidationError

from obrell.app.previewing import FrameRequest, LastFrame, Preview, preview
from obrell.core.errors import ObrellError
from obrell.store.kits import Kits
from obrell.web.parcels import View, difference
from obrell.web.scene import around_of, gradient_scene, parts_of
from obrell.web.services import cache_of, gate_of, kits_of, presence_of

router = APIRouter()
log = logging.getLogger(__name__)
MAX_MESSAGE = 2_000_000


@dataclass(slots=True)
class Shown:
    """What a window shows now, so that only what changes is sent."""

    last: LastFrame
    scene: View = field(default_factory=lambda: View({}, {}))
    """What was told of the parts and what is around them."""


@dataclass(slots=True)
class Newest:
    """Holds the newest request only."""

    wanted: str | None = None
    news: asyncio.Event = field(default_factory=asyncio.Event)


@router.websocket("/kits/{kit}/controls/{control}/live")
async def live(window: WebSocket, kit: str, control: str) -> None:
    """One window's stage."""
    await window.accept()
    presence, place, newest = presence_of(window), (kit, control), Newest()
    presence.enter(place, window)
    painter = asyncio.create_task(_paint(window, kits_of(window), kit, control, newest))
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


async def _paint(window: WebSocket, kits: Kits, kit: str, control: str, newest: Newest) -> None:
    shown, gate = Shown(LastFrame(cache=cache_of(window))), gate_of(window)
    while True:
        await newest.news.wait()
        newest.news.clear()
        text, newest.wanted = newest.wanted, None
        if text is not None:
            gate.frame()
            try:
                await window.send_bytes(await asyncio.to_thread(answer, kits, kit, control, text, shown))
            except (RuntimeError, WebSocketDisconnect):
                return


def answer(kits: Kits, kit: str, control: str, text: str, shown: Shown) -> bytes:
    """The bytes that answer one request; what goes wrong is said in the header."""
    seq = -1
    try:
        wanted = FrameRequest.model_validate_json(text)
        seq = wanted.seq
        return packed(wanted, preview(kits, kit, control, wanted, shown.last), shown)
    except (ObrellError, ValidationError) as error:
        words = str(error) if isinstance(error, ObrellError) else "The stage asked for nonsense."
        return _packed({"seq": seq, "words": words}, b"")
    except Exception:
        log.exception("A frame could not be drawn")
        words = "This cannot be drawn; it is our fault, and it is logged. Nothing was changed."
        return _packed({"seq": seq, "words": words}, b"")


def packed(wanted: FrameRequest, seen: Preview, shown: Shown) -> bytes:
    """A preview as the stage reads it."""
    whole, box, tree = seen.frame.region, seen.box, seen.resolved.tree
    scene = View({"around": around_of(seen.control, seen.index)}, {}, {"scene": parts_of(tree)})
    header = {
        "seq": wanted.seq, "density": wanted.density, "exact": wanted.exact,
        "frame": [whole.left, whole.top, whole.width, whole.height],
        "box": [box.left, box.top, box.width, box.height],
        "snaps": [{"axis": snap.axis, "at": snap.at, "words": snap.said()} for snap in seen.snaps],
        "gradient": gradient_scene(seen.control, tree, *_opened(wanted.opened)), **_told(shown, scene),
    }  # fmt: skip
    return _packed(header, seen.pixels)


def _told(shown: Shown, scene: View) -> dict[str, Any]:
    """What of the scene differs from what the window was told last."""
    told, shown.scene = difference(shown.scene, scene), scene
    return {"facts": told["facts"], "lists": told["lists"]}


def _opened(text: str) -> tuple[str, str]:
    part, _, effect = text.partition("/")
    return part, effect


def _packed(header: dict[str, object], pixels: bytes) -> bytes:
    text = json.dumps(header).encode()
    text += b" " * (-len(text) % 4)
    return struct.pack("<I", len(text)) + text + pixels
