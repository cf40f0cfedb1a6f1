"""The live path: while the hand drags, frames of the changed region flow to the stage.

What is sent is a header and the straight RGBA bytes of a box.
"""

from __future__ import annotations

import logging
from dataclasses import dataclass, field
from typing import Any

from fastapi import APIRouter, WebSocket
from pydantic import ValidationError

from obrell.app.previewing import FrameRequest, LastFrame, Preview, preview
from obrell.core.errors import ObrellError
from obrell.store.kits import Kits
from obrell.web.parcels import View, difference
from obrell.web.scene import around_of, fall_scene, gradient_scene, parts_of
from obrell.web.services import cache_of, kits_of
from obrell.web.sockets import packed, serve

router = APIRouter()
log = logging.getLogger(__name__)


@dataclass(slots=True)
class Shown:
    """What a window shows now, so that only what changes is sent."""

    last: LastFrame
    scene: View = field(default_factory=lambda: View({}, {}))
    """What was told of the parts and what is around them."""


@router.websocket("/kits/{kit}/controls/{control}/live")
async def live(window: WebSocket, kit: str, control: str) -> None:
    """One window's stage."""
    shown = Shown(LastFrame(cache=cache_of(window)))
    kits = kits_of(window)
    await serve(window, (kit, control), lambda text: answer(kits, kit, control, text, shown))


def answer(kits: Kits, kit: str, control: str, text: str, shown: Shown) -> bytes:
    """The bytes that answer one request; what goes wrong is said in the header."""
    seq = -1
    try:
        wanted = FrameRequest.model_validate_json(text)
        seq = wanted.seq
        return frame_of(wanted, preview(kits, kit, control, wanted, shown.last), shown)
    except (ObrellError, ValidationError) as error:
        words = str(error) if isinstance(error, ObrellError) else "The stage asked for nonsense."
        return packed({"seq": seq, "words": words})
    except Exception:
        log.exception("A frame could not be drawn")
        words = "This cannot be drawn; it is our fault, and it is logged. Nothing was changed."
        return packed({"seq": seq, "words": words})


def frame_of(wanted: FrameRequest, seen: Preview, shown: Shown) -> bytes:
    """A preview as the stage reads it."""
    whole, box, tree = seen.frame.region, seen.box, seen.resolved.tree
    opened = _opened(wanted.opened)
    scene = View({"around": around_of(seen.control, seen.index, seen.touch)}, {}, {"scene": parts_of(tree)})
    header = {
        "seq": wanted.seq, "density": wanted.density, "exact": wanted.exact,
        "frame": [whole.left, whole.top, whole.width, whole.height],
        "box": [box.left, box.top, box.width, box.height],
        "snaps": [{"axis": snap.axis, "at": snap.at, "words": snap.said()} for snap in seen.snaps],
        "gradient": gradient_scene(seen.control, tree, *opened),
        "fall": fall_scene(tree, *opened, seen.resolved.lamp.direction), **_told(shown, scene),
    }  # fmt: skip
    return packed(header, seen.pixels)


def _told(shown: Shown, scene: View) -> dict[str, Any]:
    """What of the scene differs from what the window was told last."""
    told, shown.scene = difference(shown.scene, scene), scene
    return {"facts": told["facts"], "lists": told["lists"]}


def _opened(text: str) -> tuple[str, str]:
    part, _, effect = text.partition("/")
    return part, effect
