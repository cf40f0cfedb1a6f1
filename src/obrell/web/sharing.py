"""A state of one control, made for others: seen on each before it is."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Body, Request
from starlette.responses import HTMLResponse

from obrell.app.sharing import Taker, share, takers
from obrell.core.document.model import REST
from obrell.core.document.states import state_of
from obrell.core.errors import Refused
from obrell.core.values.fields import Id
from obrell.web.bench import BENCH
from obrell.web.pages import page
from obrell.web.pictures import picture_address
from obrell.web.scales import scale_in
from obrell.web.selection import StateName
from obrell.web.services import kits_of, presence_of

router = APIRouter()
WIDTH, HEIGHT = 150.0, 84.0
"""Logical px that each has."""


@router.get(BENCH + "/share")
def offered(request: Request, kit: str, control: str, state: StateName = REST) -> HTMLResponse:
    """The other controls of the kit, each with the state that is drawn."""
    kits = kits_of(request)
    stored, hash_ = kits.control(kit, control), kits.index_hash(kit)
    if state == REST:
        raise Refused("Draw the state first that others are to have.")
    found = state_of(stored.control, state)

    def picture(taker: Taker) -> tuple[str, int, int]:
        canvas = taker.stored.control.canvas
        scale = scale_in(canvas.width, canvas.height, WIDTH, HEIGHT)
        with_it = {} if taker.why_not else {"like": stored.hash, "state": state}
        size = round(canvas.width * scale), round(canvas.height * scale)
        return picture_address(hash_, taker.stored.hash, round(2 * scale, 3), **with_it), *size

    context = {
        "control": stored.control, "state": found, "count": len(found.differences),
        "takers": [(taker, *picture(taker)) for taker in takers(kits, kit, control, state)],
    }  # fmt: skip
    return page(request, "_share.html", context)


@router.post(BENCH + "/share")
def shared(
    request: Request, kit: str, control: str, state: Annotated[StateName, Body()],
    onto: Annotated[list[Id], Body(max_length=1000)],
) -> dict[str, str]:  # fmt: skip
    """Made for those that were chosen, as one step; what was done."""
    said = share(kits_of(request), kit, control, state, onto)
    presence_of(request).tell_kit(kit, {"news": "", "version": 0})
    return {"said": said}
