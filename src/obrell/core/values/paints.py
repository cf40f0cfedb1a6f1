"""What a surface or an outline can be filled with: one colour or a gradient."""

from __future__ import annotations

import math
from typing import Annotated, Literal

from pydantic import Field, field_validator, model_validator

from obrell.core.files import FileId
from obrell.core.values.base import Value
from obrell.core.values.colours import Colour
from obrell.core.values.fields import Angle, Extent, Live, Share, Signed, WideShare

MAX_STOPS = 64
Pattern = Literal[
    "brush", "lathe", "grain", "weave", "dots", "lines", "hide", "hammered", "stone", "wood", "carbon",
]  # fmt: skip
Seed = Annotated[int, Live("", 1, 0, 99), Field(ge=0, le=9999)]


class Stop(Value):
    """A colour at a place on the ramp. ``midpoint`` bends the way to the next stop (0.5: straight),
    by the colour-hint formula of CSS Images 4, section 3.5.1."""

    position: Share = Field(title="at")
    colour: Colour
    opacity: Share = Field(1.0, title="opacity")
    midpoint: Share = Field(0.5, title="midpoint")


Stops = Annotated[tuple[Stop, ...], Field(min_length=2, max_length=MAX_STOPS)]
Space = Literal["srgb", "oklab"]


def reversed_stops(stops: tuple[Stop, ...]) -> tuple[Stop, ...]:
    """Return stops with positions mirrored; each midpoint goes with the stretch it bends, mirrored too."""
    bends = [1 - stop.midpoint for stop in stops[-2::-1]]
    return tuple(
        stop.evolve(position=1 - stop.position, midpoint=bend)
        for stop, bend in zip(stops[::-1], [*bends, 0.5], strict=True)
    )


class Gradient(Value):
    """What linear and radial share: stops in order, and the space colours are mixed in."""

    stops: Stops
    space: Space = Field("srgb", title="mixed in")

    @field_validator("stops")
    @classmethod
    def _in_order(cls, stops: tuple[Stop, ...]) -> tuple[Stop, ...]:
        return tuple(sorted(stops, key=lambda stop: stop.position))


CutShare = Annotated[float, Live("%", 0.01, 0, 0.98, 100), Field(ge=0, le=0.98)]
"""A share of a picture cut off one side, shown in %."""


class Solid(Value):
    """One colour."""

    kind: Literal["solid"] = "solid"
    colour: Colour = "#1f8a92"


def cut_away(*pairs: tuple[float, float]) -> bool:
    """Whether cuts from two opposite sides leave less than a fiftieth."""
    return any(one + other > 0.98 + 1e-9 for one, other in pairs)


def check_cuts(*pairs: tuple[float, float]) -> None:
    """Raises ``ValueError`` when cuts leave nothing."""
    if cut_away(*pairs):
        raise ValueError("the cuts from both sides leave nothing of the picture.")


class Ramp(Gradient):
    """Colours over a reach, from where it begins to where it ends."""

    kind: Literal["ramp"] = "ramp"


Span = Literal["part", "group", "canvas"]
"""What a fill is laid over: the part's own box, that of the container it lies in, or the canvas, so that
overlapping pieces read as one surface."""


class Spread(Gradient):
    """Gradients with ends: beyond them the last colour goes on, or the ramp is repeated, or mirrored."""

    spread: Literal["once", "repeated", "mirrored"] = Field("once", title="beyond its ends")
    span: Span = Field("part", title="laid over the")


class Linear(Spread):
    """A CSS linear gradient over the part's box: at 180° it runs from top to bottom. Its line can be longer
    or shorter than CSS makes it, by ``scale``, and moved along itself by a share of that."""

    kind: Literal["linear"] = "linear"
    angle: Angle = Field(180.0, title="towards")
    scale: Extent = Field(1.0, title="length")
    offset: WideShare = Field(0.0, title="moved by")

    @property
    def ends(self) -> tuple[float, float]:
        """Where it begins and ends, as shares of the line that CSS makes."""
        return 0.5 + self.offset - self.scale / 2, 0.5 + self.offset + self.scale / 2


FocusShare = Annotated[float, Live("%", 0.01, -0.9, 0.9, 100), Field(ge=-1, le=1)]
"""A share of a radius, from the centre, shown in %."""
FARTHEST_FOCUS = 0.98
"""A focus on the edge itself would leave a cone unpainted; SVG 2, section 14.2.3, moves it there, we stop before."""


