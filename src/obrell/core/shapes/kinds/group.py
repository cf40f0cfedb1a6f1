"""Group: parts that are handled together."""

from __future__ import annotations

from typing import ClassVar, Literal

from pydantic import Field

from obrell.core.shapes.base import Sentence, Words
from obrell.core.shapes.containers import Container


class Group(Container):
    """Parts that are moved, hidden, faded and given effects together."""

    label: ClassVar[str] = "Group"
    rank: ClassVar[int] = 100
    kind: Literal["group"] = "group"
    through: bool = Field(False, title="blends with what is below the group")

    def sentence(self) -> Sentence:
        return (Words("group"),)
