"""The sheet of hues: what can be turned, and what each hue, swatch or tint would make of the very art."""

from __future__ import annotations

from collections.abc import Callable, Collection, Mapping, Sequence
from dataclasses import dataclass
from typing import Annotated, Any, Literal

from fastapi import Body, Depends, Query

from obrell.core.colour.typed import typed_colour
from obrell.core.document.model import Control, KitSettings
from obrell.core.document.resolve import palette
from obrell.core.edit import Edit, Surroundings, read_edit
from obrell.core.edit.recolour import Group, Recolour, aim, groups_of, hues_from, tint_of, turns, usual
from obrell.core.edit.tint import TintFromAbove
from obrell.core.errors import BadValue

MOST_AT_ONCE = 50
"""Hues that are kept in one go."""
Tried = Mapping[str, Any]
"""What is tried on a control, as an address of its picture says it."""
Picture = tuple[str, int, int]
"""An address, and how wide and high it is shown, logical px."""
Edits = Annotated[list[Any], Body(min_length=1, max_length=MOST_AT_ONCE)]


@dataclass(frozen=True, slots=True)
class Wish:
    """Which groups of colours are turned, None for those that usually are; how strong their chroma becomes; towards
    which colour, as it was typed; and whether they are turned or all is tinted from above, by its blend mode."""

    groups: str | None = None
    strength: float = 1.0
    target: str = ""
    way: Literal["turn", "color", "hue"] = "turn"


def _wish(
    groups: Annotated[str | None, Query(max_length=4000)] = None,
    strength: Annotated[float, Query(ge=0, le=4)] = 1.0, target: Annotated[str, Query(max_length=60)] = "",
    way: Literal["turn", "color", "hue"] = "turn",
) -> Wish:  # fmt: skip
    return Wish(groups, strength, target, way)


Wished = Annotated[Wish, Depends(_wish)]


@dataclass(frozen=True, slots=True)
class Sheet:
    """What a wish makes of controls of a kit that is shown in a colourway."""

    kit: KitSettings
    controls: Sequence[Control]
    wish: Wish
    colourway: str

    def groups(self) -> list[Group]:
        """Return the groups of colours of the controls."""
        return groups_of(self.controls, self.kit.swatches)

    def chosen(self, groups: Sequence[Group]) -> tuple[str, ...]:
        """Return those of the groups that are turned, by their ids: what is asked for; where that is not there, as
        after other controls were ticked, what usually is."""
        if self.wish.groups is None:
            return usual(groups)
        asked = [one for one in self.wish.groups.split(",") if one]
        there = {one.id for one in groups}
        return tuple(one for one in asked if one in there) or (usual(groups) if asked else ())

    def turns(self, control: Control, chosen: Collection[str]) -> bool:
        """Return whether a control is changed when groups are turned; a tint changes every one."""
        return self.wish.way != "turn" or turns(control, chosen, palette(self.kit))

    def context(self, picture: Callable[[Tried], Picture]) -> dict[str, object]:
        """Return what the template is given; a picture shows what is tried. Raises ``BadValue`` for a colour that
        cannot be read."""
        wish, groups, plain = self.wish, self.groups(), palette(self.kit)
        chosen, colours = self.chosen(groups), palette(self.kit, self.colourway)

        def tile(words: str, tint: str | dict[str, str], **values: Any) -> dict[str, object]:
            edit, tried = self._tried(chosen, tint, values)
            return {"words": words, "edit": edit, "picture": picture(tried)}

        tiles = [tile(f"{one:g}°", tint_of(one), to_hue=one) for one in hues_from(self.controls, chosen, plain)]
        if wish.target and chosen:
            seen = typed_colour(wish.target)
            hue, strength = aim(seen, groups, chosen)
            tiles.insert(0, tile(wish.target, seen, to_hue=hue, strength=strength))
        onto = [
            (one, colours[one.id], tile(one.name, {"swatch": one.id}, swatch=one.id))
            for one in self.kit.swatches if chosen
        ]  # fmt: skip
        return {"groups": groups, "chosen": chosen, "wish": wish, "tiles": tiles, "swatches": onto}

    def _tried(
        self, chosen: tuple[str, ...], tint: str | dict[str, str], values: dict[str, Any]
    ) -> tuple[dict[str, object], Tried]:  # fmt: skip
        """Return the edit of a tile, and the same as the address of a picture says it."""
        if self.wish.way == "turn":
            how: dict[str, object] = {"strength": self.wish.strength, **values}
            return {"kind": "recolour", "groups": chosen, **how}, {"groups": ",".join(chosen), **how}
        colour = tint if isinstance(tint, dict) else {"tint_colour": tint}
        edit: dict[str, object] = {"kind": "tint-from-above", "colour": tint, "mode": self.wish.way}
        return edit, {"tint": self.wish.way} | colour


def hue_edit(edit: Any) -> Edit:
    """Return an edit that turns or tints; raises ``BadValue`` for any other."""
    read: Edit = read_edit(edit)
    if not isinstance(read, Recolour | TintFromAbove):
        raise BadValue("Only a recolouring can be kept so.")
    return read


def changes(edit: Edit, control: Control, kit: KitSettings) -> bool:
    """Return whether an edit changes a control."""
    return edit.apply(control, Surroundings.of(kit)) != control
