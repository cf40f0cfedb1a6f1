"""A database with the workspace of what is done with it."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from obrell.core.workspace import Workspace
from obrell.store.kits import Kits


@contextmanager
def opened(database: Path) -> Iterator[Kits]:
    """The kits of a database file; within, the files that they refer to are found, and closed with them."""
    kits = Kits(database)
    try:
        with Workspace(kits.file).entered():
            yield kits
    finally:
        kits.close()
