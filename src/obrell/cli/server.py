"""The server on the loopback address."""

from __future__ import annotations

import errno
import socket
import sys
import threading
from pathlib import Path

import typer
import uvicorn
from fastapi import FastAPI

from obrell.cli.starting import uncollected
from obrell.core.aside import warm_up
from obrell.core.errors import Refused
from obrell.core.raster.compiling import Compilation
from obrell.core.raster.jit import load_all

HOST = "127.0.0.1"
LAST_PORT = 65535
GRACE_S = 3
"""How long open windows may hold up the end."""
SWITCH_S = 0.0005
"""How long one thread may hold up another that wants the interpreter: a frame wants it some sixty times."""
FIRST_PAGE_S = 0.5
"""How long the first page has the machine to itself, before all kernels are read."""
APPLICATION = "obrell.web.app:create_app"
"""Named by string, so that the command line and the interface stay apart."""


def _get_ready(application: FastAPI) -> None:
    """What the first page does without and the next will need."""
    application.state.rooms.router()
    warm_up()
    load_all()


def run(data: Path, port: int, compilation: Compilation | None = None) -> None:
    """Serve until stopped; prints the address once the port is open. Pages say how far a compilation is."""
    if not 0 <= port <= LAST_PORT:
        raise Refused(f"There is no port {port}: they go from 1 to {LAST_PORT}, and 0 is any that is free.")
    listener = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
    listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listener.bind((HOST, port))
    except OSError as error:
        why = "is taken" if error.errno == errno.EADDRINUSE else f"cannot be used ({error.strerror})"
        other = port + 1 if 1024 <= port < LAST_PORT else 8421
        raise Refused(f"Port {port} {why}. Another one will do: --port {other}.") from error
    sys.setswitchinterval(SWITCH_S)
    listener.listen(128)
    with uncollected():
        application = uvicorn.importer.import_from_string(APPLICATION)(data, compilation)
    config = uvicorn.Config(
        application, log_level="warning", ws="websockets-sansio", ws_per_message_deflate=False,
        ws_max_size=1_100_000, timeout_graceful_shutdown=GRACE_S,
    )  # fmt: skip
    loading = threading.Timer(FIRST_PAGE_S, _get_ready, [application])
    loading.daemon = True
    loading.start()
    typer.echo(f"Obrell is at http://{HOST}:{listener.getsockname()[1]}/")
    uvicorn.Server(config).run(sockets=[listener])
