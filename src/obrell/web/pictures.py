"""Pictures by content: an address shows the same pixels for ever, so it may be cached for ever."""

from __future__ import annotations

import asyncio
from typing import Annotated

from fastapi import APIRouter, Path, Request
from starlette.responses import Response

from obrell.core.deliver.png import encode_quick
from obrell.core.document.model import Control
from obrell.core.document.resolve import Resolved, resolve
from obrell.core.edit import Surroundings
from obrell.core.edit.effects import AddEffect
from obrell.core.edit.kits import KitIndex
from obrell.core.edit.looks import UseVersion
from obrell.core.edit.materials import LayMaterial
from obrell.core.raster.jit import SOURCE_HASH
from obrell.core.raster.layers import Box
from obrell.core.render.build_up import only
from obrell.core.render.compose import Frame, draw
from obrell.core.render.heat import heat
from obrell.core.render.picture import picture
from obrell.web.services import kits_of

router = APIRouter()
FOR_EVER = {"cache-control": "public, max-age=31536000, immutable"}


@router.get("/pictures/{renderer}/{index}/{control}/{density}.png")
async def control_picture(
    request: Request, renderer: str,  # noqa: ARG001 — its version only makes the address new
    index: str, control: str, density: Annotated[float, Path(gt=0, le=16)],
    part: str = "", count: int | None = None, free: bool = False,
    lay: str = "", add: str = "", kept: int | None = None, hot: bool = False, whole: bool = False,
    ground: bool = False, standing: bool = False,
    left: int | None = None, top: int = 0, width: int = 0, height: int = 0,
) -> Response:  # fmt: skip
    """A control of these contents at a density: all of it, a box of it in device pixels, or one part
    with its first ``count`` effects; ``free`` shows what lies off the canvas too. ``lay`` shows a material
    on the part, ``add`` one more effect of a kind, ``hot`` what
    the last of the effects changes, as a heat map; ``whole`` shows the other parts too,
    ``standing`` what the control stands on, ``ground`` nothing but that."""
    box = None if left is None else Box(left, top, left + width, top + height)
    shown, kit = kits_of(request).by_hash(control), kits_of(request).index_by_hash(index)
    if part:
        shown = _tried(shown, kit, part, lay, add, kept)
        shown = shown if whole else only(shown, part, count)
    resolved = resolve(kit, shown)
    if ground or standing:
        resolved = resolved.ground_alone() if ground else resolved.standing()
    if hot and part and count and box is not None:
        before = resolve(kit, only(kits_of(request).by_hash(control), part, count - 1))
        content = await asyncio.to_thread(_heat, before, resolved, Frame(density, box))
    else:
        content = await asyncio.to_thread(_encoded, resolved, density, box, free)
    return Response(content, media_type="image/png", headers=FOR_EVER)


def _tried(shown: Control, kit: KitIndex, part: str, lay: str, add: str, kept: int | None) -> Control:
    """A control with a material, one more effect, or a look kept aside tried on a part."""
    around = Surroundings(kit.light.direction, kit.materials)
    if kept is not None:
        return UseVersion(parts=(part,), number=kept).apply(shown, around)
    if lay:
        return LayMaterial(parts=(part,), material=lay).apply(shown, around)
    return AddEffect(part=part, effect=add).apply(shown, around) if add else shown


def _encoded(resolved: Resolved, density: float, box: Box | None, free: bool) -> bytes:
    if free and box is not None:
        return encode_quick(draw(resolved, Frame(density, box)))
    return encode_quick(picture(resolved, density, box))


def _heat(before: Resolved, after: Resolved, frame: Frame) -> bytes:
    return encode_quick(heat(draw(before, frame), draw(after, frame)))


def picture_address(index: str, control: str, density: float, **rest: object) -> str:
    """The address of a picture; ``rest`` are the query's parameters."""
    query = "&".join(f"{name}={value}" for name, value in rest.items() if value is not None)
    path = f"/pictures/{SOURCE_HASH}/{index}/{control}/{density:g}.png"
    return f"{path}?{query}" if query else path
