"""The live path of the Wall: while a swatch is dragged, what follows it is sent as it would be.

What is sent is a header and, one control after the other, the straight RGBA bytes of a box of each.
"""

from __future__ import annotations

import logging

from fastapi import APIRouter, WebSocket
from pydantic import ValidationError

from obrell.app.previewing import Preview
from obrell.app.wall import LastWall, WallRequest, preview_wall
from obrell.core.errors import ObrellError
from obrell.store.kits import Kits
from obrell.web.services import cache_of, kits_of
from obrell.web.sockets import packed, serve

router = APIRouter()
log = logging.getLogger(__name__)


@router.websocket("/kits/{kit}/live")
async def live(window: WebSocket, kit: str) -> None:
    """One window's Wall."""
    kits, last = kits_of(window), LastWall(cache_of(window))
    await serve(window, (kit, ""), lambda text: answer(kits, kit, text, last))


def answer(kits: Kits, kit: str, text: str, last: LastWall) -> bytes:
    """The bytes that answer one request; what goes wrong is said in the header."""
    seq = -1
    try:
        wanted = WallRequest.model_validate_json(text)
        seq = wanted.seq
        seen = list(preview_wall(kits, kit, wanted, last))
        tiles = [_header(control, one, wanted.density) for control, one in seen]
        return packed({"seq": seq, "tiles": tiles}, b"".join(one.pixels for _, one in seen))
    except (ObrellError, ValidationError) as error:
        words = str(error) if isinstance(error, ObrellError) else "The Wall asked for nonsense."
        return packed({"seq": seq, "words": words, "tiles": []})
    except Exception:
        log.exception("The Wall could not be drawn")
        words = "This cannot be drawn; it is our fault, and it is logged. Nothing was changed."
        return packed({"seq": seq, "words": words, "tiles": []})


def _header(control: str, seen: Preview, density: float) -> dict[str, object]:
    whole, box = seen.frame.region, seen.box
    return {
        "control": control, "density": density, "exact": True,
        "frame": [whole.left, whole.top, whole.width, whole.height],
        "box": [box.left, box.top, box.width, box.height],
    }  # fmt: skip
