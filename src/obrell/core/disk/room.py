"""Whether a disk has room left."""

from __future__ import annotations

import errno
import os
import shutil
from pathlib import Path

LEAST_ROOM = 256 * 1024
"""Bytes. With less, a disk counts as full: SQLite needs some tens of thousands to begin."""
FULL = (errno.ENOSPC, errno.EDQUOT)


def is_full(error: object, path: Path) -> bool:
    """Return whether an error means that the disk of a path is full: the system says so, or there is no room left in
    a folder that may be written to."""
    if isinstance(error, OSError) and error.errno in FULL:
        return True
    try:
        return os.access(path.parent, os.W_OK) and shutil.disk_usage(path.parent).free < LEAST_ROOM
    except OSError:
        return False
