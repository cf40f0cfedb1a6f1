"""The application, put together: guards, errors, routes, static files."""

from __future__ import annotations

from pathlib import Path

from fastapi import FastAPI
from fastapi.staticfiles import StaticFiles

from obrell.core.text.fonts import FONT_FOLDER
from obrell.store.kits import Kits
from obrell.web import bench, bringing, colours, deliveries, live, looks, pictures, wall
from obrell.web.failures import install_failures
from obrell.web.guards import Guards
from obrell.web.rooms import Rooms

STATIC = Path(__file__).parent / "static"


def create_app(database: Path) -> FastAPI:
    """The application over one database file."""
    app = FastAPI(title="Obrell", docs_url=None, redoc_url=None, openapi_url=None)
    app.state.kits = Kits(database)
    app.state.rooms = Rooms()
    app.state.deliveries = deliveries.Deliveries()
    for module in (wall, bench, bringing, looks, live, pictures, colours, deliveries):
        app.include_router(module.router)
    app.mount("/static", StaticFiles(directory=STATIC), name="static")
    app.mount("/fonts", StaticFiles(directory=FONT_FOLDER), name="fonts")
    install_failures(app)
    app.add_middleware(Guards)
    return app
