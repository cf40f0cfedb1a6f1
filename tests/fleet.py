"""Servers that start at once: one process reads all modules and kernels, and every server is a fork of it.

Run as a module. Each line that it is told is a port and a database file; it answers with the process, and the server
says on the same stream when it is there.
"""

import os
import signal
import subprocess
import sys
from functools import cache
from pathlib import Path
from typing import Any

from fastapi import FastAPI

from obrell.cli.main import main
from obrell.core.raster.jit import load_all
from obrell.web import app
from obrell.web.pages import TEMPLATES
from tests.late import Late


class Fleet:
    """The process that servers are forks of."""

    def __init__(self) -> None:
        command = [sys.executable, "-m", "tests.fleet"]
        self._process = subprocess.Popen(command, stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True)

    def start(self, port: int, data: Path) -> int:
        """A server that answers at a port of the loopback address; its process."""
        assert self._process.stdin is not None
        assert self._process.stdout is not None
        self._process.stdin.write(f"{port} {data}\n")
        self._process.stdin.flush()
        said = sorted(self._process.stdout.readline() for _ in range(2))
        assert said[1].startswith("Obrell is at"), said
        return int(said[0])


@cache
def fleet() -> Fleet:
    """The one of this process; it ends with it."""
    return Fleet()


def serve(port: str, data: str) -> None:
    """As ``obrell demo`` does, until it is killed."""
    signal.signal(signal.SIGCHLD, signal.SIG_DFL)
    os.environ["OBRELL_DATA"] = data
    make = app.create_app

    def made_late(database: Path, *more: Any) -> FastAPI:
        application = make(database, *more)
        application.add_middleware(Late, data=Path(data))
        return application

    app.create_app = made_late
    sys.argv = ["obrell", "demo", "--port", port]
    os.close(0)
    main()


def wait_for_orders() -> None:
    """Fork for every line, until there are no more."""
    # Ended servers are not waited for.
    signal.signal(signal.SIGCHLD, signal.SIG_IGN)
    assert app
    load_all()
    for name in TEMPLATES.list_templates(extensions=["html"]):
        TEMPLATES.get_template(name)
    for line in iter(sys.stdin.readline, ""):
        port, _, data = line.strip().partition(" ")
        process = os.fork()
        if process == 0:
            serve(port, data)
            os._exit(0)
        print(process, flush=True)


if __name__ == "__main__":
    wait_for_orders()
