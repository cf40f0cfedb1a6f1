"""A picture part cut smaller by its sides, the picture itself staying where it lies."""

from __future__ import annotations

from dataclasses import dataclass

from obrell.core.document.model import Part
from obrell.core.document.moving import way_of
from obrell.core.geometry.plane import Rect
from obrell.core.paint.fills import picture_frame
from obrell.core.raster.samples import size_of
from obrell.core.shapes.kinds.picture import Picture

STEP_PX = 0.5
LEAST_SHARE = 0.02
"""How much of a picture's side is left at least."""


@dataclass(frozen=True, slots=True)
class Cut:
    """How a picture lies in its part's own space, in logical px: what is seen of it, and all of it."""

    seen: Rect
    whole: Rect
    columns: int
    rows: int

    def pulled(self, left: float, top: float, right: float, bottom: float) -> Cut:
        """The same with its seen sides pulled by logical px, right and down being more; no side leaves the picture,
        and something is left."""
        seen, whole = self.seen, self.whole
        across = _sides((seen.left, seen.right), (left, right), (whole.left, whole.right), self.columns)
        down = _sides((seen.top, seen.bottom), (top, bottom), (whole.top, whole.bottom), self.rows)
        return Cut(Rect(across[0], down[0], across[1], down[1]), self.whole, self.columns, self.rows)

    def shares(self) -> dict[str, float]:
        """What is cut off each side, as shares of the whole picture, in whole px of it."""
        seen, whole = self.seen, self.whole
        cuts = {
            "cut_left": ((seen.left - whole.left) / whole.width, self.columns),
            "cut_top": ((seen.top - whole.top) / whole.height, self.rows),
            "cut_right": ((whole.right - seen.right) / whole.width, self.columns),
            "cut_bottom": ((whole.bottom - seen.bottom) / whole.height, self.rows),
        }
        return {side: round(cut * count) / count for side, (cut, count) in cuts.items()}


def cut_of(picture: Picture) -> Cut:
    """How a picture lies in its frame now."""
    columns, rows = size_of(picture.file)
    lain, (left, top, right, bottom) = picture_frame(picture.ground(), picture.box())
    wide, high = lain.width / (right - left), lain.height / (bottom - top)
    whole = Rect(
        lain.left - left * wide,
        lain.top - top * high,
        lain.right + (columns - right) * wide,
        lain.bottom + (rows - bottom) * high,
    )
    return Cut(lain.meet(picture.box()), whole, columns, rows)


def cropped(part: Part, picture: Picture, cut: Cut) -> Part:
    """The part with its frame around what is seen after a cut."""
    seen, middle = cut.seen, cut.seen.centre
    dx, dy = way_of(part).apply(middle.x, middle.y)
    shape = picture.evolve(width=seen.width, height=seen.height, **cut.shares())
    return part.evolve(shape=shape, x=part.x + dx, y=part.y + dy)


def _sides(
    seen: tuple[float, float], pulls: tuple[float, float], whole: tuple[float, float], count: int
) -> tuple[float, float]:
    """The two sides along one axis after a pull, in steps of half a px; all on the picture's own px if larger."""
    low, high = whole
    px = (high - low) / count
    step, from_side = (px, low) if px > STEP_PX else (STEP_PX, None)
    least = (high - low) * LEAST_SHARE
    first, last = (_stepped(side, pull, step, from_side) for side, pull in zip(seen, pulls, strict=True))
    if pulls[0]:
        return min(max(low, first), last - least), last
    return first, max(min(high, last), first + least)


def _stepped(side: float, pull: float, step: float, start: float | None) -> float:
    """A side after a pull in whole steps, counted from ``start``, or from where it is."""
    start = side if start is None else start
    return start + round((side + pull - start) / step) * step
