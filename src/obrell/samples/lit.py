"""Sample controls whose look is built of light: bevels, turned and brushed metal, enamel, a lens."""

from __future__ import annotations

import math
from typing import Any

from obrell.core.document.model import Control, Material, Part
from obrell.core.effects import AnyEffect, Bevel, Depth, Gloss, Grain, InnerGlow, OuterGlow, Paint, Sheen
from obrell.core.shapes import Box, Group, Icon, Line, Repeat, Ring, Round, Sides, Text
from obrell.core.values.paints import Conic, Linear, Radial, Solid, Texture
from obrell.core.values.readings import Drive, Reading
from obrell.samples.writing import Mark, control, drop, inner, linear, outline, part, radial, solid, stops

TURNED: tuple[Mark, ...] = (
    (0, "#f4f3ef"), (0.09, "#a5a49f"), (0.2, "#dcdbd6"), (0.31, "#807f7a"), (0.43, "#ebeae5"), (0.56, "#96958f"),
    (0.67, "#d4d3cd"), (0.79, "#7a7974"), (0.91, "#c9c8c2"), (1, "#f4f3ef"),
)  # fmt: skip
GOLD: tuple[Mark, ...] = (
    (0, "#fbe9ae"), (0.1, "#a87a22"), (0.22, "#f0d384"), (0.34, "#8a5f12"), (0.46, "#f6e0a0"), (0.58, "#9c6e1a"),
    (0.7, "#e4c26a"), (0.82, "#7d5510"), (0.92, "#cfa548"), (1, "#fbe9ae"),
)  # fmt: skip
LENS_PX = 47.0
LEVEL_DEGREES = -138.0
"""Where the scale of the knob begins; it ends as far on the other side."""
LEVEL = Reading(
    id="level", name="Level", unit="%", value=64,
    drives=(
        Drive(path="parts/p11/rotation", start=LEVEL_DEGREES, end=-LEVEL_DEGREES),
        Drive(path="parts/p7/shape/sweep", start=1, end=-2 * LEVEL_DEGREES),
    ),
)  # fmt: skip
"""What the knob shows: it turns the hand, and lights the channel up to there."""


def bevel(width: float, rise: float, profile: Any = "bullnose", **values: Any) -> Bevel:
    """A bevel in the key light."""
    return Bevel(id="e1", width=width, rise=rise, profile=profile, **values)


def conic(*marks: Mark, start: float = 0.0) -> Paint:
    """Colours around the middle."""
    return Paint(id="e1", fill=Conic(stops=stops(*marks), start=start))


def texture(pattern: Any, first: str, second: str, strength: float, **values: Any) -> Paint:
    """A texture laid over what is below it as light and shade."""
    fill = Texture(pattern=pattern, colour=first, second=second, **values)
    return Paint(id="e1", fill=fill, opacity=strength, blend="overlay")


