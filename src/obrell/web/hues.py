"""The sheet of hues: which colours can be turned, and how the art looks with each hue, swatch or tint."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Annotated, Any, Literal

from fastapi import Body, Depends, Query

from obrell.core.colour.typed import typed_colour
from obrell.core.document.model import Canvas, Control, KitSettings
from obrell.core.document.resolve import palette
from obrell.core.edit import Edit, read_edit
from obrell.core.edit.recolour import Group, Recolour, aim, groups_of, hues_from, tint_of, turns, usual
from obrell.core.edit.tint import TintFromAbove
from obrell.core.errors import BadValue

WIDTH_PX, HEIGHT_PX = 116.0, 64.0
"""Logical px that a control has on which a hue is shown."""
MOST_AT_ONCE = 50
"""Hues that are kept in one go."""
Tried = Mapping[str, Any]
"""What is tried on a control, as the query of a picture's address."""
Picture = tuple[str, int, int]
"""An address, and how wide and high it is shown, logical px."""
Edits = Annotated[list[Any], Body(min_length=1, max_length=MOST_AT_ONCE)]


@dataclass(frozen=True, slots=True)
class Wish:
    """What the sheet is asked for: ids of groups with commas between, None for the usual ones; a factor for chroma;
    the colour to turn towards, as it was typed; and whether colours are turned, or all is tinted in a blend mode."""

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


def small(canvas: Canvas) -> tuple[float, int, int]:
    """Return the density of a picture in the sheet, twice as fine as it is shown, and how wide and high that is,
    logical px. Small art is enlarged, at most to twice its size."""
    scale = min(2.0, max(0.025, min(WIDTH_PX / canvas.width, HEIGHT_PX / canvas.height)))
    return round(2 * scale, 3), round(canvas.width * scale), round(canvas.height * scale)


@dataclass(frozen=True, slots=True)
class Sheet:
    """The hues that can be chosen for controls of a kit, which is shown in a colourway. ``groups`` are those of their
    colours, ``chosen`` the ids of the groups that are turned."""

    kit: KitSettings
    controls: Sequence[Control]
    wish: Wish
    colourway: str
    groups: tuple[Group, ...]
    chosen: tuple[str, ...]

    @classmethod
    def of(cls, kit: KitSettings, controls: Sequence[Control], wish: Wish, colourway: str) -> Sheet:
        """Return the sheet for a wish."""
        groups = tuple(groups_of(controls, kit.swatches))
        return cls(kit, controls, wish, colourway, groups, _chosen(groups, wish.groups))

    def changes(self, control: Control) -> bool:
        """Return whether a hue changes a control: a tint changes all of them."""
        return self.wish.way != "turn" or turns(control, self.chosen, palette(self.kit))

    def context(self, picture: Callable[[Tried], Picture]) -> dict[str, object]:
        """Return the values of the template. ``picture`` gives the picture that shows what is tried. Raises
        ``BadValue`` for a colour that cannot be read."""
        wish, chosen = self.wish, self.chosen
        plain, colours = palette(self.kit), palette(self.kit, self.colourway)

        def tile(words: str, tint: str | dict[str, str], **values: Any) -> dict[str, object]:
            edit, tried = self._tried(tint, values)
            return {"words": words, "edit": edit, "picture": picture(tried)}

        tiles = [tile(f"{one:g}°", tint_of(one), to_hue=one) for one in hues_from(self.controls, chosen, plain)]
        if wish.target and chosen:
            seen = typed_colour(wish.target)
            hue, strength = aim(seen, self.groups, chosen)
            tiles.insert(0, tile(wish.target, seen, to_hue=hue, strength=strength))
        onto = [
            (one, colours[one.id], tile(one.name, {"swatch": one.id}, swatch=one.id))
            for one in self.kit.swatches if chosen
        ]  # fmt: skip
        return {"groups": self.groups, "chosen": chosen, "wish": wish, "tiles": tiles, "swatches": onto}

    def _tried(self, tint: str | dict[str, str], values: dict[str, Any]) -> tuple[dict[str, object], Tried]:
        """Return the edit of a tile, and the same as the query of a picture's address."""
        if self.wish.way == "turn":
            how: dict[str, object] = {"strength": self.wish.strength, **values}
            return {"kind": "recolour", "groups": self.chosen, **how}, {"groups": ",".join(self.chosen), **how}
        colour = tint if isinstance(tint, dict) else {"tint_colour": tint}
        edit: dict[str, object] = {"kind": "tint-from-above", "colour": tint, "mode": self.wish.way}
        return edit, {"tint": self.wish.way} | colour


def hue_edit(edit: Any) -> Edit:
    """Return an edit that turns or tints; raises ``BadValue`` for any other."""
    read: Edit = read_edit(edit)
    if not isinstance(read, Recolour | TintFromAbove):
        raise BadValue("Only a recolouring can be kept so.")
    return read


def _chosen(groups: Sequence[Group], asked: str | None) -> tuple[str, ...]:
    """Return the ids of the groups that are turned: those that are asked for; the usual ones where nothing is asked
    for, or none of that is there, as when other controls are ticked."""
    wanted = None if asked is None else [one for one in asked.split(",") if one]
    if wanted is None:
        return usual(groups)
    there = {one.id for one in groups}
    return tuple(one for one in wanted if one in there) or (usual(groups) if wanted else ())
