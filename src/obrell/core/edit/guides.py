"""Putting guides down, moving and removing them."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from obrell.core.document.guides import guide_places
from obrell.core.document.measures import bounds_of
from obrell.core.document.model import MAX_GUIDES, Control, Guide
from obrell.core.edit.base import Edit, Surroundings
from obrell.core.errors import NoSuchThing, Refused
from obrell.core.geometry.plane import Rect
from obrell.core.geometry.svgdata import number
from obrell.core.values.fields import Id, Place


class AddGuide(Edit):
    """A guide at a distance from an edge, the middle or another guide."""

    kind: Literal["add-guide"] = "add-guide"
    axis: Literal["across", "down"]
    at: Place = 0.0
    since: Literal["start", "middle", "end"] | Id = "start"

    def apply(self, control: Control, around: Surroundings) -> Control:
        return _with_guides(control, [(self.axis, self.at, self.since)])

    def label(self, control: Control) -> str:
        return f"Put a guide at {number(self.at)} px {self.axis}"


class CommonGuides(Edit):
    """Guides along edges and centres: of the canvas, with its margins, or of parts."""

    kind: Literal["common-guides"] = "common-guides"
    parts: Annotated[tuple[Id, ...], Field(max_length=1000)] = ()

    def apply(self, control: Control, around: Surroundings) -> Control:
        canvas = control.canvas
        box = bounds_of(control, self.parts) if self.parts else Rect(0, 0, canvas.width, canvas.height)
        wanted: list[tuple[str, float, str]] = []
        for axis, start, end in (("across", box.left, box.right), ("down", box.top, box.bottom)):
            wanted += [(axis, start, "start"), (axis, (start + end) / 2, "start"), (axis, end, "start")]
            if not self.parts:
                wanted[-3:] = [(axis, 0.0, since) for since in ("start", "middle", "end")]
                inside = [(axis, canvas.margin, "start"), (axis, -canvas.margin, "end")]
                wanted += inside if canvas.margin else []
        return _with_guides(control, wanted)

    def label(self, control: Control) -> str:
        return f"Put guides along {'the selection' if self.parts else 'the canvas'}"


class MoveGuide(Edit):
    """A guide moved by px."""

    kind: Literal["move-guide"] = "move-guide"
    guide: Id
    by: Place

    def apply(self, control: Control, around: Surroundings) -> Control:
        guide = _guide(control, self.guide)
        if guide.locked:
            raise Refused("This guide is locked. Unlock it in the sheet to move it.")
        moved = guide.evolve(at=guide.at + self.by)
        return control.evolve(guides=tuple(moved if g is guide else g for g in control.guides))

    def label(self, control: Control) -> str:
        return "Moved a guide"


class RemoveGuides(Edit):
    """One guide taken away, or all that are not locked when none is named."""

    kind: Literal["remove-guides"] = "remove-guides"
    guide: Id | None = None

    def apply(self, control: Control, around: Surroundings) -> Control:
        if self.guide is not None:
            _guide(control, self.guide)
        kept = (g for g in control.guides if (g.locked if self.guide is None else g.id != self.guide))
        return control.evolve(guides=tuple(kept))

    def removes(self) -> bool:
        return True

    def label(self, control: Control) -> str:
        return "Removed a guide" if self.guide else "Removed the guides"


class ShowGuides(Edit):
    """All guides shown or hidden, locked or freed."""

    kind: Literal["show-guides"] = "show-guides"
    visible: bool | None = None
    locked: bool | None = None

    def apply(self, control: Control, around: Surroundings) -> Control:
        changes = {"visible": self.visible, "locked": self.locked}
        given = {name: value for name, value in changes.items() if value is not None}
        return control.evolve(guides=tuple(guide.evolve(**given) for guide in control.guides))

    def label(self, control: Control) -> str:
        if self.visible is not None:
            return "Showed the guides" if self.visible else "Hid the guides"
        return "Locked the guides" if self.locked else "Unlocked the guides"


def _guide(control: Control, guide_id: str) -> Guide:
    for guide in control.guides:
        if guide.id == guide_id:
            return guide
    raise NoSuchThing("That guide is no longer there: it was removed, perhaps in another window.")


def _with_guides(control: Control, wanted: list[tuple[str, float, str]]) -> Control:
    """New guides, but for places where there is one."""
    places = guide_places(control)
    there = {(guide.axis, round(places[guide.id], 6)) for guide in control.guides}
    next_number, guides = control.next_number, list(control.guides)
    for axis, at, since in wanted:
        guide = Guide(id=f"g{next_number}", axis=axis, at=at, since=since)
        made = control.evolve(guides=(*guides, guide))
        spot = (guide.axis, round(guide_places(made)[guide.id], 6))
        if spot not in there:
            there.add(spot)
            guides.append(guide)
            next_number += 1
    if len(guides) > MAX_GUIDES:
        raise Refused(f"A control can have at most {MAX_GUIDES} guides.")
    return control.evolve(guides=tuple(guides), next_number=next_number)
