"""Recolouring a control: twelve hues of the very art, tried on the stage, and the ways to keep some."""

from __future__ import annotations

from dataclasses import asdict
from typing import Annotated

from fastapi import APIRouter, Body, Request
from starlette.responses import HTMLResponse

from obrell.app import recolouring
from obrell.core.document.resolve import DAY, colourway_or_day
from obrell.core.values.fields import Name
from obrell.web.bench import BENCH
from obrell.web.hues import Edits, Picture, Sheet, Tried, Wished, hue_edit, small
from obrell.web.pages import page
from obrell.web.pictures import picture_address
from obrell.web.selection import NOTHING, Asked, Colourway, Selection
from obrell.web.services import kits_of, presence_of

router = APIRouter()


@router.get(BENCH + "/recolour")
def recolour(
    request: Request, kit: str, control: str, drawn: Asked, wish: Wished, colourway: Colourway = DAY
) -> HTMLResponse:  # fmt: skip
    """The sheet of hues for groups of colours, those of the main role unless others are chosen."""
    kits = kits_of(request)
    stored, index = kits.control(kit, control), kits.index(kit)
    shown, way = drawn.look(stored), colourway_or_day(index, colourway)
    density, wide, high = small(shown.canvas)
    around = {"colourway": way, **asdict(drawn)}

    def picture(tried: Tried) -> Picture:
        return picture_address(kits.index_hash(kit), stored.hash, density, **around, **tried), wide, high

    context = Sheet.of(index, [shown], wish, way).context(picture)
    return page(request, "_recolour.html", context | {"kit": index, "control": stored.control, "controls": ()})


@router.post(BENCH + "/recolour/colourway")
def as_colourways(
    request: Request, kit: str, control: str, edits: Edits, name: Annotated[Name, Body()],
    seen: Annotated[Selection, Body()] = NOTHING,
) -> dict[str, object]:  # fmt: skip
    """Kept as colourways, made of the one that is seen; their ids, and what was done."""
    kits = kits_of(request)
    way = seen.way(kits.index(kit))
    made, said = recolouring.keep_as_colourways(kits, kit, [control], [hue_edit(one) for one in edits], name, way)
    presence_of(request).tell_kit(kit, {"news": "", "version": 0})
    return {"ids": made, "said": said}


@router.post(BENCH + "/recolour/control")
def as_controls(
    request: Request, kit: str, control: str, edits: Edits, name: Annotated[Name, Body()]
) -> dict[str, object]:  # fmt: skip
    """Kept as new controls; their ids, and what was done."""
    made, said = recolouring.keep_as_controls(kits_of(request), kit, [control], [hue_edit(one) for one in edits], name)
    presence_of(request).tell((kit, ""), {"news": ""})
    return {"ids": made, "said": said}
