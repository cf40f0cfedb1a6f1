"""Which places of the disk a piece of work changes, told by the interpreter itself (audit hooks, PEP 578)."""

from __future__ import annotations

import os
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

WRITES = os.O_WRONLY | os.O_RDWR | os.O_CREAT | os.O_TRUNC | os.O_APPEND
CHANGES = {
    "os.mkdir": (0,), "os.remove": (0,), "os.rmdir": (0,), "os.rename": (0, 1), "os.symlink": (1,), "os.link": (1,),
    "os.chmod": (0,), "os.chown": (0,), "os.truncate": (0,), "shutil.rmtree": (0,), "sqlite3.connect": (0,),
}  # fmt: skip
"""Events that change something, and which of their arguments say where."""
_watching: list[set[Path]] = []
_hooked: list[bool] = []


@contextmanager
def watched() -> Iterator[set[Path]]:
    """Within, every place that this process writes to, makes or removes is noted, in any of its threads."""
    if not _hooked:
        sys.addaudithook(_noted)
        _hooked.append(True)
    touched: set[Path] = set()
    _watching.append(touched)
    try:
        yield touched
    finally:
        _watching.remove(touched)


def _noted(event: str, arguments: tuple[object, ...]) -> None:
    if not _watching:
        return
    if event == "open":
        places = (arguments[0],) if _writes(arguments[1], arguments[2]) else ()
    else:
        places = tuple(arguments[at] for at in CHANGES.get(event, ()))
    for place in places:
        if isinstance(place, str | bytes | os.PathLike):
            path = Path(os.fsdecode(place))
            for touched in _watching:
                touched.add(path if path.is_absolute() else Path.cwd() / path)


def _writes(mode: object, flags: object) -> bool:
    if isinstance(mode, str):
        return bool(set(mode) & set("wax+"))
    return isinstance(flags, int) and bool(flags & WRITES)


def standing(folder: Path) -> dict[str, object]:
    """All that is in a folder: of each thing its kind, mode, and content or where it leads."""
    return {
        str(path.relative_to(folder)): (
            os.readlink(path) if path.is_symlink() else path.read_bytes() if path.is_file() else "",
            path.lstat().st_mode,
        )
        for path in sorted(folder.rglob("*"))
    }
