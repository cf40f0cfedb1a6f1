"""How a page brings in what each reader reads: the address, the kind of content, and the body."""

from __future__ import annotations

import json
from collections.abc import Callable
from dataclasses import dataclass
from urllib.parse import urlencode

BOUNDARY = "between-the-parts"
Request = tuple[str, str, bytes]
"""Address, content type and body."""
JSON, FORM = "application/json", "application/x-www-form-urlencoded"


@dataclass(frozen=True)
class Places:
    """Where a kit, a control, a panel with a source, and a gradient of the control are."""

    wall: str
    bench: str
    panel: str
    source: str
    fill: str


def request_for(kind: str, content: bytes, at: Places) -> Request:
    """Address, content type and body by which a file or text is brought in; raises ``KeyError`` for a reader that
    nobody brings anything to."""
    text = content.decode("utf-8", "replace")
    edit = {"kind": "write-stops", "path": at.fill, "text": text}
    known: dict[str, Callable[[], Request]] = {
        "kit": lambda: _file("/kits/import", "file", content),
        "font": lambda: (f"{at.wall}/fonts", "application/octet-stream", content),
        "picture": lambda: (f"{at.bench}/pictures?name=a.png", "application/octet-stream", content),
        "picture-colours": lambda: _file(f"{at.wall}/swatches/candidates", "picture", content),
        "svg": lambda: (f"{at.bench}/drawings", JSON, json.dumps({"svg": text}).encode()),
        "swatches": lambda: _file(f"{at.wall}/swatches/file", "file", content),
        "recording": lambda: _file(f"{at.panel}/sources/{at.source}/recording", "file", content),
        "colour": lambda: _form(f"{at.wall}/swatches", {"name": f"New {hash(text)}", "colour": text}),
        "gradient": lambda: (f"{at.bench}/edits", JSON, json.dumps({"edit": edit}).encode()),
    }
    return known[kind]()


def _file(address: str, name: str, content: bytes) -> Request:
    head = f'--{BOUNDARY}\r\ncontent-disposition: form-data; name="{name}"; filename="a"\r\n\r\n'.encode()
    return address, f"multipart/form-data; boundary={BOUNDARY}", head + content + f"\r\n--{BOUNDARY}--\r\n".encode()


def _form(address: str, fields: dict[str, str]) -> Request:
    return address, FORM, urlencode(fields).encode()
