"""What can be done to a panel of Trial, as small values applied by pure functions."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from functools import lru_cache
from typing import Annotated, Any, Literal, TypeVar, get_args

from pydantic import Field, JsonValue, TypeAdapter, ValidationError

from obrell.core.document.model import Control
from obrell.core.document.touching import touch_outline
from obrell.core.document.value_paths import field_of, live_at, with_value
from obrell.core.edit.nouns import noun_of
from obrell.core.edit.typed import number_from
from obrell.core.errors import BadValue, NoSuchThing, Refused
from obrell.core.geometry.svgdata import number, shown
from obrell.core.shapes import Text
from obrell.core.values.base import Value, bad_value
from obrell.core.values.fields import Id, Live, Name, Place
from obrell.core.values.panels import MAX_PLACEMENTS, MAX_SOURCES, Fixture, Panel, Placement
from obrell.core.values.slugs import free_id
from obrell.core.values.sources import Chance, Move, Row, Source, Steady, Steps, Switches, Turns, Wave

Controls = Mapping[str, Control]
"""The controls of the kit that an edit names or that stand on its panel, by id; those that are gone are not there."""
Ids = Annotated[tuple[Id, ...], Field(min_length=1, max_length=MAX_PLACEMENTS)]
Typed = Annotated[str, Field(max_length=200)]
GONE = "That is no longer on the panel: it was removed, perhaps in another window. Undo brings it back."
FULL = f"A panel can hold at most {MAX_PLACEMENTS} controls."
COURSES: dict[str, type[Value]] = {"steady": Steady, "wave": Wave, "steps": Steps, "random": Chance}
OFFSET_PX = 16.0
"""How far a copy lies from what it is of."""
T = TypeVar("T", Fixture, Placement, Source)


class PanelEdit(Value):
    """Base of what can be done to a panel."""

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        """The panel afterwards; raises ``Refused`` in words, and then nothing is changed."""
        raise NotImplementedError

    def label(self, panel: Panel, controls: Controls) -> str:
        """What is done, in words."""
        raise NotImplementedError

    def controls(self) -> tuple[str, ...]:
        """The controls that it names."""
        return ()

    def removes(self) -> bool:
        """Whether something is gone afterwards that can be taken back on the spot."""
        return False


def found(some: Sequence[T], ident: str) -> T:
    """One of those on a panel by its id; raises ``NoSuchThing``."""
    one = next((one for one in some if one.id == ident), None)
    if one is None:
        raise NoSuchThing(GONE)
    return one


def name_at(panel: Panel, controls: Controls, placement: str) -> str:
    """What stands there is called."""
    control = controls.get(found(panel.placements, placement).control)
    return "a control that is gone" if control is None else f"“{control.name}”"


def named(panel: Panel, controls: Controls, placements: Sequence[str]) -> str:
    """What one of them is called, or how many there are."""
    return name_at(panel, controls, placements[0]) if len(placements) == 1 else f"{len(placements)} controls"


def _changed(panel: Panel, placements: Sequence[str], change: Callable[[Placement], Placement]) -> Panel:
    for ident in placements:
        found(panel.placements, ident)
    return panel.evolve(placements=tuple(change(one) if one.id in placements else one for one in panel.placements))


def _one_more(panel: Panel, placement: Callable[[str], Placement]) -> Panel:
    if len(panel.placements) >= MAX_PLACEMENTS:
        raise Refused(FULL)
    new = placement(f"i{panel.next_number}")
    return panel.evolve(placements=(*panel.placements, new), next_number=panel.next_number + 1)


class SetOnPanel(PanelEdit):
    """A value at a path below the panel."""

    kind: Literal["set"] = "set"
    path: Annotated[str, Field(min_length=1, max_length=300)]
    value: JsonValue

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        _check_open(self.path)
        changed: Panel = with_value(panel, self.path, self.value)
        return changed

    def label(self, panel: Panel, controls: Controls) -> str:
        owner, name = field_of(panel, self.path)
        title = noun_of(type(owner).model_fields[name].title or name.replace("_", " ")).capitalize()
        live, value = live_at(panel, self.path), self.value
        if live is None or not isinstance(value, int | float):
            return f"{title}{_whose(panel, controls, self.path)}"
        before, after = (f"{shown(one * live.factor)} {live.unit}".strip() for one in (getattr(owner, name), value))
        return f"{title}{_whose(panel, controls, self.path)}: {before} → {after}"


KEPT = ("id", "next_number", "placements", "fixtures", "sources", "control", "words", "numbers", "moves")
"""What has edits of its own, or none."""


def _check_open(path: str) -> None:
    if path.rpartition("/")[2] in KEPT and not path.startswith("fixtures/"):
        raise BadValue("This is not set directly.", path)


def _whose(panel: Panel, controls: Controls, path: str) -> str:
    root, _, rest = path.partition("/")
    ident = rest.partition("/")[0]
    if root == "placements":
        return f" of {name_at(panel, controls, ident)}"
    return f" of “{found(panel.sources, ident).name}”" if root == "sources" else ""


class TypeOnPanel(PanelEdit):
    """A number typed into the field at a path."""

    kind: Literal["type"] = "type"
    path: Annotated[str, Field(min_length=1, max_length=300)]
    text: Typed

    def _set(self, panel: Panel) -> SetOnPanel:
        live = live_at(panel, self.path)
        if live is None:
            raise BadValue("This is not a number.", self.path)
        return SetOnPanel(path=self.path, value=number_from(self.text, live))

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        return self._set(panel).apply(panel, controls)

    def label(self, panel: Panel, controls: Controls) -> str:
        return self._set(panel).label(panel, controls)


class Put(PanelEdit):
    """A control put on the panel, its canvas' top left at a place."""

    kind: Literal["put"] = "put"
    control: Id
    x: Place
    y: Place

    def controls(self) -> tuple[str, ...]:
        return (self.control,)

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        _control(controls, self.control)
        return _one_more(panel, lambda new: Placement(id=new, control=self.control, x=self.x, y=self.y))

    def label(self, panel: Panel, controls: Controls) -> str:
        return f"Put “{_control(controls, self.control).name}” on “{panel.name}”"


