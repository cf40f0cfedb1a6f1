"""What every effect kind promises: its words, its reach, its coats of pixels, its SVG."""

from __future__ import annotations

from abc import abstractmethod
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from dataclasses import field as dataclass_field
from typing import ClassVar, Literal, Protocol, Self, get_args

from pydantic import Field

from obrell.core.effects.markup import Definitions
from obrell.core.geometry.paths import Path
from obrell.core.geometry.plane import Rect, Similarity
from obrell.core.geometry.svgdata import path_data, rectangle
from obrell.core.raster.layers import Box, Layer, Mask
from obrell.core.raster.ramps import Pigment
from obrell.core.raster.relief import Relief, Table
from obrell.core.shapes.base import Sentence, Shape
from obrell.core.values.base import Value
from obrell.core.values.blends import Blend
from obrell.core.values.fields import Id, Share
from obrell.core.values.paints import PICTURED, Fill, Gradient, Texture

Zone = Literal["behind", "surface", "edge", "whole"]
ZONES: tuple[Zone, ...] = get_args(Zone)
"""In the order in which they are painted."""
UNMOVED = Similarity()
Side = Literal["behind", "inside", "outside"]
"""Which of a part's three layers is being painted: the backdrop, what the shape's inside shows, or
what lies just outside it. An outline on the centre paints the last two."""


@dataclass(frozen=True, slots=True)
class Coat:
    """One coat of paint: where, what, how strong, and how it mixes with what is below it."""

    mask: Mask
    pigment: Pigment | Layer
    opacity: float
    blend: Blend


@dataclass(frozen=True, slots=True)
class Lamp:
    """A light: where it comes from, degrees clockwise from above, and its height above the surface."""

    direction: float
    height: float


@dataclass(frozen=True, slots=True)
class Rough:
    """A texture as relief: how far its brightest places rise above its darkest, logical px."""

    texture: Texture
    depth: float


class Site(Protocol):
    """The part that effects are painted on, at one density, and what the renderer lends them.

    Masks are cached by content behind these calls.
    """

    @property
    def shape(self) -> Shape: ...
    @property
    def place(self) -> Similarity:
        """From the part's own logical space to device space."""
        ...

    @property
    def box(self) -> Rect:
        """The part's own unrotated box, which fills span."""
        ...

    @property
    def lamp(self) -> Lamp:
        """The key light."""
        ...

    def stroke(self, width: float) -> float:
        """A stroke width or unblurred spread in logical px, fitted when the part asks for it."""
        ...

    def cover(self, path: Path) -> Mask:
        """Coverage of a path in device space over the region being drawn."""
        ...

    def coverage(self) -> Mask:
        """Coverage of the part's own shape."""
        ...

    def shadow(self, path: Path, deviation: float) -> Mask:
        """Coverage blurred by a standard deviation in device px."""
        ...

    def shadow_inverse(self, path: Path, deviation: float) -> Mask:
        """1 - shadow, over the part's own box."""
        ...

    def everywhere(self) -> Mask:
        """1 over the part's own box."""
        ...

    def faded(self, way: int, reach: float, curve: Table, outwards: float) -> tuple[Mask, Mask]:
        """``falloff.faded`` of the part's shape, over its own box grown by ``outwards`` logical px."""
        ...

    def lit(
        self, relief: Relief, light: tuple[float, float, float], tone: Table, outwards: float, rough: Rough | None
    ) -> tuple[Mask, Mask]:  # fmt: skip
        """``relief.lit`` of the part's shape, over its own box grown by ``outwards`` logical px."""
        ...

    def pigment(self, fill: Fill, over: Box, on: Rect | None = None) -> Pigment | Layer:
        """A fill laid on the part's own box, or on another of its space, as the kernels take it, for the
        device pixels of ``over``."""
        ...

    def within(self, path: Path, deviation: float) -> Mask:
        """Coverage of a path in device space, blurred, over the part's own box."""
        ...

    def across(self, start: float, end: float, over: Box) -> tuple[Mask, Mask]:
        """``along.across`` of the part's shape, from and to a distance outside its edge in logical px."""
        ...

    def along(self, reach: float, over: Box) -> tuple[Mask, Mask]:
        """``along.along`` of the part's outline, as far from it as ``reach`` logical px."""
        ...

    def texture(self, fill: Texture, over: Box) -> Mask:
        """A texture's values from 0 to 1."""
        ...


@dataclass(frozen=True, slots=True)
class Sheet:
    """SVG elements that are laid over what lies below them together: how strong, and how they are blended."""

    items: tuple[str, ...]
    opacity: float = 1.0
    blend: Blend = "normal"


@dataclass(frozen=True, slots=True)
class Drawing:
    """What an effect's SVG form is drawn with: the part in user space, and the definitions."""

    shape: Shape
    place: Similarity
    lamp: Lamp
    defs: Definitions
    box: Rect
    """Around the shape, in user space."""
    picture: Callable[[Effect, Side], tuple[Sheet, ...]]
    """An effect that SVG cannot draw, as embedded pictures that have its strength already."""
    cut: bool
    """Whether a mask cuts the inside effects; if not, the one there is must keep to the shape."""
    spans: Mapping[str, Rect] = dataclass_field(default_factory=dict)
    """Boxes in user space that fills can be laid over instead of the part's own."""

    def sheets(self, effect: Effect, side: Side) -> tuple[Sheet, ...]:
        """An effect's SVG form; none when there is nothing to see."""
        if effect.pictured:
            return self.picture(effect, side)
        items = tuple(filter(None, effect.svg(self, side)))
        return (Sheet(items, effect.opacity, effect.blend),) if items else ()

    def fill(self, fill: Fill, box: Rect | None = None) -> dict[str, str | float]:
        """The ``fill`` attributes of a paint laid over the part's box, or over what it spans."""
        return self.defs.fill(fill, *lying(fill, self.spans, (box or self.shape.box(), self.place)))

    def field(self) -> str:
        """Path data of what an inside effect fills: the shape, or all around it when that is cut."""
        if not self.cut:
            return path_data(self.outline(self.shape.path()))
        return rectangle(self.box.grown(1))

    def outline(self, path: Path, dx: float = 0.0, dy: float = 0.0) -> Path:
        """A path of the part in user space, moved on by (dx, dy)."""
        return path.transformed(self.place).transformed(Similarity(dx=dx, dy=dy))


