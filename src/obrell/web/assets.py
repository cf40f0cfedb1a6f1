"""Scripts, styles and pictures that ship with the application, under addresses that change when any of them does, so
that a browser asks for each of them once."""

from __future__ import annotations

import hashlib
from pathlib import Path

from fastapi.staticfiles import StaticFiles
from starlette.responses import Response
from starlette.types import Scope

STATIC = Path(__file__).parent / "static"
FOR_EVER = {"cache-control": "public, max-age=31536000, immutable"}
"""Of what never changes below its address."""


def _version() -> str:
    known = hashlib.blake2b(digest_size=8)
    for file in sorted(one for one in STATIC.rglob("*") if one.is_file()):
        known.update(f"{file.relative_to(STATIC)} {file.stat().st_size} ".encode() + file.read_bytes())
    return known.hexdigest()


VERSION = _version()
ASSETS = f"/static/{VERSION}"
"""Where they are found."""


class Assets(StaticFiles):
    """The files, below any version: what a page that is open since an earlier one asks for is answered too."""

    def get_path(self, scope: Scope) -> str:
        _, _, path = super().get_path(scope).partition("/")
        return path

    async def get_response(self, path: str, scope: Scope) -> Response:
        answer = await super().get_response(path, scope)
        if super().get_path(scope).startswith(f"{VERSION}/"):
            answer.headers.update(FOR_EVER)
        return answer
