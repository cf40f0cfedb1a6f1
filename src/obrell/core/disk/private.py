"""Folders and files that only this user may read and write."""

from __future__ import annotations

import os
import stat
from pathlib import Path

from obrell.core.errors import ObrellError

OWN_FOLDER, OWN_FILE = 0o700, 0o600
WRITTEN_BY_OTHERS = stat.S_IWGRP | stat.S_IWOTH
OPEN_TO_OTHERS = stat.S_IRWXG | stat.S_IRWXO


class NotOurs(ObrellError):
    """A folder or file belongs to another user, or others may write into it, so nothing in it is trusted."""


def private_folder(path: Path) -> Path:
    """Return a folder with mode 0700, made if missing. Raise ``NotOurs`` if another user owns it or may write to it;
    if others may only read it, close it to them."""
    path.mkdir(parents=True, exist_ok=True, mode=OWN_FOLDER)
    found = path.stat()
    _check_owner(path, found)
    if found.st_mode & WRITTEN_BY_OTHERS:
        raise NotOurs(
            f"Others may write into {path}, so nothing there is used. Remove that folder; Obrell makes it again."
        )
    if found.st_mode & OPEN_TO_OTHERS:
        path.chmod(OWN_FOLDER)
    return path


def close_to_others(path: Path) -> None:
    """Give a file of ours mode 0600; raises ``NotOurs`` when it belongs to another user."""
    found = path.stat()
    _check_owner(path, found)
    if found.st_mode & OPEN_TO_OTHERS:
        path.chmod(OWN_FILE)


def _check_owner(path: Path, found: os.stat_result) -> None:
    if found.st_uid != os.geteuid():
        raise NotOurs(
            f"{path} belongs to another user of this machine, so it is not used. Make it yours, or name another place."
        )
