"""The database file: opened, brought to the newest form, written in short transactions, copied while it runs."""

from __future__ import annotations

import os
import sqlite3
import threading
from collections.abc import Iterator
from contextlib import closing, contextmanager, suppress
from pathlib import Path
from typing import Any

from sqlalchemy import create_engine, event
from sqlalchemy.exc import DatabaseError
from sqlalchemy.exc import TimeoutError as NoConnection
from sqlalchemy.orm import Session

from obrell.core.disk.private import OWN_FOLDER, NotOurs, close_to_others
from obrell.core.disk.whole import new_file, spare_name
from obrell.store.failures import StoreDamaged, StoreFailed, StoreGone, in_words
from obrell.store.log import WriteAheadLog, identity

MIGRATIONS = Path(__file__).parent / "migrations"
VERSIONS = sorted(file.stem.split("_")[0] for file in (MIGRATIONS / "versions").glob("[0-9]*.py"))
"""The migrations: their numbers go up."""
APPLICATION = 0x4F627265
"""What SQLite's header says whose file it is: "Obre"."""
WAIT_MS = 4000
"""How long a transaction waits for another program to let go of the file."""
SHORTEST_HEADER = 100
"""SQLite's header, bytes (SQLite file format, section 1.3)."""


class Database:
    """One SQLite file. A commit returns only when the data are on the disk, so a killed process
    loses nothing that was acknowledged; a reader never waits for a writer."""

    def __init__(self, path: Path) -> None:
        self.path = path
        self._check_place()
        self.engine = create_engine(
            f"sqlite:///{path}", connect_args={"timeout": WAIT_MS / 1000}, pool_size=10, max_overflow=90
        )
        event.listen(self.engine, "connect", _prepare)
        event.listen(self.engine, "begin", _begin)
        self._writing = threading.Lock()
        try:
            self._migrate()
            self._log = WriteAheadLog(path)
        except (DatabaseError, OSError) as error:
            self.engine.dispose()
            raise in_words(error, path, opening=True) from error
        except StoreFailed:
            self.engine.dispose()
            raise
        self._file = identity(path)

    @contextmanager
    def reading(self) -> Iterator[Session]:
        """A session to read with."""
        try:
            with Session(self.engine, expire_on_commit=False) as session:
                yield session
        except (DatabaseError, NoConnection) as error:
            raise in_words(error, self.path) from error

    @contextmanager
    def writing(self) -> Iterator[Session]:
        """Run one transaction; if anything raises in it, nothing is kept. Raise ``StoreGone``, also after the commit,
        if the file was moved or removed."""
        self.check_there()
        try:
            with (
                self._writing,
                Session(self.engine, expire_on_commit=False) as session,
                session.begin(),
            ):
                session.connection(execution_options={"writes": True})
                yield session
        except (DatabaseError, NoConnection) as error:
            raise in_words(error, self.path) from error
        self.check_there()

    def check_there(self) -> None:
        """Raises ``StoreGone`` when the file that was opened, or its log, is no longer where it was: what is written
        then would be lost with the process."""
        if identity(self.path) != self._file:
            raise StoreGone(
                f"The database {self.path} was moved or removed while Obrell runs, so nothing can be saved. "
                "What is open can still be seen. Put the file back to go on; nothing that was saved before is changed."
            )
        self._log.check()

    def backup(self, to: Path) -> None:
        """A copy that is whole, made while others read and write; it replaces ``to`` only when it is done."""
        if to.is_dir():
            raise StoreFailed(f"{to} is a folder. Name a file in it, such as {to / 'backup.db'}.")
        part = to.with_name(spare_name(to.name))
        try:
            to.parent.mkdir(parents=True, exist_ok=True)
            new_file(part)
            with self.engine.connect() as connection, sqlite3.connect(part) as target:
                source: Any = connection.connection.driver_connection
                source.backup(target)
            target.close()
            part.replace(to)
        except (DatabaseError, sqlite3.Error, OSError) as error:
            with suppress(OSError):
                part.unlink(missing_ok=True)
            why = getattr(error, "strerror", None) or error
            raise StoreFailed(f"The backup could not be written to {to}: {why}. The kits are safe.") from error

    def close(self) -> None:
        """All that was written in the one file, and the file let go of."""
        with suppress(DatabaseError), self.engine.connect() as connection:
            connection.exec_driver_sql("PRAGMA wal_checkpoint(TRUNCATE)")
        self.engine.dispose()
        self._log.close()

    def _check_place(self) -> None:
        if self.path.is_dir():
            raise StoreFailed(f"{self.path} is a folder. Name a file in it, such as {self.path / 'obrell.db'}.")
        try:
            self.path.parent.mkdir(parents=True, exist_ok=True, mode=OWN_FOLDER)
        except OSError as error:
            raise StoreFailed(f"The folder {self.path.parent} cannot be made: {error.strerror}.") from error
        self._make_private()
        if self.path.stat().st_size > 0:
            _check_whole(self.path)

    def _make_private(self) -> None:
        """Close the file, and those that SQLite keeps beside it, to other users."""
        try:
            if not os.path.lexists(self.path):
                new_file(self.path)
            for path in (self.path, *(beside for beside in self._beside() if beside.exists())):
                close_to_others(path)
        except NotOurs as error:
            raise StoreFailed(str(error)) from error
        except FileNotFoundError as error:
            raise StoreFailed(f"{self.path} is a link to a file that is not there.") from error
        except OSError as error:
            raise in_words(error, self.path, opening=True) from error

    def _beside(self) -> tuple[Path, ...]:
        return tuple(self.path.with_name(self.path.name + ending) for ending in ("-wal", "-shm"))

    def _version(self) -> str | None:
        """The newest migration the file has been through; None for a new file."""
        with self.engine.connect() as connection:
            if connection.dialect.has_table(connection, "alembic_version"):
                return str(connection.exec_driver_sql("SELECT version_num FROM alembic_version").scalar())
        return None

    def _migrate(self) -> None:
        version = self._version()
        if version == VERSIONS[-1]:
            return
        if version is not None and version not in VERSIONS:
            raise StoreFailed(
                f"{self.path} was written by a later Obrell (form {version}; this one reads {VERSIONS[-1]}). "
                "A newer Obrell will open it; nothing in it was changed."
            )
        from alembic import command
        from alembic.config import Config

        config = Config()
        config.set_main_option("script_location", str(MIGRATIONS))
        config.set_main_option("sqlalchemy.url", f"sqlite:///{self.path}".replace("%", "%%"))
        command.upgrade(config, "head")
        if version is not None:
            self._give_back_room()

    def _give_back_room(self) -> None:
        """The file as small as what is in it; left as it is when the disk has no room for a second one."""
        with suppress(sqlite3.Error), closing(sqlite3.connect(self.path, isolation_level=None)) as connection:
            connection.execute("VACUUM")


