"""Deliver: order files, watch them being made, take the archive."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import partial
from typing import Annotated, Any

from fastapi import APIRouter, Query, Request
from starlette.datastructures import FormData, QueryParams
from starlette.responses import FileResponse, HTMLResponse

from obrell.app.delivering import Deliveries, Delivery, ordered
from obrell.core.deliver.order import Order, read_order
from obrell.core.deliver.plan import File, plan
from obrell.core.document.editions import REGULAR_NAME, in_editions, sizes_of
from obrell.core.document.model import REGULAR, REST, Control, KitSettings
from obrell.core.document.resolve import DAY, DAY_NAME
from obrell.core.edit.typed import number_from
from obrell.core.errors import BadValue, NoSuchThing, Refused
from obrell.core.formats import FORMATS
from obrell.core.values.fields import Live
from obrell.core.values.readings import Reading
from obrell.core.values.slugs import slug
from obrell.store.kits import Stored, Tile
from obrell.web.commands import GROUNDS
from obrell.web.pages import page
from obrell.web.pictures import Dressed
from obrell.web.services import Form, cache_of, kits_of

router = APIRouter()
OFFERED = ("1", "1.5", "2", "3", "4")


@router.get("/kits/{kit}/deliver")
def deliver(request: Request, kit: str, control: Annotated[str, Query()] = "") -> HTMLResponse:
    """The whole view; ``control`` orders only that one."""
    kits = kits_of(request)
    order = Order(controls=(control,) if control else ())
    tiles, every = kits.tiles(kit), ordered(kits, kit, ()).documents
    context = {
        "view": "deliver", "kit": kits.index(kit), "kits": kits.names(), "control": None,
        "controls": tiles, "order": order, "offered": OFFERED,
        "chosen": [f"{d:g}" for d in order.densities], "one": control, "grounds": GROUNDS,
        "readings": _readings(every),
        "states": _counted((REST, "Rest"), [list(_states(one)) for one in every]),
        "sizes": _counted((REGULAR, REGULAR_NAME), [[(size.id, size.name) for size in one.sizes] for one in every]),
        "formats": FORMATS.values(),
        "from": next((tile for tile in tiles if tile.id == control), None),
    }  # fmt: skip
    return page(request, "deliver.html", context | _listed(request, kit, order))


@router.get("/kits/{kit}/deliver/files")
def listed(request: Request, kit: str) -> HTMLResponse:
    """Every file that the form, as it stands, will make."""
    kits = kits_of(request)
    context: dict[str, Any] = {"kit": kits.index(kit)}
    try:
        context |= _listed(request, kit, order_of(request.query_params))
    except Refused as error:
        context |= {"rows": [], "examples": [], "count": 0, "whose": "", "problem": str(error), "left_out": ()}
    return page(request, "_files.html", context)


@router.post("/kits/{kit}/deliveries")
def start(request: Request, kit: str, form: Form) -> HTMLResponse:
    """Begin."""
    kits = kits_of(request)
    order = order_of(form)
    return _progress(request, _of(request).start(ordered(kits, kit, order.controls), order))


@router.get("/deliveries/{name}")
def progress(request: Request, name: str) -> HTMLResponse:
    """How far it is; at its end, the whole bar anew."""
    delivery = _of(request).get(name)
    if not delivery.done and not delivery.words:
        return page(request, "_progress_now.html", {"delivery": delivery})
    ended = _progress(request, delivery)
    ended.headers["HX-Retarget"] = "#progress"
    return ended


@router.post("/deliveries/{name}/stop")
def stop(request: Request, name: str) -> HTMLResponse:
    """End it after the file in hand."""
    delivery = _of(request).get(name)
    delivery.stop = True
    return _progress(request, delivery)


@router.get("/deliveries/{name}/zip")
def archive(request: Request, name: str) -> FileResponse:
    """The archive."""
    delivery = _of(request).get(name)
    if not delivery.done:
        raise NoSuchThing("These files are not ready.")
    filename = f"{slug(delivery.kit.name, delivery.kit.id)}.zip"
    return FileResponse(delivery.archive, media_type="application/zip", filename=filename)


def _of(request: Request) -> Deliveries:
    deliveries: Deliveries = request.app.state.deliveries
    return deliveries


def _progress(request: Request, delivery: Delivery) -> HTMLResponse:
    return page(request, "_progress.html", {"delivery": delivery})


def order_of(form: FormData | QueryParams) -> Order:
    """The order a form describes; raises ``BadValue`` in words."""
    typed = [text for text in str(form.get("typed", "")).replace(";", " ").replace(",", " ").split() if text]
    densities = [number_from(str(text), Live()) for text in [*form.getlist("density"), *typed]]
    values: dict[str, Any] = {
        "controls": tuple(form.getlist("control")),
        "densities": tuple(densities),
        "formats": tuple(form.getlist("format")),
        "colourways": tuple(form.getlist("colourway")) or (DAY,),
        "states": tuple(form.getlist("state")),
        "sizes": tuple(form.getlist("size")),
        "frames": frames_of(str(form.get("frames") or "1")),
        "stretches": [_stretch(form, str(name)) for name in form.getlist("reading")],
        "trimmed": form.get("cut") == "trimmed",
        "ground": form.get("ground") == "yes",
        "options": tuple(form.getlist("option")),
        "margin": number_from(str(form.get("margin") or "0"), Live("px")),
        "pattern": str(form.get("pattern", "")),
    }
    if not values["controls"]:
        raise Refused("No control is chosen: a delivery needs at least one.")
    if not values["formats"]:
        raise Refused(f"No format is chosen: at least one is needed, such as {next(iter(FORMATS.values())).label}.")
    if form.get("states") and not values["states"]:
        raise Refused("No state is chosen: at least one is needed, such as rest.")
    if form.get("sizes") and not values["sizes"]:
        raise Refused("No size is chosen: at least one is needed, such as regular.")
    if not densities:
        raise Refused("No density is chosen: at least one is needed, such as 1.")
    return read_order(values)


def _states(control: Control) -> Iterator[tuple[str, str]]:
    return ((state.id, state.name) for state in control.states)


def _counted(
    plain: tuple[str, str], own: Sequence[Sequence[tuple[str, str]]]
) -> list[tuple[str, str, int]]:  # fmt: skip
    """What controls have of their own besides what all have: ids, names, and how many have each; nothing when none
    has any."""
    names = dict(one for some in reversed(own) for one in some)
    counts = Counter(ident for some in own for ident, _ in some)
    order = dict.fromkeys(ident for some in own for ident, _ in some)
    return [(*plain, len(own)), *((ident, names[ident], counts[ident]) for ident in order)] if names else []


@dataclass(frozen=True, slots=True)
class Moving:
    """A reading by its id that controls have: its name, theirs, and both ends in words."""

    id: str
    name: str
    whose: str
    start: str
    end: str


def _readings(controls: Sequence[Control]) -> list[Moving]:
    """The readings that controls have, each once."""
    found: dict[str, list[tuple[Control, Reading]]] = {}
    for control in controls:
        for one in control.readings:
            found.setdefault(one.id, []).append((control, one))
    return [
        Moving(
            ident, of[0][1].name, ", ".join(control.name for control, _ in of),
            _common([one.start for _, one in of]), _common([one.end for _, one in of]),
        )
        for ident, of in found.items()
    ]  # fmt: skip


def _common(values: list[float]) -> str:
    return f"{values[0]:g}" if len(set(values)) == 1 else "its end"


def _stretch(form: FormData | QueryParams, reading: str) -> dict[str, Any]:
    """The part of a reading that was typed; nothing typed is its own end."""
    typed = {end: str(form.get(f"{end}-{reading}", "")).strip() for end in ("start", "end")}
    return {"reading": reading} | {end: number_from(text, Live()) if text else None for end, text in typed.items()}


def frames_of(text: str) -> int:
    """A typed number of frames; raises ``BadValue`` for what is no whole number."""
    number = number_from(text, Live())
    if number != round(number):
        raise BadValue("Frames are counted in whole numbers.", "frames")
    return round(number)


def _whose(groups: Sequence[tuple[Control, object]], tiles: Sequence[Tile]) -> str:
    """Of what the files are, in words."""
    if len(groups) == 1:
        return f"of {groups[0][0].name}"
    return "of the whole kit" if len(groups) == len(tiles) else f"of {len(groups)} controls"


def _dressed(kit: str, settings: KitSettings, order: Order, way: str, state: str) -> Dressed:
    return Dressed(kit, settings, way or order.colourways[0], state)


def _address(dressed: Callable[[str, str], Dressed], stored: Stored, file: File) -> str:
    """Where the picture of a file is: of the control at the file's size, as it is drawn at its density."""
    box = file.pixels
    where = {"left": box.left, "top": box.top, "width": box.width, "height": box.height}
    names = tuple(name for name in (file.size, file.art) if name)
    seen = replace(
        dressed(file.colourway, file.state), editions=",".join(name for name in names if name != REGULAR),
        readings=",".join(f"{name}:{value:g}" for name, value in file.readings),
    )  # fmt: skip
    drawn = replace(stored, control=in_editions(stored.control, names))
    return seen.stored(drawn, file.job.density, standing=1 if file.ground else None, **where)


