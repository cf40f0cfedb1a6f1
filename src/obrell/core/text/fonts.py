"""The shipped fonts. Each is a variable font with one weight axis."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from io import BytesIO
from pathlib import Path
from typing import Any, Literal, get_args

import uharfbuzz as hb
from fontTools.ttLib import TTFont

FontName = Literal["Hanken Grotesk", "Spline Sans Mono"]
FONT_FOLDER = Path(__file__).parent / "fonts"
FONT_NAMES: tuple[FontName, ...] = get_args(FontName)


@dataclass(frozen=True, slots=True)
class Font:
    """A font ready to shape with. Heights are shares of the font size, positive upwards."""

    name: str
    face: Any
    """The shaper's own face."""
    characters: frozenset[int]
    lightest: float
    heaviest: float
    cap_height: float

    def missing(self, words: str) -> list[str]:
        """The characters of ``words`` it has no glyph for, each once, in order."""
        return [c for c in dict.fromkeys(words) if ord(c) not in self.characters]


@lru_cache
def load(name: FontName) -> Font:
    """The font by its family name."""
    file = FONT_FOLDER / name.lower().replace(" ", "-") / "wght.woff2"
    tables = TTFont(BytesIO(file.read_bytes()))
    tables.flavor = None
    plain = BytesIO()
    tables.save(plain, reorderTables=None)
    axes: Any = tables["fvar"]
    metrics: Any = tables["OS/2"]
    weight = next(axis for axis in axes.axes if axis.axisTag == "wght")
    face = hb.Face(hb.Blob(plain.getvalue()))
    return Font(
        name=name,
        face=face,
        characters=frozenset(tables.getBestCmap() or ()),
        lightest=weight.minValue,
        heaviest=weight.maxValue,
        cap_height=metrics.sCapHeight / face.upem,
    )
