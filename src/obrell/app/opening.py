"""A database with the workspace of what is done with it."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from obrell.core.errors import NoSuchThing
from obrell.core.workspace import Workspace
from obrell.store.kits import Kits


@contextmanager
def opened(database: Path, *, new: bool = False) -> Iterator[Kits]:
    """Open the kits of a database file, with the files that they refer to. A missing database is made if ``new`` is
    set; otherwise raise ``NoSuchThing``."""
    if not new and not database.exists():
        raise NoSuchThing(f"There is no database {database}. Name another with --data, or begin one with obrell demo.")
    kits = Kits(database)
    try:
        with Workspace(kits.file).entered():
            yield kits
    finally:
        kits.close()
