"""Which files a document refers to."""

from __future__ import annotations

import re
from typing import Any

from obrell.core.files import FILE_ID
from obrell.core.values.base import Value

FIELDS = ("file", "font")
"""Fields that can hold the name of a file."""


def files_of(value: Any) -> frozenset[str]:
    """The names of all files that ``value`` refers to."""
    if isinstance(value, tuple):
        return frozenset().union(*(files_of(item) for item in value))
    if not isinstance(value, Value):
        return frozenset()
    found: set[str] = set()
    for name in type(value).model_fields:
        inner = getattr(value, name)
        if name in FIELDS and isinstance(inner, str) and re.fullmatch(FILE_ID, inner):
            found.add(inner)
        found |= files_of(inner)
    return frozenset(found)
