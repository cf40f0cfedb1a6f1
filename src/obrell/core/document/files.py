"""Which files a document refers to."""

from __future__ import annotations

import re
from typing import Any

from obrell.core.files import FILE_ID
from obrell.core.values.base import Value
from obrell.core.values.differences import Other

FIELDS = ("file", "font")
"""Fields that can hold the name of a file."""


def files_of(value: Any) -> frozenset[str]:
    """The names of all files that ``value`` refers to."""
    if isinstance(value, dict):
        return frozenset().union(*(_named(name, inner) for name, inner in value.items()))
    if isinstance(value, Other):
        return _named(value.path.rpartition("/")[2], value.value)
    if isinstance(value, tuple | list):
        return frozenset().union(*(files_of(item) for item in value))
    if not isinstance(value, Value):
        return frozenset()
    found: set[str] = set()
    for name in type(value).model_fields:
        inner = getattr(value, name)
        found |= _named(name, inner)
    return frozenset(found)


def _named(name: str, inner: Any) -> frozenset[str]:
    """The files that what has a name refers to, itself or in what it holds."""
    if name in FIELDS and isinstance(inner, str) and re.fullmatch(FILE_ID, inner):
        return frozenset((inner,))
    return files_of(inner)