def _control(controls: Controls, ident: str) -> Control:
    if ident not in controls:
        raise NoSuchThing("That control is no longer in the kit: it was removed, perhaps in another window.")
    return controls[ident]


class MoveOnPanel(PanelEdit):
    """Some of what stands on the panel, moved px."""

    kind: Literal["move"] = "move"
    placements: Ids
    dx: Place
    dy: Place

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        return _changed(panel, self.placements, lambda one: one.evolve(x=one.x + self.dx, y=one.y + self.dy))

    def label(self, panel: Panel, controls: Controls) -> str:
        return f"Moved {named(panel, controls, self.placements)} by {number(self.dx)}, {number(self.dy)}"


class RemoveFromPanel(PanelEdit):
    """Some of what stands on the panel, taken away with what sources moved of it."""

    kind: Literal["remove"] = "remove"
    placements: Ids

    def removes(self) -> bool:
        return True

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        for ident in self.placements:
            found(panel.placements, ident)
        left = tuple(one for one in panel.placements if one.id not in self.placements)
        sources = tuple(
            source.evolve(moves=tuple(move for move in source.moves if move.placement not in self.placements))
            for source in panel.sources
        )
        return panel.evolve(placements=left, sources=sources)

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
            panel = _one_more(panel, lambda new, moved=moved: Placement(**dict(moved) | {"id": new}))  # type: ignore[misc]
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
        _control(controls, self.control)
        return _changed(
            panel, (self.placement,),
            lambda one: one.evolve(control=self.control, size=None, words={}, numbers={}, acts=None),
        )  # fmt: skip

    def label(self, panel: Panel, controls: Controls) -> str:
        return f"“{_control(controls, self.control).name}” in place of {name_at(panel, controls, self.placement)}"


