"""A copy and the control that it follows."""

from __future__ import annotations

from typing import Literal

from obrell.core.document.model import Control
from obrell.core.edit.base import Edit, Surroundings
from obrell.core.errors import Refused


class LeaveOriginal(Edit):
    """It stays as it is from now on."""

    kind: Literal["leave-original"] = "leave-original"

    def apply(self, control: Control, around: Surroundings) -> Control:
        if control.original is None:
            raise Refused("This control follows no other.")
        return control.evolve(original=None)

    def removes(self) -> bool:
        return True

    def label(self, control: Control) -> str:
        return "Stopped following its original"
