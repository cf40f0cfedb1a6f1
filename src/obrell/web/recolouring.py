"""Recolouring: twelve hues of the very art, tried on the stage, and the ways to keep one."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Annotated, Any

from fastapi import APIRouter, Body, Query, Request
from starlette.responses import HTMLResponse

from obrell.app import recolouring
from obrell.core.colour.gamut import from_oklch
from obrell.core.colour.spaces import from_hex, to_hex, to_oklch
from obrell.core.colour.typed import typed_colour
from obrell.core.document.model import Control
from obrell.core.document.resolve import DAY, palette
from obrell.core.edit import Edit, read_edit
from obrell.core.edit.recolour import HUES, Group, Recolour, groups_of, usual
from obrell.core.errors import BadValue
from obrell.core.values.fields import Name
from obrell.web.bench import BENCH
from obrell.web.pages import page
from obrell.web.pictures import picture_address
from obrell.web.selection import Colourway, way_of
from obrell.web.services import kits_of, presence_of

router = APIRouter()
TINT_LIGHTNESS, TINT_CHROMA = 0.6, 0.13
WIDTH_PX, HEIGHT_PX = 116.0, 64.0
"""Device px that a control has in the sheet of hues."""


@router.get(BENCH + "/recolour")
def recolour(
    request: Request, kit: str, control: str, colourway: Colourway = DAY,
    groups: Annotated[str | None, Query(max_length=4000)] = None,
    strength: Annotated[float, Query(ge=0, le=4)] = 1.0, target: Annotated[str, Query(max_length=60)] = "",
) -> HTMLResponse:  # fmt: skip
    """The sheet of hues for groups of colours, those of the main role unless others are chosen."""
    kits = kits_of(request)
    stored, index = kits.control(kit, control), kits.index(kit)
    found = groups_of([stored.control], index.swatches)
    chosen = usual(found) if groups is None else tuple(one for one in groups.split(",") if one)
    canvas = stored.control.canvas
    density = round(min(4.0, max(0.05, min(WIDTH_PX / canvas.width, HEIGHT_PX / canvas.height) * 2)), 3)
    around = {"colourway": way_of(index, colourway), "groups": ",".join(chosen)}

    def tile(words: str, **values: Any) -> dict[str, object]:
        edit = {"kind": "recolour", "groups": chosen, "strength": strength} | values
        query: dict[str, Any] = around | {"strength": strength} | values
        picture = picture_address(kits.index_hash(kit), stored.hash, density, **query)
        tint = {"kind": "tint-from-above", "colour": _tint(values)}
        return {"words": words, "edit": edit, "picture": picture, "tint": tint}

    tiles = [tile(f"{one:g}°", to_hue=one) for one in hues_from(stored.control, chosen, palette(index))]
    if target and chosen:
        tiles.insert(0, tile(target, **_aim(target, found, chosen)))
    context = {
        "kit": index, "control": stored.control, "groups": found, "chosen": chosen, "strength": strength,
        "target": target, "tiles": tiles, "width": round(canvas.width * density / 2),
        "swatches": [(one, tile(one.name, swatch=one.id)) for one in index.swatches] if chosen else [],
    }  # fmt: skip
    return page(request, "_recolour.html", context)


def hues_from(control: Control, groups: tuple[str, ...], colours: Mapping[str, str]) -> list[float]:
    """Twelve hues all the way round, degrees, from that which groups of a control have; none without any."""
    if not groups:
        return []
    hue = Recolour(groups=groups).hue_of(control, colours)
    return [round((hue + step * 360 / HUES) % 360, 1) for step in range(HUES)]


def _tint(values: Mapping[str, Any]) -> str | dict[str, str]:
    """The colour of a tint from above: the swatch, or a middling one of the hue."""
    if values.get("swatch"):
        return {"swatch": values["swatch"]}
    return to_hex(from_oklch((TINT_LIGHTNESS, TINT_CHROMA, values["to_hue"])))


def _aim(target: str, groups: Sequence[Group], chosen: Sequence[str]) -> dict[str, float]:
    """How the art is turned to a typed colour: to its hue, with its chroma for the most colourful of them."""
    _, chroma, hue = to_oklch(from_hex(typed_colour(target)))
    own = next((group.colours[0] for group in groups if group.id in chosen), None)
    before = to_oklch(from_hex(own))[1] if own else 0.0
    strength = min(4.0, chroma / before) if before > 1e-3 else 1.0
    return {"to_hue": round(hue, 1), "strength": round(strength, 3)}


@router.post(BENCH + "/recolour/colourway")
def as_colourway(
    request: Request, kit: str, control: str, edit: Annotated[Any, Body()], name: Annotated[Name, Body()]
) -> dict[str, str]:  # fmt: skip
    """Kept as a colourway of that name; its id."""
    new = recolouring.keep_as_colourway(kits_of(request), kit, control, _recolour(edit), name.strip())
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
