"""Trial: controls on a simulated screen, operated, looked at under conditions, and arranged."""

from __future__ import annotations

import logging
from collections.abc import Sequence
from dataclasses import asdict, replace
from typing import Annotated, Any, Literal

from fastapi import APIRouter, Body, File, Form, Query, Request, UploadFile, WebSocket
from pydantic import ValidationError
from starlette.responses import HTMLResponse, RedirectResponse, Response

from obrell.app import editing, trial
from obrell.app.trial import (
    LastScreen,
    Opened,
    ScreenRequest,
    as_it_begins,
    look_at,
    opened,
    seen_at_first,
    with_control,
)
from obrell.core.aside import SECONDS, patience
from obrell.core.document.model import REST, Control
from obrell.core.edit import read_edit
from obrell.core.edit.kits import panel_of
from obrell.core.edit.panel_base import named
from obrell.core.edit.panels import PanelEdit, Record, read_panel_edit
from obrell.core.errors import NoSuchThing, ObrellError
from obrell.core.files import file_id
from obrell.core.interchange.limits import MAX_PICTURE_BYTES, MAX_RECORDING_BYTES
from obrell.core.interchange.pictures import read_picture
from obrell.core.interchange.recordings import read_recording
from obrell.core.raster.png import encode_quick
from obrell.core.render.label_contrast import plainly
from obrell.core.trial.composing import ground_of, opaque, size_of
from obrell.core.trial.conditions import Conditions
from obrell.core.trial.contact import contact_sheet
from obrell.core.trial.legibility import labels_under
from obrell.core.trial.operating import rules
from obrell.core.trial.reach import Reach
from obrell.core.trial.starts import STARTS, Start
from obrell.core.values.fields import Id
from obrell.core.values.slugs import slug
from obrell.store.kits import Ground, Kits, Made
from obrell.web.assets import FOR_EVER
from obrell.web.fields import each_field, field_at, field_on
from obrell.web.led import announce_led
from obrell.web.moving import came_from, movement_of
from obrell.web.pages import block, page
from obrell.web.pictures import Dressed
from obrell.web.presence import panel_place
from obrell.web.scales import scale_in
from obrell.web.services import Ident, Sender, Window, cache_of, gate_of, kits_of, presence_of
from obrell.web.sockets import packed, serve
from obrell.web.states import DifferenceView, differences_of
from obrell.web.trial_page import shared_page
from obrell.web.trial_screen import fixture_view
from obrell.web.trial_view import (
    chosen_view,
    gone_places,
    ground_colour,
    ground_key,
    grounds,
    pieces_of,
    reach_on,
    reach_view,
    removed_places,
    screen_json,
    sources_view,
)

router = APIRouter()
TRIAL = "/kits/{kit}/trial"
PANEL = TRIAL + "/{panel}"
CHANGED_HERE = ("number", "choice", "switch")
"""Kinds of live values that can be changed under the pointer; the others have choosers, which the Bench has."""
PAGE_SECONDS = 120.0
"""How long a panel may take to be made a page."""
log = logging.getLogger(__name__)
MOST_CHOSEN = 6000
Chosen = Annotated[str, Body(max_length=MOST_CHOSEN)]
"""What is chosen on a panel, by ids with commas between."""


@router.get(TRIAL)
def first(request: Request, kit: str) -> Response:
    """The first panel of a kit, or the page that offers to make one."""
    kits = kits_of(request)
    index = kits.index(kit)
    if index.panels:
        return RedirectResponse(f"/kits/{kit}/trial/{index.panels[0].id}", 303)
    context = {"view": "trial", "kit": index, "kits": kits.names(), "control": None, "starts": _starts()}
    return page(request, "no_panel.html", context)


