"""The swatches of a kit on its Wall: made, named, changed, put in order, taken out, and where each is followed."""

from __future__ import annotations

from collections.abc import Callable
from typing import Annotated

from fastapi import APIRouter, File, Form, Request, UploadFile
from starlette.responses import HTMLResponse, Response

from obrell.app import swatches
from obrell.core.colour.typed import typed_swatch
from obrell.core.document.colours import used_colours
from obrell.core.document.resolve import DAY, palette
from obrell.core.edit.colourways import name_of
from obrell.core.edit.kits import KitIndex
from obrell.core.edit.swatches import (
    ROLES,
    coloured,
    moved,
    renamed,
    swatch_of,
    with_role,
    with_swatch,
)
from obrell.core.errors import NoSuchThing
from obrell.core.interchange.limits import MAX_PALETTE_BYTES, MAX_PICTURE_BYTES
from obrell.core.interchange.palettes import WRITERS
from obrell.core.interchange.picture_colours import main_colours
from obrell.core.values.slugs import slug
from obrell.web.colours import swatches_offered
from obrell.web.pages import page
from obrell.web.services import kits_of, presence_of
from obrell.web.wall import WALL, shown_way, wall_block

router = APIRouter()
SWATCHES = WALL + "/swatches"
MEDIA = {"json": "application/json", "css": "text/css"}
OFFERED = 24
"""Colours of the kit's art that are offered to a new swatch."""


@router.get(SWATCHES + "/new")
def ask_for_new(request: Request, kit: str) -> HTMLResponse:
    """What is asked of a new swatch, with colours of the art that it can have."""
    kits = kits_of(request)
    used = used_colours(stored.control for stored in kits.controls(kit))[:OFFERED]
    return page(request, "_swatch_new.html", {"kit": kits.index(kit), "used": used, "roles": ROLES})


@router.post(SWATCHES + "/candidates")
def candidates(request: Request, kit: str, picture: Annotated[UploadFile, File()]) -> HTMLResponse:
    """The main colours of a picture, to choose from."""
    kits_of(request).index(kit)
    found = main_colours(picture.file.read(MAX_PICTURE_BYTES + 1))
    return page(request, "_candidates.html", {"used": found})


@router.post(SWATCHES)
def add(
    request: Request, kit: str, name: Annotated[str, Form()], colour: Annotated[str, Form()],
    role: Annotated[str, Form()] = "",
) -> HTMLResponse:  # fmt: skip
    """One more swatch, at the end."""
    wanted = name.strip()
    made = (wanted, typed_swatch(colour), role.strip())
    return _changed(request, kit, lambda index: with_swatch(index, *made)[0], f"Added the swatch “{wanted}”")


@router.post(SWATCHES + "/named")
def name_colour(
    request: Request, kit: str, name: Annotated[str, Form()], colour: Annotated[str, Form()]
) -> dict[str, object]:  # fmt: skip
    """One more swatch, made of a colour that is being chosen: its id, and all of them in the colourway shown."""
    kits, wanted, read = kits_of(request), name.strip(), typed_swatch(colour)
    kits.change_index(kit, lambda index: with_swatch(index, wanted, read)[0], f"Added the swatch “{wanted}”")
    presence_of(request).tell_kit(kit, {"news": "", "version": 0})
    offered = _offered(request, kit)
    return {"id": next(one["id"] for one in offered if one["name"] == wanted), "swatches": offered}


@router.get(SWATCHES + "/file.{kind}")
def as_file(request: Request, kit: str, kind: str) -> Response:
    """All of them as a file that other tools read."""
    if kind not in WRITERS:
        raise NoSuchThing(f"Swatches are written as {', '.join(WRITERS)}.")
    index = kits_of(request).index(kit)
    headers = {"content-disposition": f'attachment; filename="{slug(index.name, kit)}.{kind}"'}
    return Response(WRITERS[kind](index), media_type=MEDIA.get(kind, "text/plain"), headers=headers)


@router.post(SWATCHES + "/file")
def from_file(request: Request, kit: str, file: Annotated[UploadFile, File()]) -> HTMLResponse:
    """Those of a file: names that are there have its colours, others come to the end."""
    label = swatches.bring_in(kits_of(request), kit, file.file.read(MAX_PALETTE_BYTES + 1))
    return told(request, kit, label)


