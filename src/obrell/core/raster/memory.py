"""How the C library hands out the memory of masks and layers.

By default every array of more than 128 KB is mapped afresh and given back at once, so that each frame
pays for its page faults again: a quarter to a third of a draw (``make bench`` with and without).
"""

from __future__ import annotations

import contextlib
import ctypes

M_TRIM_THRESHOLD, M_MMAP_THRESHOLD = -1, -3
LARGEST_KEPT = 32 << 20
"""Arrays up to this many bytes come from memory that is used again."""
KEPT = 192 << 20
"""Bytes that may stay with the process when nothing uses them."""


def keep_memory() -> None:
    """Ask the C library to use freed memory again; does nothing where it cannot be asked."""
    with contextlib.suppress(OSError, AttributeError):
        library = ctypes.CDLL(None)
        library.mallopt(M_MMAP_THRESHOLD, LARGEST_KEPT)
        library.mallopt(M_TRIM_THRESHOLD, KEPT)
