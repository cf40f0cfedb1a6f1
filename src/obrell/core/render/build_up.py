"""The build-up of a part: the same control, with the part alone and one more effect each time."""

from __future__ import annotations

import time
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from obrell.core.document.model import Control, KitSettings, Part
from obrell.core.document.resolve import resolve
from obrell.core.document.tree import descendants
from obrell.core.effects import AnyEffect, Paint
from obrell.core.effects.base import ZONES
from obrell.core.render.cache import PixelCache
from obrell.core.render.compose import Frame, canvas_box, draw
from obrell.core.shapes import Group, Repeat
from obrell.core.values.paints import Solid

BARE = "#9aa5a6"
"""What the bare shape is shown in."""


@dataclass(frozen=True, slots=True)
class BuildStep:
    """One picture of the strip: how many shown effects it has, the id and label of the step's own, and whether
    that is hidden, so that the step changes nothing."""

    count: int
    effect: str
    label: str
    hidden: bool = False


def in_build_order(part: Part) -> tuple[AnyEffect, ...]:
    """Shown effects in the order they are painted: behind, surface, edge, whole."""
    return tuple(e for zone in ZONES for e in part.effects if e.lies_in() == zone and e.visible)


def build_steps(part: Part) -> list[BuildStep]:
    """The strip's pictures, from the bare shape on."""
    steps = [BuildStep(0, "", "shape")]
    count = 0
    effects = [e for zone in ZONES for e in part.effects if e.lies_in() == zone]
    for effect, name in zip(effects, told_apart(effects), strict=True):
        count += effect.visible
        steps.append(BuildStep(count, effect.id, f"+ {name}", not effect.visible))
    return steps


def told_apart(effects: Sequence[AnyEffect]) -> list[str]:
    """What each of several effects is called: its kind; where that is there more than once, with the least that tells
    it from the others, and at last with its number."""
    kinds = [effect.said for effect in effects]
    names = dict.fromkeys(range(len(effects)), "")
    for kind in dict.fromkeys(kinds):
        alike = [place for place, other in enumerate(kinds) if other == kind]
        for place, words in zip(alike, _telling([effects[place] for place in alike]), strict=True):
            names[place] = ", ".join((kind, *words))
    return _numbered(list(names.values()))


def _telling(alike: Sequence[AnyEffect]) -> list[tuple[str, ...]]:
    """Words that tell effects of one kind apart: of what can be said, first what divides them most."""
    words: list[tuple[str, ...]] = [()] * len(alike)
    tells = [_colour, _blend, _fill]
    while tells and len(set(words)) < len(words):
        said = {tell: [(*one, tell(effect)) for one, effect in zip(words, alike, strict=True)] for tell in tells}
        best = max(tells, key=lambda tell: len(set(said[tell])))
        if len(set(said[best])) == len(set(words)):
            break
        words = said[best]
        tells.remove(best)
    return [tuple(word for word in one if word) for one in words]


def _numbered(names: list[str]) -> list[str]:
    """Names that are still there more than once, with their number."""
    counted, seen = Counter(names), Counter[str]()
    for place, name in enumerate(names):
        seen[name] += 1
        if counted[name] > 1:
            names[place] = f"{name} {seen[name]}"
    return names


def _fill(effect: AnyEffect) -> str:
    fill = getattr(effect, "fill", None)
    return str(getattr(fill, "kind", ""))


def _blend(effect: AnyEffect) -> str:
    return "" if effect.blend == "normal" else effect.blend


def _colour(effect: AnyEffect) -> str:
    fill = getattr(effect, "fill", effect)
    colour = getattr(fill, "colour", "")
    return colour if isinstance(colour, str) and colour else _fill(effect)


def costs(kit: KitSettings, control: Control, part_id: str, density: float) -> list[float]:
    """What each step of the strip adds to the time of drawing the part by itself, milliseconds; nothing is
    kept from one step to the next."""
    part = next(part for part in control.parts if part.id == part_id)
    spent = []
    for step in build_steps(part):
        resolved = resolve(kit, only(control, part_id, step.count))
        began = time.perf_counter()
        draw(resolved, Frame(density, canvas_box(resolved, density)), PixelCache())
        spent.append((time.perf_counter() - began) * 1000)
    return [spent[0], *(max(0.0, after - before) for before, after in pairwise(spent))]


def only(control: Control, part_id: str, count: int | None = None) -> Control:
    """The control with one part alone and its first ``count`` effects; all of them when None."""
    held = descendants(control, (part_id,))
    parts = tuple(upto(p, count) if p.id == part_id else p for p in control.parts if p.id in held)
    return control.evolve(parts=parts)


def upto(part: Part, count: int | None) -> Part:
    """The part by itself with its first ``count`` effects; all of them when None."""
    effects = in_build_order(part)
    if count is not None:
        effects = effects[:count]
    bare_group = isinstance(part.shape, Group | Repeat) or not part.shape.plain
    coming = count == 0 or any(effect.lies_in() == "surface" for effect in part.effects)
    covered = any(effect.lies_in() == "surface" for effect in effects)
    if not bare_group and coming and not covered and count is not None:
        bare = Paint(id="bare", fill=Solid(colour=BARE))
        effects = (*(e for e in effects if e.lies_in() == "behind"), bare)
    return part.evolve(effects=effects, visible=True, within=None, clip=None)
