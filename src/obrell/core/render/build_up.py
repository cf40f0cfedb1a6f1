"""The build-up of a part: the same control, with the part alone and one more effect each time."""

from __future__ import annotations

import time
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
    for effect in (e for zone in ZONES for e in part.effects if e.lies_in() == zone):
        count += effect.visible
        steps.append(BuildStep(count, effect.id, f"+ {effect.label.lower()}", not effect.visible))
    return steps


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
    parts = tuple(_upto(p, count) if p.id == part_id else p for p in control.parts if p.id in held)
    return control.evolve(parts=parts)


def _upto(part: Part, count: int | None) -> Part:
    effects = in_build_order(part)
    if count is not None:
        effects = effects[:count]
    bare_group = isinstance(part.shape, Group | Repeat) or not part.shape.plain
    if not bare_group and not any(effect.lies_in() == "surface" for effect in effects) and count is not None:
        bare = Paint(id="bare", fill=Solid(colour=BARE))
        effects = (*(e for e in effects if e.lies_in() == "behind"), bare)
    return part.evolve(effects=effects, visible=True, within=None, clip=None)
