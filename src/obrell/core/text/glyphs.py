"""Whether the glyphs of a font can be drawn: few bytes can name the same pieces again and again."""

from __future__ import annotations

import uharfbuzz as hb

from obrell.core.errors import TooLarge
from obrell.core.text.fonts import Font

MAX_GLYPH_PIECES = 20_000
"""How many lines and curves a glyph may have."""
MAX_FONT_PIECES = 4_000_000
"""How many all glyphs of a font may have together."""


def check_glyphs(font: Font) -> None:
    """Draw every glyph; raises ``TooLarge`` when one has more pieces than can be worked on."""
    drawn = 0
    for face in font.faces:
        scaled = hb.Font(face.shaper)
        for glyph in range(face.shaper.glyph_count):
            counter = _Counter()
            scaled.draw_glyph_with_pen(glyph, counter)
            drawn += counter.pieces
            if counter.pieces > MAX_GLYPH_PIECES or drawn > MAX_FONT_PIECES:
                raise TooLarge(
                    f"This font has glyphs of {counter.pieces:,} pieces and more; {MAX_GLYPH_PIECES:,} are the most."
                )


class _Counter:
    """A sink that only counts."""

    def __init__(self) -> None:
        self.pieces = 0

    def moveTo(self, _point: object) -> None:  # noqa: N802
        self.pieces += 1

    lineTo = moveTo  # noqa: N815

    def qCurveTo(self, *_points: object) -> None:  # noqa: N802
        self.pieces += 1

    curveTo = qCurveTo  # noqa: N815

    def closePath(self) -> None:  # noqa: N802
        """Costs nothing."""

    endPath = closePath  # noqa: N815
