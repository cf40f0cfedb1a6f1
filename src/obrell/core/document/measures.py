"""What can be measured of parts as they stand on the canvas, logical px."""

from __future__ import annotations

from collections.abc import Iterable

from obrell.core.document.model import Control, Measure, Part
from obrell.core.document.moving import place_of
from obrell.core.document.tree import Tree, arranged
from obrell.core.effects import Effect
from obrell.core.geometry.plane import NOWHERE, Point, Rect
from obrell.core.shapes.kinds.path import Path
from obrell.core.workspace import OfObject

_FRAMES = OfObject[Rect](8192)


def frame_on_canvas(part: Part) -> Rect:
    """Around the frame of a part as it is drawn."""
    return _FRAMES.get(part, None, lambda: _frame_on_canvas(part))


def _frame_on_canvas(part: Part) -> Rect:
    frame, place = part.shape.frame(), place_of(part)
    corners = [place.apply(x, y) for x in (frame.left, frame.right) for y in (frame.top, frame.bottom)]
    across, down = [x for x, _ in corners], [y for _, y in corners]
    return Rect(min(across), min(down), max(across), max(down))


def ink_on_canvas(part: Part) -> Rect:
    """Around the outline itself."""
    return part.shape.path().transformed(place_of(part)).bounds()


def points_on_canvas(part: Part) -> dict[tuple[int, int], Point]:
    """Where the points of a path lie, by the number of the contour and the number in it; empty for other shapes."""
    if not isinstance(part.shape, Path):
        return {}
    place = place_of(part)
    return {
        (number, index): Point(*place.apply(knot.x, knot.y))
        for number, run in enumerate(part.shape.contours)
        for index, knot in enumerate(run.knots)
    }


def around(boxes: Iterable[Rect]) -> Rect:
    """Around all boxes, those without any width or height too, as a line's; ``NOWHERE`` for none."""
    boxes = tuple(boxes)
    if not boxes:
        return NOWHERE
    return Rect(
        min(box.left for box in boxes), min(box.top for box in boxes),
        max(box.right for box in boxes), max(box.bottom for box in boxes),
    )  # fmt: skip


def bounds_of(control: Control, ids: Iterable[str]) -> Rect:
    """Around the frames of parts."""
    tree = arranged(control).all
    return around(frame_on_canvas(tree[part_id].part) for part_id in ids)


def spans_of(control: Control, tree: Tree, part: Part) -> dict[str, Rect]:
    """The boxes on the canvas that a part's fills are laid over: the canvas, and what it lies in when one asks
    for that."""
    spans = {"canvas": Rect(0, 0, control.canvas.width, control.canvas.height)}
    outer = tree.all.get(part.within or "")
    if outer is not None and spans_group(part):
        spans["group"] = frame_on_canvas(outer.part)
    return spans


def spans_group(part: Part) -> bool:
    """Whether one of its fills is laid over what the part lies in."""
    return part.within is not None and any(_spans_group(effect) for effect in part.effects)


def _spans_group(effect: Effect) -> bool:
    fills = getattr(effect, "fill", None), getattr(getattr(effect, "cover", None), "fill", None)
    return any(getattr(fill, "span", "") == "group" for fill in fills)


def anchor_of(part: Part, shares: tuple[float, float]) -> tuple[float, float]:
    """Where a place of the part's frame lies, given as shares across and down."""
    frame = part.shape.frame()
    return place_of(part).apply(frame.left + frame.width * shares[0], frame.top + frame.height * shares[1])


def to_middle(control: Control, path: str) -> float:
    """Return what is added to the place at ``parts/<id>/x`` or ``/y`` to get to the middle of the part's frame; 0 for
    all other paths."""
    steps = path.split("/")
    if len(steps) != 3 or steps[0] != "parts" or steps[2] not in ("x", "y"):
        return 0.0
    node = arranged(control).all.get(steps[1])
    if node is None:
        return 0.0
    across, down = anchor_of(node.part, (0.5, 0.5))
    return round(across - node.part.x if steps[2] == "x" else down - node.part.y, 9)


def measured(part: Part, measure: Measure) -> float:
    """A length of the part, or a place of the box around its frame."""
    frame, box = part.shape.frame(), frame_on_canvas(part)
    lengths: dict[Measure, float] = {
        "width": frame.width, "height": frame.height,
        "middle across": box.centre.x, "middle down": box.centre.y,
        "left": box.left, "right": box.right, "top": box.top, "bottom": box.bottom,
        "radius": float(getattr(part.shape, "radius", 0.0)),
    }  # fmt: skip
    return lengths[measure]
