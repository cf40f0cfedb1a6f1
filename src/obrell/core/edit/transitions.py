"""How long states take to become each other."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from obrell.core.document.model import Control
from obrell.core.document.transitions import own_timing, timing_of
from obrell.core.edit.base import Surroundings
from obrell.core.edit.states import OfStates, names_of_states
from obrell.core.errors import NoSuchThing, Refused
from obrell.core.values.easings import Bezier, Steps, Stops, css_of, easing_from
from obrell.core.values.fields import Id
from obrell.core.values.transitions import MAX_TRANSITIONS, Transition


class OfTransition(OfStates):
    """Base of what is done to how one state becomes another, both by their ids."""

    start: Id
    end: Id

    def called(self, control: Control) -> str:
        """The two states by their names; raises ``NoSuchThing``."""
        start, end = (names_of_states(control, (name,)) for name in (self.start, self.end))
        return f"{start} to {end.lower()}"


class OwnTiming(OfTransition):
    """Two states with a timing of their own from now on, which begins as that of all."""

    kind: Literal["own-timing"] = "own-timing"

    def apply(self, control: Control, around: Surroundings) -> Control:
        called = self.called(control)
        if self.start == self.end:
            raise Refused("A state becomes another one, not itself.")
        if own_timing(control, self.start, self.end) is not None:
            raise Refused(f"{called} has a timing of its own already.")
        if len(control.transitions) >= MAX_TRANSITIONS:
            raise Refused(f"At most {MAX_TRANSITIONS} pairs of states can have a timing of their own.")
        own = Transition(start=self.start, end=self.end, **dict(control.timing))
        return control.evolve(transitions=(*control.transitions, own))

    def label(self, control: Control) -> str:
        return f"{self.called(control)}: a timing of its own"


class SharedTiming(OfTransition):
    """Two states with the timing that all have again."""

    kind: Literal["shared-timing"] = "shared-timing"

    def apply(self, control: Control, around: Surroundings) -> Control:
        own = own_timing(control, self.start, self.end)
        if own is None:
            raise NoSuchThing(f"{self.called(control)} has no timing of its own any more.")
        return control.evolve(transitions=tuple(one for one in control.transitions if one is not own))

    def removes(self) -> bool:
        return True

    def label(self, control: Control) -> str:
        return f"{self.called(control)}: timed as all others again"


class SetEasing(OfTransition):
    """The easing of two states, or of all where they have none of their own, as it is written in CSS."""

    kind: Literal["set-easing"] = "set-easing"
    css: Annotated[str, Field(max_length=2000)]

    def apply(self, control: Control, around: Surroundings) -> Control:
        easing, own = easing_from(self.css), own_timing(control, self.start, self.end)
        if own is None:
            return control.evolve(timing=control.timing.evolve(easing=easing))
        changed = own.evolve(easing=easing)
        return control.evolve(transitions=tuple(changed if one is own else one for one in control.transitions))

    def label(self, control: Control) -> str:
        timing = timing_of(control, self.start, self.end)
        whose = self.called(control) if isinstance(timing, Transition) else "All states"
        return f"{whose}: {_said(timing.easing)} → {_said(easing_from(self.css))}"


def _said(easing: Bezier | Steps | Stops) -> str:
    return css_of(easing).partition("(")[0]
