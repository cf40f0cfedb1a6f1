"""How kernels are compiled and where their machine code is kept.

The compiler's own cache does not notice a change in a called kernel of another module, so the
cache folder's name is a hash over every source of this package (``kernels.md``, section 7).
"""

from __future__ import annotations

import hashlib
import threading
from collections.abc import Callable
from pathlib import Path
from types import FunctionType
from typing import Any, TypeVar, cast

from obrell.core.disk.cache import kept_at

F = TypeVar("F", bound=Callable[..., Any])

_SOURCES = sorted(Path(__file__).parent.glob("*.py"))
SOURCE_HASH = hashlib.blake2b(b"".join(source.read_bytes() for source in _SOURCES), digest_size=8).hexdigest()
"""Changes whenever any kernel changes; part of every picture's address."""

_KERNELS_AT = f"kernels/{SOURCE_HASH}"
_PLACE = hashlib.blake2b(str(Path(__file__)).encode(), digest_size=6).hexdigest()
_COMPILED = f"compiled-{_PLACE}"
"""The compiler keeps machine code by where its source lies, too."""


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
        self.function, self._signatures = function, signatures
        self._made: Callable[..., Any] | None = None

    def __call__(self, *values: Any) -> Any:
        return (self._made or self.load())(*values)

    def load(self) -> Callable[..., Any]:
        """The compiled function."""
        _HELD[0].wait()
        with _LOADING:
            if self._made is None:
                compiler = _compiler()
                self._made = compiler.njit(list(self._signatures), cache=True, nogil=True)(self.function)
            return self._made


_KERNELS: list[_Kernel] = []
_LOADING = threading.Lock()
_HELD = [threading.Event()]
"""What kernels wait for before they are loaded."""
_HELD[0].set()


def hold(until: threading.Event) -> None:
    """Have kernels that are needed wait for an event: other processes are compiling them."""
    _HELD[0] = until


def load_all() -> None:
    """Read or compile every kernel of the modules that are loaded."""
    for one in _KERNELS:
        one.load()


def loaded(module: str) -> None:
    """Read or compile every kernel of one module."""
    for one in _KERNELS:
        if one.function.__module__ == module:
            one.load()


def marked() -> None:
    """Note that every kernel is compiled."""
    (kept_at(_KERNELS_AT) / _COMPILED).touch()


def compiled() -> bool:
    """Whether every kernel was compiled before, so that it only has to be read."""
    return (kept_at(_KERNELS_AT) / _COMPILED).exists()


def helper(function: F) -> F:
    """A small function called from kernels; compiled into its callers."""
    _HELPERS.append(function)
    return function


_HELPERS: list[Callable[..., Any]] = []


def loads_compiled() -> None:
    """Load the compiler. It maps much memory, so it is loaded before memory is limited."""
    _compiler()


def _compiler() -> Any:
    """The compiler, which takes half a second to import, with every helper of the modules loaded so far made
    known to the modules whose kernels call it."""
    import numba

    numba.config.CACHE_DIR = str(kept_at(_KERNELS_AT))
    made = {helper: numba.njit(inline="never", nogil=True)(helper) for helper in _HELPERS}
    callers = {id(one.__globals__): one.__globals__ for one in (*_HELPERS, *(k.function for k in _KERNELS))}
    for names in callers.values():
        for name, value in list(names.items()):
            if isinstance(value, FunctionType) and value in made:
                names[name] = made[value]
    _HELPERS.clear()
    return numba
