"""The cache folder: machine code and compiled templates, kept between runs."""

from __future__ import annotations

import os
from functools import cache
from pathlib import Path

from obrell.core.disk.private import private_folder

CACHE = Path(os.environ.get("OBRELL_CACHE", Path.home() / ".cache" / "obrell"))


@cache
def kept_at(name: str) -> Path:
    """Return a folder of the cache, made if missing. Its content is run as code: raise ``NotOurs`` if other users
    could have put it there."""
    folder = private_folder(CACHE) / name
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    return folder