@router.get(PANEL)
def panel_page(request: Request, kit: str, panel: str) -> HTMLResponse:
    """The whole view."""
    kits = kits_of(request)
    here = opened(kits, kit, panel)
    reach = reach_on(here)
    context = {
        "view": "trial", "kits": kits.names(), "control": None,
        "screen": screen_json(kit, here, reach), "rules": rules(),
    }  # fmt: skip
    beside = _with_steps(request, kit, panel, _beside(request, kit, here, reach, ""))
    return page(request, "trial.html", context | beside)


def _starts() -> list[tuple[str, str]]:
    return [(start, name) for start, (name, _) in STARTS.items()]


def _beside(request: Request, kit: str, here: Opened, reach: Reach, chosen: str) -> dict[str, Any]:
    """What the sheet shows."""
    kits, panel = kits_of(request), here.panel
    there = {one.id for one in panel.placements}
    shown = there | {one.id for one in panel.fixtures}
    several = [one for one in chosen.split(",") if one in shown]
    return {
        "kit": here.index, "panel": panel, "panels": here.index.panels,
        "fields": {name: field_on(panel, name) for name in ("width", "height", "density", "across", "bezel")},
        "grounds": grounds(here.index, panel), "ground_colour": ground_colour(here.index, panel),
        "reach": reach_view(here, reach), "sources": sources_view(here),
        "chosen": chosen_view(here, chosen),
        "several": several, "several_named": named(panel, {}, several) if len(several) > 1 else "",
        "lined": [one for one in several if one in there], "refill": chosen,
        "gone": gone_places(here), "removed": removed_places(here), "broken": list(here.broken.values()),
        "fixture": fixture_view(panel, chosen),
        "tiles": kits.tiles(kit), "starts": _starts(),
        "picture_of": _tile_picture(kit, here),
    }  # fmt: skip


def _tile_picture(kit: str, here: Opened) -> Any:
    dressed = Dressed(kit, here.index)

    def address(tile: Any) -> str:
        scale = scale_in(tile.width, tile.height, 76, 40)
        return dressed.of(tile.hash, tile.uses, round(2 * scale, 3))

    return address


def _answer(request: Request, kit: str, panel: str, chosen: str, said: str, **more: Any) -> dict[str, Any]:
    """A panel as it stands now, for the script that shows it."""
    shown = _shown(request, kit, opened(kits_of(request), kit, panel), chosen)
    return _with_steps(request, kit, panel, shown) | {"said": said} | more


def _shown(request: Request, kit: str, here: Opened, chosen: str) -> dict[str, Any]:
    """A panel and its sheet, whether it is stored or not."""
    reach = reach_on(here)
    beside = _beside(request, kit, here, reach, chosen)
    sheet = {"head": block("_panel.html", beside), "foot": block("_sources.html", beside)}
    return {"screen": screen_json(kit, here, reach), "sheet": sheet}


def _with_steps(request: Request, kit: str, panel: str, shown: dict[str, Any]) -> dict[str, Any]:
    """What is shown of a panel, with whether there is a step to undo or redo."""
    steps = kits_of(request).history(kit, panel=panel)
    return shown | {"undo": steps.can_undo, "redo": steps.can_redo}


def _changed(
    request: Request, kit: str, panel: str, wanted: PanelEdit, chosen: str, sender: Sender, remark: str = "",
    files: Sequence[bytes] = (),
) -> dict[str, Any]:  # fmt: skip
    """An edit of a panel made and saved, and the panel as it stands then."""

    def show(here: Opened, fresh: tuple[str, ...]) -> dict[str, Any]:
        return _shown(request, kit, here, ",".join(fresh) or chosen)

    done = trial.change(kits_of(request), kit, panel, wanted, sender, show, files)
    _tell(request, kit, sender.window)
    shown = done.shown or _shown(request, kit, opened(kits_of(request), kit, panel), chosen)
    said = f"{done.label}. {remark}" if remark else done.label
    return _with_steps(request, kit, panel, shown) | {
        "said": said, "fresh": done.fresh, "removed": wanted.removes(),
    }  # fmt: skip