class Radial(Spread):
    """An ellipse of colour, turned about its centre. Centre and radii are shares of the part's box. The ramp begins
    at the focus, given in radii from the centre, and ends on the ellipse."""

    kind: Literal["radial"] = "radial"
    centre_x: WideShare = Field(0.5, title="centre across")
    centre_y: WideShare = Field(0.5, title="centre down")
    radius_x: Extent = Field(0.5, title="radius across")
    radius_y: Extent = Field(0.5, title="radius down")
    turn: Angle = Field(0.0, title="turned")
    focus_x: FocusShare = Field(0.0, title="focus across")
    focus_y: FocusShare = Field(0.0, title="focus down")

    @property
    def focus(self) -> tuple[float, float]:
        """Where the ramp begins, in radii from the centre, inside of the ellipse."""
        away = math.hypot(self.focus_x, self.focus_y)
        factor = FARTHEST_FOCUS / away if away > FARTHEST_FOCUS else 1.0
        return self.focus_x * factor, self.focus_y * factor


class Picture(Value):
    """A kept picture, its sides cut off by shares, laid over the part's box: stretched to it, whole inside
    of it, filling it, or tiled from its middle at ``scale`` logical px to a px, turned and moved as asked, every
    other tile mirrored or not."""

    kind: Literal["picture"] = "picture"
    file: FileId
    fit: Literal["stretched", "whole", "filling", "tiled", "tiled, mirrored"] = Field("stretched", title="lies")
    scale: Extent = Field(1.0, title="scale of tiles")
    turn: Angle = Field(0.0, title="turned")
    across: Signed = Field(0.0, title="moved across")
    down: Signed = Field(0.0, title="moved down")
    span: Span = Field("part", title="laid over the")
    cut_left: CutShare = Field(0.0, title="cut off the left")
    cut_top: CutShare = Field(0.0, title="the top")
    cut_right: CutShare = Field(0.0, title="the right")
    cut_bottom: CutShare = Field(0.0, title="the bottom")

    @model_validator(mode="after")
    def _something_is_left(self) -> Picture:
        check_cuts((self.cut_left, self.cut_right), (self.cut_top, self.cut_bottom))
        return self

    @property
    def tiled(self) -> bool:
        return self.fit.startswith("tiled")

    def hidden_fields(self) -> tuple[str, ...]:
        return ("file",) if self.tiled else ("file", "scale", "turn", "across", "down")


class Conic(Gradient):
    """Colours around a centre, from an angle clockwise (CSS Images 4, section 3.3)."""

    kind: Literal["conic"] = "conic"
    start: Angle = Field(0.0, title="from")
    centre_x: WideShare = Field(0.5, title="centre across")
    centre_y: WideShare = Field(0.5, title="centre down")
    span: Span = Field("part", title="laid over the")

    @property
    def seam(self) -> bool:
        """Whether its two ends differ where they meet."""
        first, last = self.stops[0], self.stops[-1]
        return (first.colour, first.opacity) != (last.colour, last.opacity)


class Texture(Value):
    """A pattern made anew at every density from a seed, between two colours, around the middle of the
    part's box. ``angle`` is where its lines run to."""

    kind: Literal["texture"] = "texture"
    pattern: Pattern = Field("brush", title="pattern")
    colour: Colour = "#8e8f8c"
    second: Colour = Field("#d6d6d0", title="second colour")
    contrast: Annotated[float, Live("%", 0.01, 0, 2, 100), Field(ge=0, le=5)] = Field(1.0, title="contrast")
    scale: Annotated[float, Live("px", 0.1, 0.3, 24), Field(gt=0, le=1000)] = Field(1.0, title="scale")
    angle: Angle = Field(90.0, title="runs to")
    across: Signed = Field(0.0, title="moved across")
    down: Signed = Field(0.0, title="moved down")
    mirrored: bool = Field(False, title="mirrored")
    span: Span = Field("part", title="laid over the")
    seed: Seed = Field(1, title="seed")


Handled = Linear | Radial | Conic
"""Gradients that lie on a box, with handles there."""
Fill = Annotated[Solid | Linear | Radial | Conic | Texture | Picture, Field(discriminator="kind")]
PICTURED = (Conic, Texture)
"""Fills that SVG has no paint for."""
FILL_KINDS = ("solid", "linear", "radial", "conic", "texture", "ramp")
"""Kinds that a fill can become; a picture has to be chosen first."""


AnyFill = Solid | Linear | Radial | Conic | Texture | Picture | Ramp
