"""Pictures by content: an address shows the same pixels for ever, so it may be cached for ever."""

from __future__ import annotations

from collections.abc import Callable
from typing import Annotated

from fastapi import APIRouter, Path, Query, Request
from pydantic import Field
from starlette.responses import Response

from obrell.core.aside import SECONDS, patience
from obrell.core.document.fingerprint import fingerprint, fingerprints, ground_fingerprint
from obrell.core.document.model import MAX_EFFECTS, Control
from obrell.core.document.resolve import Resolved, resolve
from obrell.core.edit import Surroundings
from obrell.core.edit.effects import AddEffect
from obrell.core.edit.kits import KitIndex
from obrell.core.edit.looks import UseVersion
from obrell.core.edit.materials import LayMaterial
from obrell.core.errors import NoSuchThing, ObrellError
from obrell.core.raster.layers import PixelBox
from obrell.core.raster.png import encode_quick
from obrell.core.render.build_up import only, upto
from obrell.core.render.cache import PixelCache
from obrell.core.render.compose import Frame, draw
from obrell.core.render.heat import heat
from obrell.core.render.limits import MAX_SIDE_PX
from obrell.core.render.picture import picture
from obrell.core.render.version import renderer_version
from obrell.core.values.base import Value
from obrell.store.kits import Kits
from obrell.web.pages import block
from obrell.web.services import cache_of, gate_of, kits_of

router = APIRouter()
Place = Annotated[int, Field(ge=-1_000_000, le=1_000_000)]
Extent = Annotated[int, Field(ge=0, le=MAX_SIDE_PX)]
Count = Annotated[int, Field(ge=0, le=MAX_EFFECTS)]
FOR_EVER = {"cache-control": "public, max-age=31536000, immutable"}


class Wanted(Value):
    """What a picture shows of a control: all of it, a box of it in device pixels, or one part with its first
    ``count`` effects; ``free`` shows what lies off the canvas too. ``lay`` shows a material on the part, ``add`` one
    more effect of a kind, ``kept`` a look kept aside, ``hot`` what the last of the effects changes, as a heat map;
    ``whole`` shows the other parts too, ``standing`` what the control stands on, ``ground`` nothing but that."""

    part: Annotated[str, Field(max_length=40)] = ""
    count: Count | None = None
    free: bool = False
    lay: Annotated[str, Field(max_length=40)] = ""
    add: Annotated[str, Field(max_length=40)] = ""
    kept: Count | None = None
    hot: bool = False
    whole: bool = False
    ground: bool = False
    standing: bool = False
    left: Place | None = None
    top: Place = 0
    width: Extent = 0
    height: Extent = 0

    def box(self) -> PixelBox | None:
        """The box of device pixels; None for all of the canvas."""
        if self.left is None:
            return None
        return PixelBox(self.left, self.top, self.left + max(1, self.width), self.top + max(1, self.height))


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
    return _answered(request, index, density, wanted, lambda: _showing(kits_of(request), kit, control, shown, wanted))


def _showing(kits: Kits, kit: str, control: str, shown: str, wanted: Wanted) -> Control:
    for document in kits.documents(kit, control):
        if _fingerprint(document, wanted) == shown:
            return document
    raise NoSuchThing("What this picture showed is there no more.")


def _fingerprint(control: Control, wanted: Wanted) -> str:
    if wanted.ground:
        return ground_fingerprint(control)
    if wanted.count is None:
        return fingerprints(control).get(wanted.part, "")
    part = next((part for part in control.parts if part.id == wanted.part), None)
    return "" if part is None else fingerprint(control, upto(part, wanted.count))


def _answered(
    request: Request, index: str, density: float, wanted: Wanted, find: Callable[[], Control]
) -> Response:  # fmt: skip
    try:
        kits = kits_of(request)
        shown, box = find(), wanted.box()
        pixels = box.area if box else shown.canvas.width * shown.canvas.height * density * density
        with gate_of(request).room(round(pixels)), patience(SECONDS):
            content = _content(kits.index_by_hash(index), shown, density, wanted, cache_of(request))
    except ObrellError as error:
        if not request.headers.get("accept", "").startswith("image/"):
            raise
        words = {"words": str(error)}
        return Response(block("cannot.svg", words), media_type="image/svg+xml", headers={"cache-control": "no-store"})
    return Response(content, media_type="image/png", headers=FOR_EVER)


def _content(kit: KitIndex, control: Control, density: float, wanted: Wanted, cache: PixelCache) -> bytes:
    box, part, shown = wanted.box(), wanted.part, control
    if part:
        shown = _tried(shown, kit, part, wanted.lay, wanted.add, wanted.kept)
        shown = shown if wanted.whole else only(shown, part, wanted.count)
    resolved = resolve(kit, shown)
    if wanted.ground or wanted.standing:
        resolved = resolved.ground_alone() if wanted.ground else resolved.standing()
    if wanted.hot and part and wanted.count and box is not None:
        before = resolve(kit, only(control, part, wanted.count - 1))
        return _heat(before, resolved, Frame(density, box), cache)
    return _encoded(resolved, density, box, wanted.free, cache)


def _tried(shown: Control, kit: KitIndex, part: str, lay: str, add: str, kept: int | None) -> Control:
    """A control with a material, one more effect, or a look kept aside tried on a part."""
    around = Surroundings.of(kit)
    if kept is not None:
        return UseVersion(parts=(part,), number=kept).apply(shown, around)
    if lay:
        return LayMaterial(parts=(part,), material=lay).apply(shown, around)
    return AddEffect(part=part, effect=add).apply(shown, around) if add else shown


def _encoded(resolved: Resolved, density: float, box: PixelBox | None, free: bool, cache: PixelCache) -> bytes:
    if free and box is not None:
        return encode_quick(draw(resolved, Frame(density, box), cache))
    return encode_quick(picture(resolved, density, box, cache))


def _heat(before: Resolved, after: Resolved, frame: Frame, cache: PixelCache) -> bytes:
    return encode_quick(heat(draw(before, frame, cache), draw(after, frame, cache)))


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
