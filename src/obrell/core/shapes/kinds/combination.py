"""Combination: one shape made of others."""

from __future__ import annotations

from typing import ClassVar, Literal

from pydantic import Field

from obrell.core.geometry.combine import Mode
from obrell.core.shapes.base import Sentence, Slot, Words
from obrell.core.shapes.containers import Container


class Combination(Container):
    """One shape made of others, which stay parts: the back-most, with those in front of it joined,
    taken away, kept where all of them are, or kept where an odd number of them is."""

    label: ClassVar[str] = "Combination"
    rank: ClassVar[int] = 110
    kind: Literal["combination"] = "combination"
    mode: Mode = Field("union", title="how")

    def sentence(self) -> Sentence:
        return (Words("combination: "), Slot("mode"))
