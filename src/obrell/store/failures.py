"""What can be wrong with the database, in words that fit."""

from __future__ import annotations

import sqlite3
from pathlib import Path

from sqlalchemy.exc import TimeoutError as NoConnection

from obrell.core.disk.room import is_full
from obrell.core.errors import ObrellError


class StoreFailed(ObrellError):
    """Nothing was saved, and nothing was lost: the file cannot be written or opened."""


class StoreBusy(StoreFailed):
    """Another program holds the file; later it can be done."""


class StoreFull(StoreFailed):
    """The disk has no room left."""


class StoreGone(StoreFailed):
    """The file is no longer where it was opened."""


class StoreDamaged(StoreFailed):
    """The file, or a part of it, is not what was written."""


_SAFE = "Everything saved before is safe."
_PRIMARY = 0xFF
"""Mask of the primary code in an extended result code (SQLite, "Result and Error Codes")."""
_CODES: dict[int, type[StoreFailed]] = {
    sqlite3.SQLITE_BUSY: StoreBusy, sqlite3.SQLITE_LOCKED: StoreBusy, sqlite3.SQLITE_FULL: StoreFull,
    sqlite3.SQLITE_CORRUPT: StoreDamaged, sqlite3.SQLITE_NOTADB: StoreDamaged,
}  # fmt: skip
_UNDECODABLE = "could not decode"
"""Part of the driver's message for damaged text, which has no code."""
_WORDS: dict[type[StoreFailed], str] = {
    StoreBusy: "Another program is using the database. Try again in a moment; nothing is lost.",
    StoreFull: f"This could not be saved: the disk is full. {_SAFE} Make room, and try again.",
    StoreDamaged: "The database is damaged at this place. Other kits and controls can still be opened; "
    "a backup holds the rest.",
    StoreFailed: f"This could not be saved: the database, or the folder it lies in, may not be written to. {_SAFE}",
}
_OPENING: dict[type[StoreFailed], str] = {
    StoreBusy: "another program is using it. Close that, or wait a moment.",
    StoreFull: "the disk is full. Make room, and start again; nothing in it was changed.",
    StoreDamaged: "it is damaged or no database. A backup can be put in its place.",
    StoreFailed: "it, or its folder, may not be written to.",
}


def in_words(error: Exception, path: Path, *, opening: bool = False) -> StoreFailed:
    """Return the failure for a driver's error at a database."""
    kind = _kind_of(error, path)
    return kind(f"{path} cannot be opened: {_OPENING[kind]}" if opening else _WORDS[kind])


def is_damage(error: Exception) -> bool:
    """Return whether an error means that the file is damaged."""
    driver = getattr(error, "orig", error)
    return _code(driver) in (sqlite3.SQLITE_CORRUPT, sqlite3.SQLITE_NOTADB) or _UNDECODABLE in str(driver).lower()


def _kind_of(error: Exception, path: Path) -> type[StoreFailed]:
    if isinstance(error, NoConnection):
        return StoreBusy
    if is_damage(error):
        return StoreDamaged
    driver = getattr(error, "orig", error)
    known = _CODES.get(_code(driver))
    if known is not None:
        return known
    # What is left (an error of the disk, a file that cannot be made) has many causes; a full disk can be seen.
    return StoreFull if is_full(driver, path) else StoreFailed


def _code(driver: object) -> int:
    return int(getattr(driver, "sqlite_errorcode", 0) or 0) & _PRIMARY
