"""The database file: opened, brought to the newest form, and written in short transactions."""

from __future__ import annotations

import threading
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from sqlalchemy import create_engine, event
from sqlalchemy.exc import OperationalError
from sqlalchemy.orm import Session

from obrell.core.errors import ObrellError

MIGRATIONS = Path(__file__).parent / "migrations"
NEWEST = max(file.stem.split("_")[0] for file in (MIGRATIONS / "versions").glob("[0-9]*.py"))
"""The last migration: their numbers go up."""


class StoreFailed(ObrellError):
    """Nothing was saved, and nothing was lost: the disk is full, or the file cannot be written."""


class Database:
    """One SQLite file. A commit returns only when the data are on the disk, so a killed process
    loses nothing that was acknowledged; a reader never waits for a writer."""

    def __init__(self, path: Path) -> None:
        path.parent.mkdir(parents=True, exist_ok=True)
        self.engine = create_engine(f"sqlite:///{path}", connect_args={"timeout": 20})
        event.listen(self.engine, "connect", _prepare)
        event.listen(self.engine, "begin", _begin)
        self._writing = threading.Lock()
        self._migrate(path)

    @contextmanager
    def reading(self) -> Iterator[Session]:
        """A session to read with."""
        with Session(self.engine, expire_on_commit=False) as session:
            yield session

    @contextmanager
    def writing(self) -> Iterator[Session]:
        """One transaction: all of it is kept, or, when anything raises, none."""
        try:
            with (
                self._writing,
                Session(self.engine, expire_on_commit=False) as session,
                session.begin(),
            ):
                session.connection(execution_options={"writes": True})
                yield session
        except OperationalError as error:
            raise StoreFailed(
                "This could not be saved: the disk may be full or write-protected. Everything saved before is safe."
            ) from error

    def _newest(self) -> bool:
        """Whether the file has the newest form already; the migrations are slow to load."""
        with self.engine.connect() as connection:
            if not connection.dialect.has_table(connection, "alembic_version"):
                return False
            return connection.exec_driver_sql("SELECT version_num FROM alembic_version").scalar() == NEWEST

    def _migrate(self, path: Path) -> None:
        if self._newest():
            return
        from alembic import command
        from alembic.config import Config

        config = Config()
        config.set_main_option("script_location", str(MIGRATIONS))
        config.set_main_option("sqlalchemy.url", f"sqlite:///{path}")
        command.upgrade(config, "head")


def _prepare(connection: Any, _record: Any) -> None:
    connection.isolation_level = None
    for pragma in ("journal_mode=WAL", "synchronous=FULL", "foreign_keys=ON", "busy_timeout=20000"):
        connection.execute(f"PRAGMA {pragma}")


def _begin(connection: Any) -> None:
    writes = connection.get_execution_options().get("writes", False)
    connection.exec_driver_sql("BEGIN IMMEDIATE" if writes else "BEGIN")
