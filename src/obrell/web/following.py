"""Colours that could follow swatches: of a part, of a control, of the kit."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Annotated, Any

from fastapi import APIRouter, Body, Query, Request
from starlette.responses import HTMLResponse

from obrell.app import swatches
from obrell.core.colour.links import literal
from obrell.core.document.model import Control, KitSettings
from obrell.core.document.resolve import palette
from obrell.core.document.tree import descendants
from obrell.core.edit import read_edit
from obrell.core.edit.base import names_of
from obrell.core.edit.colours import Proposal, literals_of, proposals
from obrell.core.geometry.svgdata import number
from obrell.core.values.colours import link_words
from obrell.web.bench import BENCH
from obrell.web.pages import page
from obrell.web.selection import Asked
from obrell.web.services import kits_of, presence_of
from obrell.web.wall import WALL, wall_block

router = APIRouter()
PLAIN = ("#ffffff", "#000000")
"""Colours that are not ticked."""
TICKED = 3.0
"""CIEDE2000 up to which following is proposed as ticked."""


@router.get(BENCH + "/follow")
def of_control(
    request: Request, kit: str, control: str, drawn: Asked, part: Annotated[str, Query(max_length=50_000)] = ""
) -> HTMLResponse:  # fmt: skip
    """What of a control, or of some of its parts, has colours of its own."""
    kits = kits_of(request)
    shown, index = drawn.look(kits.control(kit, control)), kits.index(kit)
    there = {one.id for one in shown.parts}
    parts = [name for name in part.split(",") if name in there]
    whose = names_of(shown, parts) if parts else shown.name
    return _page(request, index, [shown], sorted(descendants(shown, parts)), whose)


@router.get(WALL + "/follow")
def of_kit(request: Request, kit: str) -> HTMLResponse:
    """What of all controls has colours of its own."""
    kits = kits_of(request)
    controls = [stored.control for stored in kits.controls(kit)]
    return _page(request, kits.index(kit), controls, (), "all of the kit")


@router.post(WALL + "/follow")
def follow(request: Request, kit: str, links: Annotated[dict[str, Any], Body(embed=True)]) -> HTMLResponse:
    """Literal colours of all controls follow from now on, as one step."""
    edit = read_edit({"kind": "follow-swatches", "links": links})
    label = swatches.change_all(kits_of(request), kit, edit, "Let colours of the kit follow swatches")
    presence_of(request).tell_kit(kit, {"news": "", "version": 0})
    return wall_block(request, kit, label)


def _page(
    request: Request, index: KitSettings, controls: Sequence[Control], parts: Sequence[str], whose: str
) -> HTMLResponse:  # fmt: skip
    colours, names = palette(index), {swatch.id: swatch.name for swatch in index.swatches}
    rows = [_row(one, colours, names) for one in proposals(literals_of(controls, parts), colours)]
    context = {"kit": index, "rows": rows, "parts": parts, "whose": whose, "swatches": index.swatches}
    return page(request, "_follow.html", context)


def _row(one: Proposal, colours: Mapping[str, str], names: Mapping[str, str]) -> dict[str, object]:
    link = one.match.link
    return {
        "colours": one.colours, "count": one.count, "seen": literal(link, colours), "words": link_words(link, names),
        "remains": number(round(one.match.remains, 1)),
        "ticked": one.match.remains <= TICKED and one.colours[0] not in PLAIN,
        "links": {colour: link.model_dump(mode="json") for colour in one.colours},
    }  # fmt: skip
