"""How well what is read can be read: with an edit, and while a colour is chosen."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, Body, Request
from starlette.responses import HTMLResponse

from obrell.app.reading import coloured, reading, weakest_on_wall
from obrell.app.recolouring import Changed, Look, contrast_changes
from obrell.app.wall import WallRequest
from obrell.core.colour.contrast import ORDINARY
from obrell.core.document.resolve import Resolved, resolve
from obrell.core.edit import Edit, Surroundings, applied, read_edit
from obrell.core.edit.values import SetValues
from obrell.core.render.label_contrast import plainly
from obrell.core.values.fields import Id
from obrell.web.bench import BENCH
from obrell.web.pages import page
from obrell.web.selection import NOTHING, Selection
from obrell.web.services import cache_of, kits_of
from obrell.web.wall import WALL

router = APIRouter()
TINTED = {True: "lighter", False: "darker"}


@router.post(BENCH + "/contrast")
def contrast(
    request: Request, kit: str, control: str, edit: Annotated[Any, Body()],
    seen: Annotated[Selection, Body()] = NOTHING,
) -> HTMLResponse:  # fmt: skip
    """What an edit does to the contrast of what is read."""
    kits = kits_of(request)
    index = kits.index(kit)
    stored = kits.control(kit, control).control
    place = Look(seen.drawn(stored), seen.way(index))
    found = contrast_changes(index, stored, seen.into(read_edit(edit)), place, cache_of(request))
    rows = [(one.after < one.before, said(one)) for one in found]
    return page(request, "_contrasts.html", {"rows": rows})


@router.post(BENCH + "/readable")
def readable(
    request: Request, kit: str, control: str, edit: Annotated[Any, Body()], part: Annotated[Id, Body()],
    hue: Annotated[float, Body(ge=0, le=360)], seen: Annotated[Selection, Body()] = NOTHING,
) -> dict[str, object]:  # fmt: skip
    """How well what lies on a part can be read with an edit of a colour, its weakest letter, and where in the field of
    a hue it could be read."""
    kits = kits_of(request)
    index = kits.index(kit)
    stored, around = kits.control(kit, control).control, Surroundings.of(index)

    def looks(made: Edit) -> Resolved:
        changed = applied(seen.into(made), stored, around)
        return resolve(index, changed, seen.drawn(changed), seen.way(index))

    made = read_edit(edit)
    with_colour = (lambda colour: looks(coloured(made, colour))) if isinstance(made, SetValues) else None
    found = reading(looks(made), part, hue, with_colour, cache_of(request))
    if found is None:
        return {}
    box = found.contrast.box
    return {
        "words": f"{found.name} {plainly(found.contrast.ratio)}", "enough": found.contrast.ratio >= ORDINARY,
        "letter": [box.left, box.top, box.right, box.bottom], "boundaries": found.boundaries,
    }  # fmt: skip


@router.post(WALL + "/readable")
def readable_on_wall(request: Request, kit: str, wanted: WallRequest) -> dict[str, object]:
    """How well the label can be read that is read least, of the controls in view, while a swatch is chosen."""
    found = weakest_on_wall(kits_of(request), kit, wanted, cache_of(request))
    if found is None:
        return {}
    words = f"{found.label} of {found.control}: {plainly(found.ratio)}"
    return {"words": words, "enough": found.ratio >= ORDINARY}


def said(one: Changed) -> str:
    """A changed contrast in words, with the lightness that mends it."""
    words = f"{one.name} can be read at {plainly(one.after)} instead of {plainly(one.before)}"
    if one.tint is None:
        return f"{words}; no lightness of it brings that back."
    if one.tint:
        return f"{words}; {abs(one.tint)} {TINTED[one.tint > 0]}, it would be as before, or at 4.5 : 1."
    return f"{words}."
