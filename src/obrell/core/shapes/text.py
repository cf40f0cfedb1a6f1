"""Text: words in a shipped font, on one or several lines, as outlines."""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from obrell.core.geometry.paths import Path, joined
from obrell.core.geometry.plane import Point, Rect, Similarity
from obrell.core.shapes.base import INK, Sentence, Shape, Slot, Words
from obrell.core.text.fonts import FontName, load
from obrell.core.text.setting import Setting, set_words
from obrell.core.values.fields import Live, Signed

SMALLEST_DRAWN_PX = 4.0
"""A drag lower than this keeps the usual size."""
START_SHARE = {"start": 0.0, "middle": 0.5, "end": 1.0}


class Text(Shape):
    """The part's place is on the line's start, middle or end, halfway up its capitals."""

    label: ClassVar[str] = "Text"
    first_colour: ClassVar[str] = INK
    keeps_proportions: ClassVar[bool] = True
    kind: Literal["text"] = "text"
    words: Annotated[str, Field(min_length=1, max_length=200, pattern=r"^[^\x00-\x09\x0b-\x1f\x7f]+$")] = Field(
        "Label", title="words"
    )
    font: FontName = Field("Hanken Grotesk", title="font")
    size: Annotated[float, Live("px", 1, 6, 96), Field(gt=0, le=1000)] = Field(14.0, title="size")
    weight: Annotated[float, Live("", 10, 100, 900), Field(ge=1, le=1000)] = Field(600.0, title="weight")
    tracking: Annotated[float, Live("px", 0.1, -2, 10), Field(ge=-50, le=200)] = Field(0.0, title="tracking")
    align: Literal["start", "middle", "end"] = Field("middle", title="aligned by its")
    case: Literal["as typed", "upper", "lower"] = Field("as typed", title="case")
    leading: Annotated[float, Live("%", 0.01, 0.7, 2, 100), Field(ge=0.3, le=5)] = Field(1.2, title="line height")
    centred: Literal["capitals", "ink"] = Field("capitals", title="stands by its")
    rise: Signed = Field(0.0, title="raised by")

    def lines(self) -> list[str]:
        """The words as they are shown, line by line."""
        words = {"upper": self.words.upper(), "lower": self.words.lower()}.get(self.case, self.words)
        return words.split("\n")

    def settings(self) -> list[Setting]:
        return [set_words(line, self.font, self.size, self.weight, self.tracking) for line in self.lines()]

    def baseline(self) -> float:
        """How far the first baseline lies below the part's place."""
        return self._stand() - self.rise - (len(self.lines()) - 1) * self.leading * self.size / 2

    def path(self) -> Path:
        down, lines = self.baseline(), []
        for number, setting in enumerate(self.settings()):
            left = -START_SHARE[self.align] * setting.advance
            shift = Similarity(dx=left, dy=down + number * self.leading * self.size)
            lines.append(setting.path.transformed(shift))
        return joined(lines)

    def frame(self) -> Rect:
        width = max(setting.advance for setting in self.settings())
        left, half = -START_SHARE[self.align] * width, self.size / 2
        half += (len(self.lines()) - 1) * self.leading * self.size / 2
        return Rect(left, -half, left + width, half)

    def _stand(self) -> float:
        """From the middle of the words to the baseline: half their capitals, or by the ink of all lines."""
        capitals = load(self.font).cap_height * self.size / 2
        if self.centred == "capitals":
            return capitals
        bounds = [setting.path.bounds() for setting in self.settings()]
        if bounds[0].empty or bounds[-1].empty:
            return capitals
        return -(bounds[0].top + bounds[-1].bottom) / 2

    def fitted(self, density: float, place: Point) -> tuple[Text, Point]:
        baseline = round((place.y + self.baseline()) * density) / density
        return self, Point(place.x, baseline - self.baseline())

    def resized(self, width: float, height: float) -> Text:
        frame = self.frame()
        factor = height / frame.height if frame.height else 1.0
        return self.evolve(size=min(1000.0, max(1.0, self.size * factor)))

    @classmethod
    def drawn(
        cls, x0: float, y0: float, x1: float, y1: float, *, constrained: bool, centred: bool
    ) -> tuple[Text, Point]:  # fmt: skip
        size = {} if abs(y1 - y0) < SMALLEST_DRAWN_PX else {"size": min(400.0, abs(y1 - y0))}
        return cls(**size), Point((x0 + x1) / 2, (y0 + y1) / 2)

    def sentence(self) -> Sentence:
        return (
            Words("“"), Slot("words"), Words("”, "), Slot("font"), Words(" "), Slot("size"),
            Words(", weight "), Slot("weight"),
        )  # fmt: skip

    def details(self) -> tuple[str, ...]:
        several = ("leading",) if "\n" in self.words else ()
        return ("tracking", "align", "case", *several, "centred", "rise")

    def suggested_name(self) -> str:
        return self.words.replace("\n", " ").strip()[:80] or self.label

    def problem(self) -> str:
        missing = load(self.font).missing("".join(self.lines()))
        if not self.words.strip():
            return "The words cannot be only spaces; remove the part if it should say nothing."
        if not missing:
            return ""
        letters = " ".join(f"“{letter}”" for letter in missing[:6])
        return f"{self.font} has no glyph for {letters}. Other words or another font will do."
