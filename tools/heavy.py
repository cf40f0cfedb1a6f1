"""The control that speed is measured with: five parts, some 25 effects, 320 × 120."""

from __future__ import annotations

from pydantic import TypeAdapter

from obrell.core.document.model import Canvas, Control, KitSettings, Part
from obrell.core.effects import EFFECTS, AnyEffect, DropShadow, Effect, InnerShadow, Outline, Paint
from obrell.core.effects.offsets import Cast
from obrell.core.shapes import Box, Round, Shape, Text
from obrell.core.values.paints import Linear, Radial, Solid, Stop

ANY_EFFECT: TypeAdapter[AnyEffect] = TypeAdapter(AnyEffect)
KIT = KitSettings(id="bench", name="Bench")


def heavy(repeats: int = 1, *, blurs: bool = True, width: float = 320, height: float = 120) -> Control:
    """Five parts with 25 effects, every effect ``repeats`` times; without ``blurs`` no shadows."""
    x, y = width / 2, height / 2
    pill = Box(width=width * 0.84, height=height * 0.5, corners="round")
    collar = Box(width=width * 0.88, height=height * 0.56, corners="round")
    gloss = Box(width=width * 0.8, height=height * 0.2, radius=11)
    parts: tuple[Part, ...] = (
        _part("p1", collar, x, y, _collar()),
        _part("p2", pill, x, y, _body()),
        _part("p3", gloss, x, y - height * 0.12, _gloss()),
        _part("p4", Round(width=height * 0.3, height=height * 0.3), x - width * 0.3, y, _lamp()),
        _part("p5", Text(words="Raise sluice", size=height * 0.18, weight=640), x + 10, y, _label()),
    )
    if not blurs:
        parts = tuple(p.evolve(effects=tuple(e for e in p.effects if not hasattr(e, "blur"))) for p in parts)
    canvas = Canvas(width=width, height=height)
    return Control(id="heavy", name="Heavy", canvas=canvas, parts=tuple(_again(p, repeats) for p in parts))


def all_kinds() -> Control:
    """Five parts on which every kind of effect occurs, 25 in all, 320 × 120."""
    kinds = [kind for kind in EFFECTS if kind != "mask"]
    names = [kinds[number % len(kinds)] for number in range(5 * 5 - 1)] + ["mask"]
    made: list[Effect] = [ANY_EFFECT.validate_python({"kind": name, "id": "e"}) for name in names]
    shapes: list[Shape] = [
        Box(width=270, height=64, corners="round"), Box(width=250, height=48, radius=12), Round(width=60, height=60),
        Round(width=36, height=36), Text(words="Raise sluice", size=22, weight=640),
    ]  # fmt: skip
    parts = tuple(_part(f"p{n + 1}", shape, 160, 60, made[5 * n : 5 * n + 5]) for n, shape in enumerate(shapes))
    return Control(id="all", name="All kinds", canvas=Canvas(width=320, height=120), parts=parts)


def _part(id_: str, shape: Shape, x: float, y: float, effects: list[Effect]) -> Part:
    numbered = [effect.evolve(id=f"e{number}") for number, effect in enumerate(effects, start=1)]
    return Part.model_validate({"id": id_, "name": id_, "shape": shape, "x": x, "y": y, "effects": numbered})


def _again(part: Part, repeats: int) -> Part:
    many = [effect.evolve(id=f"{e}r{r}") for r in range(repeats) for e, effect in _named(part)]
    return part.evolve(effects=tuple(many))


def _named(part: Part) -> list[tuple[str, Effect]]:
    return [(effect.id, effect) for effect in part.effects]


def _ramp(*colours: str) -> Linear:
    last = len(colours) - 1
    return Linear(stops=tuple(Stop(position=i / last, colour=c) for i, c in enumerate(colours)))


def _drop(distance: float, blur: float, opacity: float) -> DropShadow:
    return DropShadow(id="e", offset=Cast(distance=distance), blur=blur, opacity=opacity)


def _inner(direction: float, distance: float, blur: float, colour: str) -> InnerShadow:
    return InnerShadow(
        id="e", offset=Cast(direction=direction, distance=distance), blur=blur, colour=colour, opacity=0.5
    )


def _edge(width: float, place: str, *colours: str) -> Outline:
    fill = _ramp(*colours) if len(colours) > 1 else Solid(colour=colours[0])
    return Outline.model_validate({"id": "e", "place": place, "width": width, "fill": fill})


def _collar() -> list[Effect]:
    return [
        _drop(9, 18, 0.35), _drop(2, 4, 0.4), _drop(0, 1, 0.3),
        Paint(id="e", fill=_ramp("#fbf8ef", "#d9d3c2", "#8f8a7c", "#ddd7c7")),
        _inner(180, 1, 2, "#5f5b50"), _edge(1, "inside", "#ffffff", "#5f5b50"),
    ]  # fmt: skip


def _body() -> list[Effect]:
    return [
        _drop(1, 3, 0.5), Paint(id="e", fill=_ramp("#4aa7b1", "#1a7580", "#2a93a0")),
        _inner(180, 4, 12, "#7fe6ea"), _inner(0, 3, 8, "#052d36"), _inner(0, 0, 3, "#04252d"),
        _edge(1, "inside", "#f1efe7"), _edge(1.5, "outside", "#0b3d44", "#135761"),
    ]  # fmt: skip


def _gloss() -> list[Effect]:
    return [
        Paint(id="e", opacity=0.4, fill=_ramp("#ffffff", "#bfe3e6")), _inner(180, 2, 6, "#ffffff"),
        _edge(0.5, "inside", "#ffffff"),
    ]  # fmt: skip


def _lamp() -> list[Effect]:
    glow = Radial(stops=(Stop(position=0, colour="#fff3b4"), Stop(position=1, colour="#b9600a")), centre_y=0.7)
    return [
        _drop(1, 6, 0.6), Paint(id="e", fill=glow), _inner(0, 3, 6, "#5a2500"), _inner(180, 2, 4, "#ffe9a0"),
        _edge(1, "centre", "#3a1600"),
    ]  # fmt: skip


def _label() -> list[Effect]:
    return [
        _drop(1, 2, 0.7), _drop(0, 6, 0.4), Paint(id="e", fill=_ramp("#ffffff", "#d8eef0")),
        _inner(0, 1, 1, "#ffffff"),
    ]  # fmt: skip
