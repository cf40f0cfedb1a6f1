"""Files that documents refer to: pictures and fonts from outside.

A file is named by a hash of its bytes, so a name always stands for the same content. Where content lies is nobody's
business here: the workspace finds it.
"""

from __future__ import annotations

import hashlib
from typing import Annotated

from pydantic import Field

from obrell.core.errors import NoSuchThing
from obrell.core.workspace import file_content

FILE_ID = r"^[0-9a-f]{32}$"
FileId = Annotated[str, Field(pattern=FILE_ID)]
"""32 hexadecimal digits."""
PICTURE_STARTS = {b"\x89PNG": "image/png", b"\xff\xd8": "image/jpeg"}


def file_id(content: bytes) -> str:
    """The name of a file of these bytes."""
    return hashlib.blake2b(content, digest_size=16).hexdigest()


def picture_type(content: bytes) -> str | None:
    """The media type of a picture as it is kept, PNG or JPEG; None for any other file."""
    for start, kind in PICTURE_STARTS.items():
        if content.startswith(start):
            return kind
    return None


def content_of(name: str) -> bytes:
    """The bytes of a file; raises ``NoSuchThing`` when the workspace does not find it."""
    content = file_content(name)
    if content is None:
        raise NoSuchThing("A picture or font that this needs is not stored here. Bring it in again.")
    return content
