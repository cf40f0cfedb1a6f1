"""What stands in place of a control or a kit that cannot be shown: why, its history, the way back."""

from __future__ import annotations

from typing import Literal

from fastapi import APIRouter, Request
from starlette.responses import HTMLResponse, Response

from obrell.core.errors import Refused
from obrell.web.pages import page
from obrell.web.services import kits_of, presence_of

router = APIRouter()
UNPROCESSABLE = 422
Way = Literal["back", "forth"]


def lost(request: Request, kit: str, words: str, control: str = "") -> HTMLResponse:
    """The page; of the kit itself when no control is named."""
    kits = kits_of(request)
    context = {
        "view": "lost", "kit": kits.index(kit) if control else None, "control": None, "words": words,
        "name": kits.name_of(kit, control) if control else f"The kit {kit}",
        "address": address_of(kit, control), "steps": kits.history(kit, control),
    }  # fmt: skip
    return page(request, "lost.html", context, UNPROCESSABLE)


def address_of(kit: str, control: str) -> str:
    return f"/kits/{kit}/controls/{control}" if control else f"/kits/{kit}"


@router.post("/kits/{kit}/controls/{control}/versions/{way}")
def control_stepped(request: Request, kit: str, control: str, way: Way) -> Response:
    """A step of the history of a control that cannot be shown, and another look at it."""
    return _stepped(request, kit, control, way)


@router.post("/kits/{kit}/versions/{way}")
def kit_stepped(request: Request, kit: str, way: Way) -> Response:
    """The same of a kit with all its controls."""
    return _stepped(request, kit, "", way)


def _stepped(request: Request, kit: str, control: str, way: Way) -> Response:
    kits = kits_of(request)
    step = kits.undo(kit, control) if way == "back" else kits.redo(kit, control)
    if step is None:
        raise Refused("There is no step left to go to.")
    presence_of(request).tell_kit(kit, {"news": "", "version": 0})
    return Response(headers={"hx-redirect": address_of(kit, control)})
