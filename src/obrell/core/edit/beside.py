"""An icon beside its label."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BeforeValidator, Field

from obrell.core.document.measures import bounds_of
from obrell.core.document.model import Control
from obrell.core.document.tree import descendants
from obrell.core.edit.base import Edit, Surroundings, moved, names_of, part_of
from obrell.core.edit.companions import FitAround
from obrell.core.edit.containers import GroupParts
from obrell.core.edit.follows import PLACE, AddFollow
from obrell.core.edit.parts import Ids
from obrell.core.edit.typed import summed
from obrell.core.errors import Refused
from obrell.core.geometry.plane import Similarity
from obrell.core.shapes import Text
from obrell.core.values.fields import Id, Signed


class PutBeside(Edit):
    """Of two parts the one that is no text put beside the other with a gap, and held there from now on, both in one
    group, so that a body can fit both. Given a ``body``, both together stay in its middle as the words change: they
    follow it, or when it keeps to the label it makes room for the other one on that side."""

    kind: Literal["put-beside"] = "put-beside"
    parts: Ids
    gap: Annotated[Signed, BeforeValidator(summed)] = 6.0
    side: Literal["before", "after"] = Field("before", title="side")
    body: Id | None = None

    def apply(self, control: Control, around: Surroundings) -> Control:
        label, icon = self._label_first(control)
        if self.body is not None:
            control = self._centred(control, label, icon, self.body, around)
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
        label, icon = self._label_first(control)
        return f"Put {names_of(control, [icon])} beside {names_of(control, [label])}"

    def _centred(self, control: Control, label: str, icon: str, body: str, around: Surroundings) -> Control:
        """The label where it has to be for both to lie in the middle of the body, and kept there."""
        if body in (label, icon):
            raise Refused("The body is a third part, behind the label and what stands beside it.")
        room = self.gap + bounds_of(control, [icon]).width
        words, box = bounds_of(control, [label]), bounds_of(control, [body])
        if any(follow.source == label for follow in part_of(control, body).follows):
            pad = min(words.left - box.left, box.right - words.right)
            left, right = (pad + room, pad) if self.side == "before" else (pad, pad + room)
            return FitAround(body=body, inner=label, left=left, right=right).apply(control, around)
        x = box.centre.x + (room if self.side == "before" else -room) / 2
        control = moved(control, {label: Similarity(dx=x - words.centre.x, dy=box.centre.y - words.centre.y)})
        for path, measure in PLACE:
            control = AddFollow(part=label, path=path, source=body, measure=measure).apply(control, around)
        return control

    def _label_first(self, control: Control) -> tuple[str, str]:
        if len(self.parts) != 2:
            raise Refused("Select two parts: a label and what stands beside it.")
        one, other = self.parts
        if other in descendants(control, [one]) or one in descendants(control, [other]):
            raise Refused("One of these parts lies in the other.")
        return (one, other) if isinstance(part_of(control, one).shape, Text) else (other, one)
