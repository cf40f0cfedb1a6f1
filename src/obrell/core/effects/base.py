"""What every effect kind promises: its words, its reach, and what it paints."""

from __future__ import annotations

import math
from abc import abstractmethod
from collections.abc import Mapping
from dataclasses import dataclass, replace
from dataclasses import field as dataclass_field
from typing import TYPE_CHECKING, ClassVar, Literal, Self, get_args

from pydantic import Field

from obrell.core.geometry.paths import Path
from obrell.core.geometry.plane import Rect, Similarity
from obrell.core.paint.areas import Area, Blurred, Filled, Whole
from obrell.core.paint.sources import Flat, Laid, Source
from obrell.core.raster.relief import Table
from obrell.core.shapes.base import Sentence, Shape, Slot, Words
from obrell.core.values.base import Value
from obrell.core.values.blends import Blend
from obrell.core.values.fields import Called, Id, Share
from obrell.core.values.paints import Fill, Gradient, Solid

Zone = Literal["behind", "surface", "edge", "whole"]
ZONES: tuple[Zone, ...] = get_args(Zone)
"""In the order in which they are painted."""
SAID_ELSEWHERE = frozenset({"kind", "id", "name", "visible", "blend", "seed"})
"""Fields that the sheet shows outside of the sentence, and the seed, which says nothing to a reader."""
UNMOVED = Similarity()
ON_GRID = 1e-9
"""Device px from the grid within which a place lies on it."""
Side = Literal["behind", "inside", "outside"]
"""Which of a part's three layers is being painted: the backdrop, what the shape's inside shows, or
what lies just outside it. An outline on the centre paints the last two."""


@dataclass(frozen=True, slots=True)
class Operation:
    """One paint operation: which area is filled with what, how strongly, and how it mixes with what is below it."""

    area: Area
    source: Source
    opacity: float
    blend: Blend


@dataclass(frozen=True, slots=True)
class Lamp:
    """A light: where it comes from, degrees clockwise from above, and its height above the surface."""

    direction: float
    height: float


@dataclass(frozen=True, slots=True)
class Stand:
    """A part as effects find it, at one density: values only, so that whatever reads their operations can make one."""

    shape: Shape
    place: Similarity
    """From the part's own logical space to the device grid."""
    lamp: Lamp
    """The key light."""
    box: Rect
    """The part's own unrotated box, which fills span."""
    outline: Path
    """The shape on the device grid."""
    stroke_scale: float = 0.0
    """Device px of a logical px that strokes are fitted to; 0 when they are not."""
    spans: Mapping[str, Rect] = dataclass_field(default_factory=dict)
    """Boxes on the canvas, logical px, that fills can be laid over instead of the part's own."""
    fitted: bool = False
    """Whether it is fitted to device px."""

    @property
    def scale(self) -> float:
        """Device px of a logical px."""
        return self.place.scale

    @property
    def own(self) -> Filled:
        """What the shape covers."""
        return Filled(self.outline)

    @property
    def whole(self) -> Whole:
        """All of the pixels that the shape touches."""
        return Whole(self.outline)

    def stroke(self, width: float) -> float:
        """A stroke width or unblurred spread in logical px, fitted to device px when the part asks for it."""
        if not self.stroke_scale or width == 0:
            return width
        pixels = max(1.0, math.floor(abs(width) * self.stroke_scale + 0.5))
        return math.copysign(pixels / self.stroke_scale, width)

    def parallel(self, out: float) -> Path:
        """The outline moved ``out`` logical px outwards, its corners kept."""
        return self.shape.parallel(out).transformed(self.place) if out else self.outline

    def enlarged(self, factor: float) -> Stand:
        """The same on a finer grid, fitted as it was."""
        finer = Similarity(factor)
        return replace(self, place=finer.after(self.place), outline=self.outline.transformed(finer))

    def fallen(self, x: float, y: float, blur: float, spread: float = 0.0) -> Blurred:
        """What the shape casts: moved on the canvas, grown with round joins and blurred, by logical px; ``blur`` is a
        CSS blur radius. One that is not blurred lies whole device px away when the part is fitted."""
        path = self.shape.spread(spread).transformed(self.place) if spread else self.outline
        (across, right), (down, below) = _whole_and_rest(x * self.scale), _whole_and_rest(y * self.scale)
        if blur == 0 and self.fitted:
            right = below = 0.0
        if right or below:
            path = path.transformed(Similarity(dx=right, dy=below))
        return Blurred(path, blur / 2 * self.scale, across, down)

    def laid(self, fill: Fill, on: Rect | None = None) -> Source:
        """A fill laid on what it spans, the part's own box, or another of its space."""
        if isinstance(fill, Solid):
            return Flat(str(fill.colour))
        return Laid(fill, *lying(fill, self.spans, (on or self.box, self.place), Similarity(self.scale)))

    def margin(self, outwards: float) -> int:
        """Device px around the shape's pixels that hold what reaches that many logical px out of it."""
        return math.ceil(outwards * self.scale) + 1 if outwards > 0 else 0


