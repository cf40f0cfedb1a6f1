"""Names as they stand in ids and in names of files."""

from __future__ import annotations

import re
import unicodedata


def slug(words: str, otherwise: str) -> str:
    """A name as lower-case letters, digits and hyphens; ``otherwise`` when nothing is left.

    >>> slug("Écluse No 3", "c1")
    'ecluse-no-3'
    """
    plain = unicodedata.normalize("NFKD", words).encode("ascii", "ignore").decode().lower()
    return re.sub(r"[^a-z0-9]+", "-", plain).strip("-") or otherwise
