"""Colours that follow swatches: laid on, and proposed for what has its own colours."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Annotated, Any, ClassVar, Literal, TypeVar

from pydantic import Field

from obrell.core.colour.difference import ciede2000
from obrell.core.colour.links import Match, literal, match, nearest
from obrell.core.document.colours import Place, drawn_places, places, with_colours
from obrell.core.document.draft import Draft
from obrell.core.document.model import Control, Part
from obrell.core.document.value_paths import value_at
from obrell.core.edit.base import NEW, Edit, Surroundings, each_part, part_of
from obrell.core.edit.swatches import SWATCH_GONE
from obrell.core.edit.values import Change, set_in, whose
from obrell.core.effects import Paint
from obrell.core.errors import NoSuchThing, Refused
from obrell.core.values.base import Value
from obrell.core.values.colours import Colour, Hex, SwatchLink, unlinked
from obrell.core.values.fields import Id
from obrell.core.values.paints import Solid

ALIKE = 1.5
"""CIEDE2000 below which colours are proposed as one."""
V = TypeVar("V", bound=Value)


class LaySwatch(Edit):
    """A swatch laid on a colour, an effect or a fill, by its path, or on parts: on the paint in front of each. One
    colour becomes the swatch; several, as the stops of a gradient, its tints as light as they are."""

    kind: Literal["lay-swatch"] = "lay-swatch"
    swatch: Id
    path: Annotated[str, Field(max_length=300)] = ""
    parts: Annotated[tuple[Id, ...], Field(max_length=1000)] = ()

    def apply(self, control: Control, around: Surroundings) -> Control:
        base = around.palette.get(self.swatch)
        if base is None:
            raise NoSuchThing(SWATCH_GONE)
        if self.path:
            return self._on_path(control, around, base)
        if not self.parts:
            raise Refused("Select a part first, or drag the swatch onto one.")
        return each_part(control, self.parts, lambda part: self._on_part(part, around, base))

    def label(self, control: Control) -> str:
        if self.path:
            return f"Laid the swatch {self.swatch}{whose(control, self.path)}".replace(" of ", " on ", 1)
        names = [part_of(control, part).name for part in self.parts[:1]]
        more = f" and {len(self.parts) - 1} more" if len(self.parts) > 1 else ""
        return f"Laid the swatch {self.swatch} on {''.join(names)}{more}"

    def _on_path(self, control: Control, around: Surroundings, base: str) -> Control:
        there = value_at(control, self.path)
        draft, paths = Draft(control), self._below(there)
        for path in paths:
            link = self._link(value_at(control, path), around, base, alone=len(paths) == 1)
            set_in(draft, Change(path=path, value=link.model_dump(mode="json")), around.lamp_of(control))
        return draft.control()

    def _below(self, there: Any) -> list[str]:
        if isinstance(there, Value) and not isinstance(there, SwatchLink):
            return [f"{self.path}/{place.path}" for place in places(there)]
        return [self.path]

    def _link(self, colour: Colour, around: Surroundings, base: str, *, alone: bool) -> SwatchLink:
        if alone:
            return SwatchLink(swatch=self.swatch)
        return SwatchLink(swatch=self.swatch, tint=match(literal(colour, around.palette), self.swatch, base).link.tint)

    def _on_part(self, part: Part, around: Surroundings, base: str) -> Part:
        paint = next((effect for effect in reversed(part.effects) if isinstance(effect, Paint)), None)
        if paint is None:
            fresh = Paint(id=NEW, fill=Solid(colour=SwatchLink(swatch=self.swatch)))
            return part.evolve(effects=(*part.effects, fresh))
        alone = sum(1 for _ in places(paint)) == 1
        laid = with_colours(paint, lambda colour: self._link(colour, around, base, alone=alone))
        return part.evolve(effects=tuple(laid if effect is paint else effect for effect in part.effects))


@dataclass(frozen=True, slots=True)
class Proposal:
    """Colours that look alike, the most used first, how often they are used, and how they can follow a swatch."""

    colours: tuple[str, ...]
    count: int
    match: Match


def proposals(counted: Mapping[str, int], palette: Mapping[str, str]) -> list[Proposal]:
    """For literal colours and how often each is used: which swatch each can follow, those that look alike as one."""
    groups: list[list[str]] = []
    for colour in sorted(counted, key=lambda one: (-counted[one], one)):
        group = next((group for group in groups if ciede2000(group[0], colour) < ALIKE), None)
        if group is None:
            groups.append([colour])
        else:
            group.append(colour)
    found = ((group, nearest(group[0], palette)) for group in groups)
    return [
        Proposal(tuple(group), sum(counted[one] for one in group), match)
        for group, match in found
        if match is not None
    ]


class FollowSwatches(Edit):
    """Literal colours of parts, or of all of the control that is not locked, that follow swatches from now on: which
    colour by which link."""

    with_states: ClassVar[bool] = True
    kind: Literal["follow-swatches"] = "follow-swatches"
    links: Annotated[dict[Hex, SwatchLink], Field(min_length=1, max_length=2000)]
    parts: Annotated[tuple[Id, ...], Field(max_length=1000)] = ()

    def apply(self, control: Control, around: Surroundings) -> Control:
        gone = {link.swatch for link in self.links.values()} - around.palette.keys()
        if gone:
            raise NoSuchThing(SWATCH_GONE)
        if self.parts:
            return each_part(control, self.parts, self._followed)
        parts = tuple(part if part.locked else self._followed(part) for part in control.parts)
        ground = None if control.ground is None else self._followed(control.ground)
        return control.evolve(parts=parts, ground=ground)

    def label(self, control: Control) -> str:
        count = sum(unlinked(place.colour) in self.links for place in _places(control, self.parts))
        swatches = dict.fromkeys(link.swatch for link in self.links.values())
        return f"{count} colour{'' if count == 1 else 's'} followed {', '.join(swatches)}"

    def _followed(self, value: V) -> V:
        def changed(colour: Colour) -> Colour:
            own = unlinked(colour)
            return colour if own is None else self.links.get(own, colour)

        return with_colours(value, changed)


def literals_of(controls: Iterable[Control], parts: Sequence[str] = ()) -> Counter[str]:
    """The literal colours that controls are drawn with, or some of their parts, and how often."""
    found = (unlinked(place.colour) for control in controls for place in _places(control, parts))
    return Counter(colour for colour in found if colour is not None)


def _places(control: Control, parts: Sequence[str]) -> Iterator[Place]:
    """The colours of a control, or of some of its parts."""
    wanted = {f"parts/{part}" for part in parts}
    for place in drawn_places(control):
        if not wanted or "/".join(place.path.split("/")[:2]) in wanted:
            yield place
