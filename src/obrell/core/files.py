"""Files that documents refer to: pictures and fonts from outside.

A file is named by a hash of its bytes, so a name always stands for the same content, and what is made
of it may be kept for ever. Where content lies is nobody's business here: whoever keeps it says so once.
"""

from __future__ import annotations

import hashlib
import weakref
from collections.abc import Callable
from typing import Annotated

from pydantic import Field

from obrell.core.errors import NoSuchThing

FILE_ID = r"^[0-9a-f]{32}$"
FileId = Annotated[str, Field(pattern=FILE_ID)]
"""32 hexadecimal digits."""
PICTURE_STARTS = {b"\x89PNG": "image/png", b"\xff\xd8": "image/jpeg"}
_keepers: list[weakref.WeakMethod[Callable[[str], bytes | None]]] = []


def file_id(content: bytes) -> str:
    """The name of a file of these bytes."""
    return hashlib.blake2b(content, digest_size=16).hexdigest()


def picture_type(content: bytes) -> str | None:
    """The media type of a picture as it is kept, PNG or JPEG; None for any other file."""
    for start, kind in PICTURE_STARTS.items():
        if content.startswith(start):
            return kind
    return None


def kept_by(find: Callable[[str], bytes | None]) -> None:
    """Ask a method, for as long as its owner lives, for the content of files."""
    _keepers[:] = [keeper for keeper in _keepers if keeper() is not None]
    _keepers.append(weakref.WeakMethod(find))


def content_of(name: str) -> bytes:
    """The bytes of a file; raises ``NoSuchThing`` when nobody keeps it."""
    for keeper in reversed(_keepers):
        find = keeper()
        content = None if find is None else find(name)
        if content is not None:
            return content
    raise NoSuchThing("A picture or font that this needs is not stored here. Bring it in again.")
