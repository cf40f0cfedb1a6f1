"""Words set in a font, as one path: kerning and ligatures as the font has them."""

from __future__ import annotations

from dataclasses import dataclass

import uharfbuzz as hb

from obrell.core.geometry.combine import quadratic, union
from obrell.core.geometry.paths import Path, PathBuilder
from obrell.core.text.fonts import Face, FontName, load
from obrell.core.workspace import remembered

NO_GLYPH = 0
BLANK_ADVANCE, BLANK_SIDE, BLANK_LINE = 0.62, 0.07, 0.05
"""The box that stands for a missing glyph, shares of the size: what it takes, air at its sides, its line."""


@dataclass(frozen=True, slots=True)
class Setting:
    """``path`` has its origin at the start of the baseline, y down; ``advance`` is the length of
    the line without the space after its last letter. Both in the unit of the size asked for."""

    path: Path
    advance: float


@remembered(512)
def set_words(words: str, name: FontName, size: float, weight: float, tracking: float) -> Setting:
    """Shape and outline one line. ``tracking`` is added after every letter; overlaps are united,
    so that coverage adds up. Weight is clamped to the font's axis. A character that the font has no
    glyph for is an empty box."""
    font = load(name)
    pen = PathBuilder()
    x = 0.0
    style = _Style(size, min(max(weight, font.lightest), font.heaviest), tracking, font.cap_height)
    for face, run in font.runs(words):
        x = _set_run(pen, face, run, x, style)
    return Setting(union(pen.path()), x - tracking if words else 0.0)


@dataclass(frozen=True, slots=True)
class _Style:
    size: float
    weight: float
    tracking: float
    cap_height: float


def _set_run(pen: PathBuilder, face: Face, words: str, x: float, style: _Style) -> float:
    """Draw one run of letters from ``x`` on; gives where the next begins."""
    scaled = hb.Font(face.shaper)
    scaled.set_variations({"wght": style.weight})
    line = hb.Buffer()
    line.add_str(words)
    line.guess_segment_properties()
    hb.shape(scaled, line, {"kern": True, "liga": style.tracking == 0})
    scale = style.size / face.shaper.upem
    y = 0.0
    for info, place in zip(line.glyph_infos, line.glyph_positions, strict=True):
        if info.codepoint == NO_GLYPH:
            x += _blank(pen, x, style) + style.tracking
            continue
        sink = _GlyphSink(pen, x + place.x_offset * scale, y - place.y_offset * scale, scale)
        scaled.draw_glyph_with_pen(info.codepoint, sink)
        x += place.x_advance * scale + style.tracking
        y -= place.y_advance * scale
    return x


def _blank(pen: PathBuilder, x: float, style: _Style) -> float:
    """Draw the box of a missing glyph; gives what it takes of the line."""
    side, line, high = (share * style.size for share in (BLANK_SIDE, BLANK_LINE, style.cap_height))
    right = x + BLANK_ADVANCE * style.size - side
    for inset, turned in ((0.0, False), (line, True)):
        left, top, end, foot = x + side + inset, -high + inset, right - inset, -inset
        corners = [(left, top), (end, top), (end, foot), (left, foot)]
        pen.move(*corners[0])
        for corner in reversed(corners[1:]) if turned else corners[1:]:
            pen.line(*corner)
        pen.close()
    return BLANK_ADVANCE * style.size


class _GlyphSink:
    """Takes a glyph in font units, y up, and draws it scaled at its place, y down."""

    def __init__(self, pen: PathBuilder, x: float, y: float, scale: float) -> None:
        self._pen, self._x, self._y, self._scale = pen, x, y, scale
        self._here = (0.0, 0.0)

    def _at(self, point: tuple[float, float]) -> tuple[float, float]:
        return self._x + point[0] * self._scale, self._y - point[1] * self._scale

    def moveTo(self, point: tuple[float, float]) -> None:  # noqa: N802
        self._here = self._at(point)
        self._pen.move(*self._here)

    def lineTo(self, point: tuple[float, float]) -> None:  # noqa: N802
        self._here = self._at(point)
        self._pen.line(*self._here)

    def qCurveTo(self, control: tuple[float, float], end: tuple[float, float]) -> None:  # noqa: N802
        to = self._at(end)
        quadratic(self._pen, self._here, self._at(control), to)
        self._here = to

    def curveTo(  # noqa: N802
        self, first: tuple[float, float], second: tuple[float, float], end: tuple[float, float]
    ) -> None:
        self._here = self._at(end)
        self._pen.cubic(*self._at(first), *self._at(second), *self._here)

    def closePath(self) -> None:  # noqa: N802
        self._pen.close()

    def endPath(self) -> None:  # noqa: N802
        """Glyph contours are always closed."""
