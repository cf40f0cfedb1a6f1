"""SVG text as parts that can be edited (SVG 2). What is not understood is named and left out."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from xml.etree.ElementTree import Element

from pydantic import ValidationError

from obrell.core.document.model import Part
from obrell.core.door import reads
from obrell.core.errors import BadDocument
from obrell.core.geometry.affine import Affine
from obrell.core.geometry.plane import NOWHERE, Rect
from obrell.core.interchange.limits import MAX_SVG_CHARACTERS
from obrell.core.interchange.svg.context import MAX_USES, Context, Here, called
from obrell.core.interchange.svg.document import NAMED, NEVER_DRAWN, href_of, name_of, parsed
from obrell.core.interchange.svg.images import image_items
from obrell.core.interchange.svg.items import Item, Numbered
from obrell.core.interchange.svg.lengths import View, length
from obrell.core.interchange.svg.painter import Painter
from obrell.core.interchange.svg.regions import moved_by
from obrell.core.interchange.svg.shapes import SHAPES
from obrell.core.interchange.svg.texts import Texts, Unread
from obrell.core.interchange.svg.transforms import BadTransform, transform, whole_transform
from obrell.core.interchange.svg.viewports import fitted, size_of, view_box
from obrell.core.interchange.svg.wholes import Wholes
from obrell.core.shapes import Text
from obrell.core.text.fonts import FONT_NAMES

GROUPS = frozenset({"g", "a", "switch", "use", "svg"})
"""Elements whose items, when they are several, are a group."""
HIDDEN = ("hidden", "collapse")


@dataclass(frozen=True, slots=True)
class Drawing:
    """What was read: parts back to front, what was left out, by name, the pictures that parts refer to, and how large
    the drawing says it is, px."""

    parts: tuple[Part, ...]
    left_out: Mapping[str, int]
    files: tuple[bytes, ...] = ()
    width: float = 0.0
    height: float = 0.0


def read_svg(text: str, fonts: Mapping[str, str] | None = None) -> Drawing:
    """The parts of an SVG text; raises ``BadDocument`` or ``TooLarge`` in words. ``fonts`` are the stored
    names of fonts besides the shipped ones, by what they are called."""
    known = {name.lower(): name for name in FONT_NAMES} | {name.lower(): kept for name, kept in (fonts or {}).items()}
    drawing, baselines = read_elements(text, known)
    parts = tuple(_on_baseline(part) if part.id in baselines else part for part in drawing.parts)
    return replace(drawing, parts=parts)


def _on_baseline(part: Part) -> Part:
    """The text moved from where its place is on the baseline to where its baseline is there."""
    below = part.shape.baseline() if isinstance(part.shape, Text) else 0.0
    angle = math.radians(part.rotation)
    return part.evolve(x=part.x + below * math.sin(angle), y=part.y - below * math.cos(angle))


@reads(
    "svg", "Reading this SVG", most=MAX_SVG_CHARACTERS,
    words=f"An SVG can have at most {MAX_SVG_CHARACTERS // 1_000_000} million characters.",
)  # fmt: skip
def read_elements(text: str, fonts: Mapping[str, str]) -> tuple[Drawing, frozenset[str]]:
    """Return the drawing, and the ids of text parts placed by their baseline. The caller moves these: only it has the
    kit's fonts."""
    context = Context(parsed(text), fonts)
    items, size = _Reader(context).document()
    if not items:
        raise BadDocument("Nothing in this SVG could be drawn." + _said(context.left_out))
    numbered = Numbered()
    numbered.add_all(items)
    files = tuple(context.files.values())
    return Drawing(tuple(numbered.parts), dict(context.left_out), files, *size), frozenset(numbered.baselines)


def _said(left_out: Mapping[str, int]) -> str:
    names = ", ".join(sorted(left_out))
    return f" It holds only: {names}." if names else ""


