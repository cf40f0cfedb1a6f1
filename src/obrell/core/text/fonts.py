"""The shipped fonts. Each is a variable font with one weight axis."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from io import BytesIO
from pathlib import Path
from typing import Any, Literal, get_args

import uharfbuzz as hb
from fontTools.ttLib import TTFont

FontName = Literal[
    "Hanken Grotesk", "Spline Sans Mono", "Lora", "Playfair Display", "Oswald", "Nunito", "Comfortaa", "Unbounded",
]  # fmt: skip
FONT_FOLDER = Path(__file__).parent / "fonts"
FONT_NAMES: tuple[FontName, ...] = get_args(FontName)
SUBSETS = ("latin", "latin-ext", "greek", "cyrillic")
"""The files a family is cut into; together they are one font."""


@dataclass(frozen=True, slots=True)
class Face:
    """One file of a family."""

    shaper: Any
    """The shaper's own face."""
    characters: frozenset[int]


@dataclass(frozen=True, slots=True)
class Font:
    """A family ready to shape with. Heights are shares of the font size, positive upwards."""

    name: str
    faces: tuple[Face, ...]
    lightest: float
    heaviest: float
    cap_height: float

    def missing(self, words: str) -> list[str]:
        """The characters of ``words`` it has no glyph for, each once, in order."""
        return [c for c in dict.fromkeys(words) if not any(ord(c) in face.characters for face in self.faces)]

    def runs(self, words: str) -> list[tuple[Face, str]]:
        """The words cut where another file of the family has to go on."""
        runs: list[tuple[Face, str]] = []
        for character in words:
            face = self._face(character, runs[-1][0] if runs else self.faces[0])
            if runs and runs[-1][0] is face:
                runs[-1] = (face, runs[-1][1] + character)
            else:
                runs.append((face, character))
        return runs

    def _face(self, character: str, before: Face) -> Face:
        if ord(character) in before.characters:
            return before
        return next((face for face in self.faces if ord(character) in face.characters), before)


@lru_cache
def load(name: FontName) -> Font:
    """The font by its family name."""
    folder = FONT_FOLDER / name.lower().replace(" ", "-")
    tables = [TTFont(BytesIO(file.read_bytes())) for s in SUBSETS if (file := folder / f"{s}.woff2").exists()]
    first: Any = tables[0]
    weight = next(axis for axis in first["fvar"].axes if axis.axisTag == "wght")
    return Font(
        name=name,
        faces=tuple(_face(one) for one in tables),
        lightest=weight.minValue,
        heaviest=weight.maxValue,
        cap_height=first["OS/2"].sCapHeight / first["head"].unitsPerEm,
    )


def _face(tables: TTFont) -> Face:
    tables.flavor = None
    plain = BytesIO()
    tables.save(plain, reorderTables=None)
    return Face(hb.Face(hb.Blob(plain.getvalue())), frozenset(tables.getBestCmap() or ()))
