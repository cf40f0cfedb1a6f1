"""What every part kind promises: a path around its own origin, and the words of its sentence."""

from __future__ import annotations

import math
from abc import abstractmethod
from dataclasses import dataclass
from typing import TYPE_CHECKING, ClassVar

from obrell.core.geometry.combine import grown
from obrell.core.geometry.paths import Path
from obrell.core.geometry.pens import MITRE_LIMIT, Join
from obrell.core.geometry.plane import Point, Rect, Similarity
from obrell.core.geometry.rounded import Insets
from obrell.core.values.base import Value
from obrell.core.values.colours import Colour
from obrell.core.values.fields import MOST_PX
from obrell.core.values.paints import Fill

if TYPE_CHECKING:
    from obrell.core.shapes.outlined import Outlined

LEAST_PX = 1e-3
"""What a shape is stretched to at least."""
SMALLEST_PX = 1.0
"""What a drag on the stage makes at least."""
INK = "#1f2a30"
"""What words and signs are first painted with."""
COMMON_SIDE_PX = 40.0
"""Size of a part that is clicked rather than dragged."""


@dataclass(frozen=True, slots=True)
class Words:
    """Plain words of a sentence."""

    text: str


@dataclass(frozen=True, slots=True)
class Slot:
    """A live value in a sentence: a field's path below the part or the effect."""

    path: str


Sentence = tuple[Words | Slot, ...]


@dataclass(frozen=True, slots=True)
class Tool:
    """What a kind is drawn with: its word, the letter of it that is its key, and its name where that is not the
    kind's."""

    word: str
    key: str
    name: str = ""


@dataclass(frozen=True, slots=True)
class Grip:
    """A place of a shape's own space that sets one of its values: its name, what it is called, and what it is at."""

    name: str
    words: str
    at: Point
    value: str


def is_press(dx: float, dy: float) -> bool:
    """Whether a way across and down, px, is too short to draw along: a press, which puts a shape of its usual size."""
    return abs(dx) < SMALLEST_PX and abs(dy) < SMALLEST_PX


