"""Sample controls whose outlines take more than boxes and rounds."""

from __future__ import annotations

from obrell.core.document.model import Control
from obrell.core.geometry.combine import combined
from obrell.core.geometry.plane import Similarity
from obrell.core.shapes import Box, Combination, Line, Path, Repeat, Ring, Round, Text
from obrell.core.shapes.kinds.path import path_from
from obrell.core.shapes.outlined import Contour, Knot
from obrell.core.values.readings import Drive, Reading
from obrell.samples.writing import control, drop, inner, linear, outline, part, solid

STEEL = ((0, "#f7f6f1"), (0.42, "#c6c4bc"), (0.7, "#8d8c86"), (1, "#bfbdb5"))
LEVEL_DEGREES = -138.0
"""Where the scale of the knob begins; it ends as far on the other side."""


def hail_boat() -> Control:
    """Three nested arcs over a dot on a round key; half of them is drawn, the other half mirrored."""
    x, foot = 44.0, 54.0
    chalk = linear((0, "#ffffff"), (1, "#d9efee"))
    arcs = [
        part(f"p{number}", f"Arc {number - 1}", Ring(outer=radius, inner=radius - 4, sweep=44, start=0, ends="round"),
             x, foot, chalk, within="p5")
        for number, radius in ((2, 12.0), (3, 20.0), (4, 28.0))
    ]  # fmt: skip
    return control("c5", "Hail boat", 88, 92, (
        part("p1", "Key", Round(width=68, height=68), x, 42,
             drop(5, 9, 0.36, spread=-2), drop(1.5, 2, 0.42),
             linear((0, "#3fa0aa"), (0.5, "#1f8a92"), (1, "#12626a")),
             inner(1.25, 1, "#a8f1ef", 0.7), inner(-3, 7, "#053a41", 0.5), outline(1, (0, "#0c4f57"), (1, "#06323a"))),
        *arcs,
        part("p5", "Waves", Repeat(way="mirrored"), x, foot, drop(1, 1.5, 0.55, colour="#06323a")),
        part("p6", "Boat", Round(width=9, height=9), x, foot, drop(1, 1.5, 0.55, colour="#06323a"), chalk),
    ), margin=8)  # fmt: skip


WAITING = Reading(
    id="boats", name="Boats", start=0, end=19, value=7, drives=(Drive(path="parts/p8/shape/words", format="{}"),)
)  # fmt: skip
"""How many boats wait."""


def boat_queue() -> Control:
    """A wide key of two lines; a counter bay is cut out along a slanted edge, and the body's thickness
    is a copy of its outline with the lower points moved down."""
    x, y = 104.0, 36.0
    face = Box(width=180, height=50, radius=10)
    below = _lowered(path_from(face.path()), 5)
    bay = _polygon((44, -31), (96, -31), (96, 31), (26, 31))
    brass = ((0, "#f4dc9a"), (0.45, "#d9ad4e"), (0.55, "#b9892c"), (1, "#e6c878"))
    return control("c6", "Boat queue", 208, 80, (
        part("p1", "Thickness", below, x, y, drop(4, 8, 0.34), drop(1, 2, 0.4),
             linear((0, "#2c4147"), (0.8, "#1c2f35"), (1, "#32484e"))),
        part("p2", "Counter bay", face, x, y, linear(*brass), inner(2, 4, "#5b3d07", 0.75),
             inner(-1, 1, "#fff1c4", 0.8)),
        part("p3", "Face outline", face, x, y, solid("#4d5b63"), within="p5"),
        part("p4", "Slant", bay, x, y, within="p5"),
        part("p5", "Face", Combination(mode="difference"), x, y,
             drop(1, 3, 0.45), linear((0, "#53636b"), (0.5, "#4d5b63"), (1, "#43525a")),
             inner(1, 0.5, "#b9c6cb", 0.8), inner(-2, 4, "#1b2a30", 0.4)),
        part("p6", "Title", Text(words="Boat queue", size=15, weight=720, align="start"), x - 76, y - 8,
             drop(1, 1, 0.6), solid("#f6f4ec")),
        part("p7", "Subtitle", Text(words="next: Alder Maid", size=11, weight=420, align="start"), x - 76, y + 10,
             drop(1, 1, 0.5), solid("#dde1e2")),
        part("p8", "Count", Text(words="7", font="Unbounded", size=22, weight=800), x + 62, y,
             drop(1, 0, 0.75, colour="#fff1c4"), solid("#4a3206")),
    ), margin=10).evolve(readings=(WAITING,))  # fmt: skip


def close_panel() -> Control:
    """A cross of two lines, made into one path, on a small round body."""
    x, y = 30.0, 28.0
    return control("c7", "Close panel", 60, 60, (
        part("p1", "Body", Round(width=40, height=40), x, y, drop(3, 6, 0.3), drop(1, 1.5, 0.35),
             linear((0, "#fdfcf8"), (1, "#dcd8cb")),
             outline(1, (0, "#ffffff"), (1, "#8b877a", 0.5)), inner(-2, 3, "#a9a391", 0.5)),
        part("p2", "Cross", _cross(13, 3), x, y, drop(1, 0, 0.9, colour="#ffffff"),
             linear((0, "#8f2415"), (1, "#cf3a26")), inner(1, 1, "#4d0d04", 0.5)),
    ), margin=8)  # fmt: skip


def _polygon(*places: tuple[float, float]) -> Path:
    return Path(contours=(Contour(knots=tuple(Knot(x=x, y=y) for x, y in places)),))


def _lowered(path: Path, by: float) -> Path:
    """The outline with every point below its middle moved down."""
    runs = (
        run.evolve(knots=tuple(knot.evolve(y=knot.y + by) if knot.y > 0 else knot for knot in run.knots))
        for run in path.contours
    )
    return path.evolve(contours=tuple(runs))


def _cross(length: float, width: float) -> Path:
    """Two crossed lines with round ends, converted and united."""
    line = Line(across=length, down=0, width=width, caps="round").path()
    turned = (
        line.transformed(Similarity(dx=-length / 2)).transformed(Similarity(turn=turn)) for turn in (45.0, 135.0)
    )
    return path_from(combined("union", tuple(turned)))
