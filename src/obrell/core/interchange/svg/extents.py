"""The bounding boxes of elements (SVG 2, section 8.10): their shapes, without strokes, clips and masks."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from xml.etree.ElementTree import Element

from obrell.core.document.measures import around
from obrell.core.geometry.affine import Affine
from obrell.core.geometry.plane import NOWHERE, Rect
from obrell.core.interchange.svg.context import Context, Here
from obrell.core.interchange.svg.document import MAX_DEPTH, MAX_ELEMENTS, NEVER_DRAWN, href_of, name_of
from obrell.core.interchange.svg.lengths import length
from obrell.core.interchange.svg.regions import moved_by
from obrell.core.interchange.svg.shapes import SHAPES, carried, outline_of, too_long

MOST_LOOKED_AT = 5 * MAX_ELEMENTS


@dataclass(frozen=True, slots=True)
class Extents:
    """Measures elements of a document."""

    context: Context

    def of(self, element: Element, here: Here) -> Rect:
        """The box of an element in its own space; ``NOWHERE`` when it draws no shapes."""
        return around(self._boxes(element, replace(here, to_canvas=Affine()), 0))

    def _boxes(self, element: Element, here: Here, depth: int) -> Iterator[Rect]:
        self.context.visit(MOST_LOOKED_AT)
        name = name_of(element)
        if name in NEVER_DRAWN or depth > MAX_DEPTH:
            return
        if name in SHAPES and not too_long(element):
            outline = outline_of(element, here.style, here.view)
            if outline:
                yield carried(outline, here.to_canvas).bounds() if here.to_canvas != Affine() else outline.bounds()
        elif name == "image":
            yield box_around(frame_of(here), here.to_canvas)
        elif name == "use":
            yield from self._used(element, here, depth)
        else:
            yield from self._below(element, here, depth)

    def _used(self, element: Element, here: Here, depth: int) -> Iterator[Rect]:
        target = self.context.by_id.get(href_of(element).removeprefix("#"))
        if target is None or href_of(element) in here.uses:
            return
        at = Affine(e=length(here.style.get("x"), here.view.across), f=length(here.style.get("y"), here.view.down))
        inner = replace(here, to_canvas=here.to_canvas.after(at), uses=(*here.uses, href_of(element)))
        yield from self._below([target], inner, depth)

    def _below(self, elements: Iterable[Element], here: Here, depth: int) -> Iterator[Rect]:
        for child in elements:
            style = self.context.cascade.style(child, here.style)
            if style.get("display") != "none":
                by = here.to_canvas.after(moved_by(style, here.view, NOWHERE))
                yield from self._boxes(child, replace(here, to_canvas=by, style=style), depth + 1)


def box_around(box: Rect, by: Affine) -> Rect:
    """Around a box in another space."""
    corners = [by.apply(x, y) for x in (box.left, box.right) for y in (box.top, box.bottom)]
    xs, ys = [x for x, _ in corners], [y for _, y in corners]
    return Rect(min(xs), min(ys), max(xs), max(ys))


def frame_of(here: Here) -> Rect:
    """Where an element's x, y, width and height say it lies."""
    style, view = here.style, here.view
    x, y = length(style.get("x"), view.across), length(style.get("y"), view.down)
    return Rect(x, y, x + length(style.get("width"), view.across), y + length(style.get("height"), view.down))
