"""Whole controls in other hues: what is light stays light, accents and what is not chosen stay as they are."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from obrell.core.colour.gamut import from_oklch
from obrell.core.colour.links import half_turn, literal, match, nearest, turned_in_hue
from obrell.core.colour.spaces import from_hex, to_hex, to_oklch
from obrell.core.document.colours import Fellows, Place, drawn_places, with_colours_among
from obrell.core.document.model import Control, Swatch
from obrell.core.edit.base import Edit, Surroundings
from obrell.core.edit.swatches import ROLES, SWATCH_GONE
from obrell.core.errors import NoSuchThing, Refused
from obrell.core.values.colours import MOST_CHROMA, Colour, SwatchLink, follows
from obrell.core.values.fields import Angle, Id

GREY_CHROMA = 0.025
"""Chroma of OKLCH below which a colour of its own has no hue to be turned."""
SAME_HUE = 35.0
"""Degrees within which a colour of its own counts to the swatch it is nearest to."""
SECTOR = 30
MOST_STRENGTH = 4.0
TINT_LIGHTNESS, TINT_CHROMA = 0.6, 0.13
GREYS = "greys"
HUES = 12
GroupId = Annotated[str, Field(pattern=r"^[a-z][a-z0-9-]{0,39}$")]


@dataclass(frozen=True, slots=True)
class Group:
    """Colours that are turned together: those that follow a swatch or are near to one, or of about one hue."""

    id: str
    name: str
    role: str
    colours: tuple[str, ...]
    """As they look, the most colourful first."""
    count: int


class Grouping:
    """Finds the groups of colours in a palette: a swatch's id, ``greys``, or ``hue-30`` and the like. What follows a
    swatch is of that; the stops of a gradient that do not are all of the group that is strongest among them."""

    def __init__(self, palette: Mapping[str, str]) -> None:
        self._palette = palette
        self._known: dict[Fellows, str] = {}

    def of(self, colour: Colour, fellows: Fellows = ()) -> str:
        """The group of a colour, alone or among the stops of its gradient."""
        link = follows(colour)
        return link.swatch if link is not None else self._together(fellows or (colour,))

    def at(self, place: Place) -> str:
        """The group of a colour where it stands."""
        return self.of(place.colour, place.fellows)

    def _together(self, colours: Fellows) -> str:
        if colours not in self._known:
            weights: dict[str, float] = {}
            for colour in colours:
                if follows(colour) is None:
                    group = _own_group(colour, self._palette)
                    weights[group] = weights.get(group, 0.0) + _chroma(literal(colour, self._palette))
            self._known[colours] = max(weights, key=lambda group: (group != GREYS, weights[group]))
        return self._known[colours]


def _own_group(colour: Colour, palette: Mapping[str, str]) -> str:
    """The group of a colour that follows nothing, by itself."""
    seen = literal(colour, palette)
    _, chroma, hue = to_oklch(from_hex(seen))
    if chroma < GREY_CHROMA:
        return GREYS
    found = nearest(seen, palette)
    if found is not None and abs(half_turn(hue - to_oklch(from_hex(palette[found.link.swatch]))[2])) < SAME_HUE:
        return found.link.swatch
    return f"hue-{round(hue / SECTOR) * SECTOR % 360}"


def groups_of(controls: Iterable[Control], swatches: Sequence[Swatch]) -> list[Group]:
    """The groups of colours that controls are drawn with, the most used first."""
    palette = {swatch.id: swatch.colour for swatch in swatches}
    known = {swatch.id: swatch for swatch in swatches}
    counted: dict[str, Counter[str]] = {}
    grouping = Grouping(palette)
    for control in controls:
        for place in drawn_places(control):
            group = grouping.at(place)
            counted.setdefault(group, Counter())[literal(place.colour, palette)] += 1
    found = [
        Group(
            name, known[name].name if name in known else _called(name), known[name].role if name in known else "",
            tuple(sorted(colours, key=_chroma, reverse=True)), colours.total(),
        )
        for name, colours in counted.items()
    ]  # fmt: skip
    return sorted(found, key=lambda group: -group.count)


def _chroma(colour: str) -> float:
    return to_oklch(from_hex(colour))[1]


def _called(group: str) -> str:
    return "greys" if group == GREYS else f"about {group.removeprefix('hue-')}°"


def usual(groups: Sequence[Group]) -> tuple[str, ...]:
    """The groups that are turned unless others are chosen: those of the main role; else the most used that has a hue
    and no role of its own; else any but greys and accents."""
    main = tuple(group.id for group in groups if group.role == ROLES[0])
    free = [group.id for group in groups if group.id != GREYS and group.role not in ROLES[1:]]
    others = [group.id for group in groups if group.id != GREYS and group.role not in ("accent", "label", "ground")]
    return main or tuple(free[:1]) or tuple(others[:1])


class Recolour(Edit):
    """Groups of colours turned in OKLCH ``to_hue``, degrees, measured from the hue they have together, or ``by``
    degrees; or made to follow a ``swatch`` as they are to each other. Lightness is kept, chroma multiplied by
    ``strength``, and what leaves the gamut mapped as CSS Color 4 does. What follows a swatch goes on following."""

    with_states: ClassVar[bool] = True
    kind: Literal["recolour"] = "recolour"
    groups: Annotated[tuple[GroupId, ...], Field(max_length=220)]
    to_hue: Angle | None = None
    by: Angle = 0.0
    strength: Annotated[float, Field(ge=0, le=MOST_STRENGTH)] = 1.0
    swatch: Id | None = None

    def apply(self, control: Control, around: Surroundings) -> Control:
        palette = around.palette
        if not self.groups:
            raise Refused("Choose colours to turn first.")
        if self.swatch is not None and self.swatch not in palette:
            raise NoSuchThing(SWATCH_GONE)
        turn = self.turn_of(control, palette)
        wanted, grouping = frozenset(self.groups), Grouping(palette)

        def changed(colour: Colour, fellows: Fellows) -> Colour:
            return self._turned(colour, palette, turn) if grouping.of(colour, fellows) in wanted else colour

        parts = tuple(part if part.locked else with_colours_among(part, changed) for part in control.parts)
        ground = None if control.ground is None else with_colours_among(control.ground, changed)
        return control.evolve(parts=parts, ground=ground)

    def for_all_states(self, control: Control, around: Surroundings) -> Recolour:
        return self.evolve(to_hue=None, by=self.turn_of(control, around.palette))

    def turn_of(self, control: Control, palette: Mapping[str, str]) -> float:
        """By how much hues of that control are turned, degrees."""
        return self.turn_of_all([control], palette)

    def turn_of_all(self, controls: Iterable[Control], palette: Mapping[str, str]) -> float:
        """Return by how much hues of controls are turned when all are turned alike, degrees."""
        return self.by if self.to_hue is None else self.to_hue - self.hue_of(controls, palette)

    def hue_of(self, controls: Iterable[Control], palette: Mapping[str, str]) -> float:
        """The hue that the chosen colours have together, degrees: of their sum in the plane of OKLab."""
        a = b = 0.0
        grouping = Grouping(palette)
        for place in (place for control in controls for place in drawn_places(control)):
            if grouping.at(place) in self.groups:
                _, chroma, hue = to_oklch(from_hex(literal(place.colour, palette)))
                a += chroma * math.cos(math.radians(hue))
                b += chroma * math.sin(math.radians(hue))
        return math.degrees(math.atan2(b, a)) % 360

    def label(self, control: Control) -> str:
        if self.swatch is not None:
            return f"Recoloured with {self.swatch}"
        return f"Recoloured to {self.to_hue:g}°" if self.to_hue is not None else f"Recoloured by {self.by:g}°"

    def _turned(self, colour: Colour, palette: Mapping[str, str], turn: float) -> Colour:
        link, seen = follows(colour), literal(colour, palette)
        if self.swatch is not None:
            base = palette[self.swatch]
            return link.evolve(swatch=self.swatch) if link else match(seen, self.swatch, base).link.evolve(hue=0)
        if link is not None:
            _, chroma, _ = to_oklch(from_hex(seen))
            more = link.chroma + (self.strength - 1) * chroma * 100
            return link.evolve(
                hue=round(half_turn(link.hue + turn), 2),
                chroma=round(max(-MOST_CHROMA, min(MOST_CHROMA, more)), 2),
            )
        own = turned_in_hue(seen, turn, self.strength)
        return colour.evolve(own=own) if isinstance(colour, SwatchLink) else own


def recoloured_palette(
    edit: Recolour, controls: Iterable[Control], palette: Mapping[str, str], colours: Mapping[str, str]
) -> dict[str, str]:
    """The ``colours`` of swatches in one colourway, for another in which they turn controls as an edit would, that
    is measured by the swatches' own; raises ``Refused`` when nothing of what is to be turned follows a swatch."""
    wanted = [name for name in edit.groups if name in palette]
    if not wanted:
        raise Refused("None of these colours follow a swatch yet, so a colourway would not change them.")
    turn = edit.turn_of_all(controls, palette)
    to = colours.get(edit.swatch or "")
    return {**colours, **{name: to or turned_in_hue(colours[name], turn, edit.strength) for name in wanted}}


