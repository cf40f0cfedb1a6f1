"""Reading values that are one of several kinds, told apart by their field ``kind``."""

from __future__ import annotations

from functools import cached_property
from typing import Any, Generic, TypeVar, get_args

from pydantic import BaseModel, TypeAdapter, ValidationError

from obrell.core.values.base import bad_value

One = TypeVar("One", bound=BaseModel)


class Kinds(Generic[One]):
    """The kinds of a discriminated union.

    union: as annotated, with its discriminator; it is built when it is first read, which takes a moment.
    otherwise: the kind that a refusal speaks of when the one that was meant is not known.
    """

    def __init__(self, union: Any, otherwise: type[One]) -> None:
        self._union = union
        self._otherwise = otherwise

    @cached_property
    def _adapter(self) -> TypeAdapter[One]:
        return TypeAdapter(self._union)

    @cached_property
    def _by_name(self) -> dict[str, type[One]]:
        union, _ = get_args(self._union)
        return {kind.model_fields["kind"].default: kind for kind in get_args(union)}

    def read(self, data: Any) -> One:
        """A value from its JSON form; raises ``BadValue`` in words."""
        try:
            return self._adapter.validate_python(data)
        except ValidationError as error:
            name = str(data.get("kind")) if isinstance(data, dict) else ""
            raise bad_value(error, self._by_name.get(name, self._otherwise)) from error
