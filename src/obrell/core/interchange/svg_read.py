"""SVG text as parts that can be edited (SVG 2). What is not understood is named and left out.

Nothing outside of the text is ever fetched; entities, document types and scripts are refused or left
out, and elements, depth and numbers are limited before any of them is drawn.
"""

from __future__ import annotations

import math
import re
from collections import Counter
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field, replace
from typing import Any
from xml.etree.ElementTree import Element, ParseError

from defusedxml import DefusedXmlException
from defusedxml.ElementTree import fromstring
from pydantic import ValidationError

from obrell.core.aside import aside
from obrell.core.document.model import MAX_PARTS, MAX_POINTS, Part
from obrell.core.effects import AnyEffect, Outline, Paint
from obrell.core.errors import BadDocument, BadValue, TooLarge
from obrell.core.geometry.affine import IDENTITY, Affine, read_transform
from obrell.core.geometry.combine import Cap, Join
from obrell.core.geometry.knots import Bend, draw_contour, knots_of
from obrell.core.geometry.paths import Path as Outlined
from obrell.core.geometry.paths import PathBuilder
from obrell.core.geometry.plane import Rect
from obrell.core.interchange.svg_paint import Filled, Laid, Ramps, number_of
from obrell.core.interchange.svg_shapes import outline_of, radii_of, too_long
from obrell.core.shapes import Box, Combination, Group, Path, Round
from obrell.core.shapes.path import MAX_KNOTS, contours_from
from obrell.core.values.fields import LIMIT_PX

MAX_BYTES = 4_000_000
MAX_ELEMENTS = 20_000
MAX_DEPTH = 60
MAX_USES = 2_000
MOST_SIDE = 4096.0
"""The longest side of a box or a round; what is longer is a path."""
INHERITED = ("fill", "stroke", "stroke-width", "stroke-linecap", "stroke-linejoin", "fill-rule", "fill-opacity",
             "stroke-opacity", "stroke-dasharray", "visibility", "color")  # fmt: skip
CAPS: dict[str, Cap] = {"butt": "flat", "round": "round", "square": "square"}
JOINS: dict[str, Join] = {"miter": "mitre", "round": "round", "bevel": "bevel"}


@dataclass(frozen=True, slots=True)
class Drawing:
    """What was read: parts back to front, and what was left out, by name."""

    parts: tuple[Part, ...]
    left_out: Mapping[str, int]


@dataclass(frozen=True, slots=True)
class _Style:
    """What an element hands down."""

    to_canvas: Affine
    values: Mapping[str, str]
    within: str | None = None
    uses: tuple[str, ...] = ()


@dataclass
class _Reader:
    by_id: dict[str, Element]
    ramps: Ramps
    parts: list[Part] = field(default_factory=list)
    left_out: Counter[str] = field(default_factory=Counter)
    uses: int = 0
    visited: int = 0
    """Elements that were looked at, those that are used again counted each time."""
    points: int = 0

    def add(self, part: Part) -> str:
        if len(self.parts) >= MAX_PARTS:
            raise TooLarge(f"This drawing has more than {MAX_PARTS} parts; a control can have no more.")
        if isinstance(part.shape, Path):
            self.points += sum(len(contour.knots) for contour in part.shape.contours)
        if self.points > MAX_POINTS:
            raise TooLarge(f"This drawing has more than {MAX_POINTS:,} points; a control can have no more.")
        name = f"p{len(self.parts) + 1}"
        self.parts.append(part.evolve(id=name))
        return name


def read_svg(text: str) -> Drawing:
    """The parts of an SVG text, read aside; raises ``BadDocument`` or ``TooLarge`` in words."""
    if len(text) > MAX_BYTES:
        raise TooLarge(f"An SVG can have at most {MAX_BYTES // 1_000_000} million characters.")
    return aside("Reading this SVG", _read, text)


def _read(text: str) -> Drawing:
    root = _parsed(text)
    by_id = {element.get("id", ""): element for element in root.iter() if element.get("id")}
    reader = _Reader(by_id, Ramps(by_id))
    start = _Style(_to_pixels(root), {})
    _children(reader, root, start)
    if not reader.parts:
        raise BadDocument("Nothing in this SVG could be drawn." + _said(reader.left_out))
    return Drawing(tuple(reader.parts), dict(reader.left_out))


