"""The part kinds. A new one is a module here and one line in the union."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from obrell.core.shapes.base import Shape
from obrell.core.shapes.box import Box
from obrell.core.shapes.round import Round
from obrell.core.shapes.text import Text

AnyShape = Annotated[Box | Round | Text, Field(discriminator="kind")]

SHAPES: dict[str, type[Shape]] = {"box": Box, "round": Round, "text": Text}

__all__ = ["SHAPES", "AnyShape", "Box", "Round", "Shape", "Text"]