@router.post(SWATCHES + "/{swatch}/name")
def rename(request: Request, kit: str, swatch: str, name: Annotated[str, Form()]) -> HTMLResponse:
    """Another name, in place."""
    old, wanted = _name(request, kit, swatch), name.strip()
    label = f"Renamed the swatch “{old}” to “{wanted}”"
    return _changed(request, kit, lambda index: renamed(index, swatch, wanted), label)


@router.post(SWATCHES + "/{swatch}/role")
def set_role(request: Request, kit: str, swatch: str, role: Annotated[str, Form()] = "") -> HTMLResponse:
    """What it is for, in place."""
    wanted = role.strip()
    label = (
        f"“{_name(request, kit, swatch)}” is for {wanted}" if wanted else f"“{_name(request, kit, swatch)}” is free"
    )
    return _changed(request, kit, lambda index: with_role(index, swatch, wanted), label)


@router.post(SWATCHES + "/{swatch}/colour")
def set_colour(request: Request, kit: str, swatch: str, colour: Annotated[str, Form()]) -> HTMLResponse:
    """Another colour, in the colourway that is shown: all that follows it follows."""
    return _changed(request, kit, *_recoloured(request, kit, swatch, colour))


@router.post(SWATCHES + "/{swatch}/colour-from-bench")
def set_colour_from_bench(
    request: Request, kit: str, swatch: str, colour: Annotated[str, Form()]
) -> dict[str, object]:  # fmt: skip
    """Give a swatch another colour where a control is drawn. Return what was done, and all swatches as they are in the
    colourway shown."""
    does, label = _recoloured(request, kit, swatch, colour)
    said = kits_of(request).change_index(kit, does, label)
    presence_of(request).tell_kit(kit, {"news": "", "version": 0})
    return {"said": f"{said}. Undo it on the Wall." if said == label else said, "swatches": _offered(request, kit)}


@router.post(SWATCHES + "/{swatch}/move")
def move(request: Request, kit: str, swatch: str, to: Annotated[int, Form(ge=0)]) -> HTMLResponse:
    """To another place in the order."""
    label = f"Moved the swatch “{_name(request, kit, swatch)}” in the order"
    return _changed(request, kit, lambda index: moved(index, swatch, to), label)


@router.get(SWATCHES + "/{swatch}/uses")
def uses(request: Request, kit: str, swatch: str) -> HTMLResponse:
    """Where it is followed, and what can become of that when it is taken out."""
    kits = kits_of(request)
    index = kits.index(kit)
    own = swatch_of(index, swatch)
    way, _ = shown_way(request, index)
    context = {
        "kit": index, "swatch": own, "colour": palette(index, way)[swatch],
        "controls": swatches.used_in(kits, kit, swatch),
        "others": [one for one in index.swatches if one.id != swatch],
    }  # fmt: skip
    return page(request, "_swatch_uses.html", context)


@router.post(SWATCHES + "/{swatch}/remove")
def remove(request: Request, kit: str, swatch: str, instead: Annotated[str, Form()] = "") -> HTMLResponse:
    """Taken out; undo brings it back with all that followed it."""
    label = swatches.remove(kits_of(request), kit, swatch, instead)
    return told(request, kit, f"{label}. Undo brings it back.")


def _name(request: Request, kit: str, swatch: str) -> str:
    return swatch_of(kits_of(request).index(kit), swatch).name


def _offered(request: Request, kit: str) -> list[dict[str, object]]:
    index = kits_of(request).index(kit)
    return swatches_offered(index, shown_way(request, index)[0])


def _recoloured(
    request: Request, kit: str, swatch: str, colour: str
) -> tuple[Callable[[KitIndex], KitIndex], str]:  # fmt: skip
    """Return the change that gives a swatch a typed colour in the colourway shown, and its label."""
    index, wanted = kits_of(request).index(kit), typed_swatch(colour)
    own, (way, _) = swatch_of(index, swatch), shown_way(request, index)
    where = "" if way == DAY else f" in {name_of(index, way)}"
    label = f"Swatch “{own.name}”{where}: {palette(index, way)[swatch]} → {wanted}"
    return lambda newest: coloured(newest, swatch, wanted, way), label


def _changed(request: Request, kit: str, does: Callable[[KitIndex], KitIndex], label: str) -> HTMLResponse:
    return told(request, kit, kits_of(request).change_index(kit, does, label))


def told(request: Request, kit: str, said: str) -> HTMLResponse:
    """The Wall as it is now; every window on the kit hears that there is something new."""
    presence_of(request).tell_kit(kit, {"news": "", "version": 0})
    return wall_block(request, kit, said)
