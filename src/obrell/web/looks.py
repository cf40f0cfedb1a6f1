"""Materials and effects tried on the very part that is selected; materials saved and taken off the shelf."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import asdict
from typing import Annotated, Any, Literal

from fastapi import APIRouter, Body, Query, Request
from starlette.responses import HTMLResponse

from obrell.app import shelf
from obrell.core.colour.links import literal
from obrell.core.document.colours import with_colours
from obrell.core.document.gradients import gradients_in
from obrell.core.document.materials import lengths_of
from obrell.core.document.model import Control, KitSettings, Material
from obrell.core.document.resolve import palette, resolve
from obrell.core.edit.companions import main_colour
from obrell.core.effects import EFFECTS
from obrell.core.errors import NoSuchThing
from obrell.core.geometry.plane import Rect
from obrell.core.geometry.svgdata import number
from obrell.core.paint.fills import straightened
from obrell.core.render.picture import device
from obrell.core.scene.bounds import bounds_of
from obrell.core.shelf import GRADIENTS, SHIPPED, STARTS, plain_gradients
from obrell.core.values.fields import Id, Name
from obrell.core.values.paints import Handled
from obrell.store.kits import Stored
from obrell.web.bench import BENCH
from obrell.web.led import announce_led
from obrell.web.pages import page
from obrell.web.pictures import picture_address
from obrell.web.selection import AT_REST, Asked, Drawn
from obrell.web.services import kits_of, presence_of
from obrell.web.sheet import marks

router = APIRouter()
WIDTH_PX, HEIGHT_PX = 104.0, 56.0
COMPARED_WIDTH_PX, COMPARED_HEIGHT_PX = 280.0, 200.0
AIR_PX = 3.0
"""Logical px shown around a part's own shadows."""
Colours = Literal["own", "material"]
"""Whether a material is laid in the part's own colour or in that of the material."""
ONLY_BY_HAND = ("mask",)
"""Effects whose usual values show nothing of what they do."""


@router.get(BENCH + "/looks")
def looks(
    request: Request, kit: str, control: str, part: str, drawn: Asked, colours: Colours = "own"
) -> HTMLResponse:  # fmt: skip
    """Show every material and kind of effect on a part; materials in the part's colour or in theirs."""
    kits = kits_of(request)
    stored, index = kits.control(kit, control), kits.index(kit)
    look = drawn.look(stored)
    resolved = resolve(index.settings(), look)
    node = resolved.tree.all.get(part)
    if node is None:
        raise NoSuchThing("Select one part first.")
    bounds = bounds_of(resolved, node).grown(AIR_PX)
    density = round(min(4.0, max(0.05, min(WIDTH_PX / bounds.width, HEIGHT_PX / bounds.height))), 3)
    box = device(bounds, density)
    where = {"left": box.left, "top": box.top, "width": box.width, "height": box.height, "free": 1, "part": part}
    where |= asdict(drawn)

    def shown(**tried: object) -> str:
        return picture_address(kits.index_hash(kit), stored.hash, density, **where, **tried)

    def laid(material: Material) -> str:
        return shown(lay=material.id, own_colour=int(colours == "own"))

    own = [(m.id, m.name, laid(m), True) for m in index.materials]
    context = {
        "materials": [*own, *((m.id, m.name, laid(m), False) for m in SHIPPED)],
        "rules": [(m.id, m.name, number(m.extent), lengths_of(m)) for m in index.materials],
        "gradients": _gradients(index, look, part),
        "starts": [(s.id, s.name, shown(start=s.id)) for s in STARTS],
        "effects": [(k, e.label, shown(add=k)) for k, e in EFFECTS.items() if k not in ONLY_BY_HAND],
        "versions": [(n, v.name, shown(kept=n)) for n, v in enumerate(node.part.versions)],
        "part": node.part, "colours": colours, "linked": node.part.material, "width": box.width, "height": box.height,
    }  # fmt: skip
    return page(request, "_looks.html", context)


@router.get(BENCH + "/compare")
def compare(
    request: Request, kit: str, control: str, part: str, drawn: Asked, scale: Annotated[int, Query(ge=0, le=2)] = 0,
    hot: bool = False,
) -> HTMLResponse:  # fmt: skip
    """The control as it is and with every look of a part that is kept aside, side by side: fitted, or at 1:1 or 2:1;
    ``hot`` shows where they differ from how it is."""
    kits = kits_of(request)
    stored = kits.control(kit, control)
    look = drawn.look(stored)
    found = next((one for one in look.parts if one.id == part), None)
    if found is None:
        raise NoSuchThing("Select one part first.")
    canvas = look.canvas
    fitted = round(min(4.0, COMPARED_WIDTH_PX / canvas.width, COMPARED_HEIGHT_PX / canvas.height), 3)
    density = float(scale or fitted)
    size = {"width": round(canvas.width * density), "height": round(canvas.height * density)}
    # At whole scales what is compared are the pixels themselves; fitted, there is enough for a dense screen.
    fine = density if scale else 2 * density
    box = device(Rect(0, 0, canvas.width, canvas.height), fine)
    where = {"left": 0, "top": 0, "width": box.width, "height": box.height}

    def shown(kept: int | None) -> str:
        heat = {"hot": 1} | where if hot and kept is not None else {}
        return picture_address(
            kits.index_hash(kit), stored.hash, fine, part=part, kept=kept, whole=1, **asdict(drawn), **heat
        )

    versions = [("", "as it is", shown(None)), *((n, v.name, shown(n)) for n, v in enumerate(found.versions))]
    context = {"versions": versions, "part": found, "scale": scale, "hot": hot}
    return page(request, "_compare.html", context | size)


