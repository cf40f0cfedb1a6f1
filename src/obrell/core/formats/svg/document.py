"""Self-contained SVG: gradients and shadows as SVG's own, text as outlines.

Under an opaque surface neither shadows nor outer outlines are cut out: drawn whole and then covered,
they leave exactly what our interpolation leaves at a partly covered edge (``rendering.md``, zones).
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace

from obrell.core.document.copies import moved_node
from obrell.core.document.looks import before_blur, deviation_of, painted_of, shown_of
from obrell.core.document.measures import spans_of
from obrell.core.document.model import Part
from obrell.core.document.moving import place_of
from obrell.core.document.nodes import Node
from obrell.core.document.resolve import Resolved
from obrell.core.effects import Blur
from obrell.core.effects.base import Effect, Side, Stand, lying
from obrell.core.effects.kinds.mask import GradientCover, Mask
from obrell.core.formats.svg.markup import Definitions, element, text
from obrell.core.formats.svg.pictured import USUAL_DENSITY, Pictures
from obrell.core.formats.svg.written import Sheet, Writer, keeps_to_shape, writable
from obrell.core.geometry.plane import Rect, Similarity
from obrell.core.geometry.svgdata import number, path_data, rectangle
from obrell.core.render.compose import canvas_box, mixes
from obrell.core.scene.reach import painted_bounds
from obrell.core.scene.stands import stand_unfitted

EVERYWHERE = Rect(-8192, -8192, 8192, 8192)
"""More than any canvas."""
WHITE_OF_ALPHA = "0 0 0 0 1 0 0 0 0 1 0 0 0 0 1 0 0 0 1 0"
INVERTED = "-1 0 0 0 1 0 -1 0 0 1 0 0 -1 0 1 0 0 0 0 1"


def svg(resolved: Resolved, box: Rect | None = None, density: float = USUAL_DENSITY) -> str:
    """The control as an SVG document; ``box`` is the logical rectangle shown, the canvas if None. Effects that
    SVG cannot draw are embedded as pictures of ``density``."""
    canvas = resolved.control.canvas
    box = box or Rect(0, 0, canvas.width, canvas.height)
    defs = Definitions()
    made = Pictures(density, resolved, canvas_box(resolved, density))
    parts = [_node(node, made, defs) for node in resolved.tree.nodes]
    view = " ".join(number(v) for v in (box.left, box.top, box.width, box.height))
    root: dict[str, str | float] = {
        "xmlns": "http://www.w3.org/2000/svg", "width": box.width, "height": box.height, "viewBox": view,
    }  # fmt: skip
    title = element("title", {}, text(resolved.control.name))
    return element("svg", root, title, defs.markup(), *_on_canvas(parts, canvas.width, canvas.height, box, defs))


def _on_canvas(parts: Sequence[str], width: float, height: float, box: Rect, defs: Definitions) -> Sequence[str]:
    """What a box larger than the canvas shows is still only what lies on the canvas."""
    if box.left >= 0 and box.top >= 0 and box.right <= width and box.bottom <= height:
        return parts
    edge = element("path", {"d": f"M0 0H{number(width)}V{number(height)}H0Z"})
    return (element("g", {"clip-path": defs.add("clipPath", {}, edge)}, *parts),)


def _node(node: Node, made: Pictures, defs: Definitions) -> str:
    """A part with what lies in it. What it casts, and then the part itself, are each blurred, clipped, masked and
    blended, in this order: whatever is done to a sheet isolates it, so it is blended last."""
    part = node.part
    if not part.visible or part.opacity <= 0:
        return ""
    masks, deviation = shown_of(part, Mask), deviation_of(part)
    bare = (before_blur(node) if deviation > 0 else node).without(Blur, Mask)
    sheets = _sheets(bare, made, defs, faded=bool(masks))
    if node.clips and not masks:
        sheets = _merged(sheets)
    return "".join(_finished(sheet, node, masks, deviation, made, defs) for sheet in sheets)


def _merged(sheets: Iterable[Sheet]) -> list[Sheet]:
    """Sheets that are laid over each other as one, so that a clip’s soft edge lets nothing of lower ones through."""
    merged: list[Sheet] = []
    for sheet in sheets:
        if merged and merged[-1].blend == sheet.blend == "normal":
            merged[-1] = Sheet((_laid(merged[-1]), _laid(sheet)))
        else:
            merged.append(sheet)
    return merged


def _finished(
    sheet: Sheet, node: Node, masks: Sequence[Mask], deviation: float, made: Pictures, defs: Definitions
) -> str:  # fmt: skip
    if not masks and deviation <= 0 and not node.clips:
        return _laid(sheet)
    drawn = _laid(replace(sheet, blend="normal"))
    if deviation > 0:
        drawn = _out_of_focus(node, drawn, deviation, made, defs)
    for clip in node.clips:
        drawn = _clipped(clip, drawn, defs)
    for effect in masks:
        drawn = _masked(effect, node, drawn, made, defs) if drawn else ""
    return _laid(Sheet((drawn,), 1.0, sheet.blend)) if drawn else ""


def _sheets(node: Node, made: Pictures, defs: Definitions, *, faded: bool) -> list[Sheet]:
    """``faded`` is whether each of them will be masked by itself."""
    held = tuple(item for child in node.children if (item := _node(child, made, defs)))
    if not node.children or not node.plain:
        return _part(node.part, held, made, defs, faded=faded)
    return [Sheet(_isolated(held) if not node.through and mixes(node) else held)] if held else []


def _clipped(by: Part, drawn: str, defs: Definitions) -> str:
    outline = by.shape.path().transformed(place_of(by))
    clip = defs.add("clipPath", {}, element("path", {"d": path_data(outline)}))
    return element("g", {"clip-path": clip}, drawn)


def _out_of_focus(node: Node, drawn: str, deviation: float, made: Pictures, defs: Definitions) -> str:
    """Drawn elements under one Gaussian for all blurs of the part."""
    return element("g", {"filter": defs.blur(deviation, painted_bounds(made.resolved, node))}, drawn)


def _masked(effect: Mask, node: Node, drawn: str, made: Pictures, defs: Definitions) -> str:
    """Drawn elements in a group with a mask; its strength lets through what is left of 1."""
    part = node.part
    dx, dy = effect.shift(part.x, part.y)
    cover = dict(node.covers).get(effect.id)
    everywhere: dict[str, str | float] = {"d": rectangle(EVERYWHERE)}
    if isinstance(effect.cover, GradientCover):
        fill = effect.cover.fill
        spans = spans_of(made.resolved.control, made.resolved.tree, part)
        own = part.shape.box(), Similarity(dx=dx, dy=dy).after(place_of(part))
        shown = element("path", everywhere | defs.fill(fill, *lying(fill, spans, own)))
    elif cover is not None:
        shown = _node(moved_node(cover, Similarity(dx=dx, dy=dy)), made, defs)
    else:
        return drawn
    if effect.measure == "opacity":
        shown = element("g", {"filter": _colours(defs, WHITE_OF_ALPHA)}, shown)
    black = element("path", everywhere | {"fill": "#000"})
    if effect.inverted:
        shown = element("g", {"filter": _colours(defs, INVERTED)}, black, shown)
    if effect.opacity < 1:
        white = element("path", everywhere | {"fill": "#fff", "opacity": 1 - effect.opacity})
        shown = element("g", {}, element("g", {}, black, shown), white)
    area = rect_attributes(EVERYWHERE) | {"maskUnits": "userSpaceOnUse"}
    return element("g", {"mask": defs.add("mask", area, shown)}, drawn)


def _colours(defs: Definitions, table: str) -> str:
    """A filter that maps colours by a matrix, over everything."""
    area = rect_attributes(EVERYWHERE) | {"filterUnits": "userSpaceOnUse", "color-interpolation-filters": "sRGB"}
    return defs.add("filter", area, element("feColorMatrix", {"type": "matrix", "values": table}))


def _part(part: Part, held: tuple[str, ...], made: Pictures, defs: Definitions, *, faded: bool) -> list[Sheet]:
    """What a part casts, back to front, the part itself, and what is laid over it."""
    stand = stand_unfitted(made.resolved, part)
    if not stand.outline:
        return []
    painted = painted_of(part)
    shown = [effect for effect in painted if not effect.reaches]
    inside = [e for zone in ("surface", "edge") for e in shown if e.lies_in() == zone]
    edge = [e for e in shown if e.lies_in() == "edge"]
    solid = not faded and _opaque(part, inside)
    writer = Writer(stand, defs, made.of(part), cut=_needs_cut(inside, stand))
    body = _over_each_other(inside, writer, "inside")
    outer = _over_each_other(edge, writer, "outside")
    if writer.cut and body:
        body = (_kept_to_shape(body, writer),)
    if outer and not solid:
        outer = (element("g", {"mask": _outside_mask(writer, part)}, *outer),)
    whole = (*outer, *held, *body)
    mixed = bool(held) or any(effect.mixes for effect in inside)
    group = [Sheet(_isolated(whole) if mixed else whole, part.opacity, part.blend)] if whole else []
    behind = [sheet for e in shown if e.lies_in() == "behind" for sheet in _behind(e, writer, part, solid)]
    return [*behind, *group, *(sheet for e in painted if e.reaches for sheet in _reaching(e, writer, part))]


def _needs_cut(inside: Sequence[Effect], stand: Stand) -> bool:
    """Whether a mask has to cut what lies inside: more than one would let each other through at a soft edge."""
    operations = [one for effect in inside for one in effect.operations(stand, "inside")]
    return len(inside) > 1 or not all(writable(one) and keeps_to_shape(one) for one in operations)


def _reaching(effect: Effect, writer: Writer, part: Part) -> Iterator[Sheet]:
    """An effect laid over the finished part: cut before it is blended, as a cut isolates."""
    for sheet in writer.sheets(effect, "inside"):
        yield replace(sheet, items=(_kept_to_shape(sheet.items, writer),), opacity=sheet.opacity * part.opacity)
    for sheet in writer.sheets(effect, "outside") if effect.lies_in() == "edge" else ():
        cut = element("g", {"mask": _outside_mask(writer, part)}, *sheet.items)
        yield replace(sheet, items=(cut,), opacity=sheet.opacity * part.opacity)


def _opaque(part: Part, inside: Iterable[Effect]) -> bool:
    """Whether the part's surface hides whatever lies under it."""
    whole = part.opacity >= 1 and part.blend == "normal"
    return whole and any(effect.opaque and effect.lies_in() == "surface" for effect in inside)


