"""Letters of a text with a look of their own."""

from __future__ import annotations

from typing import Literal

from obrell.core.document.model import Control, Part
from obrell.core.edit.base import Edit, Surroundings, each_part, names_of
from obrell.core.errors import Refused
from obrell.core.shapes import Text
from obrell.core.shapes.kinds.text import Place, Run
from obrell.core.values.fields import Id


class StyleLetters(Edit):
    """Letters ``start`` to just before ``end`` cut out as a run, which looks as they did."""

    kind: Literal["style-letters"] = "style-letters"
    part: Id
    start: Place
    end: Place

    def apply(self, control: Control, around: Surroundings) -> Control:
        def changed(part: Part) -> Part:
            text = _text(part)
            start, end = sorted((min(self.start, len(text.words)), min(self.end, len(text.words))))
            if start == end:
                raise Refused("Select the letters in the words first.")
            before = next((run for run in text.all_runs() if run.start <= start < run.end), text.plain_run(0, 1))
            kept = [*_without(text.runs, start, end), before.evolve(start=start, end=end)]
            return part.evolve(shape=text.evolve(runs=tuple(sorted(kept, key=lambda run: run.start))))

        return each_part(control, [self.part], changed)

    def label(self, control: Control) -> str:
        return f"Gave letters of {names_of(control, [self.part])} a look of their own"


class PlainLetters(Edit):
    """A run that looks as the rest again."""

    kind: Literal["plain-letters"] = "plain-letters"
    part: Id
    run: Place

    def apply(self, control: Control, around: Surroundings) -> Control:
        def changed(part: Part) -> Part:
            text = _text(part)
            rest = tuple(run for number, run in enumerate(text.runs) if number != self.run)
            return part.evolve(shape=text.evolve(runs=rest))

        return each_part(control, [self.part], changed)

    def label(self, control: Control) -> str:
        return f"Made letters of {names_of(control, [self.part])} look as the rest"


def _text(part: Part) -> Text:
    if not isinstance(part.shape, Text):
        raise Refused(f"“{part.name}” is not a text.")
    return part.shape


def _without(runs: tuple[Run, ...], start: int, end: int) -> list[Run]:
    """Runs with a stretch cut out of them."""
    cut = [(run, part) for run in runs for part in ((run.start, min(run.end, start)), (max(run.start, end), run.end))]
    return [run.evolve(start=first, end=last) for run, (first, last) in cut if last > first]
