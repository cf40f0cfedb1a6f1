"""JSON values whose type is not known yet."""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import AfterValidator, JsonValue

LARGEST_WHOLE = 2**53
"""The largest range of whole numbers that JSON carries exactly (RFC 8259, section 6)."""


def _of_some_size(value: Any) -> Any:
    if isinstance(value, int) and not isinstance(value, bool) and abs(value) > LARGEST_WHOLE:
        raise ValueError("has too many digits.")
    for inner in value.values() if isinstance(value, dict) else value if isinstance(value, list) else ():
        _of_some_size(inner)
    return value


Plain = Annotated[JsonValue, AfterValidator(_of_some_size)]
"""Any JSON value without larger whole numbers."""
