"""Starts: effects that belong together, put on a part in one step. Made, as materials are, for 40 px."""

from __future__ import annotations

from obrell.core.document.model import Material
from obrell.core.effects import DropShadow, Effect, Gloss, InnerGlow, InnerShadow, OuterGlow
from obrell.core.effects.offsets import Cast
from obrell.core.shelf.making import EXTENT, drop, numbered, paint, pool
from obrell.core.values.paints import Solid

LIGHT, SHADE = "#ffffff", "#0c181c"


def _start(name: str, *effects: Effect) -> Material:
    """A start has the form of a material, but is put over what a part has."""
    within = numbered(effects)
    fixed = tuple(f"{effect.id}/offset/distance" for effect in within if _is_line(effect))
    return Material(id=f"start-{name.replace(' ', '-')}", name=name, effects=within, extent=EXTENT, fixed=fixed)


def _is_line(effect: Effect) -> bool:
    """Whether it draws a line of a pixel, which stays one at every size."""
    return isinstance(effect, InnerShadow | DropShadow) and effect.blur == 0


def _edge(by: float, blur: float, opacity: float, colour: str, *, below: bool = False) -> InnerShadow:
    """A line or a shade along the edge that lies towards the key light, or ``below`` along the one away from it."""
    cast = Cast(distance=by, follow=True, mirrored="down" if below else "no")
    return InnerShadow(id="e0", offset=cast, blur=blur, opacity=opacity, colour=colour)


STARTS: tuple[Material, ...] = (
    _start(
        "cap of light",
        pool((0, LIGHT, 0.4), (1, LIGHT, 0), y=1.0, rx=0.6, ry=0.55, blend="screen"),
        Gloss(id="e0", form="cap", depth=0.46, inset=2, opacity=0.6, far=0.08, bend=0.05),
        _edge(1, 0, 0.5, LIGHT),
    ),
    _start("lit rim", _edge(1, 0, 0.75, LIGHT), _edge(1, 0, 0.35, SHADE, below=True)),
    _start(
        "raised",
        drop(5, 9, 0.3),
        drop(1, 2, 0.35),
        paint((0, LIGHT, 0.22), (1, LIGHT, 0)),
        _edge(1, 0, 0.7, LIGHT),
        _edge(2, 3, 0.3, SHADE, below=True),
    ),
    _start("sunken", drop(1, 0, 0.6, LIGHT), _edge(3, 6, 0.5, SHADE), _edge(1, 1.5, 0.5, SHADE)),
    _start(
        "lit from within",
        OuterGlow(id="e0", extent=14, opacity=0.55, fill=Solid(colour="#ffd98a")),
        OuterGlow(id="e0", extent=4, opacity=0.7, fill=Solid(colour="#fff0c0")),
        InnerGlow(id="e0", extent=16, opacity=0.8, fill=Solid(colour="#fff3cf"), start="middle"),
    ),
    _start("stands on the ground", drop(1, 1.5, 0.45), drop(4, 6, 0.28), drop(10, 20, 0.22)),
)
