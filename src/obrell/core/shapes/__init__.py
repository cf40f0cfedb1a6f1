"""The part kinds. A new one is a module here and one line in the union."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from obrell.core.shapes.base import Shape
from obrell.core.shapes.box import Box
from obrell.core.shapes.containers import Combination, Container, Group, Repeat
from obrell.core.shapes.icon import Icon
from obrell.core.shapes.line import Line
from obrell.core.shapes.path import Path
from obrell.core.shapes.picture import Picture
from obrell.core.shapes.ring import Ring
from obrell.core.shapes.round import Round
from obrell.core.shapes.sides import Sides
from obrell.core.shapes.text import Text

AnyShape = Annotated[
    Box | Round | Ring | Sides | Line | Path | Icon | Text | Picture | Group | Combination | Repeat,
    Field(discriminator="kind"),
]

SHAPES: dict[str, type[Shape]] = {
    "box": Box, "round": Round, "ring": Ring, "sides": Sides, "line": Line, "path": Path, "icon": Icon, "text": Text,
    "picture": Picture, "group": Group, "combination": Combination, "repeat": Repeat,
}  # fmt: skip

__all__ = [
    "SHAPES", "AnyShape", "Box", "Combination", "Container", "Group", "Icon", "Line", "Path", "Picture", "Repeat",
    "Ring", "Round", "Shape", "Sides", "Text",
]  # fmt: skip