class SwapButton(PanelEdit):
    """A control in place of a plain button of the panel: its touch area about the button's middle, with the button's
    words where it has one text."""

    kind: Literal["swap"] = "swap"
    fixture: Id
    control: Id

    def controls(self) -> tuple[str, ...]:
        return (self.control,)

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        control, button = _control(controls, self.control), self._button(panel)
        box = touch_outline(control).bounds()
        left, top, right, bottom = (
            (0.0, 0.0, control.canvas.width, control.canvas.height) if box.empty else
            (box.left, box.top, box.right, box.bottom)
        )  # fmt: skip
        x = round(button.x + button.width / 2 - (left + right) / 2)
        y = round(button.y + button.height / 2 - (top + bottom) / 2)
        texts = [part.id for part in control.parts if isinstance(part.shape, Text)]
        words = {texts[0]: button.words} if len(texts) == 1 and button.words else {}
        panel = panel.evolve(fixtures=tuple(one for one in panel.fixtures if one.id != button.id))
        return _one_more(panel, lambda new: Placement(id=new, control=control.id, x=x, y=y, words=words))

    def _button(self, panel: Panel) -> Fixture:
        button = found(panel.fixtures, self.fixture)
        if button.kind != "button":
            raise Refused("Only a plain button becomes a control.")
        return button

    def label(self, panel: Panel, controls: Controls) -> str:
        return f"“{_control(controls, self.control).name}” in place of the button “{self._button(panel).words}”"


class WordsOnPanel(PanelEdit):
    """Other words in a text of what stands there; none gives it its own again."""

    kind: Literal["words"] = "words"
    placement: Id
    part: Id
    text: Annotated[str, Field(max_length=400)]

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        control = _control(controls, found(panel.placements, self.placement).control)
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
        control = _control(controls, found(panel.placements, self.placement).control)
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


class AddSource(PanelEdit):
    """One more simulated source."""

    kind: Literal["add-source"] = "add-source"
    name: Name

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        if len(panel.sources) >= MAX_SOURCES:
            raise Refused(f"A panel can have at most {MAX_SOURCES} sources.")
        name = self.name.strip()
        if any(one.name.lower() == name.lower() for one in panel.sources):
            raise Refused(f"A source is called “{name}” already.")
        new = Source(id=free_id(name, (one.id for one in panel.sources), "source"), name=name)
        return panel.evolve(sources=(*panel.sources, new))

    def label(self, panel: Panel, controls: Controls) -> str:
        return f"Added the source “{self.name.strip()}”"


class OfSource(PanelEdit):
    """Base of what is done to a source."""

    source: Id

    def of(self, panel: Panel) -> Source:
        return found(panel.sources, self.source)

    def put(self, panel: Panel, **changes: Any) -> Panel:
        one = self.of(panel)
        return panel.evolve(sources=tuple(one.evolve(**changes) if one is other else other for other in panel.sources))


class RemoveSource(OfSource):
    """A source taken away; what it moved stays as it begins."""

    kind: Literal["remove-source"] = "remove-source"

    def removes(self) -> bool:
        return True

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        one = self.of(panel)
        return panel.evolve(sources=tuple(other for other in panel.sources if other is not one))

    def label(self, panel: Panel, controls: Controls) -> str:
        return f"Removed the source “{self.of(panel).name}”"


class BeginCourse(OfSource):
    """Another course of a source."""

    kind: Literal["course"] = "course"
    course: Literal["steady", "wave", "steps", "random"]

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        before = self.of(panel).course
        kind = COURSES[self.course]
        kept = {name: getattr(before, name) for name in ("low", "high") if name in kind.model_fields}
        ends = {name: value for name, value in kept.items() if hasattr(before, name)}
        return self.put(panel, course=kind(**ends))

    def label(self, panel: Panel, controls: Controls) -> str:
        return f"“{self.of(panel).name}”: {self.course}"


class Record(OfSource):
    """A recording as the course of a source."""

    kind: Literal["record"] = "record"
    rows: tuple[Row, ...]

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        return self.put(panel, course={"kind": "recorded", "rows": self.rows})

    def label(self, panel: Panel, controls: Controls) -> str:
        return f"“{self.of(panel).name}”: recorded, {len(self.rows)} rows"


