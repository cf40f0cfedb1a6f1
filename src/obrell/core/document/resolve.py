"""A control as it looks in one state and colourway: overrides applied, links made literal."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import partial
from typing import Any

from obrell.core.colour.links import literal
from obrell.core.document.colours import with_colours
from obrell.core.document.model import PLAIN_GROUND, REST, Control, Fit, KitSettings, Light, Part, Swatch
from obrell.core.document.readings import Readings, seen
from obrell.core.document.swatch_uses import swatches_of
from obrell.core.document.tree import Tree, arranged
from obrell.core.effects import Effect, Paint
from obrell.core.effects.base import Lamp
from obrell.core.errors import NoSuchThing
from obrell.core.paint.fills import mean_colour
from obrell.core.shapes import Box
from obrell.core.values.base import Value
from obrell.core.values.colours import SwatchLink
from obrell.core.values.paints import Fill, Picture, Solid
from obrell.core.workspace import OfObject

COMMON_GROUNDS: dict[str, Fill] = {
    "light": PLAIN_GROUND, "white": Solid(colour="#ffffff"), "mid": Solid(colour="#8d9396"),
    "dark": Solid(colour="#1e282e"), "coloured": Solid(colour="#7c2d22"),
}  # fmt: skip
"""As the theme's style sheet has them; a chequered ground is none at all."""
GROUND = "@ground"
"""What stands for the ground's colour among the colours of a palette; no swatch is called so."""
DAY, DAY_NAME = "day", "Day"
"""The colourway that is the swatches' own colours."""


def background_of(control: Control) -> Fill | None:
    """Return what a control is looked at on; None for a chequered ground."""
    stands = control.stands_on
    return control.ground or PLAIN_GROUND if stands == "own" else COMMON_GROUNDS.get(stands)


@dataclass(frozen=True, slots=True)
class Resolved:
    """What the renderer draws: literal colours only, one light, one default for pixel fit."""

    control: Control
    light: Light
    fit: Fit
    tree: Tree

    def standing(self) -> Resolved:
        """The same with what it stands on behind all parts; on a chequered ground nothing is."""
        fill = background_of(self.control)
        return self if fill is None else self._of((self._ground(fill), *self.control.parts))

    def ground_alone(self) -> Resolved:
        """Its own ground and nothing else."""
        return self._of((self._ground(self.control.ground or PLAIN_GROUND),))

    def _of(self, parts: tuple[Part, ...]) -> Resolved:
        control = self.control.evolve(parts=parts)
        return replace(self, control=control, tree=arranged(control))

    def _ground(self, fill: Fill) -> Part:
        width, height = self.control.canvas.width, self.control.canvas.height
        paint = Paint(id="e1", fill=fill)
        box = Box(width=math.ceil(width), height=math.ceil(height))
        return Part(
            id="ground", name="Ground", shape=box, x=box.width / 2, y=box.height / 2, effects=(paint,), fit="off"
        )

    @property
    def lamp(self) -> Lamp:
        """The key light as effects take it."""
        return Lamp(self.light.direction, self.light.height)


def resolve(
    kit: KitSettings, control: Control, state: str = REST, colourway: str = DAY, readings: Readings = ()
) -> Resolved:  # fmt: skip
    """The control in ``state`` and ``colourway``, both by id, with some of its ``readings`` at other numbers than
    where they begin; raises ``NoSuchThing`` and ``BadValue``. In this order: what differs in the state is laid over
    rest, readings drive values, lengths that follow others are settled, links become colours."""
    if isinstance(control.ground, Picture):
        # What is taken up of its colour changes when the picture is brought in later.
        return _resolved(kit, control, state, colourway, readings)
    around = (kit.light, kit.fit, tuple(palette(kit, colourway).items()), state, readings)
    return _RESOLVED.get(control, around, lambda: _resolved(kit, control, state, colourway, readings))


_RESOLVED = OfObject[Resolved](128)
"""An edit is tried, shown and looked over: the same document each time; a panel shows many, in many states."""


def _resolved(kit: KitSettings, control: Control, state: str, colourway: str, readings: Readings) -> Resolved:
    colours = palette(kit, colourway)
    shown = seen(control, state, readings, colours)
    light = shown.light or kit.light
    literal_control = _with_literals(shown, colours)
    return Resolved(literal_control, light, kit.fit, arranged(literal_control))


def palette(kit: KitSettings, colourway: str = DAY) -> Mapping[str, str]:
    """Each swatch's colour by its id; one that is like another has that one's, but where a colourway says its own."""
    way: Mapping[str, str] = {}
    if colourway != DAY:
        found = next((candidate for candidate in kit.colourways if candidate.id == colourway), None)
        if found is None:
            raise NoSuchThing(f"The kit has no colourway “{colourway}”.")
        way = found.colours
    known = {swatch.id: swatch for swatch in kit.swatches}
    return {name: _of_swatch(known, way, name) for name in known}


def colourway_or_day(kit: KitSettings, colourway: str) -> str:
    """A colourway of the kit by its id, or Day where the kit has it no more."""
    return colourway if any(one.id == colourway for one in kit.colourways) else DAY


def _of_swatch(known: Mapping[str, Swatch], way: Mapping[str, str], name: str) -> str:
    """A swatch's colour, or that of the first it is like that has one; of a circle, its own."""
    here, seen = known[name], {name}
    while here.id not in way and here.like is not None and here.like in known:
        if here.like in seen:
            return known[name].colour
        here = known[here.like]
        seen.add(here.id)
    return way.get(here.id, here.colour)


_LITERAL = OfObject[Part](8192)


def _with_literals(control: Control, colours: Mapping[str, str]) -> Control:
    ground = _literal(control.ground, colours)
    under = _colour_of(ground or PLAIN_GROUND)
    colours = {**colours, GROUND: under}
    parts = tuple(
        _LITERAL.get(part, (under, *map(colours.get, swatches_of(part))), partial(_literal, part, colours))
        for part in control.parts
    )
    changed = any(new is not old for new, old in zip(parts, control.parts, strict=True))
    if not changed and ground is control.ground:
        return control
    return control.evolve(parts=parts, ground=ground)


def ground_colour(control: Control, colours: Mapping[str, str]) -> str:
    """Return the mean colour, ``#rrggbb``, of what a control is looked at on, given each swatch's colour by its id;
    that of the plain ground where it is a chequered one, or its picture is not stored here."""
    ground = background_of(control) or PLAIN_GROUND
    return _colour_of(with_colours(ground, lambda colour: literal(colour, colours)))


def _colour_of(ground: Fill) -> str:
    """The ground's mean colour; that of the plain one when its picture is not stored here."""
    try:
        return mean_colour(ground)
    except NoSuchThing:
        return mean_colour(PLAIN_GROUND)


def _literal(value: Any, colours: Mapping[str, str]) -> Any:
    """``value`` with every link replaced; values without links stay the same objects."""
    if isinstance(value, SwatchLink):
        return literal(value, colours)
    if isinstance(value, tuple):
        items = tuple(_literal(item, colours) for item in value)
        changed = any(new is not old for new, old in zip(items, value, strict=True))
        return items if changed else value
    if not isinstance(value, Value):
        return value
    changes = {}
    for name, old in vars(value).items():
        if isinstance(old, Value | tuple):
            new = _literal(old, colours)
            if new is not old:
                changes[name] = new
    # Nothing but colours differs, and those are valid: checking all else again would take most of the time.
    made = value.model_copy(update=changes) if changes else value
    return made.on_ground(colours[GROUND]) if isinstance(made, Effect) else made
