"""The server on the loopback address."""

from __future__ import annotations

import socket
import threading
from pathlib import Path

import typer
import uvicorn

from obrell.core.errors import Refused
from obrell.core.raster.jit import load_all

HOST = "127.0.0.1"
FIRST_PAGE_S = 0.5
"""How long the first page has the machine to itself, before all kernels are read."""
APPLICATION = "obrell.web.app:create_app"
"""Named by string, so that the command line and the interface stay apart."""


def run(data: Path, port: int) -> None:
    """Serve until stopped; prints the address once the port is open."""
    listener = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
    listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listener.bind((HOST, port))
    except OSError as error:
        raise Refused(f"Port {port} is taken. Another one will do: --port {port + 1}.") from error
    listener.listen(128)
    create_app = uvicorn.importer.import_from_string(APPLICATION)
    config = uvicorn.Config(
        create_app(data), log_level="warning", ws="websockets-sansio", ws_per_message_deflate=False,
        ws_max_size=2_100_000,
    )  # fmt: skip
    loading = threading.Timer(FIRST_PAGE_S, load_all)
    loading.daemon = True
    loading.start()
    typer.echo(f"Obrell is at http://{HOST}:{listener.getsockname()[1]}/")
    uvicorn.Server(config).run(sockets=[listener])