def turns(control: Control, groups: Collection[str], palette: Mapping[str, str]) -> bool:
    """Whether a control is drawn with a colour of one of the groups."""
    grouping = Grouping(palette)
    return any(grouping.at(place) in groups for place in drawn_places(control))


def hues_from(controls: Collection[Control], groups: tuple[str, ...], palette: Mapping[str, str]) -> list[float]:
    """Twelve hues all the way round, degrees, from that which groups of controls have; none without any."""
    if not groups or not controls:
        return []
    hue = Recolour(groups=groups).hue_of(controls, palette)
    return [round((hue + step * 360 / HUES) % 360, 1) for step in range(HUES)]


def aim(colour: str, groups: Iterable[Group], chosen: Collection[str]) -> tuple[float, float]:
    """How groups are turned to a colour: to which hue, degrees, and how strong, so that the most colourful of theirs
    has its chroma."""
    own = next((group.colours[0] for group in groups if group.id in chosen), "#000000")
    strength = min(MOST_STRENGTH, _chroma(colour) / _chroma(own)) if _chroma(own) > 1e-3 else 1.0
    return round(to_oklch(from_hex(colour))[2], 1), round(strength, 3)


def tint_of(hue: float) -> str:
    """A middling colour of a hue, degrees, for a tint from above."""
    return to_hex(from_oklch((TINT_LIGHTNESS, TINT_CHROMA, hue)))