def _said(left_out: Mapping[str, int]) -> str:
    names = ", ".join(sorted(left_out))
    return f" It holds only: {names}." if names else ""


def _parsed(text: str) -> Element:
    try:
        root: Element = fromstring(text, forbid_dtd=True)
    except DefusedXmlException as error:
        raise BadDocument("This SVG defines entities or a document type of its own, which is not read.") from error
    except (ParseError, ValueError, RecursionError) as error:
        raise BadDocument(f"This is not well-formed SVG: {error}.") from error
    if _name(root) != "svg":
        raise BadDocument("This is not an SVG: it does not begin with an svg element.")
    for count, (_, depth) in enumerate(_walk(root)):
        if count > MAX_ELEMENTS:
            raise TooLarge(f"This SVG has more than {MAX_ELEMENTS} elements.")
        if depth > MAX_DEPTH:
            raise TooLarge(f"This SVG is nested more than {MAX_DEPTH} deep.")
    return root


def _walk(root: Element) -> Iterator[tuple[Element, int]]:
    waiting = [(root, 0)]
    while waiting:
        element, depth = waiting.pop()
        yield element, depth
        waiting.extend((child, depth + 1) for child in element)


def _name(element: Element) -> str:
    tag = element.tag
    return tag.rpartition("}")[2] if isinstance(tag, str) else "comment"


def _to_pixels(root: Element) -> Affine:
    """From the view box to px: as large as the drawing says it is, proportions kept (SVG 2, section 8.6)."""
    numbers = [number_of(n) for n in re.split(r"[\s,]+", root.get("viewBox", "").strip()) if n]
    if len(numbers) != 4 or numbers[2] <= 0 or numbers[3] <= 0:
        return IDENTITY
    left, top, width, height = numbers
    sides = ((root.get("width", ""), width), (root.get("height", ""), height))
    scales = [number_of(text) / side for text, side in sides if number_of(text) > 0 and not text.endswith("%")]
    scale = min(scales, default=1.0)
    return Affine(scale, 0, 0, scale, -left * scale, -top * scale)


def _children(reader: _Reader, element: Element, style: _Style) -> None:
    for child in element:
        _element(reader, child, style)


def _element(reader: _Reader, element: Element, style: _Style) -> None:
    reader.visited += 1
    if reader.visited > MAX_ELEMENTS:
        raise TooLarge(f"This SVG would draw more than {MAX_ELEMENTS:,} elements, each use of one counted.")
    name = _name(element)
    own = _own(element)
    if name in ("defs", "clipPath", "symbol", "linearGradient", "radialGradient", "comment", "title", "desc",
                "metadata") or own.get("display") == "none":  # fmt: skip
        return
    values = {key: value for key, value in {**style.values, **own}.items() if key in INHERITED}
    to_canvas = style.to_canvas.after(read_transform(element.get("transform", "")))
    here = replace(style, to_canvas=to_canvas, values=values)
    if name in ("g", "a", "svg", "switch"):
        _group(reader, element, here, own)
    elif name == "use":
        _use(reader, element, here, own)
    else:
        _drawn(reader, name, here, own)


def _own(element: Element) -> dict[str, str]:
    """Presentation attributes, with those of ``style`` over them."""
    own = {key: value for key, value in element.attrib.items() if "}" not in key}
    for item in element.get("style", "").split(";"):
        key, _, value = item.partition(":")
        if value:
            own[key.strip()] = value.strip()
    return own


def _group(reader: _Reader, element: Element, style: _Style, own: Mapping[str, str]) -> None:
    opacity, clip = _opacity(own.get("opacity")), _clip(reader, own, style)
    before = len(reader.parts)
    _children(reader, element, style)
    inner = len(reader.parts) - before
    wanted = (_name(element) == "g" and inner > 1) or ((opacity < 1 or clip) and inner)
    if not wanted:
        return
    x, y = _middle(reader.parts[before:])
    group = Part(id="p0", name=_called(own, "Group"), shape=Group(), x=x, y=y, opacity=opacity, clip=clip,
                 within=style.within)  # fmt: skip
    name = reader.add(group)
    outer = [p.evolve(within=name) if p.within == style.within else p for p in reader.parts[before:-1]]
    reader.parts[before:-1] = outer


