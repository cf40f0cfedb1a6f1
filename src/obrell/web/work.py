"""Requests are answered within the workspace of this application."""

from __future__ import annotations

from starlette.types import ASGIApp, Receive, Scope, Send

from obrell.core.workspace import Workspace


class AtWork:
    """Enters a workspace for every request; the threads that routes run in begin with it."""

    def __init__(self, app: ASGIApp, workspace: Workspace) -> None:
        self.app, self.workspace = app, workspace

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        with self.workspace.entered():
            await self.app(scope, receive, send)
