"""Fonts: the shipped families, and files that were brought into a kit."""

from __future__ import annotations

import unicodedata
from dataclasses import dataclass
from io import BytesIO
from pathlib import Path
from typing import Any, Literal, get_args

import uharfbuzz as hb
from fontTools.ttLib import TTFont

from obrell.core.files import FileId, content_of
from obrell.core.workspace import remembered

Shipped = Literal[
    "Hanken Grotesk", "Spline Sans Mono", "Lora", "Playfair Display", "Oswald", "Nunito", "Comfortaa", "Unbounded",
]  # fmt: skip
FontName = Shipped | FileId
"""A shipped family by its name, or a file."""
FONT_FOLDER = Path(__file__).parent / "fonts"
FONT_NAMES: tuple[Shipped, ...] = get_args(Shipped)
SUBSETS = ("latin", "latin-ext", "greek", "cyrillic")
"""The files a family is cut into; together they are one font."""
USUAL_CAP_HEIGHT = 0.7
"""Of fonts that do not say theirs."""
FAMILY, STYLE, OWN_FAMILY, OWN_STYLE = 1, 2, 16, 17
"""Identifiers of the name table (OpenType 1.9, name)."""


@dataclass(frozen=True, slots=True)
class Face:
    """One file of a family."""

    shaper: Any
    """The shaper's own face."""
    characters: frozenset[int]


@dataclass(frozen=True, slots=True)
class Font:
    """A family ready to shape with. Heights are shares of the font size, positive upwards. Without a
    weight axis ``lightest`` and ``heaviest`` are the same."""

    name: str
    faces: tuple[Face, ...]
    lightest: float
    heaviest: float
    cap_height: float

    def missing(self, words: str) -> list[str]:
        """The characters of ``words`` it has no glyph for, each once, in order; those that are never
        seen, such as joiners, are not counted."""
        seen = (c for c in dict.fromkeys(words) if unicodedata.category(c) not in ("Cc", "Cf"))
        return [c for c in seen if not any(ord(c) in face.characters for face in self.faces)]

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


@remembered(64)
def load(name: str) -> Font:
    """The font by its stored name; raises ``NoSuchThing`` when its file is not kept."""
    if name not in FONT_NAMES:
        return made_of(content_of(name))
    folder = FONT_FOLDER / name.lower().replace(" ", "-")
    files = [file.read_bytes() for s in SUBSETS if (file := folder / f"{s}.woff2").exists()]
    return made_of(*files, name=name)


def made_of(*files: bytes, name: str = "") -> Font:
    """The font in files that together are one family; without a name it is called as the first calls
    itself. Raises whatever the reader of fonts raises when they are no fonts."""
    tables: list[Any] = [TTFont(BytesIO(content), lazy=True) for content in files]
    first = tables[0]
    axes = {axis.axisTag: axis for axis in first["fvar"].axes} if "fvar" in first else {}
    weight = axes.get("wght")
    own = getattr(first["OS/2"], "usWeightClass", 400)
    cap_height = getattr(first["OS/2"], "sCapHeight", 0) / first["head"].unitsPerEm
    return Font(
        name=name or _name(first),
        faces=tuple(_face(one) for one in tables),
        lightest=weight.minValue if weight else own,
        heaviest=weight.maxValue if weight else own,
        cap_height=cap_height if 0 < cap_height < 2 else USUAL_CAP_HEIGHT,
    )


def _face(tables: TTFont) -> Face:
    tables.flavor = None
    plain = BytesIO()
    tables.save(plain, reorderTables=None)
    return Face(hb.Face(hb.Blob(plain.getvalue())), frozenset(tables.getBestCmap() or ()))


def _name(tables: Any) -> str:
    names = tables["name"]
    family = names.getDebugName(OWN_FAMILY) or names.getDebugName(FAMILY) or "Font"
    style = names.getDebugName(OWN_STYLE) or names.getDebugName(STYLE) or ""
    whole = family if "fvar" in tables or style.lower() in ("", "regular") else f"{family} {style}"
    printable = "".join(c for c in whole if c.isprintable()).strip()
    return printable[:80] or "Font"
