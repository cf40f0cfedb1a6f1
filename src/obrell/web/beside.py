"""All states of a control beside each other, and where each differs from rest."""

from __future__ import annotations

from fastapi import APIRouter, Request
from starlette.responses import HTMLResponse

from obrell.core.document.model import REST
from obrell.core.document.resolve import DAY, colourway_or_day
from obrell.web.bench import BENCH
from obrell.web.pages import page
from obrell.web.pictures import Dressed
from obrell.web.scales import scale_in
from obrell.web.selection import Asked, Colourway
from obrell.web.services import kits_of

router = APIRouter()
WIDTH, HEIGHT = 152.0, 110.0
"""Logical px that each has."""


@router.get(BENCH + "/beside")
def beside(
    request: Request, kit: str, control: str, drawn: Asked, colourway: Colourway = DAY, differences: bool = False
) -> HTMLResponse:  # fmt: skip
    """The states, rest first; with their ``differences`` from rest in place of themselves."""
    kits = kits_of(request)
    stored, settings = drawn.edition(kits.control(kit, control)), kits.index(kit).settings()
    way, canvas = colourway_or_day(settings, colourway), stored.control.canvas
    scale = scale_in(canvas.width, canvas.height, WIDTH, HEIGHT)
    density = round(2 * scale, 3)

    def picture(state: str) -> str:
        more = {"against": 1} if differences and state != REST else {}
        return Dressed(kit, settings, way, state, editions=drawn.editions).stored(stored, density, **more)

    named = [(REST, "Rest"), *((one.id, one.name) for one in stored.control.states)]
    context = {
        "control": stored.control, "differences": differences,
        "states": [(ident, name, picture(ident)) for ident, name in named],
        "width": round(canvas.width * scale), "height": round(canvas.height * scale),
    }  # fmt: skip
    return page(request, "_beside.html", context)
