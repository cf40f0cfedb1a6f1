"""Path: any outline."""

from __future__ import annotations

from typing import ClassVar, Literal

from obrell.core.geometry.knots import knots_of
from obrell.core.geometry.paths import Path as Outline
from obrell.core.shapes.base import Tool
from obrell.core.shapes.outlined import Outlined, contours_from


class Path(Outlined):
    """An outline that a person draws and changes point by point."""

    label: ClassVar[str] = "Path"
    rank: ClassVar[int] = 60
    tool: ClassVar[Tool | None] = Tool("Pen", "p", "pen")
    kind: Literal["path"] = "path"


def path_from(outline: Outline) -> Path:
    """An outline as a filled path."""
    return Path(contours=contours_from(knots_of(outline)))


def path_of(drawn: Outlined) -> Path:
    """The path that looks like an outline of any kind."""
    return Path(**{name: getattr(drawn, name) for name in Outlined.model_fields})
