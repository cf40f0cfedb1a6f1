"""What all edits of a panel of Trial are made of."""

from __future__ import annotations

from abc import abstractmethod
from collections.abc import Mapping, Sequence
from typing import Annotated, TypeVar

from pydantic import Field

from obrell.core.document.model import Control
from obrell.core.errors import NoSuchThing
from obrell.core.values.base import Value
from obrell.core.values.fields import Id
from obrell.core.values.panels import MAX_PLACEMENTS, Fixture, Panel, Placement
from obrell.core.values.sources import Source

Controls = Mapping[str, Control]
"""The controls of the kit that an edit names or that stand on its panel, by id; those that are gone are not there."""
Ids = Annotated[tuple[Id, ...], Field(min_length=1, max_length=MAX_PLACEMENTS)]
Typed = Annotated[str, Field(max_length=200)]
GONE = "That is no longer on the panel: it was removed, perhaps in another window. Undo brings it back."
T = TypeVar("T", Fixture, Placement, Source)


class PanelEdit(Value):
    """Base of what can be done to a panel."""

    @abstractmethod
    def apply(self, panel: Panel, controls: Controls) -> Panel:
        """The panel afterwards; raises ``Refused`` in words, and then nothing is changed."""

    @abstractmethod
    def label(self, panel: Panel, controls: Controls) -> str:
        """What is done, in words."""

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


def standing(panel: Panel, ident: str) -> Placement | Fixture:
    """A control's place, or something of the screen itself, by its id; raises ``NoSuchThing``."""
    shown = next((one for one in panel.fixtures if one.id == ident), None)
    return shown or found(panel.placements, ident)


def name_at(panel: Panel, controls: Controls, ident: str) -> str:
    """What stands there is called."""
    one = standing(panel, ident)
    if isinstance(one, Fixture):
        return f"the {one.name}"
    control = controls.get(one.control)
    return "a control that is gone" if control is None else f"“{control.name}”"


def named(panel: Panel, controls: Controls, idents: Sequence[str]) -> str:
    """What one of them is called, or how many there are."""
    if len(idents) == 1:
        return name_at(panel, controls, idents[0])
    shown = any(isinstance(standing(panel, ident), Fixture) for ident in idents)
    return f"{len(idents)} {'things' if shown else 'controls'}"


def control_of(controls: Controls, ident: str) -> Control:
    """A control by its id; raises ``NoSuchThing``."""
    if ident not in controls:
        raise NoSuchThing("That control is no longer in the kit: it was removed, perhaps in another window.")
    return controls[ident]
