"""Words of SVG as texts of ours, when their font is there (SVG 2, chapter 11)."""

from __future__ import annotations

import math
import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from typing import Literal
from xml.etree.ElementTree import Element

from obrell.core.document.model import Part
from obrell.core.effects import Paint
from obrell.core.geometry.affine import Affine
from obrell.core.interchange.svg.cascade import Cascade, Style
from obrell.core.interchange.svg.colours import colour_of
from obrell.core.interchange.svg.document import name_of
from obrell.core.interchange.svg.items import Item
from obrell.core.interchange.svg.lengths import FONT_PX, View, length, numbers
from obrell.core.interchange.svg.lengths import opacity as share_of
from obrell.core.shapes import Text
from obrell.core.shapes.kinds.text import MAX_SIZE, MAX_WORDS, Run
from obrell.core.values.paints import Solid

WEIGHTS = {"normal": 400.0, "bold": 700.0, "lighter": 300.0, "bolder": 700.0}
ANCHORS: dict[str, Literal["start", "middle", "end"]] = {"middle": "middle", "end": "end"}
_SPACE = re.compile(r"[\s\x00-\x1f\x7f]+")


@dataclass(slots=True)
class _Chunk:
    """Words that stand together, from one place on."""

    x: float
    y: float
    style: Style
    pieces: list[tuple[str, Style]] = field(default_factory=list)


class Unread(ValueError):
    """What of a text cannot be read, by name."""


@dataclass(frozen=True, slots=True)
class Texts:
    """Reads text elements; ``fonts`` are the stored names of all that can be used, by their names in lower case."""

    cascade: Cascade
    fonts: Mapping[str, str]

    def items(self, element: Element, style: Style, by: Affine, view: View, name: str) -> Iterator[Item]:
        """The texts of an element. Raises ``Unread``."""
        turn, scale = math.degrees(math.atan2(by.b, by.a)), by.scale()
        if by.a * by.d <= by.b * by.c or scale <= 0:
            raise Unread("mirrored text")
        if abs(by.a - by.d) + abs(by.b + by.c) > 1e-3 * scale:
            raise Unread("slanted text")
        for chunk in self._chunks(element, style, view):
            words = "".join(text for text, _ in chunk.pieces)
            if words.strip():
                yield self._item(chunk, by, turn, scale, name)

    def _item(self, chunk: _Chunk, by: Affine, turn: float, scale: float, name: str) -> Item:
        pieces = [(text, style) for text, style in chunk.pieces if text]
        words = "".join(text for text, _ in pieces)[:MAX_WORDS]
        first = pieces[0][1]
        runs, at, looks = [], 0, self._look(first, scale)
        for text, style in pieces:
            start, at = at, min(MAX_WORDS, at + len(text))
            if style is not first and at > start:
                runs.append(self._run(start, at, style, first, scale))
        x, y = by.apply(chunk.x, chunk.y)
        shape = Text(
            words=words, align=ANCHORS.get(chunk.style.get("text-anchor", ""), "start"), runs=tuple(runs), **looks
        )  # fmt: skip
        part = Part(id="p0", name=name or shape.suggested_name(), shape=shape, x=x, y=y, rotation=turn % 360,
                    effects=_paints(first))  # fmt: skip
        return Item(part)

    def _look(self, style: Style, scale: float) -> dict[str, object]:
        if style.get("font-style", "normal") != "normal":
            raise Unread("italic text")
        size = length(style.get("font-size"), usual=FONT_PX)
        weight = style.get("font-weight", "normal")
        return {
            "font": self._font(style.get("font-family", "")), "size": min(MAX_SIZE, max(0.1, size * scale)),
            "weight": min(1000.0, max(1.0, WEIGHTS.get(weight, length(weight, usual=400.0)))),
            "tracking": min(200.0, max(-50.0, length(style.get("letter-spacing"), font=size) * scale)),
        }  # fmt: skip

    def _run(self, start: int, end: int, style: Style, first: Style, scale: float) -> Run:
        colour = colour_of(style.get("fill", "#000"), style.get("color", "#000000"))
        own = style.get("fill") != first.get("fill") and colour is not None
        coloured = {"coloured": True, "colour": colour[0]} if own and colour else {}
        return Run(start=start, end=end, **self._look(style, scale), **coloured)

    def _font(self, families: str) -> str:
        wanted = [name.strip().strip("'\"") for name in families.split(",")]
        for name in wanted:
            if name.lower() in self.fonts:
                return self.fonts[name.lower()]
        raise Unread(f"text in {wanted[0] or 'no font'}, which is not in the kit")

    def _chunks(self, element: Element, style: Style, view: View) -> list[_Chunk]:
        chunks = [_Chunk(*self._place(element, view), style)]
        self._collect(element, style, view, chunks)
        _trim(chunks)
        return chunks

    def _collect(self, element: Element, style: Style, view: View, chunks: list[_Chunk]) -> None:
        _say(chunks, element.text or "", style)
        for child in element:
            inner = self.cascade.style(child, style)
            if name_of(child) == "tspan" and inner.get("display") != "none":
                if child.get("x") or child.get("y"):
                    x, y = self._place(child, view, chunks[-1])
                    chunks.append(_Chunk(x, y, inner))
                elif child.get("dx") or child.get("dy"):
                    raise Unread("text with letters moved one by one")
                self._collect(child, inner, view, chunks)
            elif name_of(child) not in ("title", "desc", ""):
                raise Unread(name_of(child))
            _say(chunks, child.tail or "", style)

    def _place(self, element: Element, view: View, before: _Chunk | None = None) -> tuple[float, float]:
        places = []
        for key, usual, whole in (
            ("x", before.x if before else 0.0, view.across), ("y", before.y if before else 0.0, view.down),
        ):  # fmt: skip
            said, more = numbers(element.get(key, "")), numbers(element.get(f"d{key}", ""))
            if len(said) > 1 or len(more) > 1 or element.get("rotate") or element.get("textLength"):
                raise Unread("text with letters placed one by one")
            places.append(length(said[0], whole) if said else usual)
            places[-1] += length(more[0], whole) if more else 0.0
        return places[0], places[1]


def _paints(style: Style) -> tuple[Paint, ...]:
    fill = colour_of(style.get("fill", "#000"), style.get("color", "#000000"))
    if fill is None:
        return ()
    return (Paint(id="e1", fill=Solid(colour=fill[0]), opacity=fill[1] * share_of(style.get("fill-opacity"))),)


def _say(chunks: list[_Chunk], text: str, style: Style) -> None:
    cased = {"uppercase": text.upper(), "lowercase": text.lower()}.get(style.get("text-transform", ""), text)
    if cased:
        chunks[-1].pieces.append((_SPACE.sub(" ", cased), style))


def _trim(chunks: list[_Chunk]) -> None:
    """Spaces at both ends go, and of several only one stays (CSS Text 3, section 4.1)."""
    for chunk in chunks:
        spaced = True
        for index, (text, style) in enumerate(chunk.pieces):
            kept = text.lstrip(" ") if spaced else text
            spaced = kept.endswith(" ") if kept else spaced
            chunk.pieces[index] = (kept, style)
        for index in reversed(range(len(chunk.pieces))):
            text, style = chunk.pieces[index]
            chunk.pieces[index] = (text.rstrip(" "), style)
            if text.strip(" "):
                break
