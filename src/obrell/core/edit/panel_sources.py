"""Simulated sources of a panel: added, given another course, let move what stands there."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field

from obrell.core.edit.panel_base import GONE, Controls, PanelEdit, Typed, control_of, found, name_at
from obrell.core.edit.typed import number_from
from obrell.core.errors import BadValue, NoSuchThing, Refused
from obrell.core.values.base import Value
from obrell.core.values.fields import Id, Live, Name
from obrell.core.values.panels import MAX_SOURCES, Panel
from obrell.core.values.slugs import free_id
from obrell.core.values.sources import Chance, Move, Row, Source, Steady, Steps, Switches, Turns, Wave

COURSES: dict[str, type[Value]] = {"steady": Steady, "wave": Wave, "steps": Steps, "random": Chance}


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
        control = control_of(controls, found(panel.placements, move.placement).control)
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
