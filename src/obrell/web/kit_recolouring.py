"""Several controls of a kit recoloured together: tried on the Wall, and the ways to keep some hues."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, Body, Query, Request
from starlette.responses import HTMLResponse

from obrell.app import recolouring
from obrell.app.recolouring import Look, contrast_changes
from obrell.app.swatches import change_all
from obrell.core.document.model import MAX_CONTROLS
from obrell.core.document.resolve import DAY, colourway_or_day
from obrell.core.errors import BadValue
from obrell.core.values.fields import Id, Name
from obrell.web.hues import Edits, Picture, Sheet, Tried, Wished, changes, hue_edit
from obrell.web.pages import page
from obrell.web.pictures import picture_address
from obrell.web.reading import said
from obrell.web.scales import scale_in
from obrell.web.selection import Colourway
from obrell.web.services import cache_of, kits_of
from obrell.web.swatches import told
from obrell.web.wall import WALL

router = APIRouter()
WIDTH_PX, HEIGHT_PX = 116.0, 64.0
"""Logical px that the control has on which each hue is shown."""
READ_TOGETHER = 24
"""Controls whose labels are measured for the sheet."""
Controls = Annotated[list[Id], Body(max_length=MAX_CONTROLS)]


@router.get(WALL + "/recolour")
def of_kit(
    request: Request, kit: str, wish: Wished, controls: Annotated[str | None, Query(max_length=200_000)] = None,
    colourway: Colourway = DAY,
) -> HTMLResponse:  # fmt: skip
    """The sheet of hues for several controls, with commas between; all of the kit unless some are chosen. Each hue is
    shown on the first control that it changes: the Wall shows all."""
    kits = kits_of(request)
    index, stored, hash_ = kits.index(kit), kits.controls(kit), kits.index_hash(kit)
    asked = None if controls is None else set(controls.split(","))
    wanted = [one for one in stored if asked is None or one.control.id in asked]
    way = colourway_or_day(index, colourway)
    sheet = Sheet(index, [one.control for one in wanted], wish, way)
    chosen = set(sheet.chosen(sheet.groups()))
    first = next((one for one in wanted if sheet.turns(one.control, chosen)), next(iter(wanted), None))

    def picture(tried: Tried) -> Picture:
        if first is None:
            return "", 0, 0
        canvas = first.control.canvas
        scale = round(scale_in(canvas.width, canvas.height, WIDTH_PX, HEIGHT_PX), 3)
        address = picture_address(hash_, first.hash, max(0.05, scale * 2), colourway=way, **tried)
        return address, round(canvas.width * scale), round(canvas.height * scale)

    context = sheet.context(picture) | {
        "kit": index, "control": None, "controls": stored, "wanted": {one.control.id for one in wanted},
    }  # fmt: skip
    return page(request, "_recolour.html", context)


@router.post(WALL + "/recolour/contrast")
def contrast(
    request: Request, kit: str, controls: Controls, edit: Annotated[Any, Body()],
    colourway: Annotated[str, Body(max_length=40)] = DAY,
) -> HTMLResponse:  # fmt: skip
    """What that does to what is read on the controls, the first of them."""
    kits = kits_of(request)
    index, read = kits.index(kit), hue_edit(edit)
    there = [one.control for one in kits.controls(kit) if one.control.id in set(controls)]
    turned = [one for one in there if one.parts and changes(read, one, index)][:READ_TOGETHER]
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
    kits, read = kits_of(request), hue_edit(edit)
    first = kits.control(kit, _some(controls)[0]).control
    return told(request, kit, change_all(kits, kit, read, read.label(first), controls))


@router.post(WALL + "/recolour/colourway")
def as_colourways(
    request: Request, kit: str, controls: Controls, edits: Edits, name: Annotated[Name, Body()],
    colourway: Annotated[str, Body(max_length=40)] = DAY,
) -> HTMLResponse:  # fmt: skip
    """Kept as colourways, made of the one that is seen."""
    kits = kits_of(request)
    way = colourway_or_day(kits.index(kit), colourway)
    read = [hue_edit(one) for one in edits]
    _, done = recolouring.keep_as_colourways(kits, kit, _some(controls), read, name.strip(), way)
    return told(request, kit, done)


@router.post(WALL + "/recolour/control")
def as_controls(
    request: Request, kit: str, controls: Controls, edits: Edits, name: Annotated[Name, Body()]
) -> HTMLResponse:  # fmt: skip
    """Kept as new controls, each behind the one that it is made of."""
    read = [hue_edit(one) for one in edits]
    _, done = recolouring.keep_as_controls(kits_of(request), kit, _some(controls), read, name.strip())
    return told(request, kit, done)


def _some(controls: list[str]) -> list[str]:
    if not controls:
        raise BadValue("Tick at least one control.", "controls")
    return controls
