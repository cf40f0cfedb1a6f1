"""What there is to say about a control as it is drawn: what was found, where, and what would mend it."""

from __future__ import annotations

from abc import ABC, abstractmethod
from dataclasses import dataclass
from typing import ClassVar, Literal

from obrell.core.document.model import Control
from obrell.core.document.resolve import Resolved
from obrell.core.edit.base import Edit

Severity = Literal["wrong", "doubtful"]
"""What is lost in every delivered file, and what may be meant so."""


@dataclass(frozen=True, slots=True)
class Cure:
    """An edit that mends what was found, and what it does."""

    words: str
    edit: Edit


@dataclass(frozen=True, slots=True)
class Finding:
    """One thing that was found: the parts it is about, the outermost first to be looked at."""

    kind: str
    severity: Severity
    words: str
    """A whole sentence."""
    parts: tuple[str, ...]
    mark: str = ""
    """What stands at the part's line in a word or two; empty when nothing does."""
    cures: tuple[Cure, ...] = ()


class Kind(ABC):
    """Base of the kinds of findings."""

    kind: ClassVar[str]
    rank: ClassVar[int] = 0
    """Which comes first among those as severe."""
    severity: ClassVar[Severity] = "doubtful"
    looks_for: ClassVar[str]
    """The plural of what it finds, for a message."""

    @abstractmethod
    def look(self, resolved: Resolved) -> tuple[Finding, ...]:
        """All of its kind in a control."""

    def between(self, control: Control, state: str) -> tuple[Finding, ...]:
        """All of its kind in how a state of a control, by its id, differs from rest."""
        return ()

    def found(self, words: str, *parts: str, mark: str = "", cures: tuple[Cure, ...] = ()) -> Finding:
        """One of its kind."""
        return Finding(self.kind, self.severity, words, parts, mark, cures)
