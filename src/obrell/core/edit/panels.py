"""What can be done to a panel of Trial, as small values applied by pure functions."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field

from obrell.core.document.value_paths import field_of, live_at, with_value
from obrell.core.edit.nouns import noun_of
from obrell.core.edit.panel_base import Controls, PanelEdit, Typed, found, name_at
from obrell.core.edit.panel_placing import (
    AlignOnPanel,
    CopyOnPanel,
    MoveOnPanel,
    NumberOnPanel,
    Put,
    Refill,
    RemoveFromPanel,
    ReorderOnPanel,
    SpaceOnPanel,
    SwapButton,
    WordsOnPanel,
)  # fmt: skip
from obrell.core.edit.panel_sources import (
    AddMove,
    AddSource,
    BeginCourse,
    Record,
    RemoveMove,
    RemoveSource,
    SetMove,
    SetStepsOfSource,
)  # fmt: skip
from obrell.core.edit.typed import number_from
from obrell.core.errors import BadValue
from obrell.core.geometry.svgdata import shown
from obrell.core.values.kinds import Kinds
from obrell.core.values.panels import Panel
from obrell.core.values.plain import Plain


class SetOnPanel(PanelEdit):
    """A value at a path below the panel."""

    kind: Literal["set"] = "set"
    path: Annotated[str, Field(min_length=1, max_length=300)]
    value: Plain

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
    name = path.rpartition("/")[2]
    if name in KEPT and not (name == "words" and path.startswith("fixtures/")):
        raise BadValue("This is not set directly.", path)


def _whose(panel: Panel, controls: Controls, path: str) -> str:
    root, _, rest = path.partition("/")
    ident = rest.partition("/")[0]
    if root in ("placements", "fixtures"):
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


AnyPanelEdit = Annotated[
    SetOnPanel | TypeOnPanel
    | Put | MoveOnPanel | AlignOnPanel | SpaceOnPanel | RemoveFromPanel | CopyOnPanel | Refill | SwapButton
    | WordsOnPanel | NumberOnPanel | ReorderOnPanel
    | AddSource | RemoveSource | BeginCourse | Record | AddMove | SetMove | RemoveMove | SetStepsOfSource,
    Field(discriminator="kind"),
]  # fmt: skip


_KINDS: Kinds[PanelEdit] = Kinds(AnyPanelEdit, SetOnPanel)


def read_panel_edit(data: Any) -> PanelEdit:
    """An edit of a panel from its JSON form; raises ``BadValue`` in words."""
    return _KINDS.read(data)


__all__ = ["AnyPanelEdit", "PanelEdit", "Record", "read_panel_edit"]
