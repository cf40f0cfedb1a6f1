"""Files written whole or not at all, and never through a link to somewhere else."""

from __future__ import annotations

import errno
import os
import secrets
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path, PurePath

from obrell.core.errors import Refused

FOLDER = os.O_RDONLY | os.O_DIRECTORY | os.O_CLOEXEC
NEW_FILE = os.O_WRONLY | os.O_CREAT | os.O_EXCL | os.O_NOFOLLOW | os.O_CLOEXEC
PUBLIC, PRIVATE = 0o666, 0o600
"""Modes of new files, before the user's mask."""


def write_whole(path: Path, content: bytes) -> None:
    """Write a file, replacing an existing one. A link is replaced, not followed. Raise ``Refused`` for a folder and
    ``OSError`` if the disk fails."""
    write_below(path.parent, path.name, content)


def write_below(folder: Path, name: str, content: bytes) -> None:
    """The same for a file below a folder; ``name`` may have folders in it, which are made. Nothing outside of the
    folder is written: raises ``Refused`` for a name that leads out of it, and where one of those folders is a link or
    a file."""
    *steps, last = PurePath(name).parts or ("",)
    if not last or PurePath(name).is_absolute() or ".." in (*steps, last):
        raise Refused(f"“{name}” is not the name of a file in {folder}.")
    folder.mkdir(parents=True, exist_ok=True)
    with _walked(folder, steps) as inside:
        part = spare_name(last)
        try:
            _write(inside, part, content)
            os.replace(part, last, src_dir_fd=inside, dst_dir_fd=inside)
        except OSError as error:
            with suppress(OSError):
                os.unlink(part, dir_fd=inside)
            if error.errno in (errno.EISDIR, errno.ENOTEMPTY, errno.EEXIST):
                raise Refused(f"{folder / name} is a folder. Name a file.") from error
            raise OSError(error.errno, error.strerror, str(folder / name)) from error


def spare_name(name: str) -> str:
    """Return an unused name for a file that is still being written."""
    return f".{name[:80]}.{secrets.token_hex(8)}.part"


def new_file(path: Path, mode: int = PRIVATE) -> None:
    """Make an empty file. Raise ``FileExistsError`` if there is a file or link."""
    os.close(os.open(path, NEW_FILE, mode))


def _write(inside: int, name: str, content: bytes) -> None:
    with os.fdopen(os.open(name, NEW_FILE, PUBLIC, dir_fd=inside), "wb") as file:
        file.write(content)


@contextmanager
def _walked(folder: Path, steps: list[str]) -> Iterator[int]:
    """Yield the descriptor of a folder below another; no step of the way may be a link."""
    at, here = os.open(folder, FOLDER), folder
    try:
        for step in steps:
            here = here / step
            at, before = _stepped(at, step, here), at
            os.close(before)
        yield at
    finally:
        os.close(at)


def _stepped(at: int, step: str, here: Path) -> int:
    with suppress(FileExistsError):
        os.mkdir(step, dir_fd=at)
    try:
        return os.open(step, FOLDER | os.O_NOFOLLOW, dir_fd=at)
    except OSError as error:
        if error.errno in (errno.ELOOP, errno.ENOTDIR):
            raise Refused(f"{here} is a link or a file, not a folder, so nothing is written there.") from error
        raise
