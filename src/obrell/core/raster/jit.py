"""How kernels are compiled and where their machine code is kept.

The compiler's own cache does not notice a change in a called kernel of another module, so the
cache folder's name is a hash over every source of this package (``kernels.md``, section 7).
"""

from __future__ import annotations

import hashlib
import os
from collections.abc import Callable
from pathlib import Path
from typing import Any, TypeVar, cast

import numba

F = TypeVar("F", bound=Callable[..., Any])

_SOURCES = sorted(Path(__file__).parent.glob("*.py"))
SOURCE_HASH = hashlib.blake2b(b"".join(source.read_bytes() for source in _SOURCES), digest_size=8).hexdigest()
"""Changes whenever any kernel changes; part of every picture's address."""

_ROOT = Path(os.environ.get("OBRELL_CACHE", Path.home() / ".cache" / "obrell"))
numba.config.CACHE_DIR = str(_ROOT / "kernels" / SOURCE_HASH)


def kernel(*signatures: str) -> Callable[[F], F]:
    """Compile for exactly these signatures, strict floats, without holding the interpreter lock.

    An unexpected type then raises instead of compiling in the middle of a drag.
    """
    return cast(Callable[[F], F], numba.njit(list(signatures), cache=True, nogil=True))


def helper(function: F) -> F:
    """A small function called from kernels; compiled into its callers."""
    return cast(F, numba.njit(inline="never", nogil=True)(function))