def water_level() -> Control:
    """A turned steel knob in a bezel; irregular hairlines around it, a lit level, a pointer sunk into it."""
    middle = 68.0
    turn = math.radians(LEVEL_DEGREES)
    hair_x, hair_y = round(middle + 58 * math.sin(turn), 3), round(middle - 58 * math.cos(turn), 3)
    mark = math.radians(38)
    return control("c4", "Water level", 136, 138, (
        part("p2", "Hairline", Box(width=1.2, height=7), hair_x, hair_y, solid("#45443f"),
             within="p3", rotation=LEVEL_DEGREES % 360),
        part("p3", "Scale", Repeat(way="around", count=24, sweep=-2 * LEVEL_DEGREES, irregular=0.35, seed=7),
             middle, middle, drop(0.75, 0, 0.8, colour="#ffffff")),
        part("p1", "Bezel", Round(width=104, height=104), middle, middle,
             drop(6, 10, 0.4, spread=-2), drop(1.5, 2, 0.45), linear((0, "#e6e4dc"), (1, "#9d9b93")),
             bevel(5, 4, "ogee", highlight_opacity=0.9, shade_opacity=0.5),
             outline(1, (0, "#ffffff", 0.95), (1, "#4b4a46", 0.5))),
        part("p4", "Channel", Ring(outer=46, inner=38), middle, middle, solid("#20292c"),
             inner(2, 4, "#000000", 0.85), inner(-1, 1, "#ffffff", 0.35)),
        part("p7", "Level", Ring(outer=44.5, inner=39.5, sweep=176, start=LEVEL_DEGREES % 360, ends="round"),
             middle, middle, OuterGlow(id="e1", extent=5, opacity=0.6, fill=Solid(colour="#3fe0e6")),
             linear((0, "#b6fbfb"), (1, "#1f9aa3")), bevel(2.5, 2, highlight_opacity=0.8, shade_opacity=0.35)),
        part("p8", "Knob", Round(width=72, height=72), middle, middle,
             drop(7, 10, 0.55), drop(2, 3, 0.5), conic(*TURNED, start=-10),
             texture("lathe", "#3b3a37", "#ffffff", 0.42, contrast=1.3, scale=0.55),
             bevel(4, 3, highlight_opacity=0.9, shade_opacity=0.55),
             outline(1, (0, "#ffffff"), (0.5, "#ffffff", 0.15), (1, "#2f2e2b", 0.5))),
        part("p9", "Dish", Round(width=50, height=50), middle, middle,
             conic(*TURNED, start=32), texture("lathe", "#3b3a37", "#ffffff", 0.45, contrast=1.3, scale=0.5),
             bevel(3, -2, "cove", highlight_opacity=0.8, shade_opacity=0.6),
             outline(0.75, (0, "#3d3c38", 0.6), (1, "#ffffff", 0.9))),
        part("p11", "Hand", Group(), middle, middle, rotation=38),
        part("p10", "Pointer", Box(width=5, height=17, radius=2.5), round(middle + 25 * math.sin(mark), 3),
             round(middle - 25 * math.cos(mark), 3), linear((0, "#a5230f"), (1, "#e2573d")),
             inner(1.5, 2, "#3a0500", 0.8), inner(-0.75, 0.5, "#ffb7a6", 0.7),
             drop(1, 0.5, 0.75, colour="#ffffff"), rotation=38, within="p11"),
    ), margin=8).evolve(readings=(LEVEL,))  # fmt: skip


def pilot_lamp() -> Control:
    """An amber lens in a turned seat: light from below, a reflection above, a glow on the panel."""
    x, y = 48.0, 46.0
    return control("c2", "Pilot lamp", 96, 96, (
        part("p1", "Seat", Round(width=66, height=66), x, y,
             OuterGlow(id="e1", extent=14, opacity=0.5, fill=Solid(colour="#ffb438")),
             drop(5, 9, 0.42, spread=-2), drop(1.5, 2.5, 0.45), conic(*TURNED, start=14),
             texture("lathe", "#3b3a37", "#ffffff", 0.3, scale=0.6),
             bevel(5, 4, highlight_opacity=0.95, shade_opacity=0.6),
             outline(1, (0, "#ffffff", 0.95), (0.5, "#ffffff", 0.1), (1, "#3d3c38", 0.45))),
        part("p2", "Rim", Round(width=54, height=54), x, y,
             linear((0, "#3c3a35"), (0.5, "#8d8a80"), (1, "#f4f2ec")), inner(1.5, 2, "#000000", 0.5)),
        part("p3", "Well", Round(width=50, height=50), x, y, solid("#2a1502"), inner(2, 4, "#000000", 0.8)),
        part("p4", "Lens", Round(width=LENS_PX, height=LENS_PX), x, y, *lens_materials()[0].effects,
             material="m-amber-lens-lit", material_extent=LENS_PX),
        part("p6", "Spark", Round(width=22, height=9), x, 63,
             radial((0, "#ffffff", 0.75), (0.5, "#fff2c0", 0.3), (1, "#ffe9a0", 0)), blend="screen"),
    ))  # fmt: skip


