"""What is said while the kernels are compiled, at the very first start of a version."""

from __future__ import annotations

from fastapi import APIRouter, Request
from starlette.responses import HTMLResponse

from obrell.web.pages import block, preparing_of

router = APIRouter()


@router.get("/preparing")
def preparing(request: Request) -> HTMLResponse:
    """How far it is; nothing any more once everything can be drawn."""
    return HTMLResponse(block("_preparing.html", {"preparing": preparing_of(request)}))
