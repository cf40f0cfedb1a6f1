"""What reading a drawing goes on with: the document, what was counted, what was left out."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Mapping
from dataclasses import dataclass, field
from xml.etree.ElementTree import Element

from obrell.core.document.model import MAX_PARTS, MAX_POINTS, Part
from obrell.core.errors import TooLarge
from obrell.core.geometry.affine import Affine
from obrell.core.interchange.svg.cascade import Cascade, Style
from obrell.core.interchange.svg.document import MAX_ELEMENTS
from obrell.core.interchange.svg.items import Item
from obrell.core.interchange.svg.lengths import View
from obrell.core.shapes import Path

MAX_USES = 2_000


@dataclass(frozen=True, slots=True)
class Here:
    """What an element finds around it: the way from its own space to the canvas, what 100 % is, the style that holds
    for it, and what is being used on the way to it."""

    to_canvas: Affine
    view: View
    style: Style
    uses: tuple[str, ...] = ()


@dataclass
class Context:
    """One document that is read. ``fonts`` are stored names by what they are called, in lower case."""

    root: Element
    fonts: Mapping[str, str]
    left_out: Counter[str] = field(default_factory=Counter)
    files: dict[str, bytes] = field(default_factory=dict)
    """The pictures that were found, by their names as files."""
    parts: int = 0
    points: int = 0
    uses: int = 0
    visited: int = 0
    """Elements that were looked at, those that are used again counted each time."""

    def __post_init__(self) -> None:
        self.by_id: dict[str, Element] = {}
        for element in self.root.iter():
            if element.get("id"):
                self.by_id.setdefault(element.get("id", ""), element)
        self.cascade = Cascade(self.root, self.left_out)

    def visit(self, most: int = MAX_ELEMENTS) -> None:
        """Counts an element that is looked at; raises ``TooLarge``."""
        self.visited += 1
        if self.visited > most:
            raise TooLarge(f"This SVG would draw more than {MAX_ELEMENTS:,} elements, each use of one counted.")

    def counted(self, part: Part) -> Item:
        """A part as an item, counted; raises ``TooLarge``."""
        self.parts += 1
        if self.parts > MAX_PARTS:
            raise TooLarge(f"This drawing has more than {MAX_PARTS} parts; a control can have no more.")
        if isinstance(part.shape, Path):
            self.points += sum(len(contour.knots) for contour in part.shape.contours)
        if self.points > MAX_POINTS:
            raise TooLarge(f"This drawing has more than {MAX_POINTS:,} points; a control can have no more.")
        return Item(part)


def called(element: Element, usual: str) -> str:
    """What an element is called: its id, or what its kind is called."""
    name = re.sub(r"[\x00-\x1f\x7f]", " ", element.get("id", "")).strip()
    return name[:80] or usual