def _behind(effect: Effect, writer: Writer, part: Part, solid: bool) -> Iterator[Sheet]:
    """What an effect casts, cut out under the part before it is blended."""
    for sheet in writer.sheets(effect, "behind"):
        items = sheet.items
        if not solid and not effect.shows_through_body:
            items = (element("g", {"mask": _outside_mask(writer, part)}, *items),)
        yield replace(sheet, items=items, opacity=sheet.opacity * part.opacity)


def _over_each_other(effects: Iterable[Effect], writer: Writer, side: Side) -> tuple[str, ...]:
    return tuple(_laid(sheet) for effect in effects for sheet in writer.sheets(effect, side))


def _kept_to_shape(items: Iterable[str], writer: Writer) -> str:
    shape = element("path", {"d": path_data(writer.stand.outline), "fill": "#fff"})
    return element("g", {"mask": writer.defs.add("mask", _area(writer.box), shape)}, *items)


def _isolated(items: Sequence[str]) -> tuple[str, ...]:
    return (element("g", {"style": "isolation:isolate"}, *items),)


def _laid(sheet: Sheet) -> str:
    """A sheet faded and blended; bare when that changes nothing."""
    if sheet.opacity >= 1 and sheet.blend == "normal":
        return "".join(sheet.items)
    fade: str | float = "" if sheet.opacity >= 1 else sheet.opacity
    style = "" if sheet.blend == "normal" else f"mix-blend-mode:{sheet.blend}"
    return element("g", {"opacity": fade, "style": style}, *sheet.items)


def _area(box: Rect) -> dict[str, str | float]:
    return rect_attributes(box.grown(1)) | {"maskUnits": "userSpaceOnUse"}


def rect_attributes(box: Rect) -> dict[str, str | float]:
    """A rectangle as attributes."""
    return {"x": box.left, "y": box.top, "width": box.width, "height": box.height}


def _outside_mask(writer: Writer, part: Part) -> str:
    reach = max((effect.reach(writer.stand.lamp.direction) for effect in part.effects), default=0.0)
    area = writer.box.grown(reach + 1)
    outline = path_data(writer.stand.outline)
    data = f"{rectangle(area)} {outline}"
    shape = element("path", {"d": data, "fill": "#fff", "fill-rule": "evenodd"})
    return writer.defs.add("mask", _area(area), shape)