class _Reader:
    """Walks through a document and makes items of what it draws."""

    def __init__(self, context: Context) -> None:
        self._context = context
        self._painter = Painter(context)
        self._wholes = Wholes(context, self._children)
        self._texts = Texts(context.cascade, context.fonts)

    def document(self) -> tuple[list[Item], tuple[float, float]]:
        """The whole drawing, cut where it leaves its page, and how large that is."""
        root = self._context.root
        style = self._context.cascade.style(root, {})
        box = view_box(root.get("viewBox"))
        size = size_of(style.get("width"), style.get("height"), box)
        page = Rect(0, 0, *size)
        if style.get("display") == "none":
            return [], size
        fit = fitted(page, box, root.get("preserveAspectRatio"))
        about_middle = {"transform-origin": "50% 50%"} | style
        here = Here(moved_by(about_middle, View(*size), page).after(fit.inner), fit.view, style)
        items = self._wholes.cut(self._children(root, here), page, Affine(), "Page")
        return self._wholes.done(items, root, here, ""), size

    def _children(self, element: Element, here: Here) -> list[Item]:
        return [item for child in element for item in self._element(child, here)]

    def _element(self, element: Element, around: Here) -> list[Item]:
        self._context.visit()
        name = name_of(element)
        if name in NEVER_DRAWN:
            self._context.left_out.update([name] if name in NAMED else [])
            return []
        style = self._context.cascade.style(element, around.style)
        if style.get("display") == "none":
            return []
        here = replace(around, style=style)
        here = replace(here, to_canvas=around.to_canvas.after(self._moved(element, here)))
        items = self._drawn(name, element, here)
        return self._wholes.done(items, element, here, "Group" if name in GROUPS else "")

    def _drawn(self, name: str, element: Element, here: Here) -> list[Item]:
        seen = here.style.get("visibility") not in HIDDEN
        match name:
            case "g" | "a":
                return self._children(element, here)
            case "svg":
                return self._viewport(element, element, here)
            case "switch":
                chosen = next((child for child in element if name_of(child) and _fits(child)), None)
                return [] if chosen is None else self._element(chosen, here)
            case "use":
                return self._used(element, here)
            case "text":
                return self._text(element, here) if seen else []
            case "image":
                return image_items(element, here, self._context) if seen else []
            case _ if name in SHAPES:
                return self._painter.items(name, element, here)
        self._context.left_out[name] += 1
        return []

    def _moved(self, element: Element, here: Here) -> Affine:
        text = whole_transform(here.style)
        if not text:
            return Affine()
        in_box = here.style.get("transform-box") in ("fill-box", "content-box")
        box = self._wholes.extents.of(element, here) if in_box else NOWHERE
        try:
            transform(text, box)
        except BadTransform:
            self._context.left_out["transform that cannot be read"] += 1
        return moved_by(here.style, here.view, box)

    def _used(self, element: Element, here: Here) -> list[Item]:
        target, context = href_of(element), self._context
        found = context.by_id.get(target[1:]) if target.startswith("#") else None
        context.uses += 1
        if found is None or target in here.uses or context.uses > MAX_USES:
            context.left_out["use of something that is not in the file" if found is None else "use in a circle"] += 1
            return []
        at = Affine(e=length(here.style.get("x"), here.view.across), f=length(here.style.get("y"), here.view.down))
        inner = replace(here, to_canvas=here.to_canvas.after(at), uses=(*here.uses, target))
        if name_of(found) not in ("symbol", "svg"):
            return self._element(found, inner)
        inside = replace(inner, style=context.cascade.style(found, inner.style))
        return self._wholes.done(self._viewport(found, element, inside), found, inside, "")

    def _viewport(self, element: Element, sized: Element, here: Here) -> list[Item]:
        """A viewport within the drawing; ``sized`` says how large it is, where it says so."""
        own, given = (self._context.cascade.style(one, {}) for one in (element, sized))
        width = length(given.get("width") or own.get("width"), here.view.across, usual=here.view.across)
        height = length(given.get("height") or own.get("height"), here.view.down, usual=here.view.down)
        if width <= 0 or height <= 0:
            return []
        placed = own if name_of(element) == "svg" else {}
        x, y = length(placed.get("x"), here.view.across), length(placed.get("y"), here.view.down)
        fit = fitted(
            Rect(x, y, x + width, y + height), view_box(element.get("viewBox")), element.get("preserveAspectRatio")
        )
        items = self._children(element, replace(here, to_canvas=here.to_canvas.after(fit.inner), view=fit.view))
        if here.style.get("overflow", "hidden") in ("visible", "auto"):
            return items
        return self._wholes.cut(items, fit.seen, here.to_canvas, "Viewport")

    def _text(self, element: Element, here: Here) -> list[Item]:
        left_out = self._context.left_out
        try:
            items = list(self._texts.items(element, here.style, here.to_canvas, here.view, called(element, "")))
        except Unread as error:
            left_out[str(error)] += 1
            return []
        except (ValidationError, ValueError):
            left_out["text"] += 1
            return []
        return [replace(self._context.counted(item.part), baseline=True) for item in items]


def _fits(element: Element) -> bool:
    """Whether a branch of a switch is taken: no extension is asked for, and English is read."""
    languages = element.get("systemLanguage")
    if languages is not None and not any(one.strip().lower().startswith("en") for one in languages.split(",")):
        return False
    return not element.get("requiredExtensions")
