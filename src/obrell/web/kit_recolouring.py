"""Several controls of a kit recoloured together: tried on the Wall, and the ways to keep some hues."""

from __future__ import annotations

from itertools import islice
from typing import Annotated, Any

from fastapi import APIRouter, Body, Query, Request
from starlette.responses import HTMLResponse

from obrell.app import recolouring
from obrell.app.recolouring import Look, contrast_changes, recoloured
from obrell.core.document.model import MAX_CONTROLS
from obrell.core.document.resolve import DAY, colourway_or_day
from obrell.core.values.fields import Id, Name
from obrell.web.hues import Edits, Picture, Sheet, Tried, Wished, hue_edit, small
from obrell.web.pages import page
from obrell.web.pictures import picture_address
from obrell.web.reading import said
from obrell.web.selection import Colourway
from obrell.web.services import cache_of, kits_of
from obrell.web.swatches import told
from obrell.web.wall import WALL

router = APIRouter()
READ_TOGETHER = 24
"""Controls whose labels are measured for the sheet."""
Controls = Annotated[list[Id], Body(max_length=MAX_CONTROLS)]


@router.get(WALL + "/recolour")
def of_kit(
    request: Request, kit: str, wish: Wished, controls: Annotated[str | None, Query(max_length=200_000)] = None,
    colourway: Colourway = DAY,
) -> HTMLResponse:  # fmt: skip
    """The sheet of hues for several controls, by their ids with commas between, or for all of the kit. Its pictures
    show the first control that a hue changes; the Wall shows all of them."""
    kits = kits_of(request)
    index, stored, hash_ = kits.index(kit), kits.controls(kit), kits.index_hash(kit)
    asked = None if controls is None else set(controls.split(","))
    wanted = [one for one in stored if asked is None or one.control.id in asked]
    way = colourway_or_day(index, colourway)
    sheet = Sheet.of(index, [one.control for one in wanted], wish, way)
    first = next((one for one in wanted if sheet.changes(one.control)), next(iter(wanted), None))

    def picture(tried: Tried) -> Picture:
        if first is None:
            return "", 0, 0
        density, wide, high = small(first.control.canvas)
        return picture_address(hash_, first.hash, density, colourway=way, **tried), wide, high

    context = sheet.context(picture) | {
        "kit": index, "control": None, "controls": stored, "wanted": {one.control.id for one in wanted},
    }  # fmt: skip
    return page(request, "_recolour.html", context)


@router.post(WALL + "/recolour/contrast")
def contrast(
    request: Request, kit: str, controls: Controls, edit: Annotated[Any, Body()],
    colourway: Annotated[str, Body(max_length=40)] = DAY,
) -> HTMLResponse:  # fmt: skip
    """How an edit changes the contrast of labels, on the first controls that it changes."""
    kits = kits_of(request)
    index, read = kits.index(kit), hue_edit(edit)
    wanted = set(controls)
    there = (one.control for one in kits.controls(kit) if one.control.id in wanted)
    turned = islice((one for one in there if recoloured(read, one, index) != one), READ_TOGETHER)
    look = Look(colourway=colourway_or_day(index, colourway))
    rows = [
        (one.after < one.before, f"{each.name}: {said(one)}")
        for each in turned
        for one in contrast_changes(index, each, read, look, cache_of(request))
    ]
    return page(request, "_contrasts.html", {"rows": rows})


@router.post(WALL + "/recolour")
def recolour_kit(request: Request, kit: str, controls: Controls, edit: Annotated[Any, Body()]) -> HTMLResponse:
    """Several controls turned or tinted, as one step."""
    return told(request, kit, recolouring.recolour_controls(kits_of(request), kit, controls, hue_edit(edit)))


@router.post(WALL + "/recolour/colourway")
def as_colourways(
    request: Request, kit: str, controls: Controls, edits: Edits, name: Annotated[Name, Body()],
    colourway: Annotated[str, Body(max_length=40)] = DAY,
) -> HTMLResponse:  # fmt: skip
    """Kept as colourways, made of the one that is seen."""
    kits = kits_of(request)
    way = colourway_or_day(kits.index(kit), colourway)
    read = [hue_edit(one) for one in edits]
    _, done = recolouring.keep_as_colourways(kits, kit, controls, read, name, way)
    return told(request, kit, done)


@router.post(WALL + "/recolour/control")
def as_controls(
    request: Request, kit: str, controls: Controls, edits: Edits, name: Annotated[Name, Body()]
) -> HTMLResponse:  # fmt: skip
    """Kept as new controls, each behind the one that it is made of."""
    read = [hue_edit(one) for one in edits]
    _, done = recolouring.keep_as_controls(kits_of(request), kit, controls, read, name)
    return told(request, kit, done)
