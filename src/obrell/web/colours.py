"""One colour in every space people type it in."""

from __future__ import annotations

import re
from typing import Annotated

from fastapi import APIRouter, Query, Request
from pydantic import ValidationError

from obrell.core.colour.links import ladder, literal, nearest
from obrell.core.colour.neutrals import neutrals
from obrell.core.colour.notations import SPACES
from obrell.core.colour.spaces import from_hex, to_hex, to_oklch
from obrell.core.colour.typed import typed_colour, typed_with_opacity
from obrell.core.document.colours import used_colours
from obrell.core.document.model import KitSettings
from obrell.core.document.resolve import DAY, colourway_or_day, palette, resolve
from obrell.core.edit.swatches import main_swatch, swatch_of
from obrell.core.errors import BadValue, Refused
from obrell.core.geometry.svgdata import number
from obrell.core.render.own_paint import own_colour
from obrell.core.values.base import bad_value
from obrell.core.values.colours import SwatchLink, link_words
from obrell.core.values.fields import LIMIT_PX, Id
from obrell.web.selection import Asked, Colourway
from obrell.web.services import kits_of

router = APIRouter()
OFFERED = 24
"""Colours of the kit's art that can be chosen again: two lines of them."""
Coordinate = Annotated[float, Query(ge=-LIMIT_PX, le=LIMIT_PX)]


@router.get("/colour")
def converted(space: str = "hex", value: Annotated[str, Query(max_length=80)] = "#000000") -> dict[str, object]:
    """A typed colour in all spaces; ``value`` is three numbers, or hex."""
    return _in_all_spaces(_read(space, value)) | {"opacity": _opacity(space, value)}


@router.get("/kits/{kit}/colours")
def offered(request: Request, kit: str, colourway: Colourway = DAY) -> dict[str, object]:
    """Colours to start from: the kit's swatches with their ladders, those used in the kit, and off-whites and
    off-blacks, tinted with its main colour."""
    kits = kits_of(request)
    controls = [stored.control for stored in kits.controls(kit)]
    index = kits.index(kit)
    whites, blacks = neutrals(main_swatch(index))
    return {
        "swatches": swatches_offered(index, colourway_or_day(index, colourway)),
        "used": used_colours(controls)[:OFFERED],
        "whites": whites,
        "blacks": blacks,
        "lightness": {colour: round(to_oklch(from_hex(colour))[0] * 100) for colour in (*whites, *blacks)},
    }


def swatches_offered(index: KitSettings, way: str = DAY) -> list[dict[str, object]]:
    """Every swatch of a kit, as it is in a colourway, with darker and lighter steps of it."""
    colours, names = palette(index, way), {swatch.id: swatch.name for swatch in index.swatches}
    return [
        {
            "id": swatch.id, "name": swatch.name, "role": swatch.role, "colour": colours[swatch.id],
            "ladder": [
                {"tint": tint, "colour": colour, "words": link_words(SwatchLink(swatch=swatch.id, tint=tint), names)}
                for tint, colour in ladder(colours[swatch.id])
            ],
        }
        for swatch in index.swatches
    ]  # fmt: skip


@router.get("/kits/{kit}/followed")
def followed(
    request: Request, kit: str, link: Annotated[str, Query(max_length=300)], colourway: Colourway = DAY
) -> dict[str, object]:  # fmt: skip
    """A colour that follows a swatch so, in all spaces."""
    try:
        read = SwatchLink.model_validate_json(link)
    except ValidationError as error:
        raise bad_value(error, SwatchLink) from error
    index = kits_of(request).index(kit)
    swatch_of(index, read.swatch)
    return _in_all_spaces(from_hex(literal(read, palette(index, colourway_or_day(index, colourway))))) | {
        "opacity": None
    }


@router.get("/kits/{kit}/nearest")
def nearest_swatch(
    request: Request, kit: str, colour: Annotated[str, Query(max_length=80)], colourway: Colourway = DAY
) -> dict[str, object]:  # fmt: skip
    """How a colour can follow the swatch that has to be adjusted least; nothing in a kit without swatches."""
    index = kits_of(request).index(kit)
    found = nearest(typed_colour(colour), palette(index, colourway_or_day(index, colourway)))
    if found is None:
        return {}
    words = link_words(found.link, {swatch.id: swatch.name for swatch in index.swatches})
    return {
        "link": found.link.model_dump(mode="json"), "words": words, "remains": number(round(found.remains, 1)),
    }  # fmt: skip


@router.get("/kits/{kit}/controls/{control}/own-colour")
def own(
    request: Request, kit: str, control: str, part: Id, x: Coordinate, y: Coordinate, drawn: Asked
) -> dict[str, object]:  # fmt: skip
    """The colour that a part is painted with itself at a place of the canvas; raises ``Refused`` where it is not."""
    kits = kits_of(request)
    resolved = resolve(kits.index(kit), drawn.look(kits.control(kit, control)))
    colour = own_colour(resolved, part, x, y)
    if colour is None:
        raise Refused(f"“{resolved.tree.all[part].part.name}” has no paint of its own there.")
    return {"hex": colour}


def _read(space: str, value: str) -> tuple[float, float, float]:
    if space == "hex":
        return from_hex(typed_colour(value))
    numbers = re.findall(r"-?\d*\.?\d+", value)
    if len(numbers) != 3 or space not in SPACES:
        raise BadValue(f"“{value}” is not a colour: three numbers are needed.")
    first, second, third = (float(number) for number in numbers)
    return SPACES[space].back((first, second, third))


def _opacity(space: str, value: str) -> float | None:
    """Return the opacity that was typed with a colour, or None."""
    return typed_with_opacity(value)[1] if space == "hex" else None


def _in_all_spaces(rgb: tuple[float, float, float]) -> dict[str, object]:
    texts: dict[str, object] = {"hex": to_hex(rgb)}
    for name, space in SPACES.items():
        texts[name] = [number(round(value, space.decimals)) for value in space.of(rgb)]
    return texts
