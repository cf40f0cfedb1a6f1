"""The shipped materials, made for a part that is 40 px high."""

from __future__ import annotations

from typing import Any

from obrell.core.document.model import Material
from obrell.core.effects import (
    BackdropBlur,
    Bevel,
    DropShadow,
    Effect,
    Gloss,
    Grain,
    InnerGlow,
    OuterGlow,
    Outline,
    Paint,
    Sheen,
)  # fmt: skip
from obrell.core.effects.offsets import Cast
from obrell.core.shelf.making import EXTENT, Mark, drop, inner, numbered, paint, pool, stops
from obrell.core.values.blends import Blend
from obrell.core.values.paints import Conic, Fill, Linear, Solid, Texture

HAIR_PX = 1.01
"""Lines up to this width stay as they are at every size, as grain and scratches do: they belong to the stuff."""


def _conic(*marks: Mark, opacity: float = 1.0, blend: Blend = "normal", start: float = 0.0) -> Paint:
    return Paint(id="e0", fill=Conic(stops=stops(*marks), start=start), opacity=opacity, blend=blend)


def _texture(pattern: Any, first: str, second: str, **values: Any) -> Paint:
    more = {name: values.pop(name) for name in ("opacity", "blend") if name in values}
    return Paint(id="e0", fill=Texture(pattern=pattern, colour=first, second=second, **values), **more)


def _rim(
    *marks: Mark, width: float = 1.0, place: Any = "inside", opacity: float = 1.0, blend: Blend = "normal"
) -> Outline:
    fill: Fill = Solid(colour=marks[0][1]) if len(marks) == 1 else Linear(stops=stops(*marks))
    return Outline(id="e0", width=width, place=place, fill=fill, opacity=opacity, blend=blend)


def _bevel(width: float, rise: float, profile: Any = "bullnose", **values: Any) -> Bevel:
    return Bevel(id="e0", width=width, rise=rise, profile=profile, **values)


def _material(name: str, *effects: Effect) -> Material:
    within = numbered(effects)
    fixed = [f"{e.id}/width" for e in within if isinstance(e, Outline) and e.width <= HAIR_PX]
    fixed += [f"{e.id}/scale" for e in within if isinstance(e, Grain)]
    fixed += [f"{e.id}/fill/scale" for e in within if isinstance(e, Paint) and isinstance(e.fill, Texture)]
    ident = name.lower().replace(" ", "-").replace(",", "")
    return Material(id=f"shipped-{ident}", name=name, effects=within, extent=EXTENT, fixed=tuple(fixed))


STEEL = ((0, "#fbfaf6"), (0.22, "#d3d2cd"), (0.48, "#a3a29d"), (0.52, "#8e8d88"), (0.8, "#b9b8b3"), (1, "#d9d8d2"))
TURNED = (
    (0, "#f6f5f1"), (0.09, "#a9a8a4"), (0.2, "#d9d8d4"), (0.31, "#84837f"), (0.43, "#e9e8e4"), (0.56, "#9a9995"),
    (0.67, "#d2d1cd"), (0.79, "#7d7c78"), (0.91, "#c6c5c1"), (1, "#f6f5f1"),
)  # fmt: skip
BRASS = ((0, "#fdf0c0"), (0.24, "#e6c067"), (0.48, "#b98a2e"), (0.53, "#9d701c"), (0.8, "#d2a548"), (1, "#efd78f"))

