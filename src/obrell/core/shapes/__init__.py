"""The part kinds. A new one is a module in ``kinds`` and nothing else.

Lengths are logical px of the part's own space, whose origin is its place; distances outwards are positive.
"""

from __future__ import annotations

from functools import reduce
from operator import or_
from typing import TYPE_CHECKING, Annotated

from pydantic import Field

from obrell.core.registry import kinds_in
from obrell.core.shapes.base import Shape
from obrell.core.shapes.containers import Container
from obrell.core.shapes.kinds.box import Box
from obrell.core.shapes.kinds.combination import Combination
from obrell.core.shapes.kinds.group import Group
from obrell.core.shapes.kinds.icon import Icon
from obrell.core.shapes.kinds.line import Line
from obrell.core.shapes.kinds.path import Path
from obrell.core.shapes.kinds.picture import Picture
from obrell.core.shapes.kinds.repeat import Repeat
from obrell.core.shapes.kinds.ring import Ring
from obrell.core.shapes.kinds.round import Round
from obrell.core.shapes.kinds.sides import Sides
from obrell.core.shapes.kinds.text import Text

SHAPES: dict[str, type[Shape]] = kinds_in("obrell.core.shapes.kinds", Shape)
"""Every kind by its name, in the order in which they are offered."""
if TYPE_CHECKING:
    AnyShape = Shape
else:
    AnyShape = Annotated[reduce(or_, SHAPES.values()), Field(discriminator="kind")]

__all__ = [
    "SHAPES", "AnyShape", "Box", "Combination", "Container", "Group", "Icon", "Line", "Path", "Picture", "Repeat",
    "Ring", "Round", "Shape", "Sides", "Text",
]  # fmt: skip
