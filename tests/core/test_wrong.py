"""Whatever is wrong with a value is said as the end of a sentence, with limits as the value is shown."""

from typing import Annotated, Literal

import pytest
from pydantic import BaseModel, ConfigDict, Field, ValidationError, field_validator

from obrell.core.values.fields import Live
from obrell.core.values.wrong import in_words


class Thing(BaseModel):
    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, strict=True)

    least: Annotated[float, Field(ge=0.25)] = 1.0
    above: Annotated[float, Field(gt=1500)] = 2000.0
    most: Annotated[float, Field(le=12_000.5)] = 1.0
    below: Annotated[float, Field(lt=2e15)] = 1.0
    step: Annotated[int, Field(multiple_of=5)] = 5
    count: int = 1
    number: float = 1.0
    on: bool = True
    words: Annotated[str, Field(min_length=1, max_length=1200)] = "a"
    name: Annotated[str, Field(pattern=r"^[a-z][a-z0-9-]*$")] = "a"
    line: Annotated[str, Field(pattern=r"^[^\x00-\x1f]*$")] = "a"
    colour: Annotated[str, Field(pattern=r"^#[0-9a-f]{6}$")] = "#000000"
    file: Annotated[str, Field(pattern=r"^[0-9a-f]+\.png$")] = "0.png"
    odd: Annotated[str, Field(pattern=r"^z+$")] = "z"
    some: Annotated[tuple[int, ...], Field(min_length=1, max_length=1500)] = (1,)
    many: list[int] = []
    raw: bytes = b""
    way: Literal["across", "down"] = "across"
    when: None = None
    own: int = 1
    asked: int = 1

    @field_validator("own")
    @classmethod
    def _own(cls, value: int) -> int:
        if value != 1:
            raise ValueError("it is not to be")
        return value

    @field_validator("asked")
    @classmethod
    def _asked(cls, value: int) -> int:
        if value != 1:
            raise ValueError("Is it to be?")
        return value


class Needed(BaseModel):
    it: int


CASES = [
    ("least", 0.0, "must be 0.25 or more."),
    ("above", 1500.0, "must be more than 1,500."),
    ("most", 12_001.0, "must be 12,000.5 or less."),
    ("below", 2e15, "must be less than 2e+15."),
    ("step", 7, "must be a multiple of 5."),
    ("count", 1.5, "must be a whole number."),
    ("count", "x", "must be a whole number."),
    ("number", "x", "must be a number."),
    ("number", float("inf"), "must be a finite number."),
    ("on", "perhaps", "must be yes or no."),
    ("words", 3, "must be text."),
    ("words", "", "cannot be empty."),
    ("words", "a" * 1201, "must be at most 1,200 characters long."),
    ("words", "\ud800", "must be plain text."),
    ("name", "A b", "must begin with a small letter and go on with small letters, digits or hyphens."),
    ("line", "a\nb", "must be one line of plain text."),
    ("colour", "red", "must be a colour such as #1f8a92."),
    ("file", "x", "must be the name of a kept file."),
    ("odd", "x", "is not written as it must be."),
    ("some", (), "there must be at least 1."),
    ("some", (1,) * 1501, "there can be at most 1,500."),
    ("some", 3, "must be a list."),
    ("many", 3, "must be a list."),
    ("raw", 3, "must be a file."),
    ("way", "up", "must be 'across' or 'down'."),
    ("when", 1, "must be left out."),
    ("own", 2, "it is not to be."),
    ("asked", 2, "Is it to be?"),
    ("other", 2, "is not known here."),
]


def said(kind, values, shown=None):
    with pytest.raises(ValidationError) as wrong:
        kind(**values)
    (error,) = wrong.value.errors()
    return in_words(error, shown)


@pytest.mark.parametrize(("field", "value", "words"), CASES)
def test_every_kind_of_wrong_has_its_words(field, value, words):
    assert said(Thing, {field: value}) == words


def test_what_is_missing_and_what_nobody_foresaw_are_said_too():
    assert said(Needed, {}) == "is missing."
    assert in_words({"type": "date_parsing", "msg": "?"}) == "is not what belongs here."
    assert in_words({"type": "value_error", "msg": "so it is"}) == "so it is."


@pytest.mark.parametrize(("live", "words"), [
    (Live("%", 1, 0, 1, factor=100), "must be 25 % or more."),
    (Live("°"), "must be 0.25° or more."),
    (Live("px"), "must be 0.25 px or more."),
    (Live(""), "must be 0.25 or more."),
])  # fmt: skip
def test_limits_are_said_as_the_value_is_shown(live, words):
    assert said(Thing, {"least": 0.0}, live) == words
