"""A kit as one JSON file."""

from __future__ import annotations

import json
from typing import Any

from pydantic import TypeAdapter, ValidationError

from obrell.core.document.model import SCHEMA, Kit
from obrell.core.errors import BadDocument, TooLarge
from obrell.core.interchange.limits import MAX_KIT_BYTES

SHOWN_ERRORS = 3
ARCHIVE = b"PK\x03\x04"


def write_kit(kit: Kit) -> bytes:
    """The kit as UTF-8 JSON, ending in a line break; equal kits give equal bytes."""
    data = kit.model_dump(mode="json")
    return (json.dumps(data, indent=1, ensure_ascii=False, sort_keys=True) + "\n").encode()


def read_kit(content: bytes) -> Kit:
    """The kit in a file; raises ``BadDocument`` or ``TooLarge`` with words that say where."""
    if len(content) > MAX_KIT_BYTES:
        raise TooLarge(f"A kit file can have at most {MAX_KIT_BYTES // 1_000_000} MB.")
    data = _parsed(content)
    version = data.get("schema_version")
    if isinstance(version, int) and version > SCHEMA:
        raise BadDocument(
            f"This kit was written by a later Obrell (form {version}; this one reads {SCHEMA}). "
            "A newer Obrell will open it."
        )
    try:
        return Kit.model_validate(data)
    except ValidationError as error:
        raise BadDocument(_in_words(error)) from error


def kit_schema() -> dict[str, Any]:
    """JSON Schema of a kit file."""
    return TypeAdapter(Kit).json_schema()


def _parsed(content: bytes) -> dict[str, Any]:
    if content.startswith(ARCHIVE):
        raise BadDocument("This is an archive, not a kit file. A kit is one JSON file; unpack it first.")
    try:
        data = json.loads(content.decode())
    except RecursionError as error:
        raise BadDocument("This is not a kit file: it is nested too deeply.") from error
    except UnicodeDecodeError as error:
        raise BadDocument("This is not a kit file: it is not UTF-8 text.") from error
    except json.JSONDecodeError as error:
        raise BadDocument(
            f"This is not a whole kit file: the JSON breaks off or is wrong in line {error.lineno}, "
            f"column {error.colno}."
        ) from error
    if not isinstance(data, dict):
        raise BadDocument("This is not a kit file: it does not hold one object.")
    return data


def _in_words(error: ValidationError) -> str:
    found = error.errors(include_url=False)
    lines = [
        f"{'/'.join(str(step) for step in item['loc']) or 'the file'}: {item['msg'].lower()}"
        for item in found[:SHOWN_ERRORS]
    ]
    more = len(found) - SHOWN_ERRORS
    return "This kit cannot be read. " + "; ".join(lines) + (f"; and {more} more." if more > 0 else ".")
