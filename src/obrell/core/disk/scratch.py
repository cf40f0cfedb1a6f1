"""A temporary folder for large files, and the removal of folders that killed processes left.

Whatever else lies among temporary files is somebody's. A folder is ours when its name is one that we give, it belongs
to this user, a file in it says that we made this very folder, and the process that did is gone; and of what is in it
only what we put there is removed.
"""

from __future__ import annotations

import json
import os
import tempfile
from contextlib import suppress
from pathlib import Path

PREFIX = "obrell-deliveries-"
MARKER = ".made-by-obrell.json"
ENDING = ".zip"
START_TIME = 19
"""Index of the start time among the fields after the name in /proc/PID/stat (proc(5), field 22)."""


class Scratch:
    """The temporary folder of this process."""

    def __init__(self) -> None:
        remove_left_behind()
        self.path = Path(tempfile.mkdtemp(prefix=PREFIX))
        marker = {"pid": os.getpid(), "began": _began(os.getpid()), "inode": self.path.stat().st_ino}
        (self.path / MARKER).write_text(json.dumps(marker), "utf-8")

    def file(self, name: str) -> Path:
        """Return the path of a file with that name."""
        return self.path / f"{name}{ENDING}"

    def close(self) -> None:
        """Remove it, and what is in it."""
        _remove(self.path)


def remove_left_behind() -> None:
    """Remove the folders of processes that were killed before they could."""
    for folder in Path(tempfile.gettempdir()).glob(f"{PREFIX}*"):
        with suppress(OSError, ValueError, KeyError, TypeError):
            if _is_left_behind(folder):
                _remove(folder)


def _is_left_behind(folder: Path) -> bool:
    found, marker = folder.lstat(), folder / MARKER
    if folder.is_symlink() or not folder.is_dir() or found.st_uid != os.getuid() or marker.is_symlink():
        return False
    said = json.loads(marker.read_text("utf-8"))
    return bool(said["inode"] == found.st_ino and _began(int(said["pid"])) != said["began"])


def _began(pid: int) -> str:
    """Return the start time of a process, clock ticks since boot; empty if it has ended. Process numbers are reused,
    so the number alone does not identify a process."""
    try:
        text = Path(f"/proc/{pid}/stat").read_text("ascii", "replace")
    except OSError:
        return ""
    return text.rpartition(")")[2].split()[START_TIME]


def _remove(folder: Path) -> None:
    for file in (*folder.glob(f"*{ENDING}"), folder / MARKER):
        with suppress(OSError):
            file.unlink()
    with suppress(OSError):
        folder.rmdir()