class Effect(Value):
    """Base of the effect kinds. All lengths are logical px and may be fractional."""

    label: ClassVar[str]
    zone: ClassVar[Zone]
    strengths: ClassVar[tuple[str, ...]] = ("opacity",)
    """The fields that say how strong it is, as a look is made lighter or heavier."""
    in_svg: ClassVar[bool] = True
    """Whether SVG can draw its kind at all."""
    keeps_to_shape: ClassVar[bool] = True
    """Whether its SVG form can do without a mask when it is alone on the surface."""

    id: Id
    visible: bool = Field(True, title="shown")
    opacity: Share = Field(1.0, title="strength")
    blend: Blend = Field("normal", title="blend")
    through: bool = Field(False, title="reaches the backdrop")
    """Whether its blend mode, on surface or edge, works on what lies below the part too."""

    def lies_in(self) -> Zone:
        """The zone it lies in, where that depends on more than its kind."""
        return self.zone

    def pictures(self, field: str) -> dict[str, Table]:
        """For a choice among curves: what each looks like, as tables from 0 to 1."""
        return {}

    @abstractmethod
    def reach(self, light: float) -> float:
        """How far it can paint beyond the shape, logical px, cut-off blur tails included."""

    @abstractmethod
    def coats(self, site: Site, side: Side) -> tuple[Coat, ...]:
        """Its coats on one side of the part, bottom-most first."""

    def svg(self, drawing: Drawing, side: Side) -> tuple[str, ...]:
        """The same as SVG elements in user space, without opacity and blend mode; never asked of an effect
        that is ``pictured``."""
        return ()

    @abstractmethod
    def sentence(self) -> Sentence:
        """What follows its label in the sheet."""

    def light_path(self) -> str:
        """Where it says whether it follows the key light; empty when it has nothing to do with it."""
        return ""

    def fill_box(self, shape: Shape, place: Similarity) -> Rect | None:
        """The box that its fill is laid on, in the space of a part that ``place`` puts on the canvas; None when it is
        laid on none."""
        return shape.box()

    def shift(self, x: float, y: float) -> tuple[float, float]:
        """How far its fill is moved on the canvas when its part stands at (x, y)."""
        return 0.0, 0.0

    def on_ground(self, colour: str) -> Self:
        """The same with what it takes up of the ground's colour, ``#rrggbb``; its own are literal."""
        return self

    def fitted_to(self, x: float, y: float) -> Self:
        """The same as it is first put on a part whose place is (x, y)."""
        return self

    def strengthened(self, factor: float) -> Self:
        """The same with its strengths multiplied."""
        return self.evolve(**{name: min(1.0, getattr(self, name) * factor) for name in self.strengths})

    def flipped(self, *, across: bool) -> Self:
        """The same as it looks in a mirror, left to right or top to bottom; what lies in the part's own space is
        mirrored with that."""
        return self

    def pressed(self, light: float) -> Self:
        """The same as if its part were pressed, under a light from that direction, degrees."""
        return self

    @property
    def pictured(self) -> bool:
        """Whether its SVG form is embedded pictures, as it stands."""
        return not self.in_svg or isinstance(getattr(self, "fill", None), PICTURED)

    @property
    def mixes(self) -> bool:
        """Whether any coat of it is blended with what lies below, other than laid over it."""
        return self.blend != "normal"

    def omitted(self) -> tuple[str, ...]:
        return (*self.hidden_fields(), *(() if self.can_reach else ("through",)))

    def unfit(self, shape: Shape) -> tuple[str, ...]:
        """Fields that make no difference on a part of that shape."""
        return ()

    @property
    def can_reach(self) -> bool:
        """Whether it makes a difference that it is blended with what lies below its part."""
        return self.blend != "normal" and self.lies_in() in ("surface", "edge")

    @property
    def reaches(self) -> bool:
        """Whether it is laid over the finished part, blended with what lies below that too."""
        return self.through and self.can_reach

    @property
    def shows_through_body(self) -> bool:
        """Whether a behind effect is also seen under the part's own surface."""
        return False

    @property
    def opaque(self) -> bool:
        """Whether it hides everything below it on the part."""
        return False


def lying(
    fill: object, spans: Mapping[str, Rect], own: tuple[Rect, Similarity], canvas: Similarity = UNMOVED
) -> tuple[Rect, Similarity]:
    """The box that a fill is laid on and the way from there to where it is drawn: that of what it spans, on the
    canvas, or the part's ``own``. ``spans`` has the boxes of what a fill can span but the part."""
    wide = spans.get(getattr(fill, "span", "part"))
    return own if wide is None else (wide, canvas)


def gradient_of(effect: Effect) -> tuple[str, Gradient] | None:
    """The gradient an effect is filled or masked with, and its path below the effect."""
    for path in ("fill", "cover/fill"):
        here: object = effect
        for step in path.split("/"):
            here = getattr(here, step, None)
        if isinstance(here, Gradient):
            return path, here
    return None
