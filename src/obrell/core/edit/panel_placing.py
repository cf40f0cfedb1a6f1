"""What stands on a panel: put there, moved, lined up, filled again, given words and numbers of its own."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from functools import partial
from typing import Annotated, Literal, TypeVar

from pydantic import Field

from obrell.core.document.measures import around
from obrell.core.document.touching import body_box, touch_box
from obrell.core.edit.arrange import SHARES, WORDS, side_at, spaced
from obrell.core.edit.panel_base import Controls, Ids, PanelEdit, Typed, control_of, found, name_at, named, standing
from obrell.core.edit.typed import number_from
from obrell.core.edit.wording import with_words
from obrell.core.errors import BadValue, NoSuchThing, Refused
from obrell.core.geometry.plane import Rect
from obrell.core.geometry.svgdata import number
from obrell.core.shapes import Text
from obrell.core.values.fields import Id, Live, Place
from obrell.core.values.numbers import free_number
from obrell.core.values.panels import MAX_PLACEMENTS, Fixture, Panel, Placement

FULL = f"A panel can hold at most {MAX_PLACEMENTS} controls."
Stands = TypeVar("Stands", Placement, Fixture)
OFFSET_PX = 16.0
"""How far a copy lies from what it is of."""


def _changed(panel: Panel, placements: Sequence[str], change: Callable[[Placement], Placement]) -> Panel:
    for ident in placements:
        found(panel.placements, ident)
    return panel.evolve(placements=tuple(change(one) if one.id in placements else one for one in panel.placements))


def _one_more(panel: Panel, placement: Callable[[str], Placement]) -> Panel:
    if len(panel.placements) >= MAX_PLACEMENTS:
        raise Refused(FULL)
    ids = (*(one.id for one in panel.placements), *(one.id for one in panel.fixtures))
    number = free_number(panel.next_number, ids)
    return panel.evolve(placements=(*panel.placements, placement(f"i{number}")), next_number=number + 1)


def _called(placement: Placement, ident: str) -> Placement:
    return placement.evolve(id=ident)


class Put(PanelEdit):
    """A control put on the panel, its canvas' top left at a place."""

    kind: Literal["put"] = "put"
    control: Id
    x: Place
    y: Place

    def controls(self) -> tuple[str, ...]:
        return (self.control,)

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        control_of(controls, self.control)
        return _one_more(panel, lambda new: Placement(id=new, control=self.control, x=self.x, y=self.y))

    def label(self, panel: Panel, controls: Controls) -> str:
        return f"Put “{control_of(controls, self.control).name}” on “{panel.name}”"


class MoveOnPanel(PanelEdit):
    """Some of what stands on the panel, controls and what the screen itself shows, moved px."""

    kind: Literal["move"] = "move"
    placements: Ids
    dx: Place
    dy: Place

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        for ident in self.placements:
            standing(panel, ident)
        return panel.evolve(
            placements=tuple(map(self._moved, panel.placements)), fixtures=tuple(map(self._moved, panel.fixtures))
        )

    def _moved(self, one: Stands) -> Stands:
        return one.evolve(x=one.x + self.dx, y=one.y + self.dy) if one.id in self.placements else one

    def label(self, panel: Panel, controls: Controls) -> str:
        return f"Moved {named(panel, controls, self.placements)} by {number(self.dx)}, {number(self.dy)}"


class RemoveFromPanel(PanelEdit):
    """Some of what stands on the panel, controls and what the screen itself shows, taken away with what sources moved
    of it."""

    kind: Literal["remove"] = "remove"
    placements: Ids

    def removes(self) -> bool:
        return True

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        for ident in self.placements:
            standing(panel, ident)
        left = tuple(one for one in panel.placements if one.id not in self.placements)
        shown = tuple(one for one in panel.fixtures if one.id not in self.placements)
        sources = tuple(
            source.evolve(moves=tuple(move for move in source.moves if move.placement not in self.placements))
            for source in panel.sources
        )
        return panel.evolve(placements=left, fixtures=shown, sources=sources)

    def label(self, panel: Panel, controls: Controls) -> str:
        return f"Removed {named(panel, controls, self.placements)} from “{panel.name}”"


class CopyOnPanel(PanelEdit):
    """Some of what stands on the panel once more, a little aside."""

    kind: Literal["copy"] = "copy"
    placements: Ids
    dx: Place = OFFSET_PX
    dy: Place = OFFSET_PX

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        for ident in self.placements:
            one = found(panel.placements, ident)
            moved = one.evolve(x=one.x + self.dx, y=one.y + self.dy)
            panel = _one_more(panel, partial(_called, moved))
        return panel

    def label(self, panel: Panel, controls: Controls) -> str:
        return f"Copied {named(panel, controls, self.placements)}"


class Refill(PanelEdit):
    """Another control in a place of the panel; what was said of words and numbers of the old one is gone."""

    kind: Literal["refill"] = "refill"
    placement: Id
    control: Id

    def controls(self) -> tuple[str, ...]:
        return (self.control,)

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        control_of(controls, self.control)
        return _changed(
            panel, (self.placement,),
            lambda one: one.evolve(control=self.control, size=None, words={}, numbers={}, acts=None),
        )  # fmt: skip

    def label(self, panel: Panel, controls: Controls) -> str:
        return f"“{control_of(controls, self.control).name}” in place of {name_at(panel, controls, self.placement)}"


