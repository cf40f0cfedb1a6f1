"""The one model base, and how a value is changed."""

from __future__ import annotations

import hashlib
import json
import re
from typing import Any, Self

from pydantic import BaseModel, ConfigDict, ValidationError

from obrell.core.errors import BadValue
from obrell.core.values.wrong import in_words


class Value(BaseModel):
    """An immutable, validated value: no unknown fields, no NaN, no infinity.

    Instances are only ever made by validation (the constructor, ``evolve`` or ``read``), so a
    child that already exists is valid and is shared, not copied, when its owner changes.
    """

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)

    def hidden_fields(self) -> tuple[str, ...]:
        """Fields that mean nothing as the others stand, and that an open sheet leaves out."""
        return ()

    def omitted(self) -> tuple[str, ...]:
        """``hidden_fields``, and those that depend on what kind of value it is."""
        return self.hidden_fields()

    def evolve(self, **changes: Any) -> Self:
        """A copy with some fields changed, validated again; untouched fields stay the same objects.

        Raises ``BadValue`` with the field's title and the rule it broke.
        """
        fields = {name: getattr(self, name) for name in type(self).model_fields}
        try:
            return type(self)(**(fields | changes))
        except ValidationError as error:
            raise bad_value(error, type(self)) from error


def bad_value(error: ValidationError, model: type[BaseModel]) -> BadValue:
    """The first thing Pydantic found wrong, in words: which field, and what it must be, in the unit it is shown in."""
    first = error.errors(include_url=False)[0]
    path = "/".join(str(step) for step in first["loc"])
    name = next((str(step) for step in first["loc"] if step in model.model_fields), "")
    field = model.model_fields.get(name)
    title = (field.title or name.replace("_", " ")) if field else "This"
    shown = next((item for item in field.metadata if hasattr(item, "factor")), None) if field else None
    return BadValue(f"{title[:1].upper()}{title[1:]}: {in_words(first, shown)}", path)


_PIECES = re.compile(r'"(?:[^"\\]|\\.)*"|-0\.0(?=[,\]}])')
"""The strings of a JSON text, and its negative zeros."""


def canonical_json(value: BaseModel) -> str:
    """The one JSON text of a value: sorted keys, no spaces, -0.0 written as 0.0."""
    return canonical(value.model_dump(mode="json"))


def canonical(data: object) -> str:
    """The one JSON text of what a value is as JSON."""
    text = json.dumps(data, sort_keys=True, separators=(",", ":"), ensure_ascii=False)
    if "-0.0" not in text:
        return text
    return _PIECES.sub(lambda piece: "0.0" if piece[0] == "-0.0" else piece[0], text)


def content_hash(value: BaseModel) -> str:
    """32 hexadecimal digits that are equal exactly when the canonical JSON is equal."""
    return text_hash(canonical_json(value))


def text_hash(text: str) -> str:
    """``content_hash`` of the value with that canonical JSON."""
    return hashlib.blake2b(text.encode(), digest_size=16).hexdigest()