def _whole_and_rest(length: float) -> tuple[int, float]:
    """Whole device px and what is left, at most half of one; nothing where that is less than rounding errors."""
    whole = math.floor(length + 0.5)
    rest = length - whole
    return whole, rest if abs(rest) > ON_GRID else 0.0


class Effect(Value):
    """Base of the effect kinds. All lengths are logical px and may be fractional."""

    label: ClassVar[str]
    rank: ClassVar[int] = 0
    """Where it stands among the kinds that can be added."""
    zone: ClassVar[Zone]
    strengths: ClassVar[tuple[str, ...]] = ("opacity",)
    """The fields that say how strong it is, as a look is made lighter or heavier."""

    if TYPE_CHECKING:
        kind: str = ""
    id: Id
    visible: bool = Field(True, title="shown")
    opacity: Share = Field(1.0, title="strength")
    blend: Blend = Field("normal", title="blend")
    through: bool = Field(False, title="reaches the backdrop")
    """Whether its blend mode, on surface or edge, works on what lies below the part too."""
    name: Called = Field("", title="called")
    """What a person calls it; empty for its kind."""

    @property
    def heading(self) -> str:
        """Return what it is called at the head of its sentence."""
        return self.name or self.label

    @property
    def said(self) -> str:
        """Return what it is called within a sentence."""
        return self.name or self.label.lower()

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
    def operations(self, stand: Stand, side: Side) -> tuple[Operation, ...]:
        """What it paints on one side of the part, bottom-most first."""

    @abstractmethod
    def sentence(self) -> Sentence:
        """Return what follows its label in the sheet."""

    def account(self) -> Sentence:
        """Return the sentence, followed by every number, choice, colour and switch that differs from its default."""
        sentence = self.sentence()
        said = {piece.path.partition("/")[0] for piece in sentence if isinstance(piece, Slot)}
        unsaid = said | SAID_ELSEWHERE | set(self.hidden_fields())
        more: list[Words | Slot] = []
        for name, field in type(self).model_fields.items():
            value, default = getattr(self, name), field.get_default(call_default_factory=True)
            if name in unsaid or value == default or not isinstance(value, int | float | str) or not field.title:
                continue
            more += [Words(f", {field.title}")] if value is True else [Words(f", {field.title} "), Slot(name)]
        return (*sentence, *more)

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
    def seen(self) -> bool:
        """Whether it makes any difference."""
        return self.visible and self.opacity > 0

    @property
    def deviation(self) -> float:
        """The standard deviation, logical px, of the Gaussian it lays over the whole part; 0 for none."""
        return 0.0

    @property
    def frosting(self) -> float | None:
        """The standard deviation, logical px, of the Gaussian through which what lies behind the part is seen; None
        when it is seen as it is."""
        return None

    @property
    def mixes(self) -> bool:
        """Whether any of it is blended with what lies below, other than laid over it."""
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
