"""Texts made small: each by itself, or as what differs from another text.

Zstandard (RFC 8878) with the other text as a raw-content dictionary, its window as wide as that.
"""

from __future__ import annotations

from functools import cache

import zstandard

from obrell.core.errors import Unreadable

DAMAGED = "What is stored of this is damaged and cannot be read. The versions before it are kept."
LEVEL = 3
WINDOW_LOG = 23
"""Texts of up to 8 MB are compared as a whole."""
MOST_BYTES = 256 * 1024 * 1024
"""What a packed text may be at most; more is taken for damage."""


def packed(text: str, base: str = "") -> bytes:
    """A text as what differs from ``base``."""
    made = zstandard.ZstdCompressor(compression_params=_parameters(), dict_data=_content(base) if base else None)
    return made.compress(text.encode())


def unpacked(content: bytes, base: str = "") -> str:
    """The text again; raises ``Unreadable`` when it was damaged, or the base is not the one it was packed on."""
    reader = zstandard.ZstdDecompressor(
        dict_data=_content(base) if base else None, max_window_size=1 << WINDOW_LOG
    )  # fmt: skip
    try:
        if zstandard.frame_content_size(content) > MOST_BYTES:
            raise Unreadable(DAMAGED)
        return reader.decompress(content).decode()
    except (zstandard.ZstdError, UnicodeDecodeError, MemoryError) as error:
        raise Unreadable(DAMAGED) from error


def _content(text: str) -> zstandard.ZstdCompressionDict:
    return zstandard.ZstdCompressionDict(text.encode(), dict_type=zstandard.DICT_TYPE_RAWCONTENT)


@cache
def _parameters() -> zstandard.ZstdCompressionParameters:
    return zstandard.ZstdCompressionParameters.from_level(LEVEL, window_log=WINDOW_LOG, write_checksum=True)
