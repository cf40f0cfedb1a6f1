"""What the stage needs to know to draw frames, handles and dimensions over the art."""

from __future__ import annotations

from functools import partial

from obrell.core.document.gradients import laid
from obrell.core.document.guides import guide_places
from obrell.core.document.measures import spans_of
from obrell.core.document.model import Control, KitSettings, Part
from obrell.core.document.tree import Tree
from obrell.core.geometry.svgdata import path_data
from obrell.core.kept import OfObject
from obrell.core.shapes import Line, Path
from obrell.core.shapes.path import Contour

_PARTS = OfObject[dict[str, object]](8192)


def scene_of(control: Control, kit: KitSettings, tree: Tree, *, outlines: bool = False) -> dict[str, object]:
    """Canvas, light and every part's frame, in logical px; parts back to front. ``outlines`` adds what
    a pointer is tested against, as path data in the part's own space."""
    light, places = control.light or kit.light, guide_places(control)
    return {
        "canvas": [control.canvas.width, control.canvas.height, control.canvas.margin],
        "light": light.direction,
        "guides": [
            {"id": g.id, "axis": g.axis, "at": places[g.id], "locked": g.locked} for g in control.guides if g.visible
        ],
        "reference": None if control.reference is None else control.reference.model_dump(),
        "parts": [_PARTS.get(node.part, outlines, partial(_part, node.part, outlines)) for node in tree.all.values()],
    }


def _contour(contour: Contour) -> dict[str, object]:
    """Each knot as its place, its two handles, whether it is smooth."""
    knots = [
        [k.x, k.y, k.in_x, k.in_y, k.out_x, k.out_y, k.bend().smooth]
        for k in contour.knots
    ]  # fmt: skip
    return {"closed": contour.closed, "knots": knots}


def _part(part: Part, outlines: bool) -> dict[str, object]:
    frame = part.shape.frame()
    seen: dict[str, object] = {
        "id": part.id, "name": part.name, "kind": part.shape.kind,
        "x": part.x, "y": part.y, "turn": part.rotation,
        "frame": [frame.left, frame.top, frame.right, frame.bottom],
        "within": part.within, "locked": part.locked, "visible": part.visible,
    }  # fmt: skip
    if isinstance(part.shape, Path):
        seen["contours"] = [_contour(contour) for contour in part.shape.contours]
    if isinstance(part.shape, Line):
        seen["ends"] = [[0, 0], [part.shape.across, part.shape.down]]
    if outlines:
        seen["outline"] = path_data(part.shape.path())
    return seen


def gradient_scene(control: Control, tree: Tree, part: str, effect: str) -> dict[str, object] | None:
    """The gradient of an open effect as it lies on the canvas: its handles by name, what joins them, the
    colours of its stops."""
    node = tree.all.get(part)
    opened = next((one for one in node.part.effects if one.id == effect), None) if node else None
    found = laid(node.part, opened, spans_of(control, tree, node.part)) if node and opened else None
    if found is None:
        return None
    stops = (stop.colour for stop in found.gradient.stops)
    return {
        "part": part, "effect": effect,
        "handles": {name: [at.x, at.y] for name, at in found.handles().items()},
        "lines": [[[one.x, one.y], [other.x, other.y]] for one, other in found.lines()],
        "stops": [colour if isinstance(colour, str) else "#808080" for colour in stops],
    }  # fmt: skip