def _check_whole(path: Path) -> None:
    """Raises ``StoreDamaged`` when the file is not SQLite's or ends before its header says it does."""
    try:
        with path.open("rb") as file:
            header = file.read(SHORTEST_HEADER)
    except OSError as error:
        raise StoreFailed(f"{path} cannot be read: {error.strerror}.") from error
    if not header.startswith(b"SQLite format 3\0") or len(header) < SHORTEST_HEADER:
        raise StoreDamaged(f"{path} is not a database of Obrell. Nothing in it was changed.")
    page = int.from_bytes(header[16:18], "big")
    size = (65536 if page == 1 else page) * int.from_bytes(header[28:32], "big")
    if _is_foreign(path):
        raise StoreFailed(f"{path} is a database of another program. Nothing in it was changed.")
    counted = header[24:28] == header[92:96]
    if counted and path.stat().st_size < size:
        raise StoreDamaged(
            f"{path} is cut off: {size:,} bytes are meant, {path.stat().st_size:,} are there. "
            "Put a backup in its place; nothing in it was changed."
        )


def _is_foreign(path: Path) -> bool:
    """Whether another program made the file; looked at without touching it, not even to lock it."""
    try:
        with closing(sqlite3.connect(f"{path.resolve().as_uri()}?immutable=1", uri=True)) as connection:
            whose = connection.execute("PRAGMA application_id").fetchone()[0]
            tables = {name for (name,) in connection.execute("SELECT name FROM sqlite_master")}
    except sqlite3.Error:
        return False
    return whose not in (0, APPLICATION) or bool(tables and "alembic_version" not in tables)


def _prepare(connection: Any, _record: Any) -> None:
    connection.isolation_level = None
    for pragma in ("journal_mode=WAL", "synchronous=FULL", "foreign_keys=ON", f"busy_timeout={WAIT_MS}"):
        connection.execute(f"PRAGMA {pragma}")


def _begin(connection: Any) -> None:
    writes = connection.get_execution_options().get("writes", False)
    connection.exec_driver_sql("BEGIN IMMEDIATE" if writes else "BEGIN")
