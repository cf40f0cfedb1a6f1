"""Starts: effects that belong together, put on a part in one step. Made, as materials are, for 40 px."""

from __future__ import annotations

from obrell.core.document.model import Material
from obrell.core.effects import DropShadow, Effect, Gloss, InnerGlow, InnerShadow, OuterGlow, Paint
from obrell.core.effects.offsets import Cast
from obrell.core.shelf.materials import EXTENT
from obrell.core.values.blends import Blend
from obrell.core.values.paints import Linear, Radial, Solid, Stop

LIGHT, SHADE = "#ffffff", "#0c181c"


def _start(name: str, *effects: Effect) -> Material:
    """A start has the form of a material, but is put over what a part has."""
    numbered = tuple(effect.evolve(id=f"e{number}") for number, effect in enumerate(effects, start=1))
    fixed = tuple(f"{effect.id}/offset/distance" for effect in numbered if _is_line(effect))
    return Material(id=f"start-{name.replace(' ', '-')}", name=name, effects=numbered, extent=EXTENT, fixed=fixed)


def _is_line(effect: Effect) -> bool:
    """Whether it draws a line of a pixel, which stays one at every size."""
    return isinstance(effect, InnerShadow | DropShadow) and effect.blur == 0


def _cast(by: float, *, below: bool = False) -> Cast:
    return Cast(distance=by, follow=True, mirrored="down" if below else "no")


def _edge(by: float, blur: float, colour: str, opacity: float, *, below: bool = False) -> InnerShadow:
    return InnerShadow(id="e0", offset=_cast(by, below=below), blur=blur, colour=colour, opacity=opacity)


def _fall(by: float, blur: float, opacity: float, colour: str = SHADE) -> DropShadow:
    return DropShadow(id="e0", offset=_cast(by), blur=blur, colour=colour, opacity=opacity)


def _fading(*stops: tuple[float, float], blend: Blend = "normal") -> Paint:
    marks = tuple(Stop(position=at, colour=LIGHT, opacity=opacity) for at, opacity in stops)
    return Paint(id="e0", fill=Linear(angle=180, stops=marks), blend=blend)


def _pool(opacity: float) -> Paint:
    stops = (Stop(position=0, colour=LIGHT, opacity=opacity), Stop(position=1, colour=LIGHT, opacity=0))
    fill = Radial(stops=stops, centre_x=0.5, centre_y=1.0, radius_x=0.6, radius_y=0.55)
    return Paint(id="e0", fill=fill, blend="screen")


STARTS: tuple[Material, ...] = (
    _start(
        "cap of light",
        _pool(0.4),
        Gloss(id="e0", form="cap", depth=0.46, inset=2, opacity=0.6, far=0.08, bend=0.05),
        _edge(1, 0, LIGHT, 0.5),
    ),
    _start("lit rim", _edge(1, 0, LIGHT, 0.75), _edge(1, 0, SHADE, 0.35, below=True)),
    _start(
        "raised",
        _fall(5, 9, 0.3),
        _fall(1, 2, 0.35),
        _fading((0, 0.22), (1, 0.0)),
        _edge(1, 0, LIGHT, 0.7),
        _edge(2, 3, SHADE, 0.3, below=True),
    ),
    _start("sunken", _fall(1, 0, 0.6, LIGHT), _edge(3, 6, SHADE, 0.5), _edge(1, 1.5, SHADE, 0.5)),
    _start(
        "lit from within",
        OuterGlow(id="e0", extent=14, opacity=0.55, fill=Solid(colour="#ffd98a")),
        OuterGlow(id="e0", extent=4, opacity=0.7, fill=Solid(colour="#fff0c0")),
        InnerGlow(id="e0", extent=16, opacity=0.8, fill=Solid(colour="#fff3cf"), start="middle"),
    ),
    _start("stands on the ground", _fall(1, 1.5, 0.45), _fall(4, 6, 0.28), _fall(10, 20, 0.22)),
)