class AddMove(OfSource):
    """One more thing that a source moves."""

    kind: Literal["add-move"] = "add-move"
    move: Move

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        move = self.move
        control = _control(controls, found(panel.placements, move.placement).control)
        if isinstance(move, Turns) and all(one.id != move.reading for one in control.readings):
            raise NoSuchThing(f"“{control.name}” has no such reading.")
        if isinstance(move, Switches) and len(control.state_ids) == 1:
            raise Refused(f"“{control.name}” has no state to be on in.")
        for source in panel.sources:
            if any(_same(one, move) for one in source.moves):
                raise Refused(f"“{source.name}” moves that already.")
        return self.put(panel, moves=(*self.of(panel).moves, move))

    def label(self, panel: Panel, controls: Controls) -> str:
        return f"“{self.of(panel).name}” moves {name_at(panel, controls, self.move.placement)}"


def _same(one: Turns | Switches, other: Turns | Switches) -> bool:
    if one.placement != other.placement or one.kind != other.kind:
        return False
    return not isinstance(one, Turns) or not isinstance(other, Turns) or one.reading == other.reading


class SetMove(OfSource):
    """What has to be so for a source to switch something on."""

    kind: Literal["set-move"] = "set-move"
    at: Annotated[int, Field(ge=0)]
    when: Literal["above", "below"] | None = None
    than: Typed | None = None

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        moves = list(self.of(panel).moves)
        move = moves[self.at] if self.at < len(moves) else None
        if not isinstance(move, Switches):
            raise NoSuchThing(GONE)
        when = self.when or move.when
        than = move.than if self.than is None else number_from(self.than, Live())
        moves[self.at] = move.evolve(when=when, than=than)
        return self.put(panel, moves=tuple(moves))

    def label(self, panel: Panel, controls: Controls) -> str:
        return f"When “{self.of(panel).name}” switches something on"


class RemoveMove(OfSource):
    """One thing that a source moves no more."""

    kind: Literal["remove-move"] = "remove-move"
    at: Annotated[int, Field(ge=0)]

    def removes(self) -> bool:
        return True

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        moves = self.of(panel).moves
        if self.at >= len(moves):
            raise NoSuchThing(GONE)
        return self.put(panel, moves=(*moves[: self.at], *moves[self.at + 1 :]))

    def label(self, panel: Panel, controls: Controls) -> str:
        return f"“{self.of(panel).name}” moves one thing less"


class SetStepsOfSource(OfSource):
    """The numbers of a source that goes in steps, as they are typed, with spaces or commas between."""

    kind: Literal["steps"] = "steps"
    text: Annotated[str, Field(max_length=4000)]

    def apply(self, panel: Panel, controls: Controls) -> Panel:
        course = self.of(panel).course
        if not isinstance(course, Steps):
            raise Refused("Only a source that goes in steps has them typed.")
        pieces = self.text.replace(",", " ").replace(";", " ").split()
        if not pieces:
            raise BadValue("Steps: at least one number is needed, such as 0 50 100.")
        return self.put(panel, course=course.evolve(values=tuple(number_from(one, Live()) for one in pieces)))

    def label(self, panel: Panel, controls: Controls) -> str:
        return f"Steps of “{self.of(panel).name}”: {self.text.strip()[:60]}"


AnyPanelEdit = Annotated[
    SetOnPanel | TypeOnPanel | Put | MoveOnPanel | RemoveFromPanel | CopyOnPanel | Refill | SwapButton | WordsOnPanel
    | NumberOnPanel | ReorderOnPanel | AddSource | RemoveSource | BeginCourse | Record | AddMove | SetMove
    | RemoveMove | SetStepsOfSource,
    Field(discriminator="kind"),
]  # fmt: skip


@lru_cache
def _any() -> TypeAdapter[Any]:
    return TypeAdapter(AnyPanelEdit)


@lru_cache
def _kinds() -> dict[str, type[PanelEdit]]:
    union, _ = get_args(AnyPanelEdit)
    return {kind.model_fields["kind"].default: kind for kind in get_args(union)}


def read_panel_edit(data: Any) -> PanelEdit:
    """An edit of a panel from its JSON form; raises ``BadValue`` in words."""
    try:
        edit: PanelEdit = _any().validate_python(data)
    except ValidationError as error:
        kind = str(data.get("kind")) if isinstance(data, dict) else ""
        raise bad_value(error, _kinds().get(kind, SetOnPanel)) from error
    return edit
