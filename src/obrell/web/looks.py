"""Materials and effects tried on the very part that is selected; materials saved and taken off the shelf."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, Body, Request
from starlette.responses import HTMLResponse

from obrell.core.document.resolve import resolve
from obrell.core.edit.kits import without_material
from obrell.core.effects import EFFECTS
from obrell.core.errors import NoSuchThing
from obrell.core.render.compose import painted_bounds
from obrell.core.render.picture import device
from obrell.core.shelf import GRADIENTS, SHIPPED, Named
from obrell.core.values.fields import Id, Name
from obrell.web.bench import BENCH
from obrell.web.pages import page
from obrell.web.pictures import picture_address
from obrell.web.services import kits_of, rooms_of

router = APIRouter()
WIDTH_PX, HEIGHT_PX = 104.0, 56.0
AIR_PX = 3.0
"""Logical px shown around a part's own shadows."""
ONLY_BY_HAND = ("mask",)
"""Effects whose usual values show nothing of what they do."""


@router.get(BENCH + "/looks")
async def looks(request: Request, kit: str, control: str, part: str) -> HTMLResponse:
    """Every material, and every kind of effect, on a part."""
    kits = kits_of(request)
    stored, index = kits.control(kit, control), kits.index(kit)
    resolved = resolve(index.settings(), stored.control)
    node = resolved.tree.all.get(part)
    if node is None:
        raise NoSuchThing("Select one part first.")
    bounds = painted_bounds(resolved, node).grown(AIR_PX)
    density = round(min(4.0, max(0.05, min(WIDTH_PX / bounds.width, HEIGHT_PX / bounds.height))), 3)
    box = device(bounds, density)
    where = {"left": box.left, "top": box.top, "width": box.width, "height": box.height, "free": 1, "part": part}

    def shown(**tried: object) -> str:
        return picture_address(kits.index_hash(kit), stored.hash, density, **where, **tried)

    own = [(m.id, m.name, shown(lay=m.id), True) for m in index.materials]
    context = {
        "materials": [*own, *((m.id, m.name, shown(lay=m.id), False) for m in SHIPPED)],
        "gradients": [(g.name, g.fill.model_dump(mode="json"), _preview(g)) for g in GRADIENTS],
        "effects": [(k, e.label, shown(add=k)) for k, e in EFFECTS.items() if k not in ONLY_BY_HAND],
        "versions": [(n, v.name, shown(kept=n)) for n, v in enumerate(node.part.versions)],
        "part": node.part, "linked": node.part.material, "width": box.width, "height": box.height,
    }  # fmt: skip
    return page(request, "_looks.html", context)


def _preview(gradient: Named) -> list[tuple[float, str]]:
    """A gradient's stops as a straight ramp."""
    return [(stop.position, str(stop.colour)) for stop in gradient.fill.stops]


@router.post(BENCH + "/materials")
async def save_material(
    request: Request, kit: str, control: str, part: Annotated[Id, Body()], name: Annotated[Name, Body()],
    scaled: Annotated[bool, Body()] = True,
) -> dict[str, Any]:  # fmt: skip
    """The part's look as a material. One of the same name is saved over, and parts linked to it follow."""
    name = name.strip()
    for stored in kits_of(request).save_material(kit, control, part, name, scaled=scaled):
        await rooms_of(request).tell((kit, stored.control.id), {"news": stored.hash, "version": stored.version})
    return {"said": f"Saved “{name}”: lay it on any part."}


@router.post("/kits/{kit}/materials/{material}/remove")
async def remove_material(request: Request, kit: str, material: str) -> dict[str, Any]:
    """Taken off the shelf; Undo on the Wall brings it back."""
    kits_of(request).change_index(
        kit, lambda index: without_material(index, material), "Took a material off the shelf"
    )
    return {}