class SwapButton(PanelEdit):
    """A control in place of a plain button of the panel, with the button's words where it has one text: its body as it
    is with those about the button's middle, or from its left edge where it is wider."""

    kind: Literal["swap"] = "swap"
    fixture: Id
    control: Id

    def controls(self) -> tuple[str, ...]:
        return (self.control,)

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        control, button = control_of(controls, self.control), self._button(panel)
        texts = [part.id for part in control.parts if isinstance(part.shape, Text)]
        words = {texts[0]: button.words} if len(texts) == 1 and button.words else {}
        box = body_box(with_words(control, words))
        x = button.x - box.left + max(0.0, (button.width - box.width) / 2)
        y = button.y + button.height / 2 - box.centre.y
        panel = panel.evolve(fixtures=tuple(one for one in panel.fixtures if one.id != button.id))
        return _one_more(panel, lambda new: Placement(id=new, control=control.id, x=round(x), y=round(y), words=words))

    def _button(self, panel: Panel) -> Fixture:
        button = found(panel.fixtures, self.fixture)
        if button.kind != "button":
            raise Refused("Only a plain button becomes a control.")
        return button

    def label(self, panel: Panel, controls: Controls) -> str:
        return f"“{control_of(controls, self.control).name}” in place of the {self._button(panel).name}"


class WordsOnPanel(PanelEdit):
    """Other words in a text of what stands there; none gives it its own again."""

    kind: Literal["words"] = "words"
    placement: Id
    part: Id
    text: Annotated[str, Field(max_length=400)]

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        control = control_of(controls, found(panel.placements, self.placement).control)
        own = next(
            (one.shape.words for one in control.parts if one.id == self.part and isinstance(one.shape, Text)), ""
        )
        text = self.text.strip()

        def worded(one: Placement) -> Placement:
            words = {name: words for name, words in one.words.items() if name != self.part}
            return one.evolve(words=words if text in ("", own) else words | {self.part: text})

        return _changed(panel, (self.placement,), worded)

    def label(self, panel: Panel, controls: Controls) -> str:
        return f"Words of {name_at(panel, controls, self.placement)}: {self.text.strip() or 'its own'}"


class NumberOnPanel(PanelEdit):
    """What a reading of what stands there begins at."""

    kind: Literal["number"] = "number"
    placement: Id
    reading: Id
    text: Typed

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        control = control_of(controls, found(panel.placements, self.placement).control)
        reading = next((one for one in control.readings if one.id == self.reading), None)
        if reading is None:
            raise NoSuchThing(f"“{control.name}” has no such reading any more.")
        value = number_from(self.text, Live())
        low, high = sorted((reading.start, reading.end))
        if not low <= value <= high:
            raise BadValue(f"{reading.name} goes from {low:g} to {high:g}; {value:g} is outside of that.")
        return _changed(
            panel, (self.placement,), lambda one: one.evolve(numbers=one.numbers | {self.reading: value})
        )  # fmt: skip

    def label(self, panel: Panel, controls: Controls) -> str:
        return f"{name_at(panel, controls, self.placement)} begins at {self.text.strip()}"


class ReorderOnPanel(PanelEdit):
    """One of those on the panel, in front of all others or behind them."""

    kind: Literal["reorder"] = "reorder"
    placement: Id
    to: Literal["front", "back"]

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        one = found(panel.placements, self.placement)
        rest = tuple(other for other in panel.placements if other is not one)
        return panel.evolve(placements=(*rest, one) if self.to == "front" else (one, *rest))

    def label(self, panel: Panel, controls: Controls) -> str:
        return f"{name_at(panel, controls, self.placement)} {'in front' if self.to == 'front' else 'at the back'}"


class AlignOnPanel(PanelEdit):
    """Some of what stands on the panel in line by a side or the middle of where it is touched: with one another, or
    with the screen."""

    kind: Literal["align"] = "align"
    placements: Ids
    axis: Literal["across", "down"]
    edge: Literal["start", "middle", "end"]
    to: Literal["selection", "screen"] = "selection"

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        boxes = _boxes(panel, controls, self.placements)
        whole = Rect(0, 0, panel.width, panel.height) if self.to == "screen" else around(boxes.values())
        share = SHARES[self.edge]
        wanted = side_at(whole, self.axis, share)
        return _shifted(
            panel, self.axis, {name: wanted - side_at(box, self.axis, share) for name, box in boxes.items()}
        )

    def label(self, panel: Panel, controls: Controls) -> str:
        return f"Aligned {named(panel, controls, self.placements)}: {WORDS[self.axis, self.edge]}"


class SpaceOnPanel(PanelEdit):
    """Some of what stands on the panel with equal gaps between where it is touched, from the first to the last."""

    kind: Literal["space"] = "space"
    placements: Ids
    axis: Literal["across", "down"]

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        boxes = _boxes(panel, controls, self.placements)
        if len(boxes) < 3:
            raise Refused("Equal gaps need three controls: choose one more with Shift.")
        return _shifted(panel, self.axis, spaced(boxes, self.axis))

    def label(self, panel: Panel, controls: Controls) -> str:
        return f"Spaced {named(panel, controls, self.placements)} {self.axis}"


def _boxes(panel: Panel, controls: Controls, placements: Sequence[str]) -> dict[str, Rect]:
    """Where each is touched on the panel; of those whose control is gone, nothing."""
    boxes = {}
    for name in placements:
        one = found(panel.placements, name)
        if one.control in controls:
            box = touch_box(controls[one.control])
            boxes[name] = Rect(box.left + one.x, box.top + one.y, box.right + one.x, box.bottom + one.y)
    if not boxes:
        raise Refused("There is nothing to put in line there: choose controls first.")
    return boxes


def _shifted(panel: Panel, axis: str, away: Mapping[str, float]) -> Panel:
    """Each moved along an axis, to whole px."""
    field = "x" if axis == "across" else "y"
    return _changed(panel, tuple(away), lambda one: one.evolve(**{field: round(getattr(one, field) + away[one.id])}))