@router.get(PANEL + "/now")
def now(
    request: Request, kit: str, panel: str, chosen: Annotated[str, Query(max_length=MOST_CHOSEN)] = ""
) -> dict[str, Any]:
    """A panel as it stands, after something was done elsewhere or something else was chosen."""
    return _answer(request, kit, panel, chosen, "")


@router.post(PANEL + "/edits")
def edit(
    request: Request, kit: str, panel: str, edit: Annotated[Any, Body()], chosen: Chosen = "",
    window: Window = "", ident: Ident = "",
) -> dict[str, Any]:  # fmt: skip
    """Make an edit of the panel."""
    return _changed(request, kit, panel, read_panel_edit(edit), chosen, Sender(window, ident))


@router.post(PANEL + "/steps/{way}")
def step(
    request: Request, kit: str, panel: str, way: Literal["undo", "redo"], chosen: Chosen = "", window: Window = "",
    ident: Ident = "",
) -> dict[str, Any]:  # fmt: skip
    """Take back the newest edit of the panel, or of a control that was made on it, or do it again."""
    kits, sender = kits_of(request), Sender(window, ident)
    done = kits.redo(kit, sender=sender, panel=panel) if way == "redo" else kits.undo(kit, sender=sender, panel=panel)
    _tell(request, kit, window)
    if done is not None and done.control:
        presence_of(request).tell((kit, done.control), {"news": "", "version": 0})
        announce_led(request, kit, done.led)
    verb = "Did again" if way == "redo" else "Took back"
    said = "There is nothing left to do there." if done is None else f"{verb}: {done.label}"
    try:
        return _answer(request, kit, panel, chosen, said)
    except Exception:
        # The step is taken, so it is no error; the page is asked for anew, and says what cannot be shown.
        log.exception("A panel cannot be shown after a step")
        return {"lost": True, "said": said}


@router.post(PANEL + "/controls/{control}/edits")
def edit_control(
    request: Request, kit: str, panel: str, control: str, edit: Annotated[Any, Body()], chosen: Chosen = "",
    window: Window = "", ident: Ident = "",
) -> dict[str, Any]:  # fmt: skip
    """Make an edit of a control that stands on the panel."""
    kits = kits_of(request)

    def show(_: Ground, made: Made) -> dict[str, Any]:
        return _shown(request, kit, with_control(opened(kits, kit, panel), made.now), chosen)

    sender = Sender(window, ident, panel=panel)
    done, shown = editing.edit_shown(kits, kit, control, read_edit(edit), show, sender)
    if done.changes:
        news: dict[str, object] = {
            "news": done.now.hash, "version": done.now.version, "by": window, "said": done.label,
        }  # fmt: skip
        presence_of(request).tell((kit, control), news)
        _tell(request, kit, window)
    return _with_steps(request, kit, panel, shown) | {"said": done.said}


def _tell(request: Request, kit: str, window: str) -> None:
    """Say on all other panels of a kit, and on its Wall, that something was done."""
    presence_of(request).tell((kit, ""), {"news": "", "by": window})


@router.get(PANEL + "/under")
def under(
    request: Request, kit: str, panel: str, placement: Annotated[Id, Query()],
    state: Annotated[str, Query(max_length=160)], came: Annotated[str, Query(max_length=160)] = "",
) -> HTMLResponse:  # fmt: skip
    """What is under the pointer: its state, what changed on the way there, how long that takes."""
    here = opened(kits_of(request), kit, panel)
    piece = next((one for one in pieces_of(here) if one.placement.id == placement), None)
    if piece is None:
        raise NoSuchThing("That is no longer on the panel.")
    control, known = piece.stored.control, piece.stored.control.state_ids
    # Several states laid over each other have no timing of their own: the last of them is looked at.
    drawn = next((one for one in reversed(state.split("+")) if one in known), known[0])
    others = (one for one in reversed(came.split("+")) if one in known and one != drawn)
    start = next(others, came_from(control, drawn, ""))
    scope = f"control/{control.id}"
    movement = movement_of(piece.stored, Dressed(kit, here.index, state=drawn), (), start) if start else None
    differing = next((one for one in control.states if one.id == drawn), None)
    found = () if differing is None else differences_of(here.index, control, differing)
    differences = tuple(_changed_here(one) for one in found)
    canvas = piece.control.canvas
    context = {
        "piece": piece, "state": "" if differing is None else differing.name, "kit": here.index,
        "states": [(REST, "Rest"), *((one.id, one.name) for one in control.states)],
        "movement": _scoped(movement, f"{scope}/"), "differences": _scoped(differences, f"{scope}@{drawn}/"),
        "box": f"{canvas.width:g} × {canvas.height:g}", "scope": f"{scope}/",
        "readings": _readings(control, f"{scope}/"),
    }  # fmt: skip
    return HTMLResponse(block("_under.html", context))