def _state_name(file: File, control: Control) -> str:
    """Return the name of a file's state for the list; empty if its control has only rest."""
    return (file.called.name if file.called else "Rest") if control.states else ""


def _listed(request: Request, kit: str, order: Order) -> dict[str, Any]:
    kits = kits_of(request)
    about = ordered(kits, kit, order.controls)
    if not about.controls:
        problem = "" if about.lost else "This kit has no controls to deliver yet."
        return {"rows": [], "examples": [], "count": 0, "whose": "", "problem": problem, "left_out": about.lost}
    stored = {one.control.id: one for one in about.controls}
    dressed = partial(_dressed, kit, about.settings, order)
    names = {way.id: way.name for way in about.settings.colourways} | {DAY: DAY_NAME}
    planned = plan(about.settings, about.documents, order, cache=cache_of(request))
    files = planned.files
    rows: dict[str, list[dict[str, Any]]] = {}
    for file in files:
        rows.setdefault(file.control, []).append(
            {
                "file": file,
                "picture": _address(dressed, stored[file.control], file),
                "density": f"{file.job.density:g}",
                "size": dict(sizes_of(stored[file.control].control)).get(file.size, ""),
                "art": f"{file.job.density:g}× art" if file.art else "",
                "way": names.get(file.colourway, "") if order.colourways != (DAY,) else "",
                "state": _state_name(file, stored[file.control].control),
            }
        )
    groups = [(stored[control].control, items) for control, items in rows.items()]
    examples = [file.name for file in files]
    return {
        "rows": groups, "examples": examples[: len(groups[0][1])] if groups else [], "count": len(files),
        "problem": "", "whose": _whose(groups, kits.tiles(kit)),
        "left_out": (*about.lost, *planned.left_out),
        "ground_of": lambda control: dressed("", REST).stored(stored[control.id], 1, ground=1),
    }  # fmt: skip
