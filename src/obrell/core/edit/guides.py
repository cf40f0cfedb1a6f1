"""Putting guides down, moving and removing them."""

from __future__ import annotations

from typing import Annotated, Literal, Self

from pydantic import Field

from obrell.core.document.guides import guide_place, guide_places
from obrell.core.document.measures import bounds_of
from obrell.core.document.model import MAX_GUIDES, Control, Guide
from obrell.core.document.numbering import next_number
from obrell.core.edit.base import Edit, Surroundings
from obrell.core.edit.leading import Lead, Led
from obrell.core.errors import NoSuchThing, Refused
from obrell.core.geometry.plane import Rect
from obrell.core.geometry.svgdata import number
from obrell.core.values.fields import Id, Place

TENS = 10.0
"""What the constraining key keeps guides to, px."""


class AddGuide(Led):
    """A guide at a distance from an edge, the middle or another guide; ``centred`` puts its mirror image about the
    middle of the canvas too, ``constrained`` keeps to whole tens of px."""

    kind: Literal["add-guide"] = "add-guide"
    axis: Literal["across", "down"]
    at: Place = 0.0
    since: Literal["start", "middle", "end"] | Id = "start"
    constrained: bool = False
    centred: bool = False

    def apply(self, control: Control, around: Surroundings) -> Control:
        at = self.settled(control)._at()
        wanted: list[tuple[str, float, str]] = [(self.axis, at, self.since)]
        if self.centred:
            length = control.canvas.width if self.axis == "across" else control.canvas.height
            wanted.append((self.axis, length - _place(control, self.axis, at, self.since), "start"))
        return _with_guides(control, wanted)

    def lead(self, control: Control) -> Lead:
        return _lead(self.axis, None if self.constrained else _place(control, self.axis, self.at, self.since))

    def shifted(self, dx: float, dy: float) -> Self:
        return self.evolve(at=self._at() + (dx if self.axis == "across" else dy), constrained=False, snap=None)

    def _at(self) -> float:
        return _tens(self.at) if self.constrained else self.at

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


class MoveGuide(Led):
    """A guide moved by px; ``constrained`` keeps its place to whole tens."""

    kind: Literal["move-guide"] = "move-guide"
    guide: Id
    by: Place
    constrained: bool = False

    def apply(self, control: Control, around: Surroundings) -> Control:
        guide = _guide(control, self.guide)
        if guide.locked:
            raise Refused("This guide is locked. Unlock it in the sheet to move it.")
        edit = self.settled(control)
        by = edit.by
        if edit.constrained:
            place = guide_places(control)[guide.id]
            by = _tens(place + by) - place
        moved = guide.evolve(at=guide.at + by)
        return control.evolve(guides=tuple(moved if g is guide else g for g in control.guides))

    def label(self, control: Control) -> str:
        return "Moved a guide"

    def lead(self, control: Control) -> Lead:
        guide = _guide(control, self.guide)
        at = guide_places(control)[guide.id] + self.by
        return _lead(guide.axis, None if self.constrained else at, guide.id)

    def shifted(self, dx: float, dy: float) -> Self:
        return self.evolve(by=self.by + dx + dy, snap=None)


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


def _lead(axis: str, at: float | None, *moving: str) -> Lead:
    return Lead(at if axis == "across" else None, at if axis == "down" else None, moving)


def _tens(at: float) -> float:
    return round(at / TENS) * TENS


def _guide(control: Control, guide_id: str) -> Guide:
    for guide in control.guides:
        if guide.id == guide_id:
            return guide
    raise NoSuchThing("That guide is no longer there: it was removed, perhaps in another window.")


def _place(control: Control, axis: str, at: float, since: str) -> float:
    """Where on the canvas a new guide would lie, wherever it is counted from."""
    guide = Guide(id=f"g{next_number(control)}", axis=axis, at=at, since=since)
    return guide_place(control, guide)


def _with_guides(control: Control, wanted: list[tuple[str, float, str]]) -> Control:
    """New guides, but for places where there is one."""
    places = guide_places(control)
    there = {(guide.axis, round(places[guide.id], 6)) for guide in control.guides}
    number, guides = next_number(control), list(control.guides)
    for axis, at, since in wanted:
        guide = Guide(id=f"g{number}", axis=axis, at=at, since=since)
        spot = (guide.axis, round(guide_place(control, guide), 6))
        if spot not in there:
            there.add(spot)
            guides.append(guide)
            number += 1
    if len(guides) > MAX_GUIDES:
        raise Refused(f"A control can have at most {MAX_GUIDES} guides.")
    return control.evolve(guides=tuple(guides), next_number=number)
