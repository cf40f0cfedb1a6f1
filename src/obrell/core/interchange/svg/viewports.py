"""How a viewport shows its view box (SVG 2, section 8)."""

from __future__ import annotations

from dataclasses import dataclass

from obrell.core.geometry.affine import Affine
from obrell.core.geometry.plane import Rect
from obrell.core.interchange.svg.lengths import View, length, numbers

USUAL_WIDTH, USUAL_HEIGHT = 300.0, 150.0
"""Of a document that says no size (CSS 2, section 10.3.2)."""
Shown = tuple[float, float, float, float]
"""A view box: left, top, width, height."""
_SHARES = {"min": 0.0, "mid": 0.5, "max": 1.0}


@dataclass(frozen=True, slots=True)
class Fitted:
    """The way from what lies in a viewport to what is around it, what is 100 % there, and what is seen of it."""

    inner: Affine
    view: View
    seen: Rect
    """In the space around the viewport."""


def view_box(text: str | None) -> Shown | None:
    """Left, top, width and height; None when there is none, or none that shows anything."""
    values = [length(piece) for piece in numbers(text or "")]
    if len(values) != 4 or values[2] <= 0 or values[3] <= 0:
        return None
    return values[0], values[1], values[2], values[3]


def fitted(seen: Rect, box: Shown | None, keeping: str | None) -> Fitted:
    """A viewport over ``seen``, and its view box laid in it as ``preserveAspectRatio`` asks."""
    if box is None:
        return Fitted(Affine(e=seen.left, f=seen.top), View(seen.width, seen.height), seen)
    left, top, width, height = box
    across, down = seen.width / width, seen.height / height
    how = numbers(keeping or "") or ["xMidYMid"]
    how = how[1:] if how[0] == "defer" and len(how) > 1 else how
    shares = (0.0, 0.0)
    if how[0] != "none":
        across = down = max(across, down) if "slice" in how[1:] else min(across, down)
        shares = (_SHARES.get(how[0][1:4].lower(), 0.5), _SHARES.get(how[0][5:8].lower(), 0.5))
    x = seen.left + (seen.width - width * across) * shares[0] - left * across
    y = seen.top + (seen.height - height * down) * shares[1] - top * down
    return Fitted(Affine(across, 0, 0, down, x, y), View(width, height), seen)


def size_of(
    width: str | None, height: str | None, box: tuple[float, float, float, float] | None
) -> tuple[float, float]:
    """How large a document is in px: as it says, or as one side and its view box say, or as its view box is."""
    wide, high = (0.0 if (text or "").strip().endswith("%") else length(text) for text in (width, height))
    if box is None:
        return wide or USUAL_WIDTH, high or USUAL_HEIGHT
    if wide > 0 and high > 0:
        return wide, high
    if wide > 0:
        return wide, wide * box[3] / box[2]
    if high > 0:
        return high * box[2] / box[3], high
    return box[2], box[3]
