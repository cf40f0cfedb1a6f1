"""What a window has selected: it comes with every request and shapes what is shown."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated

from fastapi import Depends
from pydantic import Field

from obrell.core.document.editions import EditionsText, looked_at
from obrell.core.document.model import REST, Control, KitSettings
from obrell.core.document.readings import NumbersText, Readings, numbers_in, readings_in
from obrell.core.document.resolve import DAY, colourway_or_day
from obrell.core.document.states import in_state
from obrell.core.edit import Edit
from obrell.core.edit.editions import drawn_in
from obrell.core.edit.readings import at_readings
from obrell.core.edit.states import made_in
from obrell.core.geometry.plane import Point
from obrell.core.values.base import Value
from obrell.store.kits import Stored

StateName = Annotated[str, Field(pattern=r"^[a-z][a-z0-9-]*$", max_length=40)]
Colourway = Annotated[str, Field(max_length=40)]


@dataclass(frozen=True, slots=True)
class Drawn:
    """What of a control is drawn, as addresses say it: a state, in a size and the art for a density."""

    state: StateName = REST
    editions: EditionsText = ""

    def edition(self, stored: Stored) -> Stored:
        """A control in those of the editions that it has."""
        return replace(stored, control=looked_at(stored.control, self.editions))

    def look(self, stored: Stored) -> Control:
        """It in the state too; raises ``NoSuchThing``."""
        return in_state(self.edition(stored).control, self.state)


AT_REST = Drawn()
Asked = Annotated[Drawn, Depends()]
"""What is drawn, as parameters of a request."""


class Selection(Value):
    """Parts by id with commas between, an open effect, chosen points of a path as contour/knot with commas between, a
    chosen copy of a repeat, and the place of the frame that x and y are shown for, as two shares."""

    part: Annotated[str, Field(max_length=40_000)] = ""
    effect: Annotated[str, Field(max_length=40)] = ""
    points: Annotated[str, Field(pattern=r"^(\d{1,6}/\d{1,6}(,\d{1,6}/\d{1,6})*)?$", max_length=40_000)] = ""
    copy_number: Annotated[str, Field(pattern=r"^\d{0,3}$")] = ""
    near: Annotated[str, Field(pattern=r"^-?\d{1,6}(\.\d+)?,-?\d{1,6}(\.\d+)?$|^$", max_length=40)] = ""
    """The place on the canvas that was pressed last."""
    have: Annotated[str, Field(max_length=40)] = ""
    """The token of what the window shows now."""
    anchor: Annotated[str, Field(pattern=r"^(0|0\.5|1),(0|0\.5|1)$|^$")] = ""
    colourway: Colourway = DAY
    """The colourway that the control is looked at in."""
    state: StateName = REST
    """The state that is drawn: what is done is done in it."""
    editions: EditionsText = ""
    """The size and the art for a density that are drawn, by their ids with commas between."""
    also: Annotated[str, Field(pattern=r"^[a-z0-9,-]*$", max_length=1000)] = ""
    """Other states that it is done in too, with commas between."""
    came: Annotated[str, Field(pattern=r"^[a-z0-9-]*$", max_length=40)] = ""
    """The state that a movement to the drawn one is looked at from; empty where none is looked at."""
    readings: NumbersText = ""
    """The numbers that readings are at, where that is not where they begin."""

    def values(self, control: Control) -> Readings:
        """The numbers of those readings that the control has, between their ends."""
        return readings_in(self.readings, control)

    def drawn(self, control: Control) -> str:
        """The state that is drawn; rest where the control has it no more."""
        return self.state if self.state in control.state_ids else REST

    def edition(self, stored: Stored) -> Stored:
        """A control in the editions that are drawn, as far as it has them."""
        return Drawn(self.state, self.editions).edition(stored)

    def into(self, edit: Edit) -> Edit:
        """An edit as it is made in the editions and states that were chosen."""
        return drawn_in(made_in(at_readings(edit, numbers_in(self.readings)), self.state, self.also), self.editions)

    def way(self, kit: KitSettings) -> str:
        """The colourway, or Day where the kit has it no more."""
        return colourway_or_day(kit, self.colourway)

    def shares(self) -> tuple[float, float]:
        """The anchor as numbers; the middle when none is chosen."""
        across, down = (self.anchor or "0.5,0.5").split(",")
        return float(across), float(down)

    def spots(self) -> tuple[tuple[int, int], ...]:
        """The chosen points as numbers of contours and of knots in them."""
        pairs = (name.split("/") for name in self.points.split(",") if name)
        return tuple((int(contour), int(knot)) for contour, knot in pairs)

    def place(self) -> Point | None:
        """Where the art was pressed last."""
        if not self.near:
            return None
        x, y = self.near.split(",")
        return Point(float(x), float(y))


NOTHING = Selection()
