"""Fonts brought in: TrueType and OpenType files, plain or as WOFF2."""

from __future__ import annotations

import struct
from dataclasses import dataclass
from typing import Any

import brotli

from obrell.core.door import reads
from obrell.core.errors import BadDocument, ObrellError, TooLarge
from obrell.core.interchange.limits import MAX_FONT_BYTES
from obrell.core.text.fonts import made_of
from obrell.core.text.glyphs import check_glyphs

PLAIN = (b"\x00\x01\x00\x00", b"OTTO", b"true")
WOFF2 = b"wOF2"
MAX_UNPACKED_BYTES = 40_000_000
UNPACKED_AT_ONCE = 1 << 20
HEADER_BYTES = 48
KNOWN_TAG_BITS, OWN_TAG, TRANSFORMED = 0x3F, 0x3F, (10, 11)
"""Of a WOFF2 table directory (WOFF 2, section 5.1): glyf and loca are transformed when their version is 0."""


@dataclass(frozen=True, slots=True)
class KeptFont:
    """The file as it is kept, and what it calls itself."""

    content: bytes
    name: str


def is_font(content: bytes) -> bool:
    """Whether a file begins as the fonts do that can be read."""
    return content[:4] in (*PLAIN, WOFF2)


@reads(
    "font", "Reading this font", most=MAX_FONT_BYTES,
    words=f"A font file can have at most {MAX_FONT_BYTES // 1_000_000} MB.",
)  # fmt: skip
def read_font(content: bytes) -> KeptFont:
    """The font in a file, every glyph of it drawn once; raises ``BadDocument`` or ``TooLarge`` in words."""
    if not is_font(content):
        raise BadDocument("This is not a TTF, OTF or WOFF2 font.")
    try:
        if content[:4] == WOFF2:
            _check_unpacked(content)
        font = made_of(content)
        check_glyphs(font)
    except (ObrellError, MemoryError):
        raise
    except Exception as error:  # whatever a damaged font makes its readers raise
        raise BadDocument("This font breaks off or is damaged.") from error
    if not font.faces[0].characters:
        raise BadDocument("This font has no characters.")
    return KeptFont(content, font.name)


def _check_unpacked(content: bytes) -> None:
    """Unpack in pieces and stop when it grows beyond measure; the reader of fonts would not."""
    at = _start_of_data(content)
    unpacker: Any = brotli.Decompressor()
    seen, more = 0, content[at:]
    while not unpacker.is_finished():
        unpacked = unpacker.process(more, output_buffer_limit=UNPACKED_AT_ONCE)
        seen, more = seen + len(unpacked), b""
        if seen > MAX_UNPACKED_BYTES:
            raise TooLarge("This font unpacks to more than a font can have.")
        if not unpacked and unpacker.can_accept_more_data():
            return


def _start_of_data(content: bytes) -> int:
    """Where the compressed tables begin: behind the header and the table directory."""
    (tables,) = struct.unpack_from(">H", content, 12)
    at = HEADER_BYTES
    for _ in range(tables):
        flags = content[at]
        at += 1 if flags & KNOWN_TAG_BITS != OWN_TAG else 5
        at = _after_number(content, at)
        version, known = flags >> 6, flags & KNOWN_TAG_BITS
        if (version == 0) == (known in TRANSFORMED):
            at = _after_number(content, at)
    return at


def _after_number(content: bytes, at: int) -> int:
    """Behind a UIntBase128."""
    while content[at] & 0x80:
        at += 1
    return at + 1