def lens_materials() -> tuple[Material, Material]:
    """The amber lens lit from below, and the same glass with nothing behind it."""
    lit = _lens(
        ((0, "#fff6c4"), (0.22, "#ffd85c"), (0.55, "#f59d14"), (0.82, "#bd620a"), (1, "#7c3a05")), 0.7,
        InnerGlow(id="e1", extent=9, opacity=0.6, blend="multiply", fill=Solid(colour="#6b2c00")),
        bevel(9, 7, highlight="#fff1c4", shade="#3a1600", highlight_opacity=0.5, shade_opacity=0.4, softness=3),
        inner(-3, 6, "#ffe9a0", 0.65, blend="screen"),
    )  # fmt: skip
    unlit = _lens(
        ((0, "#b98a4c"), (0.3, "#94652a"), (0.65, "#6b4114"), (1, "#3c2108")), 0.62,
        InnerGlow(id="e1", extent=10, opacity=0.75, blend="multiply", fill=Solid(colour="#2a1202")),
        bevel(9, 7, highlight="#e8d3a8", shade="#1c0a00", highlight_opacity=0.4, shade_opacity=0.55, softness=3),
        inner(-2, 5, "#d9a75a", 0.35, blend="screen"),
    )  # fmt: skip
    return (
        Material(id="m-amber-lens-lit", name="Amber lens, lit", effects=lit, extent=LENS_PX, fixed=("e6/width",)),
        Material(
            id="m-amber-lens-unlit", name="Amber lens, unlit", effects=unlit, extent=LENS_PX, fixed=("e6/width",)
        ),
    )


def _lens(marks: tuple[Mark, ...], foot: float, *inside: AnyEffect) -> tuple[AnyEffect, ...]:
    """Glass over a light whose middle lies ``foot`` down, with what is seen inside of it."""
    pool = Paint(id="e1", fill=Radial(centre_y=foot, radius_x=0.62, radius_y=0.66, stops=stops(*marks)))
    cap = Gloss(id="e1", form="cap", depth=0.42, inset=4, bend=0.1, opacity=0.85, far=0.06, softness=0.5)
    rim = outline(1, (0, "#3a1600", 0.7), (1, "#ffd98a", 0.5))
    whole = (pool, *inside, cap, rim)
    return tuple(effect.evolve(id=f"e{number}") for number, effect in enumerate(whole, start=1))


def emergency_hold() -> Control:
    """An eight-sided enamel key in a brushed steel bezel that four screws hold; raised letters."""
    x, y = 55.0, 53.0
    screws = [
        piece
        for number, (dx, dy, turn) in enumerate(((-36, -36, 20), (36, -36, 105), (-36, 36, 60), (36, 36, 150)))
        for piece in _screw(f"p{20 + 2 * number}", f"p{21 + 2 * number}", x + dx, y + dy, turn)
    ]
    return control("c9", "Emergency hold", 110, 114, (
        part("p1", "Bezel", Box(width=90, height=90, radius=9), x, y,
             drop(6, 11, 0.42, spread=-2), drop(2, 3, 0.45),
             linear((0, "#f1f0ec"), (0.35, "#cfcec9"), (0.7, "#a8a7a1"), (1, "#c9c8c2")),
             texture("brush", "#2f2e2b", "#ffffff", 0.4, scale=0.6, angle=0, contrast=1.2),
             bevel(3, 2.2, highlight_opacity=0.95, shade_opacity=0.6),
             outline(1, (0, "#ffffff", 0.9), (0.5, "#ffffff", 0.1), (1, "#3d3c39", 0.55))),
        *screws,
        part("p2", "Well", Sides(count=8, width=80, height=80, radius=2, pointing=22.5), x, y, solid("#1d1f20"),
             inner(2, 5, "#000000", 0.9), drop(1, 0.5, 0.8, colour="#ffffff")),
        part("p3", "Key", Sides(count=8, width=72, height=72, radius=2.5, pointing=22.5), x, y,
             drop(3, 4, 0.7), linear((0, "#d03a25"), (0.5, "#b32a17"), (1, "#8f2415")),
             bevel(7, 5, "chamfer", highlight="#ffd0c4", shade="#3f0500", highlight_opacity=0.8, shade_opacity=0.62,
                   softness=0.6),
             Sheen(id="e1", distance=12, blur=18, tone="soft", opacity=0.22, colour="#ffb9a8"),
             Gloss(id="e1", form="horizon", depth=0.46, inset=8, bend=0.04, opacity=0.3, far=0.1, softness=1),
             outline(1, (0, "#ff9d8a", 0.7), (1, "#4a0a02", 0.8))),
        part("p4", "Label", Text(words="HOLD", size=19, weight=800, tracking=0.8), x, y,
             drop(2, 2, 0.55, colour="#4a0a02"), drop(1, 0.5, 0.5, colour="#4a0a02"),
             linear((0, "#ffffff"), (1, "#e6e2d6")),
             bevel(1.6, 1.4, highlight_opacity=0.9, shade="#7d7665", shade_opacity=0.6)),
    ), margin=8)  # fmt: skip


