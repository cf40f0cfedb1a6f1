"""How kernels are compiled and where their machine code is kept.

The compiler's own cache does not notice a change in a called kernel of another module, so the
cache folder's name is a hash over every source of this package (``kernels.md``, section 7).
"""

from __future__ import annotations

import hashlib
import os
import threading
from collections.abc import Callable
from pathlib import Path
from typing import Any, TypeVar, cast

import numba

F = TypeVar("F", bound=Callable[..., Any])

_SOURCES = sorted(Path(__file__).parent.glob("*.py"))
SOURCE_HASH = hashlib.blake2b(b"".join(source.read_bytes() for source in _SOURCES), digest_size=8).hexdigest()
"""Changes whenever any kernel changes; part of every picture's address."""

_ROOT = Path(os.environ.get("OBRELL_CACHE", Path.home() / ".cache" / "obrell"))
_PLACE = hashlib.blake2b(str(Path(__file__)).encode(), digest_size=6).hexdigest()
_COMPILED = _ROOT / "kernels" / SOURCE_HASH / f"compiled-{_PLACE}"
"""The compiler keeps machine code by where its source lies, too."""
numba.config.CACHE_DIR = str(_ROOT / "kernels" / SOURCE_HASH)


def kernel(*signatures: str) -> Callable[[F], F]:
    """Compile for exactly these signatures, strict floats, without holding the interpreter lock: when it is
    first called, or by ``load_all``, so that a server answers before its machine code is read.

    An unexpected type then raises instead of compiling in the middle of a drag.
    """

    def lazily(function: F) -> F:
        loader = _Kernel(function, signatures)
        _KERNELS.append(loader)
        return cast(F, loader)

    return lazily


class _Kernel:
    """A kernel that is read from disk, or compiled, when it is needed."""

    def __init__(self, function: Callable[..., Any], signatures: tuple[str, ...]) -> None:
        self._function, self._signatures = function, signatures
        self._made: Callable[..., Any] | None = None

    def __call__(self, *values: Any) -> Any:
        return (self._made or self.load())(*values)

    def load(self) -> Callable[..., Any]:
        """The compiled function."""
        with _LOADING:
            if self._made is None:
                self._made = numba.njit(list(self._signatures), cache=True, nogil=True)(self._function)
            return self._made


_KERNELS: list[_Kernel] = []
_LOADING = threading.Lock()


def load_all() -> None:
    """Read or compile every kernel of the modules that are loaded."""
    for one in _KERNELS:
        one.load()
    _COMPILED.parent.mkdir(parents=True, exist_ok=True)
    _COMPILED.touch()


def compiled() -> bool:
    """Whether every kernel was compiled before, so that it only has to be read."""
    return _COMPILED.exists()


def helper(function: F) -> F:
    """A small function called from kernels; compiled into its callers."""
    return cast(F, numba.njit(inline="never", nogil=True)(function))
