"""What a window has selected: it comes with every request and shapes what is shown."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from obrell.core.values.base import Value


class Selection(Value):
    """Parts by id with commas between, an open effect, a chosen point of a path as
    contour/knot, a chosen copy of a repeat, and the place of the frame that x and y are shown for, as two shares."""

    part: Annotated[str, Field(max_length=40_000)] = ""
    effect: Annotated[str, Field(max_length=40)] = ""
    point: Annotated[str, Field(max_length=20)] = ""
    copy_number: Annotated[str, Field(pattern=r"^\d{0,3}$")] = ""
    anchor: Annotated[str, Field(pattern=r"^(0|0\.5|1),(0|0\.5|1)$|^$")] = ""

    def shares(self) -> tuple[float, float] | None:
        """The anchor as numbers; None when places are those of the parts themselves."""
        if not self.anchor:
            return None
        across, down = self.anchor.split(",")
        return float(across), float(down)


NOTHING = Selection()
