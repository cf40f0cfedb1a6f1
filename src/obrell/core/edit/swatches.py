"""What can be done to the swatches of a kit, and what that does to the colours that follow them."""

from __future__ import annotations

from collections.abc import Callable
from typing import TypeVar

from obrell.core.colour.links import literal
from obrell.core.document.colours import with_colours
from obrell.core.document.model import KitSettings, Swatch
from obrell.core.document.resolve import DAY, palette
from obrell.core.errors import NoSuchThing, Refused
from obrell.core.values.base import Value
from obrell.core.values.colours import Colour, SwatchLink
from obrell.core.values.slugs import free_id

MOST_SWATCHES = 200
ROLES = ("main", "metal", "label", "ground", "accent")
"""What swatches are most often for; words of one's own do too."""
SWATCH_GONE = "That swatch is no longer there: it was removed, perhaps in another window."
K = TypeVar("K", bound=KitSettings)
V = TypeVar("V", bound=Value)


def swatch_of(kit: KitSettings, swatch: str) -> Swatch:
    """A swatch by its id; raises ``NoSuchThing``."""
    for one in kit.swatches:
        if one.id == swatch:
            return one
    raise NoSuchThing(SWATCH_GONE)


def main_swatch(kit: KitSettings) -> str | None:
    """The colour of the swatch that is the kit's main one, else of its first; None when it has none."""
    ranked = sorted(kit.swatches, key=lambda one: one.role != ROLES[0])
    return palette(kit)[ranked[0].id] if ranked else None


def with_swatch(kit: K, name: str, colour: str, role: str = "") -> tuple[K, str]:
    """The kit with one more swatch, at the end, and its id."""
    _check_name(kit, name)
    if len(kit.swatches) >= MOST_SWATCHES:
        raise Refused(f"A kit can have at most {MOST_SWATCHES} swatches.")
    new = Swatch(id=free_id(name, (one.id for one in kit.swatches)), name=name, colour="#000000")
    return kit.evolve(swatches=(*kit.swatches, new.evolve(colour=colour, role=role))), new.id


def renamed(kit: K, swatch: str, name: str) -> K:
    """The kit with a swatch called otherwise."""
    _check_name(kit, name, but=swatch)
    return _each(kit, swatch, lambda one: one.evolve(name=name))


def with_role(kit: K, swatch: str, role: str) -> K:
    """The kit with another role for a swatch; empty for none."""
    return _each(kit, swatch, lambda one: one.evolve(role=role))


def coloured(kit: K, swatch: str, colour: str, colourway: str = DAY) -> K:
    """The kit with another colour for a swatch, its own or that of a colourway; raises ``NoSuchThing``."""
    if colourway == DAY:
        return _each(kit, swatch, lambda one: one.evolve(colour=colour, like=None))
    swatch_of(kit, swatch)
    palette(kit, colourway)
    ways = tuple(
        way.evolve(colours=way.colours | {swatch: colour}) if way.id == colourway else way for way in kit.colourways
    )
    return kit.evolve(colourways=ways)


def moved(kit: K, swatch: str, to: int) -> K:
    """The kit with a swatch at another place, 0 first."""
    own = swatch_of(kit, swatch)
    rest = [one for one in kit.swatches if one.id != swatch]
    rest.insert(min(max(to, 0), len(rest)), own)
    return kit.evolve(swatches=tuple(rest))


def without_swatch(kit: K, swatch: str, instead: str = "") -> K:
    """The kit without a swatch; its materials and gradients that follow it do as ``freed`` says."""
    swatch_of(kit, swatch)
    _check_instead(kit, swatch, instead)
    colourways = tuple(
        way.evolve(colours={name: colour for name, colour in way.colours.items() if name != swatch})
        for way in kit.colourways
    )
    return kit.evolve(
        materials=tuple(freed(one, kit, swatch, instead) for one in kit.materials),
        gradients=tuple(freed(one, kit, swatch, instead) for one in kit.gradients),
        swatches=tuple(
            one.evolve(like=instead or None, colour=palette(kit)[one.id]) if one.like == swatch else one
            for one in kit.swatches
            if one.id != swatch
        ),
        colourways=colourways,
    )


def freed(value: V, kit: KitSettings, swatch: str, instead: str = "") -> V:
    """A value in which nothing follows a swatch any more: what did has its colour of its own, or follows another
    swatch ``instead``, adjusted as before."""
    colours = palette(kit)
    _check_instead(kit, swatch, instead)

    def changed(colour: Colour) -> Colour:
        if not isinstance(colour, SwatchLink) or colour.swatch != swatch:
            return colour
        return colour.evolve(swatch=instead) if instead else literal(colour, colours)

    return with_colours(value, changed)


def _check_instead(kit: KitSettings, swatch: str, instead: str) -> None:
    if instead:
        swatch_of(kit, instead)
    if instead == swatch:
        raise Refused("A swatch cannot stand for itself.")


def _check_name(kit: KitSettings, name: str, but: str = "") -> None:
    if any(one.name.casefold() == name.casefold() for one in kit.swatches if one.id != but):
        raise Refused(f"There is a swatch “{name}” already. Give this one another name.")


def _each(kit: K, swatch: str, change: Callable[[Swatch], Swatch]) -> K:
    swatch_of(kit, swatch)
    return kit.evolve(swatches=tuple(change(one) if one.id == swatch else one for one in kit.swatches))
