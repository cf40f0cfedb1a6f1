"""Sample controls whose outlines take more than boxes and rounds."""

from __future__ import annotations

import math

from obrell.core.document.model import Control
from obrell.core.geometry.combine import combined
from obrell.core.geometry.plane import Similarity
from obrell.core.shapes import Box, Combination, Group, Icon, Line, Path, Repeat, Ring, Round, Sides, Text
from obrell.core.shapes.path import Contour, Knot, path_from
from obrell.samples.writing import control, drop, inner, linear, outline, part, radial, solid

STEEL = ((0, "#f7f6f1"), (0.42, "#c6c4bc"), (0.7, "#8d8c86"), (1, "#bfbdb5"))
LEVEL_DEGREES = -138.0
"""Where the scale of the knob begins; it ends as far on the other side."""


def water_level() -> Control:
    """A turned knob: a track with its foot cut out, irregular hairlines around it, a pointer."""
    middle = 68.0
    turn = math.radians(LEVEL_DEGREES)
    hair_x, hair_y = middle + 50 * math.sin(turn), middle - 50 * math.cos(turn)
    lit = ((0, "#7fe0e2"), (1, "#1f8a92"))
    return control("c4", "Water level", 136, 138, (
        part("p1", "Bezel", Round(width=112, height=112), middle, middle,
             drop(5, 9, 0.34, spread=-2), drop(1, 2, 0.4), linear((0, "#eceae2"), (1, "#b4b2a9")),
             outline(1, (0, "#ffffff", 0.9), (1, "#4b4a46", 0.35))),
        part("p2", "Hairline", Box(width=1.2, height=7), hair_x, hair_y, solid("#45443f"),
             within="p3", rotation=LEVEL_DEGREES % 360),
        part("p3", "Scale", Repeat(way="around", count=24, sweep=-2 * LEVEL_DEGREES, irregular=0.35, seed=7,
                                   last_opacity=1.0), middle, middle),
        part("p4", "Track ring", Ring(outer=43, inner=35), middle, middle, solid("#59584f"), within="p6"),
        part("p5", "Wedge", _polygon((0, 0), (-46, 51), (46, 51)), middle, middle, within="p6"),
        part("p6", "Track", Combination(mode="difference"), middle, middle,
             linear((0, "#3b4a4e"), (1, "#6b7679")), inner(1.5, 3, "#0b1a1e", 0.7), inner(-1, 1, "#ffffff", 0.4)),
        part("p7", "Level", Ring(outer=41.5, inner=36.5, sweep=176, start=LEVEL_DEGREES % 360, ends="round"),
             middle, middle, linear(*lit), inner(1, 1.5, "#ffffff", 0.6), drop(0, 4, 0.5, colour="#1f8a92")),
        part("p8", "Knob", Round(width=60, height=60), middle, middle,
             drop(4, 7, 0.5), drop(1, 1.5, 0.5), linear(*STEEL),
             outline(1, (0, "#ffffff"), (0.5, "#ffffff", 0.2), (1, "#3d3c38", 0.4))),
        part("p9", "Cap", Round(width=46, height=46), middle, middle,
             linear((0, "#a9a7a0"), (0.5, "#d6d4cc"), (1, "#fbfaf6")),
             outline(0.75, (0, "#55544e", 0.5), (1, "#ffffff", 0.9))),
        part("p10", "Pointer", Sides(count=3, width=10, height=17, radius=1, pointing=0), *_around(middle, 15, 38),
             solid("#cf3a26"), inner(0.75, 0.5, "#ff9c86", 0.8), rotation=38),
    ), margin=8)  # fmt: skip


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
             drop(1, 3, 0.45), linear((0, "#6c7c84"), (0.5, "#53636b"), (1, "#43525a")),
             inner(1, 0.5, "#b9c6cb", 0.8), inner(-2, 4, "#1b2a30", 0.4)),
        part("p6", "Title", Text(words="Boat queue", size=15, weight=720, align="start"), x - 76, y - 8,
             drop(1, 1, 0.6), solid("#f6f4ec")),
        part("p7", "Subtitle", Text(words="next: Alder Maid", size=11, weight=420, align="start"), x - 76, y + 10,
             drop(1, 1, 0.5), solid("#c9d3d5")),
        part("p8", "Count", Text(words="7", font="Unbounded", size=22, weight=800), x + 62, y,
             drop(1, 0, 0.75, colour="#fff1c4"), solid("#4a3206")),
    ), margin=10)  # fmt: skip


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


def towpath_lights() -> Control:
    """A slide switch with its lit end: track, knob, and a small sun of a ring and eight rays."""
    x, y = 70.0, 32.0
    sun_x = 100.0
    ink = solid("#8a5a06")
    return control("c8", "Towpath lights", 140, 68, (
        part("p1", "Frame", Box(width=108, height=44, corners="round"), x, y, drop(1, 0, 0.8, colour="#ffffff"),
             linear((0, "#a29e90"), (1, "#efece2"))),
        part("p2", "Track", Box(width=104, height=40, corners="round"), x, y,
             linear((0, "#36464c"), (1, "#51636a")), inner(3, 6, "#0a171b", 0.75), inner(-1, 1, "#9fb0b5", 0.4)),
        part("p3", "Lit end", Box(width=104, height=40, corners="round"), x, y,
             radial((0, "#ffd97a", 0.95), (0.45, "#f2a928", 0.75), (0.8, "#c97d0a", 0.2), (1, "#c97d0a", 0)),
             blend="screen"),
        part("p4", "Off mark", Icon(icon="moon", width=15, height=15, line=1.6), 37, y, solid("#c5d1d4")),
        part("p5", "Knob", Round(width=36, height=36), sun_x, y, drop(3, 6, 0.5), drop(1, 1.5, 0.45), linear(*STEEL),
             outline(1, (0, "#ffffff"), (1, "#55544e", 0.4))),
        part("p6", "Ring", Ring(outer=5.5, inner=3.5), sun_x, y, ink, within="p9"),
        part("p7", "Ray", Box(width=1.8, height=3.6, radius=0.9), sun_x, y - 9.4, ink, within="p8"),
        part("p8", "Rays", Repeat(way="around", count=8), sun_x, y, within="p9"),
        part("p9", "Sun", Group(), sun_x, y, drop(1, 0, 0.8, colour="#ffffff")),
    ), margin=10)  # fmt: skip


def _around(middle: float, radius: float, degrees: float) -> tuple[float, float]:
    angle = math.radians(degrees)
    return middle + radius * math.sin(angle), middle - radius * math.cos(angle)


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