def _gradients(index: KitSettings, control: Control, part: str) -> list[tuple[str, list[dict[str, Any]]]]:
    """Return the gradients for a part in groups: plain, from the kit, from the control, and shipped."""
    colours, here = palette(index), next((one for one in control.parts if one.id == part), None)
    colour = None if here is None else main_colour(here)
    used = {fill: f"{label} of {whose}" for whose, label, fill in gradients_in(control)}
    groups = {
        "Plain": [(g.name, g.fill, "") for g in plain_gradients("#808080" if colour is None else colour)],
        "In this kit": [(g.name, g.fill, g.id) for g in index.gradients],
        "On this control": [(name, fill, "") for fill, name in used.items()],
        "Shipped": [(g.name, g.fill, "") for g in GRADIENTS],
    }

    def seen(fill: Handled) -> Handled:
        return with_colours(fill, lambda colour: literal(colour, colours))

    def shown(name: str, fill: Handled, ident: str) -> dict[str, Any]:
        stops = marks(straightened(seen(fill)))
        return {"name": name, "id": ident, "kind": fill.kind, "fill": fill.model_dump(mode="json"), "stops": stops}

    return [(source, [shown(*one) for one in found]) for source, found in groups.items() if found]


@router.get(BENCH + "/gradients")
def gradients(
    request: Request, kit: str, control: str, path: Annotated[str, Query(max_length=300)], drawn: Asked
) -> HTMLResponse:  # fmt: skip
    """All gradients that can be laid on the fill at a path."""
    kits = kits_of(request)
    part = path.removeprefix("parts/").partition("/")[0]
    found = _gradients(kits.index(kit), drawn.look(kits.control(kit, control)), part)
    return page(request, "_fills.html", {"gradients": found, "path": path})


@router.post(BENCH + "/gradients")
def save_gradient(
    request: Request, kit: str, control: str, path: Annotated[str, Body(max_length=300)],
    name: Annotated[Name, Body()], drawn: Annotated[Drawn, Body()] = AT_REST,
) -> dict[str, Any]:  # fmt: skip
    """The gradient at a path kept in the kit; one of the same name is replaced."""
    name = name.strip()
    kits = kits_of(request)
    shelf.save_gradient(kits, kit, drawn.look(kits.control(kit, control)), path, name)
    return {"said": f"Kept “{name}” among the looks."}


@router.post("/kits/{kit}/gradients/{gradient}/remove")
def remove_gradient(request: Request, kit: str, gradient: str) -> dict[str, Any]:
    """Taken off the shelf; Undo on the Wall brings it back."""
    return {"said": shelf.remove_gradient(kits_of(request), kit, gradient)}


@router.post(BENCH + "/materials")
def save_material(
    request: Request, kit: str, control: str, part: Annotated[Id, Body()], name: Annotated[Name, Body()],
    scaled: Annotated[bool, Body()] = True, drawn: Annotated[Drawn, Body()] = AT_REST,
) -> dict[str, Any]:  # fmt: skip
    """The part's look as a material. One of the same name is saved over, and parts linked to it follow."""
    name = name.strip()
    kits = kits_of(request)
    look = drawn.look(kits.control(kit, control))
    _tell(request, kit, shelf.save_material(kits, kit, look, part, name, scaled=scaled))
    return {"said": f"Saved “{name}”: lay it on any part."}


@router.post("/kits/{kit}/materials/{material}/lengths")
def set_rule(
    request: Request, kit: str, material: str, effect: Annotated[Id, Body()],
    path: Annotated[str, Body(max_length=100)], fixed: Annotated[bool, Body()],
) -> dict[str, Any]:  # fmt: skip
    """One length of a material fixed in px, or a share of the part's size; parts linked to it follow."""

    _tell(request, kit, shelf.fix_length(kits_of(request), kit, material, effect, path, fixed=fixed))
    return {}


@router.post("/kits/{kit}/materials/{material}/remove")
def remove_material(request: Request, kit: str, material: str) -> dict[str, Any]:
    """Taken off the shelf; Undo on the Wall brings it back."""
    return {"said": shelf.remove_material(kits_of(request), kit, material)}


def _tell(request: Request, kit: str, changed: Iterable[Stored]) -> None:
    """Windows that show a control which followed a material."""
    for stored in changed:
        presence_of(request).tell((kit, stored.control.id), {"news": stored.hash, "version": stored.version})
        announce_led(request, kit, stored.led)
