"""Clip paths as outlines on the canvas (CSS Masking 1, chapter 7)."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from xml.etree.ElementTree import Element

from obrell.core.geometry.affine import Affine
from obrell.core.geometry.combine import Rule, combined, union
from obrell.core.geometry.paths import Path
from obrell.core.geometry.plane import Rect
from obrell.core.interchange.svg.cascade import Cascade, Style
from obrell.core.interchange.svg.document import href_of, name_of
from obrell.core.interchange.svg.gradients import reference
from obrell.core.interchange.svg.lengths import View, length
from obrell.core.interchange.svg.shapes import SHAPES, carried, outline_of, too_long
from obrell.core.interchange.svg.transforms import BadTransform, about_origin, transform, whole_transform

MOST_SHAPES = 2000


class Unread(ValueError):
    """What of a clip path cannot be read, by name."""


@dataclass(slots=True)
class Regions:
    """The clip paths of a document."""

    by_id: Mapping[str, Element]
    cascade: Cascade
    shapes: int = 0

    def of(self, text: str, by: Affine, view: View, box: Rect, seen: tuple[str, ...] = ()) -> Path | None:
        """The outline on the canvas that ``clip-path`` keeps of an element, whose box in its own space is ``box``;
        None when it keeps all. Raises ``Unread``."""
        found = reference(text)
        if found is None:
            if text.strip() not in ("", "none"):
                raise Unread("clip-path by a basic shape")
            return None
        element = self.by_id.get(found[0])
        if element is None or name_of(element) != "clipPath" or found[0] in seen:
            return None
        style = self.cascade.style(element, {})
        in_box = element.get("clipPathUnits") == "objectBoundingBox"
        units = Affine(box.width, 0, 0, box.height, box.left, box.top) if in_box else Affine()
        inner = by.after(moved_by(style, view, box)).after(units)
        within = View(1.0, 1.0) if in_box else view
        pieces = tuple(self._pieces(element, style, inner, within, (*seen, found[0])))
        whole = combined("union", pieces) if pieces else Path()
        other = self.of(style.get("clip-path", ""), by, view, box, (*seen, found[0]))
        return whole if other is None else combined("intersection", (whole, other))

    def _pieces(
        self, element: Element, above: Style, by: Affine, view: View, seen: tuple[str, ...]
    ) -> Iterator[Path]:  # fmt: skip
        for child in element:
            style = self.cascade.style(child, above)
            if style.get("display") == "none" or style.get("visibility") in ("hidden", "collapse"):
                continue
            piece = self._piece(child, style, by, view, seen)
            if piece:
                yield piece

    def _piece(self, child: Element, style: Style, by: Affine, view: View, seen: tuple[str, ...]) -> Path:
        self.shapes += 1
        name = name_of(child)
        if self.shapes > MOST_SHAPES or (name == "text"):
            raise Unread("clip-path")
        if name == "use":
            target = self.by_id.get(href_of(child).removeprefix("#"))
            if target is None or name_of(target) not in SHAPES:
                return Path()
            at = Affine(e=length(style.get("x"), view.across), f=length(style.get("y"), view.down))
            inner = by.after(moved_by(style, view, Rect(0, 0, 0, 0))).after(at)
            return self._cut(
                self._piece(target, self.cascade.style(target, style), inner, view, seen), style, by, view, seen
            )
        if name not in SHAPES or too_long(child):
            return Path()
        outline = outline_of(child, style, view)
        if not outline:
            return outline
        box = outline.bounds()
        here = by.after(moved_by(style, view, box))
        rule: Rule = "evenodd" if style.get("clip-rule") == "evenodd" else "nonzero"
        return self._cut(union(carried(outline, here), rule), style, here, view, seen, box)

    def _cut(
        self, piece: Path, style: Style, by: Affine, view: View, seen: tuple[str, ...], box: Rect | None = None
    ) -> Path:  # fmt: skip
        other = self.of(style.get("clip-path", ""), by, view, box or Rect(0, 0, 0, 0), seen)
        return piece if other is None or not piece else combined("intersection", (piece, other))


def moved_by(style: Style, view: View, box: Rect) -> Affine:
    """The transform of an element about its origin; one that cannot be read is none."""
    around = box if style.get("transform-box") in ("fill-box", "content-box", "stroke-box", "border-box") else None
    area = around or Rect(0, 0, view.width, view.height)
    try:
        by = transform(whole_transform(style), area)
    except BadTransform:
        return Affine()
    return about_origin(by, style.get("transform-origin", ""), area) if by != Affine() else by
