"""What pixels are made by: changes whenever the same document may give other pixels."""

from __future__ import annotations

import hashlib
from functools import lru_cache
from importlib.metadata import version
from pathlib import Path

_CORE = Path(__file__).parent.parent
LIBRARIES = ("numpy", "numba", "pillow", "skia-pathops", "uharfbuzz", "fonttools")
"""Those that have a hand in pixels."""


@lru_cache
def renderer_version() -> str:
    """16 hexadecimal digits over every source of the core, its fonts' and icons' apart, and its libraries."""
    sources = b"".join(source.read_bytes() for source in sorted(_CORE.rglob("*.py")))
    libraries = " ".join(f"{name} {version(name)}" for name in LIBRARIES)
    return hashlib.blake2b(sources + libraries.encode(), digest_size=8).hexdigest()
