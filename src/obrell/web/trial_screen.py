"""What the screen of a panel shows itself, in words, as the page of Trial shows it."""

from __future__ import annotations

from dataclasses import dataclass
from math import ceil, floor
from typing import Any

from obrell.core.geometry.plane import Rect
from obrell.core.trial.screen import place_of, screen_of
from obrell.core.values.panels import Fixture, Panel
from obrell.web.fields import FieldView, field_on

WORDED = ("title", "text", "field", "button")
"""The kinds that show words."""


@dataclass(frozen=True, slots=True)
class FixtureView:
    """One that is chosen: what it is called, its live values, and whether a control can be put in its place."""

    id: str
    name: str
    plain: bool
    words: FieldView
    x: FieldView
    y: FieldView


def fixtures_json(panel: Panel) -> list[dict[str, Any]]:
    """All that show words, with the places that the script lays over them."""
    screen = screen_of(panel)
    return [_json(one, place_of(screen, one)) for one in panel.fixtures if one.kind in WORDED]


def _json(one: Fixture, place: Rect) -> dict[str, Any]:
    # Whole px, so that what snaps to words, or words that snap, stay on them.
    left, top, right, bottom = floor(place.left), floor(place.top), ceil(place.right), ceil(place.bottom)
    return {
        "id": one.id, "name": _name(one), "plain": one.kind == "button",
        "x": left, "y": top, "width": right - left, "height": bottom - top,
    }  # fmt: skip


def _name(one: Fixture) -> str:
    return one.name[0].upper() + one.name[1:]


def fixture_view(panel: Panel, chosen: str) -> FixtureView | None:
    """The one that is chosen; none where that is something else."""
    one = next((one for one in panel.fixtures if one.id == chosen and one.kind in WORDED), None)
    if one is None:
        return None
    words, x, y = (field_on(panel, f"fixtures/{one.id}/{name}") for name in ("words", "x", "y"))
    return FixtureView(one.id, _name(one), one.kind == "button", words, x, y)
