"""The shape of a container: what the parts in it cover together. Never stored."""

from __future__ import annotations

from typing import ClassVar

from pydantic import ConfigDict

from obrell.core.geometry.combine import Mode, combined
from obrell.core.geometry.paths import Path
from obrell.core.geometry.plane import Point, Rect, Similarity
from obrell.core.shapes.base import Sentence, Shape, Words, fitted_at
from obrell.core.shapes.containers import Container
from obrell.core.values.base import Value
from obrell.core.workspace import remembered


class Piece(Value):
    """A shape where it stands on the canvas."""

    model_config = ConfigDict(frozen=True, arbitrary_types_allowed=True)

    shape: Shape
    x: float
    y: float
    rotation: float
    mirrored: bool = False

    def place(self) -> Similarity:
        return Similarity(1.0, self.rotation, self.x, self.y, self.mirrored)

    def outline(self) -> Path:
        return self.shape.path().transformed(self.place())

    def carried(self, by: Similarity) -> Piece:
        """The piece moved, turned, scaled and mirrored on the canvas."""
        to = by.after(self.place())
        shape = self.shape.stretched(by.scale, by.scale)
        return self.evolve(shape=shape, x=to.dx, y=to.dy, rotation=to.turn, mirrored=to.mirror)

    def fitted(self, density: float) -> Piece:
        """The piece on the grid of ``density``, when it stands upright."""
        shape, place = fitted_at(self.shape, self.place(), density)
        return self.evolve(shape=shape, x=place.x, y=place.y)


class Gathered(Container):
    """Pieces on the canvas, combined, seen from the container's own place and turn."""

    label: ClassVar[str] = "Gathered"
    kind: str
    mode: Mode
    pieces: tuple[Piece, ...]
    x: float
    y: float
    rotation: float
    mirrored: bool = False

    def path(self) -> Path:
        return _combined(self.mode, self.pieces).transformed(self._back())

    def box(self) -> Rect:
        return self.frame() if self.mode == "union" else self.path().bounds()

    def frame(self) -> Rect:
        if self.mode != "union":
            return self.path().bounds()
        frame: Rect | None = None
        for piece in self.pieces:
            bounds = piece.outline().transformed(self._back()).bounds()
            if not bounds.empty:
                frame = bounds if frame is None else frame.union(bounds)
        return frame or Rect(0, 0, 0, 0)

    def fitted(self, density: float, place: Point) -> tuple[Gathered, Point]:
        return self.evolve(pieces=tuple(piece.fitted(density) for piece in self.pieces)), place

    def carried(self, by: Similarity) -> Gathered:
        """The same pieces and the container's own place moved, turned, scaled and mirrored on the canvas."""
        to = by.after(self._place())
        pieces = tuple(piece.carried(by) for piece in self.pieces)
        return self.evolve(pieces=pieces, x=to.dx, y=to.dy, rotation=to.turn, mirrored=to.mirror)

    def sentence(self) -> Sentence:
        return (Words(self.kind),)

    def _back(self) -> Similarity:
        """From the canvas to the container's own space."""
        return self._place().inverse()

    def _place(self) -> Similarity:
        return Similarity(1.0, self.rotation, self.x, self.y, self.mirrored)


@remembered(1024)
def _combined(mode: Mode, pieces: tuple[Piece, ...]) -> Path:
    return combined(mode, tuple(piece.outline() for piece in pieces))
