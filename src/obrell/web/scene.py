"""What the stage needs to know to draw frames, handles and dimensions over the art."""

from __future__ import annotations

from functools import partial

from obrell.core.document.cropping import cut_of
from obrell.core.document.gradients import laid
from obrell.core.document.guides import guide_places
from obrell.core.document.materials import extent_of
from obrell.core.document.measures import frame_on_canvas, spans_of
from obrell.core.document.model import Control, KitSettings, Light, Part
from obrell.core.document.tree import Tree
from obrell.core.effects.shadow import Shadow
from obrell.core.geometry.svgdata import path_data
from obrell.core.shapes import Group, Line, Path, Picture
from obrell.core.shapes.containers import Container
from obrell.core.shapes.outlined import Contour
from obrell.core.values.fields import Live, live_of
from obrell.core.workspace import OfObject

HEIGHT = live_of(Light.model_fields["height"].metadata) or Live("°")
"""How high the key light can stand, degrees."""
_PARTS = OfObject[dict[str, object]](8192)


def around_of(control: Control, kit: KitSettings, touch: str) -> dict[str, object]:
    """Canvas, light, guides, reference, and the touch area as path data, in logical px."""
    light, places = control.light or kit.light, guide_places(control)
    return {
        "canvas": [control.canvas.width, control.canvas.height, control.canvas.margin],
        "light": light.direction,
        "lightHeight": light.height,
        "lightHeights": [HEIGHT.low, HEIGHT.high],
        "guides": [
            {"id": g.id, "axis": g.axis, "at": places[g.id], "locked": g.locked} for g in control.guides if g.visible
        ],
        "touch": touch,
        "reference": None if control.reference is None else control.reference.model_dump(),
    }


def parts_of(tree: Tree) -> dict[str, dict[str, object]]:
    """Every part by its id, back to front: its frame in logical px, and its outline, against which a pointer is
    tested, as path data in its own space."""
    return {name: _PARTS.get(node.part, "", partial(_part, node.part)) for name, node in tree.all.items()}


def _contour(contour: Contour) -> dict[str, object]:
    """Each knot as its place, its two handles, whether it is smooth."""
    knots = [
        [k.x, k.y, k.in_x, k.in_y, k.out_x, k.out_y, k.bend().smooth]
        for k in contour.knots
    ]  # fmt: skip
    return {"closed": contour.closed, "knots": knots}


def _part(part: Part) -> dict[str, object]:
    frame = part.shape.frame()
    seen: dict[str, object] = {
        "id": part.id, "name": part.name, "kind": part.shape.kind,
        "x": part.x, "y": part.y, "turn": part.rotation, "mirrored": part.mirrored,
        "frame": [frame.left, frame.top, frame.right, frame.bottom],
        "extent": round(extent_of(part), 3), "within": part.within, "locked": part.locked, "visible": part.visible,
        "clip": part.clip,
    }  # fmt: skip
    seen["keeps"] = sorted({follow.source for follow in part.follows} - {part.id})
    if isinstance(part.shape, Path):
        seen["contours"] = [_contour(contour) for contour in part.shape.contours]
    if isinstance(part.shape, Container):
        seen["holds"] = "parts" if isinstance(part.shape, Group) else "pieces"
    if isinstance(part.shape, Picture):
        whole = cut_of(part.shape).whole
        seen["picture"] = [whole.left, whole.top, whole.right, whole.bottom]
    if isinstance(part.shape, Line):
        seen["ends"] = [[0, 0], [part.shape.across, part.shape.down]]
    if grips := part.shape.grips():
        seen["grips"] = [[grip.name, grip.at.x, grip.at.y, grip.words, grip.value] for grip in grips]
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


def fall_scene(tree: Tree, part: str, effect: str, light: float) -> dict[str, object] | None:
    """Where an open shadow falls: from the middle of its part, to where that would lie; logical px. ``light`` is the
    direction of the key light, degrees."""
    node = tree.all.get(part)
    opened = next((one for one in node.part.effects if one.id == effect), None) if node else None
    if node is None or not isinstance(opened, Shadow):
        return None
    middle, (across, down) = frame_on_canvas(node.part).centre, opened.offset.vector(light)
    return {
        "part": part, "effect": effect, "from": [middle.x, middle.y], "to": [middle.x + across, middle.y + down]
    }  # fmt: skip
