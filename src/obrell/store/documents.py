"""Stored documents as values, the ones used last kept ready, counted in bytes."""

from __future__ import annotations

import json
import threading
from typing import TypeVar

from cachetools import LRUCache
from pydantic import ValidationError

from obrell.core.document.model import Control
from obrell.core.edit.kits import KitIndex
from obrell.core.errors import Unreadable
from obrell.store.packing import DAMAGED

Document = TypeVar("Document", Control, KitIndex)
KEPT_BYTES = 8_000_000
"""How much text the documents that are kept ready were made from; as values they take some twelve times that."""


class Documents:
    """Reads documents by hash; what was read stays the same object, so that what is made of it is found again."""

    def __init__(self, kept_bytes: int = KEPT_BYTES) -> None:
        self._known: LRUCache[tuple[type, str], tuple[Control | KitIndex, int]] = LRUCache(
            kept_bytes, getsizeof=lambda kept: kept[1]
        )
        self._lock = threading.Lock()

    def read(self, kind: type[Document], hash_: str, body: str) -> Document:
        """The document of a hash and its text; raises ``Unreadable``."""
        known = self.find(kind, hash_)
        if known is None:
            known = _parsed(kind, body)
            self.keep(hash_, known, len(body))
        return known

    def find(self, kind: type[Document], hash_: str) -> Document | None:
        """The document when it is at hand."""
        with self._lock:
            found = self._known.get((kind, hash_))
        return None if found is None else found[0]  # type: ignore[return-value]

    def keep(self, hash_: str, document: Control | KitIndex, size: int) -> None:
        """Keep a document at hand, and let go of those not used for longest; the newest is kept however large."""
        with self._lock:
            self._known[type(document), hash_] = (document, min(size, int(self._known.maxsize)))


def _parsed(kind: type[Document], body: str) -> Document:
    try:
        return kind.model_validate_json(body)
    except ValidationError as error:
        raise Unreadable(DAMAGED) from error


def name_in(body: str) -> str:
    """What a document that cannot be read calls itself; empty when that cannot be told."""
    try:
        return str(json.loads(body)["name"])[:80]
    except (ValueError, KeyError, TypeError, RecursionError):
        return ""
