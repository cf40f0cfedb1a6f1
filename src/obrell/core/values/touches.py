"""Where a control is touched, apart from its art; logical px of the canvas."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from obrell.core.values.base import Value
from obrell.core.values.fields import Length, Live, Place, Size

Grown = Annotated[float, Live("px", 1, 0, 40), Field(ge=-200, le=400)]
MAX_OUTLINE_TEXT = 40_000


class TouchesBody(Value):
    """The outline of its body, grown on all sides."""

    kind: Literal["body"] = "body"
    by: Grown = Field(8.0, title="grown by")


class Placed(Value):
    """Base of those that lie about a place."""

    x: Place = Field(title="across")
    y: Place = Field(title="down")
    width: Size = Field(title="width")
    height: Size = Field(title="height")


class TouchesBox(Placed):
    """A box about a place."""

    kind: Literal["box"] = "box"
    radius: Length = Field(0.0, title="corners")


class TouchesRound(Placed):
    """An ellipse about a place."""

    kind: Literal["round"] = "round"


class TouchesOutline(Value):
    """An outline as SVG path data (SVG 2, section 9.3), grown on all sides."""

    kind: Literal["outline"] = "outline"
    data: Annotated[str, Field(min_length=2, max_length=MAX_OUTLINE_TEXT)]
    by: Grown = Field(0.0, title="grown by")


Touch = Annotated[TouchesBody | TouchesBox | TouchesRound | TouchesOutline, Field(discriminator="kind")]
