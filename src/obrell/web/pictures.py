"""Pictures by content: an address shows the same pixels for ever, so it may be cached for ever."""

from __future__ import annotations

import asyncio
from typing import Annotated

from fastapi import APIRouter, Path, Request
from starlette.responses import Response

from obrell.core.deliver.png import QUICK, encode
from obrell.core.document.resolve import resolve
from obrell.core.raster.jit import SOURCE_HASH
from obrell.core.raster.layers import Box
from obrell.core.render.build_up import only
from obrell.core.render.picture import picture
from obrell.store.kits import Kits
from obrell.web.services import kits_of

router = APIRouter()
FOR_EVER = {"cache-control": "public, max-age=31536000, immutable"}


@router.get("/pictures/{renderer}/{index}/{control}/{density}.png")
async def control_picture(
    request: Request, renderer: str, index: str, control: str, density: Annotated[float, Path(gt=0, le=16)],
    part: str = "", count: int | None = None,
    left: int | None = None, top: int = 0, width: int = 0, height: int = 0,
) -> Response:  # fmt: skip
    """A control of these contents at a density: all of it, a box of it in device pixels, or one part
    with its first ``count`` effects."""
    box = None if left is None else Box(left, top, left + width, top + height)
    content = await asyncio.to_thread(_encoded, kits_of(request), index, control, density, part, count, box)
    return Response(content, media_type="image/png", headers=FOR_EVER)


def _encoded(
    kits: Kits, index: str, control: str, density: float, part: str, count: int | None, box: Box | None
) -> bytes:
    shown = kits.by_hash(control)
    if part:
        shown = only(shown, part, count)
    resolved = resolve(kits.index_by_hash(index), shown)
    return encode(picture(resolved, density, box), QUICK)


def picture_address(index: str, control: str, density: float, **rest: object) -> str:
    """The address of a picture; ``rest`` are the query's parameters."""
    query = "&".join(f"{name}={value}" for name, value in rest.items() if value is not None)
    path = f"/pictures/{SOURCE_HASH}/{index}/{control}/{density:g}.png"
    return f"{path}?{query}" if query else path