def _changed_here(one: DifferenceView) -> DifferenceView:
    """What differs, with its live value where that can be changed in Trial, else in words alone."""
    field = one.field
    if field is None or (field.kind in CHANGED_HERE and not field.parts_but):
        return one
    return replace(one, field=None, words=f"{one.words}: {field.swatch or field.text}")


def _readings(control: Control, scope: str) -> list[dict[str, Any]]:
    """The readings of a control: their names, and both ends and the step as live values."""
    return [
        {"name": one.name}
        | {end: _scoped(field_at(control, f"readings/{one.id}/{end}"), scope) for end in ("start", "end", "step")}
        for one in control.readings
    ]


def _scoped(shown: Any, scope: str) -> Any:
    """What is shown, every live value in it with a path that says whose it is."""
    return each_field(shown, lambda found: replace(found, path=f"{scope}{found.path}"))


@router.get(PANEL + "/labels")
def labels(request: Request, kit: str, panel: str, chosen: Annotated[Conditions, Query()]) -> HTMLResponse:
    """The contrast of every label as it begins, under conditions."""
    here = opened(kits_of(request), kit, panel)
    width, height = size_of(here.panel, here.panel.density)
    with gate_of(request).room(width * height), patience(PAGE_SECONDS):
        found = labels_under(here.index, here.panel, seen_at_first(here), chosen, cache_of(request))
    shown = [asdict(one) | {"weak": one.weak, "said": plainly(one.ratio)} for one in found]
    return HTMLResponse(block("_labels.html", {"labels": shown, "weak": sum(one.weak for one in found)}))


@router.get(PANEL + "/ground/{key}.png")
def ground_picture(request: Request, kit: str, panel: str, key: str) -> Response:
    """The screen without its controls."""
    index = kits_of(request).index(kit)
    found = panel_of(index, panel)
    if ground_key(index, found) != key:
        raise NoSuchThing("What this picture showed is there no more.")
    width, height = size_of(found, found.density)
    with gate_of(request).room(width * height), patience(SECONDS):
        pixels = ground_of(index, found, found.density, cache_of(request))
    return Response(encode_quick(opaque(pixels)), media_type="image/png", headers=FOR_EVER)


@router.get(PANEL + "/page.html")
def page_of(request: Request, kit: str, panel: str) -> Response:
    """The panel as one page, to be kept."""
    here = opened(kits_of(request), kit, panel)
    width, height = size_of(here.panel, here.panel.density)
    with gate_of(request).room(width * height), patience(PAGE_SECONDS):
        content = shared_page(kit, here, cache_of(request))
    headers = {"content-disposition": f'attachment; filename="{slug(here.panel.name, panel)}.html"'}
    return Response(content, media_type="text/html; charset=utf-8", headers=headers)