class Shape(Value):
    """Base of the part kinds. Lengths are logical px; the origin is the part's own place."""

    if TYPE_CHECKING:
        kind: str = ""
    label: ClassVar[str]
    rank: ClassVar[int] = 0
    """Where it stands among the kinds that can be drawn."""
    tool: ClassVar[Tool | None] = None
    """What draws it; None for what is made of other parts."""
    first_colour: ClassVar[str] = "#9ca5a6"
    """What a part of the kind is painted with until its kit has a look for it: a quiet neutral."""
    keeps_proportions: ClassVar[bool] = False
    """Whether pulling a handle scales both sizes alike."""

    @abstractmethod
    def path(self) -> Path:
        """The outline; overlaps nowhere; empty when there is nothing to see."""

    def spread(self, distance: float) -> Path:
        """The outline of a shadow spread by ``distance``: grown with round joins."""
        return grown(self.path(), distance, "round")

    def ground(self) -> Fill | None:
        """What the kind itself shows below all surface effects; None for kinds that are only painted."""
        return None

    def stains(self) -> tuple[tuple[Path, Colour], ...]:
        """Pieces of the outline with the colours they have of their own."""
        return ()

    @property
    def plain(self) -> bool:
        """Whether nothing but effects gives it its colours."""
        return True

    def parallel(self, distance: float, join: Join = "mitre", mitre: float = MITRE_LIMIT) -> Path:
        """The outline moved outwards by ``distance``, its corners joined as asked."""
        return grown(self.path(), distance, join, mitre)

    def centre_line(self) -> Path:
        """What a pen follows: the outline, or the path it was drawn along, open where that is."""
        return self.path()

    def inset(self, insets: Insets) -> Path | None:
        """The outline with its top, right, bottom and left side each moved inwards by a length of its own; None
        for kinds without such sides."""
        return None

    def box(self) -> Rect:
        """The exact box of the outline, which fills span."""
        return self.path().bounds()

    def frame(self) -> Rect:
        """The box that handles stand on, around the part's origin."""
        return self.box()

    def at_density(self, density: float) -> Shape:
        """The shape as it is drawn at a density, where its kind depends on that."""
        return self

    def fitted(self, density: float, place: Point) -> tuple[Shape, Point]:
        """Shape and place moved so that straight sides lie on the device grid of ``density``."""
        return self, place

    def straight_sides(self) -> tuple[float, float, float, float] | None:
        """Left, top, right and bottom when these are straight, axis-aligned sides; else None."""
        return None

    @abstractmethod
    def resized(self, width: float, height: float) -> Shape:
        """The same shape filling a frame of that size as well as its kind can."""

    @classmethod
    def drawn(
        cls, x0: float, y0: float, x1: float, y1: float, *, constrained: bool, centred: bool
    ) -> tuple[Shape, Point]:  # fmt: skip
        """A new part drawn from one place to another, and its place; both the same is a click.

        ``constrained`` makes both sides equal, ``centred`` draws from the centre outwards.
        """
        dx, dy = x1 - x0, y1 - y0
        if is_press(dx, dy):
            return cls().resized(COMMON_SIDE_PX, COMMON_SIDE_PX), Point(x0, y0)
        width, height = max(abs(dx), SMALLEST_PX), max(abs(dy), SMALLEST_PX)
        if constrained:
            width = height = max(width, height)
        if centred:
            return cls().resized(2 * width, 2 * height), Point(x0, y0)
        across, down = (1 if dx >= 0 else -1), (1 if dy >= 0 else -1)
        return cls().resized(width, height), Point(x0 + across * width / 2, y0 + down * height / 2)

    def stretched(self, across: float, down: float) -> Shape:
        """The shape with its frame's sizes multiplied."""
        if across == down == 1:
            return self
        frame = self.frame()
        return self.resized(max(frame.width * across, LEAST_PX), max(frame.height * down, LEAST_PX))

    def grips(self) -> tuple[Grip, ...]:
        """What can be taken hold of on the shape beside its frame."""
        return ()

    def gripped(self, name: str, at: Point, *, constrained: bool, centred: bool) -> Shape | None:
        """The shape with one of its grips taken to a place of its own space; ``constrained`` goes in whole px and
        steps of 15°, ``centred`` does the same on the other side. None for a name that is no grip's."""
        return None

    def flipped(self, *, across: bool) -> Shape:
        """The shape mirrored about its own place, left to right or top to bottom."""
        return self

    def grown_by(self, distance: float) -> Shape | None:
        """The same kind grown outwards by a distance; None when it would become another kind."""
        return None

    def as_ring(self, distance: float) -> Shape | None:
        """Return what rings around it repeat, a distance farther out; None when it would become another kind."""
        return self.grown_by(distance)

    @abstractmethod
    def sentence(self) -> Sentence:
        """The line under the part's name."""

    def details(self) -> tuple[str, ...]:
        """Fields that the sentence leaves out and the open sheet shows."""
        said = {slot.path for slot in self.sentence() if isinstance(slot, Slot)}
        return tuple(name for name in type(self).model_fields if name not in said | {"kind"})

    def suggested_name(self) -> str:
        """What a new part of this kind is called."""
        return self.label

    def remark(self) -> str:
        """What can be seen and is hardly meant, in words; empty when nothing is."""
        return ""

    def as_line(self) -> Outlined | None:
        """The same kind of mark as a path that a pen is drawn along, so that its points can be moved; None for kinds
        that are areas."""
        return None

    def pushed(self, before: Shape) -> Shape:
        """The shape after one of its values was set, with those that this leaves no room for pushed along."""
        return self

    def problem_since(self, before: Shape) -> str:
        """What is wrong after it was changed, in words; what was so before is let be."""
        return self.problem()

    def problem(self) -> str:
        """What is wrong with the values taken together, in words; empty when nothing is."""
        return ""


def fitted_at(shape: Shape, place: Similarity, density: float) -> tuple[Shape, Point]:
    """A shape that stands upright at a place, and the place, so that straight sides lie on the device grid; others
    as they are. What is turned or mirrored is fitted in its own space, where the grid looks the same."""
    quarter = place.turn % 180 == 90
    if place.turn % 90 or (quarter and shape.straight_sides() is None):
        return shape, Point(place.dx, place.dy)
    way = Similarity(turn=place.turn, mirror=place.mirror)
    fitted, at = shape.fitted(density, Point(*way.undo(place.dx, place.dy)))
    return fitted, Point(*way.apply(at.x, at.y))


def on_grid(length: float, centre: float, density: float) -> tuple[float, float]:
    """A length and its centre moved so that both ends lie on device pixels (``rendering.md``): the centre to the
    nearest half, so that all that has one centre keeps it, and the length to the nearest number of whole pixels that
    fits there, odd or even, at least one or two; and never more than a length can be."""
    halves = math.floor(2 * centre * density + 0.5)
    odd = halves % 2
    pixels = max(2.0 - odd, 2.0 * math.floor((length * density - odd) / 2 + 0.5) + odd)
    if pixels / density > MOST_PX and pixels > 2:
        pixels -= 2
    return pixels / density, halves / 2 / density


def stroke_on_grid(width: float, centre: float, density: float) -> tuple[float, float]:
    """The width of a line and its centre moved so that both sides lie on device pixels: a thin line keeps its width,
    at least 1, and moves by half a pixel where that needs it."""
    pixels = max(1.0, math.floor(width * density + 0.5))
    half = (pixels % 2) / 2
    return pixels / density, (math.floor(centre * density - half + 0.5) + half) / density