def _middle(parts: list[Part]) -> tuple[float, float]:
    xs, ys = [p.x for p in parts], [p.y for p in parts]
    return (min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2


def _use(reader: _Reader, element: Element, style: _Style, own: Mapping[str, str]) -> None:
    target = own.get("href") or next((v for k, v in element.attrib.items() if k.endswith("}href")), "")
    found = reader.by_id.get(target[1:]) if target.startswith("#") else None
    reader.uses += 1
    if found is None or target in style.uses or reader.uses > MAX_USES:
        reader.left_out["use of something that is not in the file" if found is None else "use in a circle"] += 1
        return
    moved = style.to_canvas.after(Affine(1, 0, 0, 1, number_of(own.get("x", "0")), number_of(own.get("y", "0"))))
    inner = replace(style, to_canvas=moved, uses=(*style.uses, target))
    if _name(found) == "symbol":
        _children(reader, found, inner)
    else:
        _element(reader, found, inner)


def _drawn(reader: _Reader, name: str, style: _Style, own: Mapping[str, str]) -> None:
    if too_long(name, own):
        reader.left_out["paths with too many points"] += 1
        return
    outline = outline_of(name, own)
    if outline is None:
        reader.left_out[name] += 1
        return
    for unread in ("filter", "mask", "marker-end", "marker-start"):
        if own.get(unread, "none") != "none":
            reader.left_out[unread] += 1
    if style.values.get("visibility") == "hidden" or not outline:
        return
    try:
        part = _part(reader, name, own, outline, style)
    except (ValidationError, BadValue, OverflowError, ZeroDivisionError):
        reader.left_out["shapes outside of what can be drawn"] += 1
        return
    if part is not None:
        reader.add(
            part.evolve(opacity=_opacity(own.get("opacity")), clip=_clip(reader, own, style), within=style.within)
        )


def _part(
    reader: _Reader, name: str, own: Mapping[str, str], outline: Outlined, style: _Style
) -> Part | None:  # fmt: skip
    values, to_canvas = style.values, style.to_canvas
    runs = [(closed, [bend.carried(to_canvas) for bend in bends]) for closed, bends in knots_of(outline)]
    if not runs or sum(len(bends) for _, bends in runs) > MAX_KNOTS:
        reader.left_out["paths with too many points" if runs else "empty paths"] += 1
        return None
    spots = [(b.x, b.y) for _, bends in runs for b in bends]
    if not all(math.isfinite(v) and abs(v) < LIMIT_PX for spot in spots for v in spot):
        reader.left_out["shapes outside of what can be drawn"] += 1
        return None
    left, right = min(x for x, _ in spots), max(x for x, _ in spots)
    top, bottom = min(y for _, y in spots), max(y for _, y in spots)
    x, y = (left + right) / 2, (top + bottom) / 2
    width = number_of(values.get("stroke-width", "1")) * to_canvas.scale()
    seen = _bounds(runs)
    laid = Laid(outline.bounds(), to_canvas, seen)
    fill = reader.ramps.fill(values.get("fill", "#000"), laid, values)
    stroked = laid if fill is not None else replace(laid, seen=seen.grown(width / 2))
    stroke = reader.ramps.fill(values.get("stroke", "none"), stroked, values)
    if fill is None and stroke is None:
        return None
    shape: Any = _known(name, own, to_canvas) or Path(
        contours=contours_from([(closed, [b.moved(-x, -y) for b in bends]) for closed, bends in runs]),
        rule="evenodd" if values.get("fill-rule") == "evenodd" else "nonzero",
    )
    lined, dashes = fill is None and isinstance(shape, Path), _dashes(values, to_canvas)
    if lined and width > 0:
        caps, joins = values.get("stroke-linecap", "butt"), values.get("stroke-linejoin", "miter")
        shape = shape.evolve(form="line", width=min(4096.0, width), caps=CAPS.get(caps, "flat"),
                             joins=JOINS.get(joins, "mitre"), **dashes)  # fmt: skip
    effects = tuple(_effects(fill, stroke, width, values, dashes, lined=lined))
    return Part(id="p0", name=_called(own, name.capitalize()), shape=shape, x=x, y=y, effects=effects)


def _dashes(values: Mapping[str, str], by: Affine) -> dict[str, float]:
    """The first dash and gap of a pattern, in px of the canvas; nothing for lines that are whole."""
    numbers = [
        number_of(text) * by.scale() for text in re.split(r"[\s,]+", values.get("stroke-dasharray", "")) if text
    ]
    if not numbers or min(numbers) < 0 or sum(numbers) <= 0:
        return {}
    return {"dash": min(4096.0, numbers[0]), "gap": min(4096.0, (numbers * 2)[1])}


def _bounds(runs: list[tuple[bool, list[Bend]]]) -> Rect:
    pen = PathBuilder()
    for closed, bends in runs:
        draw_contour(pen, bends, closed=closed)
    return pen.path().bounds()


def _effects(
    fill: Filled | None, stroke: Filled | None, width: float, values: Mapping[str, str],
    dashes: dict[str, float], *, lined: bool,
) -> Iterator[AnyEffect]:  # fmt: skip
    if fill is not None:
        yield Paint(id="e1", fill=fill.fill, opacity=fill.opacity * _opacity(values.get("fill-opacity")))
    if stroke is None or width <= 0:
        return
    opacity = stroke.opacity * _opacity(values.get("stroke-opacity"))
    if lined:
        yield Paint(id="e1", fill=stroke.fill, opacity=opacity)
    else:
        width = min(4096.0, width)
        yield Outline(id="e2", place="centre", width=width, fill=stroke.fill, opacity=opacity, **dashes)


def _known(name: str, own: Mapping[str, str], by: Affine) -> Box | Round | None:
    """A box or a round where the element is one and is neither turned nor slanted."""
    if not by.upright:
        return None

    def get(key: str) -> float:
        return number_of(own.get(key, "0"))

    across = get("width"), 2 * get("r"), 2 * get("rx")
    down = get("height"), 2 * get("r"), 2 * get("ry")
    if max(*(side * by.a for side in across), *(side * by.d for side in down)) > MOST_SIDE:
        return None
    if name == "rect" and radii_of(own)[0] == radii_of(own)[1] and abs(by.a - by.d) < 1e-9:
        return Box(width=get("width") * by.a, height=get("height") * by.d, radius=radii_of(own)[0] * by.a)
    if name == "circle":
        return Round(width=2 * get("r") * by.a, height=2 * get("r") * by.d)
    if name == "ellipse":
        return Round(width=2 * get("rx") * by.a, height=2 * get("ry") * by.d)
    return None


def _clip(reader: _Reader, own: Mapping[str, str], style: _Style) -> str | None:
    """A hidden part with the shape of the clip path: of one shape, or of several united."""
    found = re.fullmatch(r"url\(['\"]?#([^'\")]+)['\"]?\)", own.get("clip-path", "").strip())
    target = reader.by_id.get(found[1]) if found else None
    if target is None:
        return None
    shapes = [child for child in target if _name(child) not in ("title", "desc", "comment")]
    pieces = [part for shape in shapes if (part := _clipping(reader, shape, style)) is not None]
    if len(pieces) < len(shapes) or not pieces:
        reader.left_out["clip-path"] += 1
    if not pieces:
        return None
    if len(pieces) == 1:
        return reader.add(pieces[0].evolve(name="Clip", visible=False, within=style.within))
    before = len(reader.parts)
    for piece in pieces:
        reader.add(piece)
    x, y = _middle(pieces)
    whole = Part(id="p0", name="Clip", shape=Combination(), x=x, y=y, visible=False, within=style.within)
    name = reader.add(whole)
    reader.parts[before:-1] = [piece.evolve(within=name) for piece in reader.parts[before:-1]]
    return name


def _clipping(reader: _Reader, shape: Element, style: _Style) -> Part | None:
    """One shape of a clip path; None for one that cannot be drawn."""
    inner = _own(shape)
    outline = None if too_long(_name(shape), inner) else outline_of(_name(shape), inner)
    by = style.to_canvas.after(read_transform(shape.get("transform", "")))
    plain = replace(style, to_canvas=by, values={"fill": "#000"})
    try:
        return _part(reader, _name(shape), inner, outline, plain) if outline else None
    except (ValidationError, BadValue, OverflowError, ZeroDivisionError):
        return None


def _called(own: Mapping[str, str], usual: str) -> str:
    name = re.sub(r"[\x00-\x1f\x7f]", " ", own.get("id", "")).strip()
    return name[:80] or usual


def _opacity(text: str | None) -> float:
    if not text:
        return 1.0
    value = number_of(text.rstrip("%")) / (100 if text.endswith("%") else 1)
    return min(1.0, max(0.0, value))
