"""Routes whose modules are read when they are needed, so that a server answers sooner."""

from __future__ import annotations

import warnings
from collections.abc import Callable
from threading import Lock

from fastapi import APIRouter
from fastapi.concurrency import run_in_threadpool
from pydantic.warnings import UnsupportedFieldAttributeWarning
from starlette.types import Receive, Scope, Send

# The framework quiets this one while it reads a route, which other threads can undo meanwhile.
warnings.simplefilter("ignore", UnsupportedFieldAttributeWarning)


class Later:
    """An ASGI application: a router that is read once, at its first request or when it is asked for."""

    def __init__(self, read: Callable[[], APIRouter]) -> None:
        self._read = read
        self._reading = Lock()
        self._router: APIRouter | None = None

    def router(self) -> APIRouter:
        """The router; from any thread."""
        with self._reading:
            if self._router is None:
                self._router = self._read()
            return self._router

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if self._router is None:
            await run_in_threadpool(self.router)
        await self.router()(scope, receive, send)