@router.get(PANEL + "/conditions.png")
def under_all_conditions(
    request: Request, kit: str, panel: str, chosen: Annotated[Conditions, Query()],
) -> Response:  # fmt: skip
    """The panel as it begins under every combination of conditions, as one picture."""
    here = opened(kits_of(request), kit, panel)
    width, height = size_of(here.panel, here.panel.density)
    with gate_of(request).room(width * height), patience(PAGE_SECONDS):
        screen = as_it_begins(here, cache_of(request))
        sheet = contact_sheet(here.index, here.panel, screen, here.panel.density, chosen, cache_of(request))
    headers = {"content-disposition": f'attachment; filename="{slug(here.panel.name, panel)}-conditions.png"'}
    return Response(encode_quick(opaque(sheet)), media_type="image/png", headers=headers)


@router.post(TRIAL)
def add(
    request: Request, kit: str, start: Annotated[Start, Form()], name: Annotated[str, Form(max_length=80)] = ""
) -> Response:  # fmt: skip
    """One more panel."""
    new = trial.add(kits_of(request), kit, start, name)
    return Response(headers={"hx-redirect": f"/kits/{kit}/trial/{new}"})


@router.post(PANEL + "/copy")
def duplicate(request: Request, kit: str, panel: str) -> Response:
    """The panel once more."""
    return Response(headers={"hx-redirect": f"/kits/{kit}/trial/{trial.duplicate(kits_of(request), kit, panel)}"})


@router.post(PANEL + "/remove")
def remove(request: Request, kit: str, panel: str) -> Response:
    """The panel taken out of the kit; Undo on the Wall brings it back."""
    trial.remove(kits_of(request), kit, panel)
    return Response(headers={"hx-redirect": f"/kits/{kit}/trial"})


@router.post(PANEL + "/sources/{source}/recording")
def record(
    request: Request, kit: str, panel: str, source: str, file: Annotated[UploadFile, File()],
    chosen: Annotated[str, Form(max_length=MOST_CHOSEN)] = "", window: Annotated[str, Form(max_length=60)] = "",
) -> dict[str, Any]:  # fmt: skip
    """A table of times and numbers as what a source does."""
    rows, remark = read_recording(file.file.read(MAX_RECORDING_BYTES + 1))
    return _changed(request, kit, panel, Record(source=source, rows=rows), chosen, Sender(window), remark)


@router.post(PANEL + "/ground")
def picture_ground(
    request: Request, kit: str, panel: str, file: Annotated[UploadFile, File()],
    chosen: Annotated[str, Form(max_length=MOST_CHOSEN)] = "", window: Annotated[str, Form(max_length=60)] = "",
) -> dict[str, Any]:  # fmt: skip
    """A picture as what the screen is made of."""
    kept = read_picture(file.file.read(MAX_PICTURE_BYTES + 1))
    fill = {"kind": "picture", "file": file_id(kept), "fit": "filling"}
    wanted = read_panel_edit({"kind": "set", "path": "ground", "value": fill})
    return _changed(request, kit, panel, wanted, chosen, Sender(window), files=(kept,))


@router.websocket(PANEL + "/live")
async def live(window: WebSocket, kit: str, panel: str) -> None:
    """One window's screen under conditions."""
    kits, last = kits_of(window), LastScreen(cache_of(window))
    await serve(window, panel_place(kit, panel), lambda text: seen(kits, kit, panel, text, last))


def seen(kits: Kits, kit: str, panel: str, text: str, last: LastScreen) -> bytes:
    """The bytes that answer one request; what goes wrong is said in the header."""
    seq = -1
    try:
        wanted = ScreenRequest.model_validate_json(text)
        seq = wanted.seq
        part = look_at(kits, kit, panel, wanted, last)
    except (ObrellError, ValidationError) as error:
        words = str(error) if isinstance(error, ObrellError) else "This window asked for nonsense."
        return packed({"seq": seq, "words": words})
    except Exception:
        log.exception("A screen could not be seen")
        return packed({"seq": seq, "words": "This cannot be shown; it is our fault, and it is logged."})
    box = part.box
    header: dict[str, object] = {
        "seq": seq, "box": [box.left, box.top, box.width, box.height], "whole": list(part.whole),
    }  # fmt: skip
    return packed(header, opaque(part.pixels).tobytes())
