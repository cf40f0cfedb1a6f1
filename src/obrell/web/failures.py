"""The core's errors as responses: the right status, and words at the place where it happened."""

from __future__ import annotations

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from pydantic import BaseModel, ValidationError
from starlette.exceptions import HTTPException
from starlette.responses import JSONResponse, Response

from obrell.core.errors import BadDocument, NoSuchThing, ObrellError, Refused, TooLarge
from obrell.core.values.base import bad_value
from obrell.core.values.wrong import in_words
from obrell.store.failures import StoreBusy, StoreDamaged, StoreFailed
from obrell.web.pages import page

OURS = "Something went wrong; it is our fault, and it is logged. Nothing was changed."
STATUSES: tuple[tuple[type[ObrellError], int], ...] = (
    (NoSuchThing, 404), (TooLarge, 413), (BadDocument, 422), (Refused, 422), (StoreBusy, 503), (StoreDamaged, 500),
    (StoreFailed, 507),
    (ObrellError, 500),
)  # fmt: skip
"""The first that fits, most specific first."""


def install_failures(app: FastAPI) -> None:
    """Turn errors into words, for pages and for requests from a page."""

    @app.exception_handler(ObrellError)
    def refused(request: Request, error: ObrellError) -> Response:
        status = next(status for kind, status in STATUSES if isinstance(error, kind))
        return _answer(request, status, str(error))

    @app.exception_handler(RequestValidationError)
    def malformed(request: Request, error: RequestValidationError) -> Response:
        first = error.errors()[0]
        name = str(first["loc"][-1]).replace("_", " ")[:60]
        return _answer(request, 422, f"{name[:1].upper()}{name[1:]}: {in_words(first)}")

    @app.exception_handler(ValidationError)
    def senseless(request: Request, error: ValidationError) -> Response:
        return _answer(request, 422, str(bad_value(error, BaseModel)))

    @app.exception_handler(Exception)
    def ours(request: Request, _: Exception) -> Response:
        return _answer(request, 500, OURS)

    @app.exception_handler(HTTPException)
    def missing(request: Request, error: HTTPException) -> Response:
        words = "There is no such page here." if error.status_code == 404 else str(error.detail)
        return _answer(request, error.status_code, words)


def _answer(request: Request, status: int, words: str) -> Response:
    """JSON for scripts, a page for people who followed a link."""
    wants_page = "text/html" in request.headers.get("accept", "")
    if request.method == "GET" and wants_page and "hx-request" not in request.headers:
        return page(request, "failure.html", {"words": words}, status)
    return JSONResponse({"words": words}, status)
