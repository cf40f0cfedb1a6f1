"""Embedded pictures as picture parts (SVG 2, section 12.2)."""

from __future__ import annotations

import base64
import binascii
from typing import Literal
from urllib.parse import unquote_to_bytes
from xml.etree.ElementTree import Element

from obrell.core.document.model import Part
from obrell.core.errors import ObrellError
from obrell.core.files import file_id
from obrell.core.interchange.pictures import read_picture
from obrell.core.interchange.svg.context import Context, Here, called
from obrell.core.interchange.svg.document import href_of
from obrell.core.interchange.svg.extents import frame_of
from obrell.core.interchange.svg.items import Item
from obrell.core.interchange.svg.strokes import keeps_shape, mirrors, turn_of
from obrell.core.shapes import Picture


def image_items(element: Element, here: Here, context: Context) -> list[Item]:
    """The picture of an image element; what cannot be shown is named."""
    by, frame, content = here.to_canvas, frame_of(here), _embedded(href_of(element))
    if frame.empty:
        return []
    kept = None if content is None else _kept(content)
    if content is None or kept is None:
        context.left_out["image outside of the file" if content is None else "image that cannot be read"] += 1
        return []
    if not keeps_shape(by) or mirrors(by):
        context.left_out["slanted or mirrored image"] += 1
        return []
    context.files[file_id(kept)] = kept
    how = element.get("preserveAspectRatio", "")
    lies: Literal["stretched", "whole", "filling"] = (
        "stretched" if "none" in how else "filling" if "slice" in how else "whole"
    )
    (x, y), scale = by.apply(frame.centre.x, frame.centre.y), by.scale()
    shape = Picture(file=file_id(kept), width=frame.width * scale, height=frame.height * scale, lies=lies)
    part = Part(id="p0", name=called(element, "Picture"), shape=shape, x=x, y=y, rotation=turn_of(by))
    return [context.counted(part)]


def _kept(content: bytes) -> bytes | None:
    try:
        return read_picture(content)
    except ObrellError:
        return None


def _embedded(href: str) -> bytes | None:
    """The bytes of a picture in the file itself (RFC 2397)."""
    head, comma, data = href.partition(",")
    if not comma or not head.strip().lower().startswith("data:image/"):
        return None
    try:
        plain = unquote_to_bytes(data)
        return base64.b64decode(b"".join(plain.split())) if head.strip().endswith(";base64") else plain
    except (binascii.Error, ValueError):
        return b""
