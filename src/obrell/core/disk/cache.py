"""Where whatever can be made again is kept from one run to the next: machine code and compiled templates."""

from __future__ import annotations

import os
from functools import cache
from pathlib import Path

from obrell.core.disk.private import private_folder

CACHE = Path(os.environ.get("OBRELL_CACHE", Path.home() / ".cache" / "obrell"))


@cache
def kept_at(name: str) -> Path:
    """A folder of the cache, made where there is none. What lies there is run as code, so it is looked at before
    anything of it is: raises ``NotOurs`` when it could have been put there by others."""
    folder = private_folder(CACHE) / name
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    return folder
