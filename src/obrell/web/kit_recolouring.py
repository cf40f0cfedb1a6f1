"""Several controls of a kit turned in hue together."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, Query, Request
from starlette.responses import HTMLResponse

from obrell.app.recolouring import Look, contrast_changes
from obrell.app.swatches import change_all
from obrell.core.document.resolve import DAY, colourway_or_day, palette
from obrell.core.edit import Surroundings, read_edit
from obrell.core.edit.recolour import groups_of, hues_from, turns, usual
from obrell.core.errors import BadValue
from obrell.store.kits import Stored
from obrell.web.pages import page
from obrell.web.pictures import picture_address
from obrell.web.reading import said
from obrell.web.scales import scale_in
from obrell.web.selection import Colourway
from obrell.web.services import Form as WholeForm
from obrell.web.services import cache_of, kits_of
from obrell.web.swatches import told
from obrell.web.wall import WALL

router = APIRouter()
SMALL_PX = 76.0
READ_TOGETHER = 24
"""Controls whose labels are measured for the sheet."""
SHOWN_TOGETHER = 3
"""Controls that each hue is shown on, and the longer side of each, logical px."""


@router.get(WALL + "/recolour")
def of_kit(
    request: Request, kit: str, control: Annotated[list[str] | None, Query()] = None,
    group: Annotated[list[str] | None, Query()] = None, strength: Annotated[float, Query(ge=0, le=4)] = 1.0,
    colourway: Colourway = DAY,
) -> HTMLResponse:  # fmt: skip
    """The sheet of hues for several controls; all of the kit unless some are chosen."""
    kits = kits_of(request)
    index, stored = kits.index(kit), kits.controls(kit)
    wanted = [one for one in stored if control is None or one.control.id in control]
    found = groups_of([one.control for one in wanted], Surroundings.of(index).swatches)
    chosen = tuple(group) if group is not None else usual(found)
    way = colourway_or_day(index, colourway)
    base = {"groups": ",".join(chosen), "strength": strength, "colourway": way}
    seen = [one for one in wanted if turns(one.control, chosen, palette(index))][:SHOWN_TOGETHER]
    hues = hues_from(seen[0].control, chosen, palette(index)) if seen else []
    hash_ = kits.index_hash(kit)
    tiles = [(f"{one:g}°", one, [_small(hash_, other, base | {"to_hue": one}) for other in seen]) for one in hues]
    context = {
        "kit": index, "controls": stored, "wanted": {one.control.id for one in wanted}, "groups": found,
        "chosen": chosen, "strength": strength, "tiles": tiles, "way": way,
    }  # fmt: skip
    return page(request, "_recolour_kit.html", context)


def _small(index: str, stored: Stored, query: dict[str, Any]) -> tuple[str, int, int]:
    """A picture for the sheet of several controls, and how wide and high it is shown."""
    canvas = stored.control.canvas
    scale = round(scale_in(canvas.width, canvas.height, SMALL_PX, SMALL_PX), 3)
    size = round(canvas.width * scale), round(canvas.height * scale)
    return picture_address(index, stored.hash, max(0.05, scale * 2), **query), *size


@router.get(WALL + "/recolour/contrast")
def contrast(
    request: Request, kit: str, control: Annotated[list[str], Query()], group: Annotated[list[str], Query()],
    to_hue: float, strength: Annotated[float, Query(ge=0, le=4)] = 1.0, colourway: Colourway = DAY,
) -> HTMLResponse:  # fmt: skip
    """What that does to what is read on the controls, those that are shown first."""
    kits = kits_of(request)
    index = kits.index(kit)
    edit = read_edit({"kind": "recolour", "groups": group, "to_hue": to_hue, "strength": strength})
    there = [one.control for one in kits.controls(kit) if one.control.id in control]
    turned = [one for one in there if turns(one, group, palette(index))][:READ_TOGETHER]
    look = Look(colourway=colourway_or_day(index, colourway))
    rows = [
        (one.after < one.before, f"{each.name}: {said(one)}")
        for each in turned
        for one in contrast_changes(index, each, edit, look, cache_of(request))
    ]
    return page(request, "_contrasts.html", {"rows": rows})


@router.post(WALL + "/recolour")
def recolour_kit(request: Request, kit: str, fields: WholeForm) -> HTMLResponse:
    """Several controls turned to a hue, as one step."""
    chosen = [str(one) for one in fields.getlist("control")]
    values = {"kind": "recolour", "groups": fields.getlist("group"), "to_hue": fields.get("to_hue") or None}
    if not chosen or values["to_hue"] is None:
        raise BadValue("Choose a hue." if chosen else "Choose at least one control.", "to_hue")
    edit = read_edit(values | {"strength": fields.get("strength", 1)})
    label = change_all(kits_of(request), kit, edit, f"Recoloured to {fields['to_hue']}°", chosen)
    return told(request, kit, label)
