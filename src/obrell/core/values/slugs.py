"""Names as they stand in ids and in names of files."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterable

MOST = 34
"""Characters of an id that are its own, so that a number fits behind."""


def free_id(name: str, taken: Iterable[str], otherwise: str = "s") -> str:
    """An id like a name that nothing else has; ``otherwise`` when nothing of the name is left, and before what does
    not begin with a letter."""
    stem, known = slug(name, otherwise)[:MOST].strip("-"), set(taken)
    stem = stem if stem[:1].isalpha() else f"{otherwise}-{stem}"[:MOST]
    numbered = (f"{stem}-{number}" for number in range(2, len(known) + 3))
    return next(one for one in (stem, *numbered) if one not in known)


def slug(words: str, otherwise: str) -> str:
    """A name as lower-case letters, digits and hyphens; ``otherwise`` when nothing is left.

    >>> slug("Écluse No 3", "c1")
    'ecluse-no-3'
    """
    plain = unicodedata.normalize("NFKD", words).encode("ascii", "ignore").decode().lower()
    return re.sub(r"[^a-z0-9]+", "-", plain).strip("-") or otherwise
