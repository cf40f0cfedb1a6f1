"""The application, put together: guards, errors, routes, static files."""

from __future__ import annotations

from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from pathlib import Path
from threading import Semaphore

from anyio.to_thread import current_default_thread_limiter
from fastapi import APIRouter, FastAPI
from fastapi.staticfiles import StaticFiles

from obrell.app.delivering import Deliveries
from obrell.app.memory import Memory, bound_from_environment
from obrell.core.raster.compiling import Compilation
from obrell.core.text.fonts import FONT_FOLDER
from obrell.core.workspace import Workspace
from obrell.store.kits import Kits
from obrell.web import pictures, preparing, wall, wall_live
from obrell.web.assets import STATIC, Assets
from obrell.web.failures import install_failures
from obrell.web.guards import Guards
from obrell.web.later import Later
from obrell.web.parcels import Parcels
from obrell.web.presence import Presence
from obrell.web.work import AtWork

EDITS_AT_ONCE = 3
THREADS = 100
"""Requests under way at once; most wait for the disk or for their turn to draw."""


def create_app(database: Path, compilation: Compilation | None = None) -> FastAPI:
    """The application over one database file; its pages say how far a compilation of the kernels is."""
    app = FastAPI(title="Obrell", docs_url=None, redoc_url=None, openapi_url=None, lifespan=_living)
    app.state.kits = Kits(database)
    app.state.compilation = compilation
    app.state.presence = Presence()
    app.state.parcels = Parcels()
    app.state.turns = Semaphore(EDITS_AT_ONCE)
    workspace = Workspace(app.state.kits.file)
    app.state.memory = Memory(bound_from_environment(), workspace)
    app.state.deliveries = Deliveries(app.state.memory)
    for module in (wall, wall_live, pictures, preparing):
        app.include_router(module.router)
    app.mount("/static", Assets(directory=STATIC), name="static")
    app.mount("/fonts", StaticFiles(directory=FONT_FOLDER), name="fonts")
    app.state.rooms = Later(_rooms)
    app.mount("", app.state.rooms)
    install_failures(app)
    app.add_middleware(AtWork, workspace=workspace)
    app.add_middleware(Guards)
    return app


def _rooms() -> APIRouter:
    # Read when the first page is there: it takes a fifth of a start.
    from obrell.web.rooms import router

    return router


@asynccontextmanager
async def _living(app: FastAPI) -> AsyncIterator[None]:
    """When it ends, nothing is left behind but the one database file."""
    current_default_thread_limiter().total_tokens = THREADS
    yield
    app.state.deliveries.close()
    app.state.memory.close()
    app.state.kits.close()
