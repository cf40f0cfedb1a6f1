"""An icon beside its label."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BeforeValidator, Field

from obrell.core.document.measures import bounds_of
from obrell.core.document.model import Control
from obrell.core.document.tree import descendants
from obrell.core.edit.base import Edit, Surroundings, moved, names_of, part_of
from obrell.core.edit.containers import GroupParts
from obrell.core.edit.follows import AddFollow
from obrell.core.edit.parts import Ids
from obrell.core.edit.typed import summed
from obrell.core.errors import Refused
from obrell.core.geometry.plane import Similarity
from obrell.core.shapes import Text
from obrell.core.values.fields import Signed


class PutBeside(Edit):
    """Of two parts the one that is no text put beside the other with a gap, and held there from now on,
    both in one group, so that a body can fit both."""

    kind: Literal["put-beside"] = "put-beside"
    parts: Ids
    gap: Annotated[Signed, BeforeValidator(summed)] = 6.0
    side: Literal["before", "after"] = Field("before", title="side")

    def apply(self, control: Control, around: Surroundings) -> Control:
        if len(self.parts) != 2:
            raise Refused("Select two parts: a label and what stands beside it.")
        label, icon = self._label_first(control)
        words, box = bounds_of(control, [label]), bounds_of(control, [icon])
        away = self.gap + box.width / 2
        x = words.left - away if self.side == "before" else words.right + away
        control = moved(control, {icon: Similarity(dx=x - box.centre.x, dy=words.centre.y - box.centre.y)})
        if part_of(control, label).within is None or part_of(control, label).within != part_of(control, icon).within:
            control = GroupParts(parts=self.parts).apply(control, around)
        across = AddFollow(part=icon, path="x", source=label, measure="left" if self.side == "before" else "right")
        down = AddFollow(part=icon, path="y", source=label, measure="middle down")
        return down.apply(across.apply(control, around), around)

    def label(self, control: Control) -> str:
        return f"Put {names_of(control, self.parts[1:])} beside {names_of(control, self.parts[:1])}"

    def _label_first(self, control: Control) -> tuple[str, str]:
        one, other = self.parts
        if other in descendants(control, [one]) or one in descendants(control, [other]):
            raise Refused("One of these parts lies in the other.")
        return (one, other) if isinstance(part_of(control, one).shape, Text) else (other, one)
