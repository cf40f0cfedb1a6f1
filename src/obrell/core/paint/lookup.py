"""Lookup tables: values that are compared by what they hold."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray


class Lookup:
    """Values at evenly spaced places from 0 to 1. It is not to be changed."""

    __slots__ = ("_content", "values")

    def __init__(self, values: NDArray[np.float32]) -> None:
        self.values = values
        self._content = values.tobytes()

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Lookup) and self._content == other._content

    def __hash__(self) -> int:
        return hash(self._content)
