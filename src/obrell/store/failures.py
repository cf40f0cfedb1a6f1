"""What can be wrong with the database, in words that fit."""

from __future__ import annotations

from pathlib import Path

from obrell.core.errors import ObrellError


class StoreFailed(ObrellError):
    """Nothing was saved, and nothing was lost: the disk is full, or the file cannot be written or opened."""


class StoreBusy(StoreFailed):
    """Another program holds the file; later it can be done."""


class StoreGone(StoreFailed):
    """The file is no longer where it was opened."""


class StoreDamaged(StoreFailed):
    """The file, or a part of it, is not what was written."""


_SAFE = "Everything saved before is safe."
_KINDS: tuple[tuple[tuple[str, ...], type[StoreFailed], str], ...] = (
    (("locked", "busy", "QueuePool"), StoreBusy,
     "Another program is using the database. Try again in a moment; nothing is lost."),
    (("disk is full", "full"), StoreFailed, f"This could not be saved: the disk may be full. {_SAFE}"),
    (("readonly", "read-only", "unable to open", "permission"), StoreFailed,
     f"This could not be saved: the database, or the folder it lies in, may not be written to. {_SAFE}"),
    (("malformed", "not a database", "corrupt"), StoreDamaged,
     "The database is damaged at this place. Other kits and controls can still be opened; a backup holds the rest."),
)  # fmt: skip
_OTHERWISE = f"This could not be saved: the disk may be full or write-protected. {_SAFE}"


def in_words(error: Exception, opening: Path | None = None) -> StoreFailed:
    """The failure of a driver as one of ours."""
    said = str(error).lower()
    kind, words = next(
        ((kind, words) for signs, kind, words in _KINDS if any(sign.lower() in said for sign in signs)),
        (StoreFailed, _OTHERWISE),
    )
    if opening is None:
        return kind(words)
    reasons = {
        StoreBusy: "another program is using it. Close that, or wait a moment",
        StoreDamaged: "it is damaged or no database. A backup can be put in its place",
    }
    return kind(f"{opening} cannot be opened: {reasons.get(kind, 'it, or its folder, may not be written to')}.")