def _screw(head: str, slot: str, x: float, y: float, turn: float) -> tuple[Part, Part]:
    return (
        part(head, "Screw", Round(width=11, height=11), x, y, drop(1, 1, 0.7, colour="#ffffff"),
             conic(*TURNED, start=turn), inner(0.75, 1, "#000000", 0.35),
             bevel(2.2, 1.8, highlight_opacity=0.9, shade_opacity=0.6),
             outline(0.75, (0, "#2f2e2b", 0.7), (1, "#2f2e2b", 0.35))),
        part(slot, "Slot", Box(width=8, height=1.5), x, y, solid("#2a2927"),
             drop(0.75, 0, 0.7, colour="#ffffff"), rotation=turn),
    )  # fmt: skip


def horn() -> Control:
    """A turned brass dish around a rubber cap with its sign in relief."""
    x, y = 52.0, 50.0
    return control("c10", "Horn", 104, 106, (
        part("p1", "Dish", Round(width=80, height=80), x, y,
             drop(6, 11, 0.42, spread=-2, colour="#1f1503"), drop(2, 3, 0.45, colour="#1f1503"),
             conic(*GOLD, start=-6), texture("lathe", "#2c1b02", "#fff4cf", 0.4, contrast=1.2, scale=0.55),
             bevel(5, 4, "ogee", highlight="#fff8dc", shade="#3a2400", highlight_opacity=0.95, shade_opacity=0.6),
             outline(1, (0, "#fffbe8", 0.95), (0.5, "#f3dc9a", 0.2), (1, "#3f2a04", 0.7))),
        part("p2", "Groove", Ring(outer=31, inner=27), x, y, linear((0, "#3d2a06"), (1, "#c9a047")),
             inner(1.5, 2, "#1d1200", 0.8), inner(-0.75, 0.75, "#fff1c4", 0.7)),
        part("p3", "Cap", Round(width=53, height=53), x, y,
             drop(3, 5, 0.6), linear((0, "#4b4e50"), (1, "#242628")),
             texture("hide", "#050606", "#8e9396", 0.28, scale=1.6, contrast=0.8),
             Grain(id="e1", opacity=0.07, scale=0.7),
             bevel(9, 5, highlight_opacity=0.4, shade_opacity=0.65, softness=5),
             outline(0.75, (0, "#8f9496", 0.5), (1, "#000000", 0.7))),
        part("p4", "Sign", Icon(icon="volume-2", width=24, height=24, line=2.4), x, y,
             drop(1.5, 2, 0.8, colour="#000000"), linear((0, "#f3d98d"), (1, "#b98a2e")),
             bevel(1.2, 1.2, highlight="#fff6d4", shade="#4a3206", highlight_opacity=0.9, shade_opacity=0.6)),
    ), margin=8)  # fmt: skip


