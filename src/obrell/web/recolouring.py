"""Recolouring: twelve hues of the very art, tried on the stage; what that does to what is read; ways to keep it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Annotated, Any

from fastapi import APIRouter, Body, Query, Request
from starlette.responses import HTMLResponse

from obrell.app import recolouring
from obrell.app.reading import reading
from obrell.app.swatches import change_all
from obrell.core.colour.contrast import ORDINARY
from obrell.core.colour.gamut import from_oklch
from obrell.core.colour.spaces import from_hex, to_hex, to_oklch
from obrell.core.colour.typed import typed_colour
from obrell.core.document.colours import drawn_places
from obrell.core.document.model import Control
from obrell.core.document.resolve import DAY, palette, resolve
from obrell.core.edit import Edit, Surroundings, applied, read_edit
from obrell.core.edit.recolour import HUES, Group, Recolour, group_of, groups_of, usual
from obrell.core.errors import BadValue
from obrell.core.render.label_contrast import plainly
from obrell.core.values.fields import Id, Name
from obrell.store.kits import Stored
from obrell.web.bench import BENCH
from obrell.web.pages import page
from obrell.web.pictures import picture_address
from obrell.web.selection import NOTHING, Colourway, Selection, way_of
from obrell.web.services import Form as WholeForm
from obrell.web.services import cache_of, kits_of, presence_of
from obrell.web.swatches import told
from obrell.web.wall import WALL

router = APIRouter()
TINT_LIGHTNESS, TINT_CHROMA = 0.6, 0.13
SMALL_PX = 76.0
SHOWN_TOGETHER = 3
"""Controls of several that each hue is shown on, and the longer side of each, logical px."""
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
        tint = {"kind": "tint-from-above", "colour": _tint(values)}
        return {"words": words, "edit": edit, "picture": picture, "tint": tint}

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


@router.get(WALL + "/recolour")
def of_kit(
    request: Request, kit: str, control: Annotated[list[str] | None, Query()] = None,
    group: Annotated[list[str] | None, Query()] = None, strength: Annotated[float, Query(ge=0, le=4)] = 1.0,
    colourway: Colourway = DAY,
) -> HTMLResponse:  # fmt: skip
    """The sheet of hues for several controls, those in view first; all of the kit unless some are chosen."""
    kits = kits_of(request)
    index, stored = kits.index(kit), kits.controls(kit)
    wanted = [one for one in stored if control is None or one.control.id in control]
    found = groups_of([one.control for one in wanted], index.swatches)
    chosen = tuple(group) if group is not None else usual(found)
    way = way_of(index, colourway)
    lead = next((one for one in wanted if _turns(one.control, chosen, palette(index))), None)
    hue = Recolour(groups=chosen).hue_of(lead.control, palette(index)) if lead else 0.0
    base = {"groups": ",".join(chosen), "strength": strength, "colourway": way}
    hues = [round((hue + step * 360 / HUES) % 360, 1) for step in range(HUES)] if lead else []
    seen = [one for one in wanted if _turns(one.control, chosen, palette(index))][:SHOWN_TOGETHER]
    tiles = [
        (f"{one:g}°", one, [_small(kits.index_hash(kit), other, {**base, "to_hue": one}) for other in seen])
        for one in hues
    ]
    context = {
        "kit": index, "controls": stored, "wanted": {one.control.id for one in wanted}, "groups": found,
        "chosen": chosen, "strength": strength, "tiles": tiles, "way": way,
    }  # fmt: skip
    return page(request, "_recolour_kit.html", context)


def _turns(control: Control, groups: Sequence[str], colours: Mapping[str, str]) -> bool:
    return any(group_of(place.colour, colours) in groups for place in drawn_places(control))


def _small(index: str, stored: Stored, query: dict[str, Any]) -> tuple[str, int]:
    """A picture for the sheet of several controls, and how wide it is shown."""
    canvas = stored.control.canvas
    scale = round(min(1.0, SMALL_PX / canvas.width, SMALL_PX / canvas.height), 3)
    return picture_address(index, stored.hash, max(0.05, scale * 2), **query), round(canvas.width * scale)


@router.post(WALL + "/recolour")
def recolour_kit(request: Request, kit: str, fields: WholeForm) -> HTMLResponse:
    """Several controls turned to a hue, as one step."""
    chosen = [str(one) for one in fields.getlist("control")]
    values = {"kind": "recolour", "groups": fields.getlist("group"), "to_hue": fields.get("to_hue") or None}
    if not chosen or values["to_hue"] is None:
        raise BadValue("Choose a hue." if chosen else "Choose at least one control.", "to_hue")
    edit = read_edit(values | {"strength": fields.get("strength", 1)})
    label = change_all(kits_of(request), kit, edit, f"Recoloured to {fields['to_hue']}°", chosen)
    return told(request, kit, label)


def _tint(values: Mapping[str, Any]) -> str | dict[str, str]:
    """The colour of a tint from above: the swatch, or a middling one of the hue."""
    if values.get("swatch"):
        return {"swatch": values["swatch"]}
    return to_hex(from_oklch((TINT_LIGHTNESS, TINT_CHROMA, values["to_hue"])))


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


@router.post(BENCH + "/readable")
def readable(
    request: Request, kit: str, control: str, edit: Annotated[Any, Body()], part: Annotated[Id, Body()],
    hue: Annotated[float, Body(ge=0, le=360)], seen: Annotated[Selection, Body()] = NOTHING,
) -> dict[str, object]:  # fmt: skip
    """How well what is nearest to a part can be read with an edit, its weakest letter, and where in the field of a hue
    it could be read."""
    kits = kits_of(request)
    index = kits.index(kit)
    changed = applied(read_edit(edit), kits.control(kit, control).control, Surroundings.of(index))
    found = reading(resolve(index, changed, colourway=seen.way(index)), part, hue, cache_of(request))
    if found is None:
        return {}
    box = found.contrast.box
    return {
        "words": f"{found.name} {plainly(found.contrast.ratio)}", "enough": found.contrast.ratio >= ORDINARY,
        "letter": [box.left, box.top, box.right, box.bottom], "boundaries": found.boundaries,
    }  # fmt: skip


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
