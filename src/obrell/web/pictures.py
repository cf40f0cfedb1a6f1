"""Pictures by content: an address shows the same pixels for ever, so it may be cached for ever."""

from __future__ import annotations

from collections.abc import Callable
from typing import Annotated

from fastapi import APIRouter, Path, Query, Request
from starlette.responses import Response

from obrell.app.pictures import Wanted, png_of, showing
from obrell.core.aside import SECONDS, patience
from obrell.core.document.model import Control
from obrell.core.errors import ObrellError
from obrell.core.render.version import renderer_version
from obrell.web.pages import block
from obrell.web.services import cache_of, gate_of, kits_of

router = APIRouter()
FOR_EVER = {"cache-control": "public, max-age=31536000, immutable"}


@router.get("/pictures/{renderer}/{index}/{control}/{density}.png")
def control_picture(
    request: Request, renderer: str,  # noqa: ARG001 — its version only makes the address new
    index: str, control: str, density: Annotated[float, Path(gt=0, le=16)], wanted: Annotated[Wanted, Query()],
) -> Response:  # fmt: skip
    """A control of these contents at a density. What cannot be drawn is a picture that says so."""
    return _answered(request, index, density, wanted, lambda: kits_of(request).by_hash(control))


@router.get("/pictures/{renderer}/{index}/{kit}/{control}/{shown}/{density}.png")
def shown_picture(
    request: Request, renderer: str,  # noqa: ARG001 — as above
    index: str, kit: str, control: str, shown: str,
    density: Annotated[float, Path(gt=0, le=16)], wanted: Annotated[Wanted, Query()],
) -> Response:  # fmt: skip
    """What has a fingerprint, of the newest document of a control that shows it."""
    return _answered(request, index, density, wanted, lambda: showing(kits_of(request), kit, control, shown, wanted))


def _answered(
    request: Request, index: str, density: float, wanted: Wanted, find: Callable[[], Control]
) -> Response:  # fmt: skip
    try:
        kits = kits_of(request)
        shown, box = find(), wanted.box()
        pixels = box.area if box else shown.canvas.width * shown.canvas.height * density * density
        with gate_of(request).room(round(pixels)), patience(SECONDS):
            content = png_of(kits.index_by_hash(index), shown, density, wanted, cache_of(request))
    except ObrellError as error:
        if not request.headers.get("accept", "").startswith("image/"):
            raise
        words = {"words": str(error)}
        return Response(block("cannot.svg", words), media_type="image/svg+xml", headers={"cache-control": "no-store"})
    return Response(content, media_type="image/png", headers=FOR_EVER)


def picture_address(index: str, control: str, density: float, **rest: object) -> str:
    """The address of a picture; ``rest`` are the query's parameters."""
    return _address(f"{index}/{control}/{density:g}.png", rest)


def shown_address(kit: str, index: str, control: str, shown: str, density: float, **rest: object) -> str:
    """The address of a picture of what has the fingerprint ``shown``: it stays while that does."""
    return _address(f"{index}/{kit}/{control}/{shown}/{density:g}.png", rest)


def _address(place: str, rest: dict[str, object]) -> str:
    query = "&".join(f"{name}={value}" for name, value in rest.items() if value is not None)
    path = f"/pictures/{renderer_version()}/{place}"
    return f"{path}?{query}" if query else path
