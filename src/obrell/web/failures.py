"""The core's errors as responses: the right status, and words at the place where it happened."""

from __future__ import annotations

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from starlette.exceptions import HTTPException
from starlette.responses import JSONResponse, Response

from obrell.core.errors import BadDocument, NoSuchThing, ObrellError, Refused, TooLarge
from obrell.store.failures import StoreBusy, StoreDamaged, StoreFailed
from obrell.web.pages import page

STATUSES: tuple[tuple[type[ObrellError], int], ...] = (
    (NoSuchThing, 404), (TooLarge, 413), (BadDocument, 422), (Refused, 422), (StoreBusy, 503), (StoreDamaged, 500),
    (StoreFailed, 507),
    (ObrellError, 500),
)  # fmt: skip
"""The first that fits, most specific first."""


def install_failures(app: FastAPI) -> None:
    """Turn errors into words, for pages and for requests from a page."""

    @app.exception_handler(ObrellError)
    async def refused(request: Request, error: ObrellError) -> Response:
        status = next(status for kind, status in STATUSES if isinstance(error, kind))
        return _answer(request, status, str(error))

    @app.exception_handler(RequestValidationError)
    async def malformed(request: Request, error: RequestValidationError) -> Response:
        first = error.errors()[0]
        return _answer(request, 422, f"{first['loc'][-1]}: {first['msg'].lower()}.".capitalize())

    @app.exception_handler(HTTPException)
    async def missing(request: Request, error: HTTPException) -> Response:
        words = "There is no such page here." if error.status_code == 404 else str(error.detail)
        return _answer(request, error.status_code, words)


def _answer(request: Request, status: int, words: str) -> Response:
    """JSON for scripts, a page for people who followed a link."""
    wants_page = "text/html" in request.headers.get("accept", "")
    if request.method == "GET" and wants_page and "hx-request" not in request.headers:
        return page(request, "failure.html", {"words": words}, status)
    return JSONResponse({"words": words}, status)
