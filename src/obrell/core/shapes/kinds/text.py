"""Text: words in a font, on one or several lines, as outlines."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Any, ClassVar, Literal, Self

from pydantic import Field, field_validator

from obrell.core.geometry.paths import Path, joined
from obrell.core.geometry.plane import Point, Rect, Similarity
from obrell.core.shapes.base import INK, Sentence, Shape, Slot, Tool, Words
from obrell.core.text.fonts import Font, FontName, load
from obrell.core.text.setting import Setting, set_words
from obrell.core.values.base import Value
from obrell.core.values.colours import Colour
from obrell.core.values.fields import Live, Signed

SMALLEST_DRAWN_PX = 4.0
"""A drag lower than this keeps the usual size."""
START_SHARE = {"start": 0.0, "middle": 0.5, "end": 1.0}
MAX_WORDS = 200
MAX_SIZE = 1000.0
SHOWN_MISSING = 6
SHARED = ("font", "size", "weight", "tracking")
"""What letters with a look of their own have as the text has it, unless it is changed for them."""

FontSize = Annotated[float, Live("px", 1, 6, 96), Field(gt=0, le=MAX_SIZE)]
Weight = Annotated[float, Live("", 10, 100, 900), Field(ge=1, le=1000)]
Tracking = Annotated[float, Live("px", 0.1, -2, 10), Field(ge=-50, le=200)]
Place = Annotated[int, Field(ge=0, le=MAX_WORDS)]


class Run(Value):
    """Letters ``start`` to just before ``end`` of the words, with a look of their own."""

    start: Place
    end: Place
    font: FontName = Field("Hanken Grotesk", title="font")
    size: FontSize = Field(14.0, title="size")
    weight: Weight = Field(600.0, title="weight")
    tracking: Tracking = Field(0.0, title="tracking")
    rise: Signed = Field(0.0, title="raised by")
    coloured: bool = Field(False, title="own colour")
    colour: Colour = INK


@dataclass(frozen=True, slots=True)
class Piece:
    """Letters of one look where they stand on a line: ``x`` from its start."""

    x: float
    run: Run
    setting: Setting


@dataclass(frozen=True, slots=True)
class Line:
    """One line: its pieces, its length, the size and the font that its height comes from."""

    pieces: tuple[Piece, ...]
    advance: float
    tallest: Run

    def path(self) -> Path:
        moved = [(Similarity(dx=piece.x, dy=-piece.run.rise), piece) for piece in self.pieces]
        return joined([piece.setting.path.transformed(by) for by, piece in moved])


class Text(Shape):
    """The part's place is on the line's start, middle or end, halfway up its capitals. ``runs`` are in
    order and do not overlap; they go along when the words change around them."""

    label: ClassVar[str] = "Text"
    rank: ClassVar[int] = 70
    tool: ClassVar[Tool | None] = Tool("Text", "t")
    first_colour: ClassVar[str] = INK
    keeps_proportions: ClassVar[bool] = True
    kind: Literal["text"] = "text"
    words: Annotated[str, Field(min_length=1, max_length=MAX_WORDS, pattern=r"^[^\x00-\x09\x0b-\x1f\x7f]+$")] = Field(
        "Label", title="words"
    )
    font: FontName = Field("Hanken Grotesk", title="font")
    size: FontSize = Field(14.0, title="size")
    weight: Weight = Field(600.0, title="weight")
    tracking: Tracking = Field(0.0, title="tracking")
    align: Literal["start", "middle", "end"] = Field("middle", title="aligned by its")
    case: Literal["as typed", "upper", "lower"] = Field("as typed", title="case")
    leading: Annotated[float, Live("%", 0.01, 0.7, 2, 100), Field(ge=0.3, le=5)] = Field(1.2, title="line height")
    centred: Literal["capitals", "ink"] = Field("capitals", title="middle measured by")
    rise: Signed = Field(0.0, title="raised by")
    runs: Annotated[tuple[Run, ...], Field(max_length=MAX_WORDS)] = ()

    @field_validator("runs")
    @classmethod
    def _in_order(cls, runs: tuple[Run, ...]) -> tuple[Run, ...]:
        ends = [place for run in runs for place in (run.start, run.end)]
        if ends != sorted(ends) or any(run.start == run.end for run in runs):
            raise ValueError("letters with a look of their own must be in order and not overlap.")
        return runs

    def evolve(self, **changes: Any) -> Self:
        if self.runs and "runs" not in changes:
            runs = _carried(self.runs, self.words, str(changes["words"])) if "words" in changes else self.runs
            changes = {**changes, "runs": tuple(self._going_along(run, changes) for run in runs)}
        return super().evolve(**changes)

    def _going_along(self, run: Run, changes: Mapping[str, Any]) -> Run:
        """Return letters with what they have in common with the text as that becomes."""
        common = (name for name in SHARED if name in changes and getattr(run, name) == getattr(self, name))
        return run.evolve(**{name: changes[name] for name in common})

    def plain_run(self, start: int, end: int) -> Run:
        """Letters that look as the text does."""
        return Run(start=start, end=end, **{name: getattr(self, name) for name in SHARED})

    def all_runs(self) -> list[Run]:
        """The whole words as runs, one after the other."""
        runs, at = [], 0
        for run in self.runs:
            if run.start >= len(self.words):
                break
            if run.start > at:
                runs.append(self.plain_run(at, run.start))
            runs.append(run.evolve(end=min(run.end, len(self.words))))
            at = run.end
        return [*runs, self.plain_run(at, len(self.words))] if at < len(self.words) else runs

    def cased(self, words: str) -> str:
        """Words as they are shown."""
        return {"upper": words.upper(), "lower": words.lower()}.get(self.case, words)

    def lines(self) -> list[Line]:
        """The words line by line, set."""
        rows: list[list[tuple[str, Run]]] = [[]]
        for run in self.all_runs():
            first, *more = self.words[run.start : run.end].split("\n")
            rows[-1].append((first, run))
            rows.extend([(text, run)] for text in more)
        return [self._line(row) for row in rows]

    def baseline(self) -> float:
        """How far the first baseline lies below the part's place."""
        return self._baseline(self.lines())

    def path(self) -> Path:
        lines = self.lines()
        return joined([line.path().transformed(shift) for line, shift in self._placed(lines)])

    def stains(self) -> tuple[tuple[Path, Colour], ...]:
        found: dict[Run, list[Path]] = {}
        for line, shift in self._placed(self.lines()):
            for piece in line.pieces:
                if piece.run.coloured and piece.setting.path:
                    by = shift.after(Similarity(dx=piece.x, dy=-piece.run.rise))
                    found.setdefault(piece.run, []).append(piece.setting.path.transformed(by))
        return tuple((joined(paths), run.colour) for run, paths in found.items())

    @property
    def plain(self) -> bool:
        return not any(run.coloured for run in self.runs)

    def frame(self) -> Rect:
        lines = self.lines()
        width = max(line.advance for line in lines)
        left = -START_SHARE[self.align] * width
        half = (lines[0].tallest.size + sum(self._pitches(lines))) / 2
        return Rect(left, -half, left + width, half)

    def fitted(self, density: float, place: Point) -> tuple[Text, Point]:
        below = self.baseline()
        return self, Point(place.x, round((place.y + below) * density) / density - below)

    def resized(self, width: float, height: float) -> Text:
        frame = self.frame()
        factor = height / frame.height if frame.height else 1.0

        def sized(size: float) -> float:
            return min(MAX_SIZE, max(1.0, size * factor))

        runs = tuple(run.evolve(size=sized(run.size), rise=run.rise * factor) for run in self.runs)
        return self.evolve(size=sized(self.size), runs=runs)

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

    def pushed(self, before: Shape) -> Text:
        """In another font the weight goes to the nearest that it has."""
        if not isinstance(before, Text) or before.font == self.font or self.weight != before.weight:
            return self
        font = load(self.font)
        return self.evolve(weight=min(font.heaviest, max(font.lightest, self.weight)))

    def problem_since(self, before: Shape) -> str:
        if isinstance(before, Text) and self.weight != before.weight:
            font = load(self.font)
            if not font.lightest <= self.weight <= font.heaviest:
                return weights_of(font)
        return self.problem()

    def problem(self) -> str:
        if not self.words.strip():
            return "The words cannot be only spaces; remove the part if it should say nothing."
        return ""

    def remark(self) -> str:
        missing = {
            letter: load(run.font).name
            for run in self.all_runs()
            for letter in load(run.font).missing(self.cased(self.words[run.start : run.end]))
        }
        if not missing:
            return ""
        letters = " ".join(f"“{letter}”" for letter in list(missing)[:SHOWN_MISSING])
        return f"{' and '.join(dict.fromkeys(missing.values()))} has no glyph for {letters}: a box stands there."

    def _line(self, row: list[tuple[str, Run]]) -> Line:
        x, last, pieces = 0.0, 0.0, []
        row = [(words, run) for words, run in row if words] or row[:1]
        for words, run in row:
            setting = set_words(self.cased(words), run.font, run.size, run.weight, run.tracking)
            pieces.append(Piece(x, run, setting))
            if words:
                x, last = x + setting.advance + run.tracking, run.tracking
        return Line(tuple(pieces), x - last, max((run for _, run in row), key=lambda run: run.size))

    def _pitches(self, lines: list[Line]) -> list[float]:
        """From each baseline to the next."""
        return [self.leading * line.tallest.size for line in lines[1:]]

    def _placed(self, lines: list[Line]) -> list[tuple[Line, Similarity]]:
        """Lines with where they begin."""
        down, placed = self._baseline(lines), []
        for line, pitch in zip(lines, (*self._pitches(lines), 0.0), strict=True):
            placed.append((line, Similarity(dx=-START_SHARE[self.align] * line.advance, dy=down)))
            down += pitch
        return placed

    def _baseline(self, lines: list[Line]) -> float:
        return self._stand(lines) - self.rise - sum(self._pitches(lines)) / 2

    def _stand(self, lines: list[Line]) -> float:
        """From the middle of the words to the baseline: half their capitals, or by the ink of all lines."""
        tallest = lines[0].tallest
        capitals = load(tallest.font).cap_height * tallest.size / 2
        if self.centred == "capitals":
            return capitals
        bounds = [line.path().bounds() for line in lines]
        if bounds[0].empty or bounds[-1].empty:
            return capitals
        return -(bounds[0].top + bounds[-1].bottom) / 2


def weights_of(font: Font) -> str:
    """Which weights a font has, in words."""
    if font.lightest == font.heaviest:
        return f"{font.name} has one weight only, {font.lightest:g}."
    return f"{font.name} has weights from {font.lightest:g} to {font.heaviest:g}."


def _carried(runs: tuple[Run, ...], old: str, new: str) -> tuple[Run, ...]:
    """Runs where their letters are after the words changed: what is typed at the end of a run, or inside
    it, belongs to it."""
    most = min(len(old), len(new))
    head = next((i for i in range(most) if old[i] != new[i]), most)
    tail = next((i for i in range(most - head) if old[-1 - i] != new[-1 - i]), most - head)
    grown = len(new) - len(old)

    def moved(place: int) -> int:
        if place >= len(old) - tail:
            return place + grown
        return min(place, max(head, len(new) - tail))

    carried = ((run, moved(run.start), moved(min(run.end, len(old)))) for run in runs)
    return tuple(run.evolve(start=start, end=end) for run, start, end in carried if end > start)
