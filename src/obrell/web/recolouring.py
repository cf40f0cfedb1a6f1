"""Recolouring: twelve hues of the very art, tried on the stage, and the ways to keep one."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict
from typing import Annotated, Any

from fastapi import APIRouter, Body, Query, Request
from starlette.responses import HTMLResponse

from obrell.app import recolouring
from obrell.core.colour.typed import typed_colour
from obrell.core.document.resolve import DAY, colourway_or_day, palette
from obrell.core.edit import Edit, Surroundings, read_edit
from obrell.core.edit.recolour import Recolour, aim, groups_of, hues_from, tint_of, usual
from obrell.core.errors import BadValue
from obrell.core.values.fields import Name
from obrell.web.bench import BENCH
from obrell.web.pages import page
from obrell.web.pictures import picture_address
from obrell.web.selection import NOTHING, Asked, Colourway, Selection
from obrell.web.services import kits_of, presence_of

router = APIRouter()
WIDTH_PX, HEIGHT_PX = 116.0, 64.0
"""Device px that a control has in the sheet of hues."""


@router.get(BENCH + "/recolour")
def recolour(
    request: Request, kit: str, control: str, drawn: Asked, colourway: Colourway = DAY,
    groups: Annotated[str | None, Query(max_length=4000)] = None,
    strength: Annotated[float, Query(ge=0, le=4)] = 1.0, target: Annotated[str, Query(max_length=60)] = "",
) -> HTMLResponse:  # fmt: skip
    """The sheet of hues for groups of colours, those of the main role unless others are chosen."""
    kits = kits_of(request)
    stored, index = kits.control(kit, control), kits.index(kit)
    shown = drawn.look(stored)
    found = groups_of([shown], Surroundings.of(index).swatches)
    chosen = usual(found) if groups is None else tuple(one for one in groups.split(",") if one)
    canvas = shown.canvas
    density = round(min(4.0, max(0.05, min(WIDTH_PX / canvas.width, HEIGHT_PX / canvas.height) * 2)), 3)
    way = colourway_or_day(index, colourway)
    colours, around = palette(index, way), {"colourway": way, "groups": ",".join(chosen), **asdict(drawn)}

    def tile(words: str, **values: Any) -> dict[str, object]:
        edit = {"kind": "recolour", "groups": chosen, "strength": strength} | values
        query: dict[str, Any] = around | {"strength": strength} | values
        picture = picture_address(kits.index_hash(kit), stored.hash, density, **query)
        tint = {"kind": "tint-from-above", "colour": _tint(values)}
        return {"words": words, "edit": edit, "picture": picture, "tint": tint}

    tiles = [tile(f"{one:g}°", to_hue=one) for one in hues_from(shown, chosen, palette(index))]
    if target and chosen:
        hue, aimed = aim(typed_colour(target), found, chosen)
        tiles.insert(0, tile(target, to_hue=hue, strength=aimed))
    context = {
        "kit": index, "control": stored.control, "groups": found, "chosen": chosen, "strength": strength,
        "target": target, "tiles": tiles, "width": round(canvas.width * density / 2),
        "height": round(canvas.height * density / 2),
        "swatches": [(one, colours[one.id], tile(one.name, swatch=one.id)) for one in index.swatches if chosen],
    }  # fmt: skip
    return page(request, "_recolour.html", context)


def _tint(values: Mapping[str, Any]) -> str | dict[str, str]:
    """The colour of a tint from above: the swatch, or a middling one of the hue."""
    return {"swatch": values["swatch"]} if values.get("swatch") else tint_of(values["to_hue"])


@router.post(BENCH + "/recolour/colourway")
def as_colourway(
    request: Request, kit: str, control: str, edit: Annotated[Any, Body()], name: Annotated[Name, Body()],
    seen: Annotated[Selection, Body()] = NOTHING,
) -> dict[str, str]:  # fmt: skip
    """Kept as a colourway of that name, made of the one that is seen; its id."""
    kits = kits_of(request)
    way = seen.way(kits.index(kit))
    new = recolouring.keep_as_colourway(kits, kit, control, _recolour(edit), name.strip(), way)
    presence_of(request).tell_kit(kit, {"news": "", "version": 0})
    return {"id": new}


@router.post(BENCH + "/recolour/control")
def as_control(
    request: Request, kit: str, control: str, edits: Annotated[list[Any], Body(max_length=50)],
    names: Annotated[list[Name], Body(max_length=50)],
) -> dict[str, object]:  # fmt: skip
    """Kept as new controls of those names; their ids."""
    if len(names) != len(edits):
        raise BadValue("Every new control needs a name, and a hue.", "names")
    pairs = [(name.strip(), _recolour(edit)) for name, edit in zip(names, edits, strict=True)]
    made = recolouring.keep_as_control(kits_of(request), kit, control, pairs)
    presence_of(request).tell((kit, ""), {"news": ""})
    return {"ids": made}


def _recolour(edit: Any) -> Recolour:
    read: Edit = read_edit(edit)
    if not isinstance(read, Recolour):
        raise BadValue("Only a recolouring can be kept so.")
    return read
