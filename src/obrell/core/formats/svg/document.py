"""Self-contained SVG: gradients and shadows as SVG's own, text as outlines.

Under an opaque surface neither shadows nor outer outlines are cut out: drawn whole and then covered,
they leave exactly what our interpolation leaves at a partly covered edge (``rendering.md``, zones).
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace

from obrell.core.document.resolve import Resolved
from obrell.core.effects.base import Effect, Side, Stand
from obrell.core.formats.svg.markup import Definitions, element, text
from obrell.core.formats.svg.pictured import USUAL_DENSITY, Pictures
from obrell.core.formats.svg.written import Sheet, Writer, keeps_to_shape, writable
from obrell.core.geometry.plane import Rect
from obrell.core.geometry.svgdata import number, path_data, rectangle
from obrell.core.paint.areas import Filled
from obrell.core.render.compose import canvas_box
from obrell.core.scene.bounds import painted_bounds, reach_of
from obrell.core.scene.items import Body, Group, Item, Mask, Treated
from obrell.core.scene.scene import scene_at, scene_unfitted

EVERYWHERE = Rect(-8192, -8192, 8192, 8192)
"""More than any canvas."""
WHITE_OF_ALPHA = "0 0 0 0 1 0 0 0 0 1 0 0 0 0 1 0 0 0 1 0"
INVERTED = "-1 0 0 0 1 0 -1 0 0 1 0 0 -1 0 1 0 0 0 0 1"


def svg(
    resolved: Resolved, box: Rect | None = None, density: float = USUAL_DENSITY, *, fitted: bool = False
) -> str:  # fmt: skip
    """The control as an SVG document; ``box`` is the logical rectangle shown, the canvas if None. Effects that
    SVG cannot draw are embedded as pictures of ``density``. ``fitted`` is whether parts lie on the pixels of density
    1 as they, or the kit, ask: as SVG is drawn when it is shown at its own size."""
    canvas = resolved.control.canvas
    box = box or Rect(0, 0, canvas.width, canvas.height)
    defs = Definitions()
    scene = scene_at(resolved, 1.0) if fitted else scene_unfitted(resolved)
    drawing = Drawing(defs, Pictures(density, canvas_box(resolved, density)))
    parts = [drawing.of(item) for item in scene.items()]
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


@dataclass(frozen=True, slots=True)
class Drawing:
    """Writes items of a scene; whatever is done to a sheet isolates it, so it is blended last."""

    defs: Definitions
    pictures: Pictures

    def of(self, item: Item) -> str:
        """An item as elements; empty when there is nothing to see."""
        if isinstance(item, Treated):
            sheets = self._sheets(item.item, faded=bool(item.masks))
            if item.clips and not item.masks:
                sheets = _merged(sheets)
            return "".join(self._finished(sheet, item) for sheet in sheets)
        return "".join(_laid(sheet) for sheet in self._sheets(item, faded=False))

    def _all(self, items: Iterable[Item]) -> tuple[str, ...]:
        return tuple(filter(None, map(self.of, items)))

    def _sheets(self, item: Body | Group, *, faded: bool) -> list[Sheet]:
        """``faded`` is whether each of them will be masked by itself."""
        if isinstance(item, Body):
            return self._body(item, faded=faded)
        held = self._all(item.items)
        return [Sheet(_isolated(held) if item.isolated else held)] if held else []

    def _finished(self, sheet: Sheet, item: Treated) -> str:
        drawn = _laid(replace(sheet, blend="normal"))
        if item.deviation > 0:
            drawn = element("g", {"filter": self.defs.blur(item.deviation, painted_bounds(item))}, drawn)
        for clip in item.clips:
            drawn = self._clipped(clip, drawn)
        for mask in item.masks:
            drawn = self._masked(mask, drawn) if drawn else ""
        return _laid(Sheet((drawn,), 1.0, sheet.blend)) if drawn else ""

    def _clipped(self, by: Filled, drawn: str) -> str:
        clip = self.defs.add("clipPath", {}, element("path", {"d": path_data(by.path)}))
        return element("g", {"clip-path": clip}, drawn)

    def _masked(self, mask: Mask, drawn: str) -> str:
        """Drawn elements in a group with a mask; its strength lets through what is left of 1."""
        everywhere: dict[str, str | float] = {"d": rectangle(EVERYWHERE)}
        if isinstance(mask.cover, tuple):
            shown = "".join(self._all(mask.cover))
        else:
            laid = mask.cover
            shown = element("path", everywhere | self.defs.fill(laid.fill, laid.box, laid.place))
        if mask.measure == "opacity":
            shown = element("g", {"filter": self._colours(WHITE_OF_ALPHA)}, shown)
        black = element("path", everywhere | {"fill": "#000"})
        if mask.inverted:
            shown = element("g", {"filter": self._colours(INVERTED)}, black, shown)
        if mask.strength < 1:
            white = element("path", everywhere | {"fill": "#fff", "opacity": 1 - mask.strength})
            shown = element("g", {}, element("g", {}, black, shown), white)
        area = rect_attributes(EVERYWHERE) | {"maskUnits": "userSpaceOnUse"}
        return element("g", {"mask": self.defs.add("mask", area, shown)}, drawn)

    def _colours(self, table: str) -> str:
        """A filter that maps colours by a matrix, over everything."""
        area = rect_attributes(EVERYWHERE) | {"filterUnits": "userSpaceOnUse", "color-interpolation-filters": "sRGB"}
        return self.defs.add("filter", area, element("feColorMatrix", {"type": "matrix", "values": table}))

    def _body(self, body: Body, *, faded: bool) -> list[Sheet]:
        """What a part casts, back to front, the part itself, and what is laid over it."""
        if not body.stand.outline:
            return []
        held = self._all(body.held)
        inside = (*body.surface, *body.edge)
        solid = not faded and _opaque(body)
        writer = Writer(body.stand, self.defs, self.pictures, cut=_needs_cut(inside, body.stand))
        drawn = _over_each_other(inside, writer, "inside")
        outer = _over_each_other(body.edge, writer, "outside")
        if writer.cut and drawn:
            drawn = (_kept_to_shape(drawn, writer),)
        if outer and not solid:
            outer = (_kept_outside(outer, writer, body),)
        whole = (*outer, *held, *drawn)
        mixed = bool(held) or any(effect.mixes for effect in inside)
        group = [Sheet(_isolated(whole) if mixed else whole, body.opacity, body.blend)] if whole else []
        behind = [sheet for effect in body.cast for sheet in _behind(effect, writer, body, solid)]
        return [*behind, *group, *(sheet for effect in body.reaching for sheet in _reaching(effect, writer, body))]


def _merged(sheets: Iterable[Sheet]) -> list[Sheet]:
    """Sheets that are laid over each other as one, so that a clip’s soft edge lets nothing of lower ones through."""
    merged: list[Sheet] = []
    for sheet in sheets:
        if merged and merged[-1].blend == sheet.blend == "normal":
            merged[-1] = Sheet((_laid(merged[-1]), _laid(sheet)))
        else:
            merged.append(sheet)
    return merged


def _needs_cut(inside: Sequence[Effect], stand: Stand) -> bool:
    """Whether a mask has to cut what lies inside: more than one would let each other through at a soft edge."""
    operations = [one for effect in inside for one in effect.operations(stand, "inside")]
    return len(inside) > 1 or not all(writable(one) and keeps_to_shape(one) for one in operations)


def _reaching(effect: Effect, writer: Writer, body: Body) -> Iterator[Sheet]:
    """An effect laid over the finished part: cut before it is blended, as a cut isolates."""
    for sheet in writer.sheets(effect, "inside"):
        yield replace(sheet, items=(_kept_to_shape(sheet.items, writer),), opacity=sheet.opacity * body.opacity)
    for sheet in writer.sheets(effect, "outside") if effect.lies_in() == "edge" else ():
        cut = _kept_outside(sheet.items, writer, body)
        yield replace(sheet, items=(cut,), opacity=sheet.opacity * body.opacity)


def _opaque(body: Body) -> bool:
    """Whether the part's surface hides whatever lies under it."""
    return body.opacity >= 1 and body.blend == "normal" and any(effect.opaque for effect in body.surface)


def _behind(effect: Effect, writer: Writer, body: Body, solid: bool) -> Iterator[Sheet]:
    """What an effect casts, cut out under the part before it is blended."""
    uncut = solid or body.uncut or effect.shows_through_body
    for sheet in writer.sheets(effect, "behind"):
        items = sheet.items if uncut else (_kept_outside(sheet.items, writer, body),)
        yield replace(sheet, items=items, opacity=sheet.opacity * body.opacity)


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


def _kept_outside(items: Iterable[str], writer: Writer, body: Body) -> str:
    area = writer.box.grown(reach_of(body.effects, body.stand) + 1)
    data = f"{rectangle(area)} {path_data(writer.stand.outline)}"
    shape = element("path", {"d": data, "fill": "#fff", "fill-rule": "evenodd"})
    return element("g", {"mask": writer.defs.add("mask", _area(area), shape)}, *items)