SHIPPED: tuple[Material, ...] = (
    _material(
        "Clear glass", drop(3, 7, 0.3), drop(1, 1.5, 0.25),
        paint((0, "#e8f6f6", 0.5), (0.45, "#bfe3e4", 0.32), (1, "#f2fbfb", 0.6)),
        inner(-5, 9, 0.6, "#ffffff"), inner(2, 3, 0.5, "#2f6f78"), inner(0, 3, 0.35, "#0e454d"),
        Gloss(id="e0", form="cap", depth=0.48, inset=2, opacity=0.85, far=0.1, bend=0.06),
        _rim((0, "#ffffff", 0.9), (0.5, "#ffffff", 0.2), (1, "#ffffff", 0.75)),
    ),
    _material(
        "Frosted glass", drop(2, 6, 0.22), BackdropBlur(id="e0", radius=12),
        paint((0, "#ffffff", 0.62), (1, "#e4ecec", 0.42)), Grain(id="e0", opacity=0.05, scale=0.8),
        inner(1, 1, 0.7, "#ffffff"), inner(-2, 5, 0.25, "#7fa0a6"),
        _rim((0, "#ffffff", 0.95), (1, "#ffffff", 0.35)),
    ),
    _material(
        "Coloured gel", drop(4, 8, 0.4, "#06333a"), drop(1, 2, 0.4, "#06333a"),
        paint((0, "#0d5d68"), (0.55, "#178c98"), (1, "#4cd0d4")),
        inner(-6, 12, 0.65, "#a5f6f2", "screen"), inner(3, 7, 0.6, "#032b33"), inner(0, 2, 0.6, "#02262d"),
        Gloss(id="e0", form="cap", depth=0.46, inset=1.5, opacity=0.85, far=0.12, bend=0.05),
        _rim((0, "#053b44", 0.8), (1, "#0a6b76", 0.5)),
    ),
    _material(
        "Brushed steel", drop(3, 6, 0.36), drop(1, 1.5, 0.4), paint(*STEEL),
        _texture("brush", "#5c5b57", "#ffffff", contrast=1.1, scale=0.8, opacity=0.32, blend="overlay"),
        _bevel(2.5, 1.6, highlight_opacity=0.85, shade_opacity=0.5),
        _rim((0, "#ffffff", 0.9), (0.4, "#ffffff", 0.15), (1, "#3d3c39", 0.5)),
    ),
    _material(
        "Turned steel", drop(4, 7, 0.42), drop(1, 1.5, 0.45), _conic(*TURNED, start=-8),
        _texture("lathe", "#4c4b48", "#ffffff", contrast=1.2, scale=0.7, opacity=0.3, blend="overlay"),
        _bevel(3, 2, highlight_opacity=0.9, shade_opacity=0.55),
        _rim((0, "#ffffff", 0.95), (0.5, "#ffffff", 0.1), (1, "#2f2e2b", 0.55)),
    ),
    _material(
        "Brass", drop(3, 6, 0.38, "#2a1c02"), drop(1, 1.5, 0.4, "#2a1c02"), paint(*BRASS),
        _texture("brush", "#5b3f08", "#fff3c8", contrast=1.0, scale=0.8, opacity=0.22, blend="overlay"),
        Sheen(id="e0", distance=8, blur=10, tone="polished", opacity=0.28, colour="#fff6d8"),
        _bevel(3, 2, "ogee", highlight="#fff7d6", shade="#3d2600", highlight_opacity=0.95, shade_opacity=0.6),
        _rim((0, "#fffbe6", 0.95), (0.5, "#f6e2a4", 0.2), (1, "#4a3206", 0.6)),
    ),
    _material(
        "Anodised", drop(3, 6, 0.4), drop(1, 1.5, 0.4),
        paint((0, "#5a86c9"), (0.3, "#2f5ea8"), (0.5, "#1f4788"), (0.54, "#173a74"), (1, "#3e70b8")),
        _texture("brush", "#06142e", "#cfe0ff", contrast=0.9, scale=0.7, opacity=0.2, blend="overlay"),
        _bevel(1.6, 1.6, "chamfer", highlight="#dbe8ff", shade="#020a1c", highlight_opacity=0.9, shade_opacity=0.7),
        _rim((0, "#c9dcff", 0.7), (0.4, "#9cbcf2", 0.1), (1, "#030b1e", 0.5)),
    ),
    _material(
        "Mirror chrome", drop(4, 7, 0.42), drop(1, 1.5, 0.45),
        paint((0, "#ffffff"), (0.2, "#dfe8ee"), (0.42, "#8da2b0"), (0.495, "#dfe9ef"), (0.505, "#2b3238"),
               (0.66, "#5e6a72"), (0.86, "#c9d2d7"), (1, "#f6f9fa")),
        _bevel(5, 5, "bullnose", tone="polished", highlight_opacity=0.95, shade="#0a1216", shade_opacity=0.75),
        Sheen(id="e0", distance=7, blur=7, tone="two bands", opacity=0.28),
        _rim((0, "#ffffff"), (0.5, "#ffffff", 0.3), (1, "#1a2126", 0.7)),
    ),
    _material(
        "Glossy plastic", drop(4, 8, 0.36), drop(1, 2, 0.4),
        paint((0, "#f06a4f"), (0.5, "#d8402a"), (1, "#b02a18")),
        _bevel(8, 6, highlight_opacity=0.6, shade="#4a0a02", shade_opacity=0.55, softness=2),
        inner(-3, 7, 0.5, "#ffb39f", "screen"),
        Gloss(id="e0", form="horizon", depth=0.44, inset=3, opacity=0.75, far=0.08, bend=0.03, softness=0.6),
        _rim((0, "#ffb7a5", 0.7), (1, "#5a1006", 0.6)),
    ),
    _material(
        "Matt rubber", drop(3, 6, 0.42), drop(1, 1.5, 0.45),
        paint((0, "#4a4d4f"), (1, "#2b2d2f")),
        _texture("hide", "#17191a", "#6d7173", contrast=0.8, scale=2.2, opacity=0.3, blend="soft-light"),
        Grain(id="e0", opacity=0.08, scale=0.7),
        _bevel(7, 4, highlight_opacity=0.34, shade_opacity=0.6, softness=5),
        _rim((0, "#8f9496", 0.5), (0.5, "#8f9496", 0.08), (1, "#0b0c0d", 0.7)),
    ),
    _material(
        "Enamel", drop(3, 7, 0.38), drop(1, 1.5, 0.42),
        paint((0, "#5f8f45"), (0.5, "#447230"), (1, "#315722")),
        _bevel(4, 3, "ogee", highlight="#e6ffd6", shade="#0c1f04", highlight_opacity=0.75, shade_opacity=0.6),
        inner(2, 6, 0.25, "#c8f0a8", "screen"), inner(-3, 8, 0.45, "#14300a"),
        Gloss(id="e0", form="S-curve", depth=0.42, inset=4, opacity=0.4, far=0.1, bend=0.06, softness=1),
        _rim((0, "#cdeab6", 0.6), (1, "#0e2206", 0.6)),
    ),
    _material(
        "Lacquer", drop(4, 8, 0.4, "#1c0405"), drop(1, 1.5, 0.45, "#1c0405"),
        paint((0, "#9d1f26"), (0.5, "#760f17"), (1, "#4e070d")),
        Sheen(id="e0", distance=9, blur=12, tone="soft", opacity=0.35, colour="#ff9a8f"),
        _bevel(5, 4, softness=1.5, highlight="#ffd5cf", shade="#1c0002", highlight_opacity=0.7, shade_opacity=0.6),
        Gloss(id="e0", form="corner to corner", depth=0.42, inset=2.5, opacity=0.5, far=0.12, softness=0.4),
        _rim((0, "#ffb9b1", 0.55), (1, "#1f0203", 0.7)),
    ),
    _material(
        "Soft relief, raised", drop(4, 9, 0.28, "#8b8675"), DropShadow(
            id="e0", offset=Cast(distance=4, direction=180), blur=9, opacity=0.9, colour="#ffffff"),
        paint((0, "#f4f1e8"), (1, "#e2ded2")), inner(1, 1.5, 0.9, "#ffffff"), inner(-1, 2, 0.3, "#a9a391"),
    ),
    _material(
        "Soft relief, sunken", drop(1, 1, 0.9, "#ffffff"),
        paint((0, "#cfcabb"), (1, "#ebe7dc")), inner(3, 6, 0.55, "#7c7665"), inner(1, 2, 0.4, "#6a6454"),
        inner(-3, 6, 0.8, "#ffffff"),
    ),
    _material(
        "Lit lens", OuterGlow(id="e0", extent=12, opacity=0.65, fill=Solid(colour="#ffb638")), drop(1, 2, 0.45),
        pool((0, "#fff6cf"), (0.28, "#ffd463"), (0.62, "#f29a12"), (1, "#a85a02"), y=0.62, rx=0.62, ry=0.62),
        InnerGlow(id="e0", extent=6, opacity=0.55, fill=Solid(colour="#6e3200"), falloff="soft", blend="multiply"),
        inner(-4, 8, 0.7, "#ffe9a6", "screen"),
        Gloss(id="e0", form="cap", depth=0.42, inset=3, opacity=0.75, far=0.05, bend=0.08, softness=0.8),
        _bevel(3, 2.4, highlight="#fff4d4", shade="#4a2200", highlight_opacity=0.7, shade_opacity=0.55),
        _rim((0, "#5c2f02", 0.8), (1, "#ffd27a", 0.5)),
    ),
    _material(
        "Engraved", drop(1, 0, 0.85, "#ffffff"), paint((0, "#6f6c62"), (1, "#97938a")),
        inner(2, 2.5, 0.75, "#1d1b16"), inner(0.75, 0.5, 0.6, "#0f0e0b"), inner(-1, 1, 0.35, "#ffffff"),
    ),
    _material(
        "Paper press", drop(1, 0.5, 0.9, "#ffffff"), paint((0, "#efece2"), (1, "#f7f5ee")),
        Grain(id="e0", opacity=0.05, scale=0.9), inner(1.5, 3, 0.4, "#8b8470"), inner(0.5, 0.5, 0.3, "#6b6555"),
        inner(-1, 1.5, 0.8, "#ffffff"),
    ),
)  # fmt: skip
