"""A kit as one JSON file."""

from __future__ import annotations

import json
from base64 import b64decode, b64encode
from typing import Any

from pydantic import TypeAdapter, ValidationError

from obrell.core.document.model import SCHEMA, Kit
from obrell.core.errors import BadDocument
from obrell.core.files import file_id
from obrell.core.interchange.fonts import is_font, read_font
from obrell.core.interchange.pictures import read_picture
from obrell.core.values.wrong import in_words

SHOWN_ERRORS = 3
MOST_OF_PATH = 120
ARCHIVE = b"PK\x03\x04"


def write_kit(kit: Kit) -> bytes:
    """The kit as UTF-8 JSON, ending in a line break; equal kits give equal bytes."""
    data = kit.model_dump(mode="json")
    return (json.dumps(data, indent=1, ensure_ascii=False, sort_keys=True) + "\n").encode()


def kit_from(content: bytes) -> Kit:
    """The kit in a file; raises ``BadDocument`` with words that say where. What comes from outside is read by
    ``trial.kits.read_kit``."""
    data = _parsed(content)
    version = data.get("schema_version")
    if isinstance(version, int) and version > SCHEMA:
        raise BadDocument(
            f"This kit was written by a later Obrell (form {version}; this one reads {SCHEMA}). "
            "A newer Obrell will open it."
        )
    try:
        kit = Kit.model_validate(data)
        kept = {name: _kept(name, text) for name, text in kit.files.items()}
        names = {name: file_id(file) for name, file in kept.items()}
        if any(old != new for old, new in names.items()):
            kit = Kit.model_validate(_renamed(data, names))
    except ValidationError as error:
        raise BadDocument(_in_words(error)) from error
    return kit.evolve(files={names[name]: b64encode(file).decode() for name, file in kept.items()})


def _kept(name: str, text: str) -> bytes:
    """A file in a kit is what it is named after, and something that could be brought in; as it is then kept."""
    try:
        content = b64decode(text, validate=True)
    except ValueError as error:
        raise BadDocument(f"The file {name} in this kit is not Base64.") from error
    if file_id(content) != name:
        raise BadDocument(f"The file {name} in this kit is not the one that its name stands for.")
    return read_font.function(content).content if is_font(content) else read_picture.function(content)


def _renamed(data: Any, names: dict[str, str]) -> Any:
    """The document with files called otherwise, wherever it refers to them."""
    if isinstance(data, dict):
        return {names.get(key, key): _renamed(value, names) for key, value in data.items()}
    if isinstance(data, list):
        return [_renamed(item, names) for item in data]
    return names.get(data, data) if isinstance(data, str) else data


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
    except ValueError as error:
        raise BadDocument("This is not a kit file: a number in it has too many digits.") from error
    if not isinstance(data, dict):
        raise BadDocument("This is not a kit file: it does not hold one object.")
    return data


def _in_words(error: ValidationError) -> str:
    found = error.errors(include_url=False)
    lines = [
        f"{'/'.join(str(step) for step in item['loc'])[:MOST_OF_PATH] or 'the file'}: {in_words(item)}"
        for item in found[:SHOWN_ERRORS]
    ]
    more = len(found) - SHOWN_ERRORS
    return "This kit cannot be read. " + " ".join(lines) + (f" And {more:,} more." if more > 0 else "")
