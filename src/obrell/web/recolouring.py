"""Recolouring: twelve hues of the very art, tried on the stage; what that does to what is read; ways to keep it."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Any

from fastapi import APIRouter, Body, Query, Request
from starlette.responses import HTMLResponse

from obrell.app import recolouring
from obrell.core.colour.spaces import from_hex, to_oklch
from obrell.core.colour.typed import typed_colour
from obrell.core.document.resolve import DAY, palette
from obrell.core.edit import Edit, read_edit
from obrell.core.edit.recolour import HUES, Group, Recolour, groups_of, usual
from obrell.core.errors import BadValue
from obrell.core.render.label_contrast import plainly
from obrell.core.values.fields import Name
from obrell.web.bench import BENCH
from obrell.web.pages import page
from obrell.web.pictures import picture_address
from obrell.web.selection import NOTHING, Colourway, Selection, way_of
from obrell.web.services import cache_of, kits_of, presence_of

router = APIRouter()
WIDTH_PX, HEIGHT_PX = 116.0, 64.0
"""Device px that a control has in the sheet of hues."""
TINTED = {True: "lighter", False: "darker"}


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
    hue = Recolour(groups=chosen, by=0).hue_of(stored.control, palette(index))
    canvas = stored.control.canvas
    density = round(min(4.0, max(0.05, min(WIDTH_PX / canvas.width, HEIGHT_PX / canvas.height) * 2)), 3)
    around = {"colourway": way_of(index, colourway), "groups": ",".join(chosen)}

    def tile(words: str, **values: Any) -> dict[str, object]:
        edit = {"kind": "recolour", "groups": chosen, "strength": strength} | values
        query: dict[str, Any] = around | {"strength": strength} | values
        picture = picture_address(kits.index_hash(kit), stored.hash, density, **query)
        return {"words": words, "edit": edit, "picture": picture}

    hues = [round((hue + step * 360 / HUES) % 360, 1) for step in range(HUES)] if chosen else []
    tiles = [tile(f"{one:g}°", to_hue=one) for one in hues]
    if target and chosen:
        tiles.insert(0, tile(target, **_aim(target, found, chosen)))
    context = {
        "kit": index, "control": stored.control, "groups": found, "chosen": chosen, "strength": strength,
        "target": target, "tiles": tiles, "width": round(canvas.width * density / 2),
        "swatches": [(one, tile(one.name, swatch=one.id)) for one in index.swatches] if chosen else [],
    }  # fmt: skip
    return page(request, "_recolour.html", context)


def _aim(target: str, groups: Sequence[Group], chosen: Sequence[str]) -> dict[str, float]:
    """How the art is turned to a typed colour: to its hue, with its chroma for the most used of the colours."""
    _, chroma, hue = to_oklch(from_hex(typed_colour(target)))
    own = next((group.colours[0] for group in groups if group.id in chosen), None)
    before = to_oklch(from_hex(own))[1] if own else 0.0
    strength = min(4.0, chroma / before) if before > 1e-3 else 1.0
    return {"to_hue": round(hue, 1), "strength": round(strength, 3)}


@router.post(BENCH + "/contrast")
def contrast(
    request: Request, kit: str, control: str, edit: Annotated[Any, Body()],
    seen: Annotated[Selection, Body()] = NOTHING,
) -> HTMLResponse:  # fmt: skip
    """What an edit does to the contrast of what is read."""
    kits = kits_of(request)
    index = kits.index(kit)
    found = recolouring.contrast_changes(
        index, kits.control(kit, control).control, read_edit(edit), seen.way(index), cache_of(request)
    )
    rows = [(one.after < one.before, _said(one)) for one in found]
    return page(request, "_contrasts.html", {"rows": rows})


def _said(one: recolouring.Changed) -> str:
    said = f"{one.name} can be read at {plainly(one.after)} instead of {plainly(one.before)}"
    if one.tint is None:
        return f"{said}; no lightness of it brings that back."
    if one.tint:
        return f"{said}; {abs(one.tint)} {TINTED[one.tint > 0]}, it would be as before, or at 4.5 : 1."
    return f"{said}."


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
    request: Request, kit: str, control: str, edits: Annotated[list[Any], Body()], names: Annotated[list[Name], Body()]
) -> dict[str, object]:  # fmt: skip
    """Kept as new controls of those names; their ids."""
    pairs = [(name.strip(), _recolour(edit)) for name, edit in zip(names, edits, strict=True)]
    made = recolouring.keep_as_control(kits_of(request), kit, control, pairs)
    presence_of(request).tell((kit, ""), {"news": ""})
    return {"ids": made}


def _recolour(edit: Any) -> Recolour:
    read: Edit = read_edit(edit)
    if not isinstance(read, Recolour):
        raise BadValue("Only a recolouring can be kept so.")
    return read
