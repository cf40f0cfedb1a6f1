"""SQLite's write-ahead log: what was written last lies in a file beside the database until it is moved into it
(SQLite, "Write-Ahead Logging")."""

from __future__ import annotations

import logging
import sqlite3
import threading
from contextlib import closing
from pathlib import Path

from obrell.core.disk.whole import new_file
from obrell.store.failures import StoreGone

Identity = tuple[int, int] | None
log = logging.getLogger(__name__)


def identity(path: Path) -> Identity:
    """Which file lies at a path, as the system tells files apart; None for none."""
    try:
        found = path.stat()
    except OSError:
        return None
    return found.st_dev, found.st_ino


class WriteAheadLog:
    """The log of an open database. One connection holds it, so that SQLite keeps it for as long as that is open, and
    whoever removes or replaces it is noticed: what is written then would be gone with the process."""

    def __init__(self, database: Path) -> None:
        self._database = database
        self._path = database.with_name(f"{database.name}-wal")
        self._holding = sqlite3.connect(database, check_same_thread=False)
        self._holding.execute("SELECT 1 FROM sqlite_master").fetchone()
        self._known = identity(self._path)
        self._lock = threading.Lock()
        self._words = ""

    def check(self) -> None:
        """Raises ``StoreGone`` when the log is not the one that was opened. What it held is saved before that."""
        if identity(self._path) == self._known and not self._words:
            return
        with self._lock:
            self._words = self._words or self._saved()
        raise StoreGone(self._words)

    def close(self) -> None:
        """Let go of it."""
        self._holding.close()

    def _saved(self) -> str:
        """What was saved and where, in words: the log is still open, whatever its name leads to now."""
        gone = f"{self._path.name} beside the database was removed while Obrell runs. "
        try:
            if identity(self._path) is None:
                self._holding.execute("PRAGMA wal_checkpoint(TRUNCATE)").fetchone()
                where = "in the database"
            else:
                where = f"in {self._copied().name}, which is a copy of it"
        except (sqlite3.Error, OSError):
            log.exception("What the write-ahead log held could not be saved")
            return f"{gone}Nothing can be saved. Make a backup now, before Obrell ends: obrell backup copy.db."
        return f"{gone}All that was saved is {where}. Start Obrell again to go on."

    def _copied(self) -> Path:
        """A copy of all that was saved: with another log in its place, the database itself is no longer only ours."""
        copy = self._database.with_name(f"{self._database.stem}-rescued{self._database.suffix}")
        new_file(copy)
        with closing(sqlite3.connect(copy)) as target:
            self._holding.backup(target)
        return copy