def gate(id_: str, name: str, icon: str) -> Control:
    """A moss enamel key with a wide chamfer: a sign and a word, sunk into it."""
    x, y = 84.0, 34.0
    word = Text(words=name, size=15, weight=640)
    return control(id_, name, 168, 72, (
        part("p1", "Frame", Box(width=144, height=48, radius=6), x, y,
             drop(5, 9, 0.4, spread=-1), drop(1.5, 2, 0.45), linear((0, "#24330f"), (1, "#37491d")),
             Depth(id="e1", direction=180, distance=3, fill=Linear(stops=stops((0, "#1b270b"), (1, "#0d1505")))),
             outline(1, (0, "#6d8a4a", 0.8), (1, "#0d1505", 0.6))),
        part("p2", "Face", Box(width=140, height=44, radius=4.5), x, y,
             linear((0, "#588235"), (0.5, "#436726"), (1, "#37491d")),
             bevel(5, 4, "chamfer", highlight="#eaffd2", shade="#0d1c02", highlight_opacity=0.75, shade_opacity=0.6,
                   softness=0.4),
             Sheen(id="e1", distance=10, blur=16, tone="soft", opacity=0.2, colour="#d9f5b8"),
             Gloss(id="e1", form="S-curve", depth=0.45, inset=6, bend=0.05, opacity=0.22, far=0.12, softness=0.8)),
        part("p3", "Sign", Icon(icon=icon, width=20, height=20, line=2.2), x - 48, y,
             drop(1, 0, 0.45, colour="#d6f0b4"), solid("#f2f6e8"), inner(0.75, 1, "#2a3f14", 0.55)),
        part("p4", "Word", word, x + 14, y,
             drop(1, 1.5, 0.6, colour="#12200a"), solid("#f6f9ee")),
    ), margin=10)  # fmt: skip


def lower_sluice(raised: Control) -> Control:
    """The capsule beside the first, with another word."""
    parts = tuple(
        p.evolve(shape=p.shape.evolve(words="Lower sluice")) if isinstance(p.shape, Text) else p for p in raised.parts
    )
    return raised.evolve(id="c13", name="Lower sluice", parts=parts)


def towpath_lights() -> Control:
    """A slide switch in soft relief with its lit end: track, knob, and a small sun of a ring and eight rays."""
    x, y, sun_x = 70.0, 34.0, 96.0
    ink = solid("#b06f0a")
    return control("c8", "Towpath lights", 140, 72, (
        part("p1", "Hollow", Box(width=100, height=46, corners="round"), x, y,
             drop(2, 2, 0.9, colour="#ffffff"), linear((0, "#c9c3b1"), (1, "#e9e4d6")),
             inner(3, 6, "#8c8570", 0.7), inner(-2, 4, "#ffffff", 0.9)),
        part("p2", "Track", Box(width=88, height=34, corners="round"), x, y,
             linear((0, "#eda52c"), (1, "#ffd37a")), inner(3, 6, "#8a4c00", 0.7), inner(-2, 4, "#fff3cf", 0.7),
             OuterGlow(id="e1", extent=5, opacity=0.5, fill=Solid(colour="#ffc75e"))),
        part("p4", "Off mark", Line(across=0, down=10, width=2, caps="round"), 44, y - 5, solid("#b87a1a"),
             drop(1, 0, 0.6, colour="#fff3cf")),
        part("p5", "Knob", Round(width=30, height=30), sun_x, y, drop(4, 6, 0.42, colour="#5f3a02"),
             drop(1, 1.5, 0.4, colour="#5f3a02"), linear((0, "#fdfbf4"), (1, "#dcd6c6")),
             bevel(6, 4, softness=4, highlight_opacity=0.8, shade="#8c8163", shade_opacity=0.5),
             outline(0.75, (0, "#ffffff"), (1, "#a79c80", 0.6))),
        part("p6", "Ring", Ring(outer=5, inner=3.2), sun_x, y, ink, within="p9"),
        part("p7", "Ray", Box(width=1.6, height=3.2, radius=0.8), sun_x, y - 8.4, ink, within="p8"),
        part("p8", "Rays", Repeat(way="around", count=8), sun_x, y, within="p9"),
        part("p9", "Sun", Group(), sun_x, y, drop(1, 0, 0.9, colour="#ffffff")),
    ), margin=10)  # fmt: skip
