"""The colourways of a kit on its Wall: made, renamed, removed; which is shown is in the address."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Form, Request
from starlette.responses import HTMLResponse, Response

from obrell.core.edit.colourways import Way, made_of, name_of, renamed_colourway, with_colourway, without_colourway
from obrell.core.edit.kits import KitIndex
from obrell.core.edit.typed import number_from
from obrell.core.values.fields import Live
from obrell.web.pages import page
from obrell.web.services import kits_of, presence_of
from obrell.web.swatches import told
from obrell.web.wall import WALL, shown_way

router = APIRouter()
COLOURWAYS = WALL + "/colourways"
DEGREES = Live("°")


@router.get(COLOURWAYS + "/new")
def ask_for_new(request: Request, kit: str) -> HTMLResponse:
    """What is asked of a new colourway."""
    index = kits_of(request).index(kit)
    way, _ = shown_way(request, index)
    return page(request, "_colourway_new.html", {"kit": index, "way": way, "way_name": name_of(index, way)})


@router.post(COLOURWAYS)
def add(
    request: Request, kit: str, name: Annotated[str, Form()], source: Annotated[str, Form()] = "day",
    how: Annotated[Way, Form()] = "same", turn: Annotated[str, Form()] = "30",
) -> Response:  # fmt: skip
    """One more, which is shown then."""
    wanted, degrees = name.strip(), number_from(turn, DEGREES) if how == "turned" else 0.0
    made: list[str] = []

    def changed(index: KitIndex) -> KitIndex:
        kit_with, new = with_colourway(index, wanted, made_of(index, source, how, degrees))
        made.append(new)
        return kit_with

    kits_of(request).change_index(kit, changed, f"Added the colourway “{wanted}”")
    presence_of(request).tell_kit(kit, {"news": "", "version": 0})
    return Response(headers={"hx-redirect": f"/kits/{kit}?colourway={made[-1]}"})


@router.post(COLOURWAYS + "/{colourway}/name")
def rename(request: Request, kit: str, colourway: str, name: Annotated[str, Form()]) -> HTMLResponse:
    """Another name, in place."""
    kits, wanted = kits_of(request), name.strip()
    label = f"Renamed the colourway “{name_of(kits.index(kit), colourway)}” to “{wanted}”"
    kits.change_index(kit, lambda index: renamed_colourway(index, colourway, wanted), label)
    return told(request, kit, label)


@router.post(COLOURWAYS + "/{colourway}/remove")
def remove(request: Request, kit: str, colourway: str) -> Response:
    """Taken out; undo brings it back."""
    kits = kits_of(request)
    label = f"Removed the colourway “{name_of(kits.index(kit), colourway)}”"
    kits.change_index(kit, lambda index: without_colourway(index, colourway), label)
    presence_of(request).tell_kit(kit, {"news": "", "version": 0})
    return Response(headers={"hx-redirect": f"/kits/{kit}"})
