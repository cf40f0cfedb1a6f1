"""Pictures by content: an address shows the same pixels for ever, so it may be cached for ever."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Annotated
from urllib.parse import quote

from fastapi import APIRouter, Path, Query, Request
from starlette.responses import Response

from obrell.app.pictures import Wanted, dressed, png_of, showing
from obrell.app.sharing import as_taken
from obrell.core.aside import SECONDS, patience
from obrell.core.document.fingerprint import dress
from obrell.core.document.model import REST, Control, KitSettings
from obrell.core.document.resolve import DAY
from obrell.core.document.swatch_uses import uses
from obrell.core.edit.kits import KitIndex
from obrell.core.errors import ObrellError
from obrell.core.render.version import renderer_version
from obrell.store.kits import Stored
from obrell.web.assets import FOR_EVER
from obrell.web.pages import block
from obrell.web.services import cache_of, gate_of, kits_of

router = APIRouter()
UNQUOTED = ",:/"
Density = Annotated[float, Path(gt=0, le=16)]


@router.get("/pictures/{renderer}/{index}/{control}/{density}.png")
def control_picture(
    request: Request, renderer: str,  # noqa: ARG001 — its version only makes the address new
    index: str, control: str, density: Density, wanted: Annotated[Wanted, Query()],
) -> Response:  # fmt: skip
    """A control of these contents, in a kit of these, at a density. What cannot be drawn is a picture that says so."""
    kits = kits_of(request)

    def find() -> tuple[KitIndex, Control]:
        settings, shown = kits.index_by_hash(index), wanted.edition(kits.by_hash(control))
        return settings, as_taken(kits, settings, shown, wanted.like, wanted.state) if wanted.like else shown

    return _answered(request, density, wanted, find)


@router.get("/pictures/{renderer}/kits/{kit}/{dressing}/{control}/{density}.png")
def dressed_picture(
    request: Request, renderer: str,  # noqa: ARG001 — as above
    kit: str, dressing: str, control: str, density: Density, wanted: Annotated[Wanted, Query()],
) -> Response:  # fmt: skip
    """A control of these contents, dressed by its kit as the fingerprint says."""
    kits = kits_of(request)

    def find() -> tuple[KitIndex, Control]:
        shown = wanted.edition(kits.by_hash(control))
        return dressed(kits, kit, shown, dressing, wanted.colourway), shown

    return _answered(request, density, wanted, find)


@router.get("/pictures/{renderer}/parts/{kit}/{control}/{shown}/{density}.png")
def shown_picture(
    request: Request, renderer: str,  # noqa: ARG001 — as above
    kit: str, control: str, shown: str, density: Density, wanted: Annotated[Wanted, Query()],
) -> Response:  # fmt: skip
    """What has a fingerprint, of the newest document of a control that shows it."""
    return _answered(request, density, wanted, lambda: showing(kits_of(request), kit, control, shown, wanted))


def _answered(
    request: Request, density: float, wanted: Wanted, find: Callable[[], tuple[KitIndex, Control]]
) -> Response:  # fmt: skip
    try:
        box, (index, shown) = wanted.box(), find()
        pixels = box.area if box else shown.canvas.width * shown.canvas.height * density * density
        with gate_of(request).room(round(pixels)), patience(SECONDS):
            content = png_of(index, shown, density, wanted, cache_of(request))
    except ObrellError as error:
        if not request.headers.get("accept", "").startswith("image/"):
            raise
        words = {"words": str(error)}
        return Response(block("cannot.svg", words), media_type="image/svg+xml", headers={"cache-control": "no-store"})
    return Response(content, media_type="image/png", headers=FOR_EVER)


def picture_address(index: str, control: str, density: float, **rest: object) -> str:
    """The address of a picture of a control, both as their contents are, in which something is tried perhaps;
    ``rest`` are the query's parameters."""
    return _address(f"{index}/{control}/{density:g}.png", rest)


@dataclass(frozen=True, slots=True)
class Dressed:
    """Where pictures of a kit's controls are found: they stay there while nothing changes that a control shows."""

    kit: str
    settings: KitSettings
    colourway: str = DAY
    state: str = REST
    readings: str = ""
    editions: str = ""

    @property
    def query(self) -> dict[str, str]:
        """What the addresses of pictures say of the colourway, the state, editions and readings."""
        way = {} if self.colourway == DAY else {"colourway": self.colourway}
        state = {} if self.state == REST else {"state": self.state}
        rest = {"readings": self.readings, "editions": self.editions}
        return way | state | {name: value for name, value in rest.items() if value}

    def of(self, hash_: str, swatches: Iterable[str], density: float, **rest: object) -> str:
        """The address of a picture of a control of these contents, which follows those swatches."""
        dressing = dress(self.settings, swatches, self.colourway)
        return _address(f"kits/{self.kit}/{dressing}/{hash_}/{density:g}.png", rest | self.query)

    def stored(self, stored: Stored, density: float, **rest: object) -> str:
        """The same of a control that has been read, in those editions."""
        return self.of(stored.hash, uses(stored.control), density, **rest)


def shown_address(kit: str, control: str, shown: str, density: float, **rest: object) -> str:
    """The address of a picture of what has the fingerprint ``shown``: it stays while that does."""
    return _address(f"parts/{kit}/{control}/{shown}/{density:g}.png", rest)


def _address(place: str, rest: dict[str, object]) -> str:
    query = "&".join(f"{name}={quote(str(value), safe=UNQUOTED)}" for name, value in rest.items() if value is not None)
    path = f"/pictures/{renderer_version()}/{place}"
    return f"{path}?{query}" if query else path
