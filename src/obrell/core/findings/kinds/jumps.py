"""Bodies and labels that lie elsewhere in a state than they were asked to."""

from __future__ import annotations

from collections.abc import Iterator
from typing import ClassVar

from obrell.core.document.model import REST, Control
from obrell.core.document.registration import SLACK_PX, Jump, jumps
from obrell.core.document.resolve import Resolved
from obrell.core.edit.states import InStates
from obrell.core.edit.values import Change, SetValues
from obrell.core.findings.base import Cure, Finding, Kind
from obrell.core.geometry.svgdata import number


class Jumps(Kind):
    """What moves by itself jumps when one picture is put in place of the other."""

    kind: ClassVar[str] = "jumps"
    looks_for: ClassVar[str] = "states that jump"
    rank: ClassVar[int] = 15

    def look(self, resolved: Resolved) -> tuple[Finding, ...]:
        return ()

    def between(self, control: Control, state: str) -> tuple[Finding, ...]:
        return tuple(self._of(jump, state) for jump in jumps(control, state))

    def _of(self, jump: Jump, state: str) -> Finding:
        said = ", ".join(_said(jump))
        words = f"“{jump.part.name}” is {said} than at rest, which nobody asked for."
        cure = _back(jump, state)
        return self.found(words, jump.part.id, mark="jumps", cures=(cure,) if cure else ())


def _said(jump: Jump) -> Iterator[str]:
    for by, more, less in (
        (jump.across, "further right", "further left"), (jump.down, "lower", "higher up"),
        (jump.wider, "wider", "narrower"), (jump.higher, "taller", "shorter"),
    ):  # fmt: skip
        if abs(by) > SLACK_PX:
            yield f"{number(round(abs(by), 2))} px {more if by > 0 else less}"


def _back(jump: Jump, state: str) -> Cure | None:
    """Where its size is that of each state's own words, that of the longest again; else nothing."""
    own = [n for n, follow in enumerate(jump.part.follows) if follow.own_words]
    if not own or not (jump.wider or jump.higher):
        return None
    changes = tuple(Change(path=f"parts/{jump.part.id}/follows/{place}/own_words", value=False) for place in own)
    edit = InStates(states=(REST, state), edit=SetValues(changes=changes))
    return Cure("Fit the longest words of all states", edit)
