"""What every request must pass: this machine's own address, this page's own origin, a sane size."""

from __future__ import annotations

import re
from urllib.parse import urlsplit

from starlette.datastructures import Headers, MutableHeaders
from starlette.exceptions import HTTPException
from starlette.responses import JSONResponse, PlainTextResponse
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from obrell.web.sizes import Size, size_for

HOSTS = frozenset({"127.0.0.1", "localhost", "[::1]", "::1"})
PAGES = re.compile(r"/|/kits/[^/]+(/deliver|/trial(/[^/]+)?|/controls/[^/]+)?")
"""What a link on another site may lead to."""
TOO_LARGE = 413
OTHERS = ("cross-site", "same-site")
"""Pages that are not ours: of other addresses, and of other ports of this machine."""

POLICY = "; ".join((
    "default-src 'self'", "img-src 'self' blob: data:", "style-src 'self'", "script-src 'self'",
    "connect-src 'self'", "object-src 'none'", "base-uri 'none'", "form-action 'self'",
    "frame-ancestors 'none'",
))  # fmt: skip


class Guards:
    """Refuses foreign hosts (DNS rebinding) and origins (requests of other pages), limits bodies, and sets the
    security headers."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] not in ("http", "websocket"):
            await self.app(scope, receive, send)
            return
        headers = Headers(scope=scope)
        if not _own(headers):
            await _refuse(scope, receive, send, 403, "This address is not served here.")
            return
        if _foreign(headers, scope):
            await _refuse(scope, receive, send, 403, "This is not given to other sites. Open it from Obrell itself.")
            return
        length = headers.get("content-length") or "0"
        if not length.isdecimal():
            await _refuse(scope, receive, send, 400, "This request does not say how long it is.")
            return
        size = size_for(scope["path"])
        if int(length[:20]) > size.most:
            await _refuse(scope, receive, send, TOO_LARGE, size.words)
            return
        await self.app(scope, _Limited(receive, size), _with_policy(send))


def _own(headers: Headers) -> bool:
    host, origin = headers.get("host", ""), headers.get("origin")
    try:
        return urlsplit(f"//{host}").hostname in HOSTS and (origin is None or urlsplit(origin).netloc == host)
    except ValueError:
        return False


def _foreign(headers: Headers, scope: Scope) -> bool:
    """Whether another site asks for more than a page that a person goes to: what it asks for may be much work (Fetch
    Metadata Request Headers, section 2)."""
    if headers.get("sec-fetch-site") not in OTHERS:
        return False
    visit = (headers.get("sec-fetch-mode"), headers.get("sec-fetch-dest")) == ("navigate", "document")
    return not visit or scope.get("method") != "GET" or not PAGES.fullmatch(scope["path"])


async def _refuse(scope: Scope, receive: Receive, send: Send, status: int, words: str) -> None:
    if scope["type"] == "websocket":
        await send({"type": "websocket.close", "code": 1008})
        return
    # A script that sent too much says why; whoever came from elsewhere reads it.
    answer = JSONResponse({"words": words}, status) if status == TOO_LARGE else PlainTextResponse(words, status)
    await answer(scope, receive, send)


class _Limited:
    """Counts a body that came without its length, and refuses a longer one."""

    def __init__(self, receive: Receive, size: Size) -> None:
        self._receive, self._size = receive, size
        self._seen = 0

    async def __call__(self) -> Message:
        message = await self._receive()
        self._seen += len(message.get("body", b""))
        if self._seen > self._size.most:
            raise HTTPException(TOO_LARGE, self._size.words)
        return message


def _with_policy(send: Send) -> Send:
    async def sending(message: Message) -> None:
        if message["type"] == "http.response.start":
            headers = MutableHeaders(scope=message)
            headers["content-security-policy"] = POLICY
            headers["x-content-type-options"] = "nosniff"
            headers["referrer-policy"] = "same-origin"
            headers["cross-origin-opener-policy"] = "same-origin"
        await send(message)

    return sending
