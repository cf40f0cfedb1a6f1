"""The sample kit, written as a colleague would dictate it: every part with its effects, back to front."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from obrell.core.document.model import Canvas, Control, Kit, Light, Part, Swatch
from obrell.core.effects import DropShadow, InnerShadow, Outline, Paint
from obrell.core.effects.offsets import Cast
from obrell.core.shapes import Box, Round, Text
from obrell.core.values.paints import Linear, Radial, Solid, Stop

Mark = tuple[float, str] | tuple[float, str, float]
"""Position, colour and, unless whole, opacity of a stop."""

DEEP = "#06323a"
NIGHT = "#10222a"


def wendmere_lock() -> Kit:
    """The kit with its three controls."""
    return Kit(
        id="wendmere-lock",
        name="Wendmere Lock",
        light=Light(direction=0, height=40),
        swatches=(
            Swatch(id="tarn", name="tarn", colour="#1f8a92", role="main"),
            Swatch(id="brass", name="brass", colour="#c9952c", role="metal"),
            Swatch(id="chalk", name="chalk", colour="#f1efe7", role="label"),
            Swatch(id="slate", name="slate", colour="#4d5b63", role="ground"),
            Swatch(id="signal", name="signal", colour="#cf3a26", role="accent"),
            Swatch(id="moss", name="moss", colour="#5e8a3a", role="go"),
        ),
        controls=(raise_sluice(), pilot_lamp(), log_entry()),
    )


def raise_sluice() -> Control:
    """A glass capsule: collar, two-tone body, light caught at its foot, gloss cap, label."""
    collar = _part(
        "p1", "Collar", Box(width=178, height=44, corners="round"), 106, 40,
        _drop(6, 12, 0.36, spread=-3), _drop(2, 3, 0.42),
        _linear((0, "#fbf8ef"), (0.34, "#d9d3c2"), (0.62, "#8f8a7c"), (1, "#ddd7c7")),
        _outline(1, (0, "#ffffff", 0.95), (0.45, "#ffffff", 0.15), (1, "#5f5b50", 0.35)),
    )  # fmt: skip
    body = _part(
        "p2", "Body", Box(width=172, height=38, corners="round"), 106, 40,
        _linear((0, "#4aa7b1"), (0.47, "#2a8c97"), (0.5, "#1a7580"), (0.78, "#14626d"), (1, "#2a93a0")),
        _inner(-3, 9, "#7fe6ea", 0.5, blend="screen"),
        _inner(3, 7, "#052d36", 0.55, blend="multiply"),
        _inner(0, 2, "#04252d", 0.6, spread=0.5, blend="multiply"),
    )  # fmt: skip
    foot = _part(
        "p3", "Foot light", Round(width=166, height=21), 106, 50,
        _radial((0, "#a8f3ee", 0.58), (0.4, "#86e4e6", 0.3), (0.7, "#62d0d6", 0.1), (1, "#4fc4cc", 0)),
        blend="screen",
    )  # fmt: skip
    gloss = _part(
        "p4", "Gloss", Box(width=160, height=16, corners="four", top_left=9, top_right=9,
                           bottom_right=7, bottom_left=7), 106, 31,
        _linear((0, "#ffffff", 0.82), (0.5, "#ffffff", 0.38), (1, "#ffffff", 0.14)),
    )  # fmt: skip
    label = _part(
        "p5", "Label", Text(words="Raise sluice", size=15, weight=650, tracking=0.2), 106, 40.5,
        _drop(1, 1.5, 0.7, colour=DEEP), _solid("#ffffff"),
    )  # fmt: skip
    return _control("c1", "Raise sluice", 212, 80, (collar, body, foot, gloss, label))


def pilot_lamp() -> Control:
    """An amber lens in a turned seat, lit from inside."""
    seat = _part(
        "p1", "Seat", Round(width=66, height=66), 48, 46,
        _drop(6, 11, 0.4, spread=-3), _drop(2, 3, 0.4),
        _linear((0, "#f7f6f1"), (0.4, "#c3c1b9"), (0.7, "#8b8a84"), (1, "#bdbbb3")),
        _outline(1, (0, "#ffffff", 0.95), (0.5, "#ffffff", 0.1), (1, "#3d3c38", 0.35)),
    )  # fmt: skip
    rim = _part(
        "p2", "Rim", Round(width=56, height=56), 48, 46,
        _linear((0, "#5d5b55"), (0.45, "#98968e"), (1, "#f4f2ec")),
        _outline(0.5, (0, "#2b2a27", 0.6), (1, "#ffffff", 0.5)),
    )  # fmt: skip
    well = _part("p3", "Well", Round(width=50, height=50), 48, 46, _solid("#2a1502"))
    lens = _part(
        "p4", "Lens", Round(width=48, height=48), 48, 46,
        Paint(id="e1", fill=Radial(
            centre_y=0.72, radius_x=0.62, radius_y=0.66,
            stops=_stops(
                (0, "#fff3b4"), (0.24, "#ffd24f"), (0.56, "#f39a12"), (0.82, "#b9600a"), (1, "#7c3a05")
            ),
        )),
        _inner(4, 9, "#5a2500", 0.75, blend="multiply"),
        _inner(-3, 6, "#ffe9a0", 0.6, blend="screen"),
        _inner(0, 2.5, "#3a1600", 0.55, spread=0.25),
    )  # fmt: skip
    gloss = _part(
        "p5", "Gloss", Round(width=35, height=20), 48, 34,
        _linear((0, "#ffffff", 0.85), (0.55, "#ffffff", 0.28), (1, "#ffffff", 0.02)),
    )  # fmt: skip
    spark = _part(
        "p6", "Spark", Round(width=22, height=9), 48, 63,
        _radial((0, "#ffffff", 0.75), (0.5, "#fff2c0", 0.3), (1, "#ffe9a0", 0)), blend="screen",
    )  # fmt: skip
    return _control("c2", "Pilot lamp", 96, 96, (seat, rim, well, lens, gloss, spark))


def log_entry() -> Control:
    """A quiet flat key: paper, a lighter rim of one pixel, a soft cool shadow."""
    body = _part(
        "p1", "Body", Box(width=130, height=32, radius=7), 75, 24,
        _drop(4, 7, 0.24, colour="#31505e", spread=-1), _drop(1, 2, 0.24, colour="#31505e"),
        _drop(0, 0, 0.2, colour="#31505e", spread=1),
        _linear((0, "#fcfbf8"), (1, "#ece9e0")),
        _outline(1, (0, "#ffffff", 1), (1, "#ffffff", 0.55)),
    )  # fmt: skip
    label = _part(
        "p2", "Label", Text(words="Log entry", size=14, weight=620), 75, 24,
        _drop(-1, 0, 0.9, colour="#ffffff"), _solid("#27343b"),
    )  # fmt: skip
    return _control("c3", "Log entry", 150, 52, (body, label))


def _control(id_: str, name: str, width: float, height: float, parts: Sequence[Part]) -> Control:
    canvas = Canvas(width=width, height=height, margin=12)
    numbers = [int(e.id[1:]) for part in parts for e in part.effects] + [int(p.id[1:]) for p in parts]
    return Control(id=id_, name=name, canvas=canvas, parts=tuple(parts), next_number=max(numbers) + 1)


def _part(
    id_: str, name: str, shape: Box | Round | Text, x: float, y: float, *effects: Any, blend: Any = "normal"
) -> Part:  # fmt: skip
    numbered = tuple(effect.evolve(id=f"e{number}") for number, effect in enumerate(effects, start=1))
    return Part(id=id_, name=name, shape=shape, x=x, y=y, blend=blend, effects=numbered)


def _stops(*marks: Mark) -> tuple[Stop, ...]:
    return tuple(Stop(position=mark[0], colour=mark[1], opacity=mark[2] if len(mark) == 3 else 1.0) for mark in marks)


def _linear(*marks: Mark) -> Paint:
    return Paint(id="e1", fill=Linear(stops=_stops(*marks)))


def _radial(*marks: Mark) -> Paint:
    return Paint(id="e1", fill=Radial(stops=_stops(*marks)))


def _solid(colour: str) -> Paint:
    return Paint(id="e1", fill=Solid(colour=colour))


def _falls(down: float) -> Cast:
    """Straight down from the key light, or up when negative."""
    return Cast(distance=down, follow=True) if down >= 0 else Cast(direction=180, distance=-down)


def _drop(down: float, blur: float, opacity: float, *, colour: str = NIGHT, spread: float = 0) -> DropShadow:
    return DropShadow(id="e1", offset=_falls(down), blur=blur, spread=spread, colour=colour, opacity=opacity)


def _inner(
    down: float, blur: float, colour: str, opacity: float, *, spread: float = 0, blend: Any = "normal"
) -> InnerShadow:
    return InnerShadow(
        id="e1", offset=_falls(down), blur=blur, spread=spread, colour=colour, opacity=opacity, blend=blend
    )


def _outline(width: float, *marks: Mark) -> Outline:
    return Outline(id="e1", width=width, fill=Linear(stops=_stops(*marks)))
