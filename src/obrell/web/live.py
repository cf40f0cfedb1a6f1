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
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Annotated, Any

from fastapi import APIRouter, WebSocket, WebSocketDisconnect
from pydantic import Field, JsonValue, ValidationError

from obrell.core.aside import SECONDS, patience
from obrell.core.document.model import Control, KitSettings
from obrell.core.document.resolve import Resolved, resolve
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.edit.snapping import Snap
from obrell.core.errors import ObrellError
from obrell.core.findings.false_colours import false_colours
from obrell.core.raster.layers import NO_BOX, PixelBox
from obrell.core.render.cache import PixelCache
from obrell.core.render.compose import Frame, canvas_box, draw
from obrell.core.scene.changes import changed_box
from obrell.core.values.base import Value
from obrell.store.kits import Kits
from obrell.web.parcels import View, difference
from obrell.web.scene import around_of, gradient_scene, parts_of
from obrell.web.services import cache_of, kits_of, rooms_of

router = APIRouter()
log = logging.getLogger(__name__)
MAX_MESSAGE = 2_000_000


class FrameRequest(Value):
    """What a window wants to see: the control with an edit that is not saved, at a density, over a
    box of device pixels; ``exact`` for the very picture that will be delivered."""

    seq: int
    edit: JsonValue = None
    density: Annotated[float, Field(gt=0, le=256)]
    left: int
    top: int
    width: Annotated[int, Field(ge=1, le=8192)]
    height: Annotated[int, Field(ge=1, le=8192)]
    exact: bool = False
    apart: bool = False
    """Every part in a colour of its own."""
    opened: Annotated[str, Field(max_length=100)] = ""
    """A part and its effect that is open, as ``part/effect``: where its gradient lies is told."""

    def box(self) -> PixelBox:
        return PixelBox(self.left, self.top, self.left + self.width, self.top + self.height)


@dataclass(slots=True)
class LastFrame:
    """What the window shows now, so that only what changes is sent."""

    frame: Frame | None = None
    exact: bool = False
    resolved: Resolved | None = None
    cache: PixelCache = field(default_factory=PixelCache)
    """What was drawn, for whatever is drawn next."""
    scene: View = field(default_factory=lambda: View({}, {}))
    """What was told of the parts and what is around them."""


@dataclass(slots=True)
class Slot:
    """Holds the newest wish only."""

    wish: str | None = None
    news: asyncio.Event = field(default_factory=asyncio.Event)


@router.websocket("/kits/{kit}/controls/{control}/live")
async def live(window: WebSocket, kit: str, control: str) -> None:
    """One window's stage."""
    await window.accept()
    rooms, place, slot = rooms_of(window), (kit, control), Slot()
    rooms.enter(place, window)
    painter = asyncio.create_task(_paint(window, kits_of(window), kit, control, slot))
    try:
        while True:
            text = await window.receive_text()
            if len(text) <= MAX_MESSAGE:
                slot.wish = text
                slot.news.set()
    except WebSocketDisconnect:
        pass
    finally:
        rooms.leave(place, window)
        painter.cancel()
        with contextlib.suppress(asyncio.CancelledError):
            await painter


async def _paint(window: WebSocket, kits: Kits, kit: str, control: str, slot: Slot) -> None:
    shown = LastFrame(cache=cache_of(window))
    while True:
        await slot.news.wait()
        slot.news.clear()
        text, slot.wish = slot.wish, None
        if text is not None:
            try:
                await window.send_bytes(await asyncio.to_thread(answer, kits, kit, control, text, shown))
            except (RuntimeError, WebSocketDisconnect):
                return


def answer(kits: Kits, kit: str, control: str, text: str, shown: LastFrame) -> bytes:
    """The bytes that answer one wish; what goes wrong is said in the header."""
    seq = -1
    try:
        wish = FrameRequest.model_validate_json(text)
        seq = wish.seq
        index = kits.index(kit)
        stored = kits.control(kit, control).control
        edit = None if wish.edit is None else read_edit(wish.edit)
        changed = stored if edit is None else applied(edit, stored, Surroundings.of(index))
        snaps = () if edit is None else edit.snaps(stored)
        with patience(SECONDS):
            return drawn(wish, index, false_colours(changed) if wish.apart else changed, shown, snaps)
    except (ObrellError, ValidationError) as error:
        words = str(error) if isinstance(error, ObrellError) else "The stage asked for nonsense."
        return _packed({"seq": seq, "words": words}, b"")
    except Exception:
        log.exception("A frame could not be drawn")
        words = "This cannot be drawn; it is our fault, and it is logged. Nothing was changed."
        return _packed({"seq": seq, "words": words}, b"")


def drawn(
    wish: FrameRequest, index: KitSettings, control: Control, shown: LastFrame, snaps: Sequence[Snap]
) -> bytes:  # fmt: skip
    resolved = resolve(index, control)
    whole = canvas_box(resolved, wish.density) if wish.exact else wish.box()
    frame = Frame(wish.density, whole)
    dirty = whole
    if shown.resolved is not None and shown.frame == frame and shown.exact == wish.exact:
        dirty = changed_box(shown.resolved, resolved, frame.density, frame.region)
    pixels = b"" if dirty.empty else draw(resolved, frame, shown.cache, dirty).tobytes()
    shown.frame, shown.exact, shown.resolved = frame, wish.exact, resolved
    box = NO_BOX if dirty.empty else dirty
    header = {
        "seq": wish.seq, "density": wish.density, "exact": wish.exact,
        "frame": [whole.left, whole.top, whole.width, whole.height],
        "box": [box.left, box.top, box.width, box.height],
        "snaps": [{"axis": snap.axis, "at": snap.at, "words": snap.said()} for snap in snaps],
        "gradient": gradient_scene(control, resolved.tree, *_opened(wish.opened)),
        **_told(shown, View({"around": around_of(control, index)}, {}, {"scene": parts_of(resolved.tree)})),
    }  # fmt: skip
    return _packed(header, pixels)


def _told(shown: LastFrame, scene: View) -> dict[str, Any]:
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
