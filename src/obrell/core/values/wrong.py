"""What Pydantic found wrong, as the end of a sentence about the thing itself."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, Protocol


class Shown(Protocol):
    """How a number is shown: its unit, and what the stored number is multiplied by for that."""

    @property
    def unit(self) -> str: ...
    @property
    def factor(self) -> float: ...


PATTERNS = {
    "x00": "must be one line of plain text.",
    "a-z][a-z": "must begin with a small letter and go on with small letters, digits or hyphens.",
    "#": "must be a colour such as #1f8a92.",
    "0-9a-f": "must be the name of a kept file.",
}
"""By a piece of the pattern that a text does not match."""
PLAIN = {
    "finite_number": "must be a finite number.",
    "string_too_short": "cannot be empty.",
    "union_tag_invalid": "cannot be of that kind here.",
    "union_tag_not_found": "must say of what kind it is.",
    "missing": "is missing.",
    "extra_forbidden": "is not known here.",
    "none_required": "must be left out.",
    "string_unicode": "must be plain text.",
    "json_invalid": "cannot be read.",
}
WHOLE, NUMBER, TEXT, LIST = "a whole number", "a number", "text", "a list"
KINDS = {
    "int": WHOLE,
    "float": NUMBER,
    "bool": "yes or no",
    "string": TEXT,
    "tuple": LIST,
    "list": LIST,
    "bytes": "a file",
}
"""What is expected, by how the kind of error begins."""


def in_words(error: Mapping[str, Any], shown: Shown | None = None) -> str:
    """One error as the end of a sentence; limits as the number is shown."""
    kind, limits = str(error["type"]), error.get("ctx", {})
    if kind in PLAIN:
        return PLAIN[kind]
    match kind:
        case "greater_than_equal":
            return f"must be {_number(limits['ge'], shown)} or more."
        case "greater_than":
            return f"must be more than {_number(limits['gt'], shown)}."
        case "less_than_equal":
            return f"must be {_number(limits['le'], shown)} or less."
        case "less_than":
            return f"must be less than {_number(limits['lt'], shown)}."
        case "multiple_of":
            return f"must be a multiple of {_number(limits['multiple_of'], shown)}."
        case "string_too_long":
            return f"must be at most {limits['max_length']:,} characters long."
        case "too_long":
            return f"there can be at most {limits['max_length']:,}."
        case "too_short":
            return f"there must be at least {limits['min_length']:,}."
        case "string_pattern_mismatch":
            pattern = limits.get("pattern", "")
            return next(
                (words for sign, words in PATTERNS.items() if sign in pattern), "is not written as it must be."
            )
        case "literal_error" | "enum":
            return f"must be {limits['expected']}."
        case "value_error":
            said = str(limits.get("error", error["msg"]))
            return said if said.endswith((".", "!", "?")) else f"{said}."
    expected = next((words for start, words in KINDS.items() if kind.startswith(start)), "")
    return f"must be {expected}." if expected else "is not what belongs here."


def _number(value: float, shown: Shown | None) -> str:
    if shown is None:
        return f"{value:,g}" if abs(value) >= 1e15 else f"{value:,.10g}"
    return f"{value * shown.factor:,.10g}{shown.unit if shown.unit == '°' else f' {shown.unit}' if shown.unit else ''}"
