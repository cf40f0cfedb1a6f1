"""Bench: draw one control."""

from __future__ import annotations

import logging
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, Any, Literal

from fastapi import APIRouter, Body, Query, Request
from starlette.responses import HTMLResponse

from obrell.app import editing
from obrell.core.document.fitting import lost_words
from obrell.core.edit import Edit, Surroundings, read_edit
from obrell.core.edit.base import part_of
from obrell.core.edit.editions import InEditions
from obrell.core.edit.states import InStates, OfStates
from obrell.core.errors import ObrellError, Unreadable
from obrell.core.render.build_up import costs
from obrell.store.history import Step
from obrell.store.kits import Ground, Kits, Made, Stored
from obrell.web.commands import GROUNDS, NEEDS, commands
from obrell.web.edges import EDGE_DENSITIES
from obrell.web.led import announce_led, with_led
from obrell.web.lost import lost
from obrell.web.pages import page
from obrell.web.parcels import View
from obrell.web.selection import NOTHING, Asked, Selection
from obrell.web.services import Based, Ident, Sender, Window, kits_of, parcels_of, presence_of, turn_of
from obrell.web.view import Around, look_of, view_of, with_history

router = APIRouter()
CANNOT = "Something in it cannot be drawn; it is our fault, and it is logged."
log = logging.getLogger(__name__)
BENCH = "/kits/{kit}/controls/{control}"
COST_DENSITY = 2.0


@router.get(BENCH)
def bench(
    request: Request, kit: str, control: str, seen: Annotated[Selection, Query()]
) -> HTMLResponse:  # fmt: skip
    """The whole view."""
    kits = kits_of(request)
    index = kits.index(kit)
    try:
        stored = kits.control(kit, control)
    except Unreadable as error:
        return lost(request, kit, str(error), control)
    try:
        view = view_of(kits, kit, stored, seen)
    except ObrellError as error:
        return lost(request, kit, str(error), control)
    except Exception:
        log.exception("A control cannot be shown")
        return lost(request, kit, CANNOT, control)
    context = {
        "view": "bench", "kit": index, "control": stored.control, "shown": view, "start": _start(request, view),
        "grounds": GROUNDS, "densities": EDGE_DENSITIES, "kits": kits.names(),
        "commands": commands(), "needs": NEEDS,
    }  # fmt: skip
    return page(request, "bench.html", context)


@router.get(BENCH + "/blocks")
def blocks(
    request: Request, kit: str, control: str, seen: Annotated[Selection, Query()]
) -> dict[str, Any]:  # fmt: skip
    """The view's blocks as they stand, for a selection."""
    kits = kits_of(request)
    return _parcel(request, kit, kits.control(kit, control), seen)


def _start(request: Request, view: View) -> dict[str, Any]:
    """What a page begins with besides what stands in its HTML."""
    parcel = parcels_of(request).parcel(view)
    return {"token": parcel["token"], "facts": parcel["facts"], "lists": {"scene": parcel["lists"]["scene"]}}


def _parcel(request: Request, kit: str, stored: Stored, seen: Selection) -> dict[str, Any]:
    return parcels_of(request).parcel(view_of(kits_of(request), kit, stored, seen), seen.have)


@router.get(BENCH + "/costs")
def step_costs(
    request: Request, kit: str, control: str, part: str, drawn: Asked
) -> dict[str, list[float]]:  # fmt: skip
    """What each step of a part's build-up costs at density 2, milliseconds."""
    kits = kits_of(request)
    shown = drawn.look(kits.control(kit, control))
    part_of(shown, part)
    return {"ms": costs(kits.index(kit).settings(), shown, part, COST_DENSITY)}


@router.post(BENCH + "/edits")
def edit(
    request: Request, kit: str, control: str,
    edit: Annotated[Any, Body()], seen: Annotated[Selection, Body()] = NOTHING,
    window: Window = "", ident: Ident = "", based: Based = 0,
) -> dict[str, Any]:  # fmt: skip
    """Apply one edit to the newest version, save it, and give back what changed; an edit that is sent again is
    answered again and not done again."""
    return made(request, kit, control, read_edit(edit), seen, Sender(window, ident, based))


def made(
    request: Request, kit: str, control: str, edit: Edit, seen: Selection, sender: Sender,
    files: Sequence[bytes] = (),
) -> dict[str, Any]:  # fmt: skip
    """Apply and save an edit with the files that it brings, tell other windows, and give back what changed."""
    kits = kits_of(request)
    with turn_of(request):
        return _made(request, kits, kit, control, edit, seen, sender, files)


def _made(
    request: Request, kits: Kits, kit: str, control: str, edit: Edit, seen: Selection, sender: Sender,
    files: Sequence[bytes],
) -> dict[str, Any]:  # fmt: skip
    edit = seen.into(edit)

    def show(ground: Ground, made: Made) -> Shown:
        return _shown(Around(kit, ground.index, ground.index_hash, kits.kin(kit, made.after)), made, edit, seen)

    done, shown = editing.edit_shown(kits, kit, control, edit, show, sender, files)
    if done.changes:
        _announce(request, kit, done.now, sender, said=done.label, paths=shown.sets)
    announce_led(request, kit, done.now.led)
    said = with_led(_with_meanwhile(done), done.now.led)
    view = with_history(shown.view, kits.history(kit, control))
    return parcels_of(request).parcel(view, seen.have) | {
        "said": f"{said}. {shown.remark}" if shown.remark else said, "fresh": shown.fresh, "removed": shown.removed,
    }  # fmt: skip


@dataclass(frozen=True, slots=True)
class Shown:
    """What is answered to an edit, but for what is told of the history."""

    view: View
    fresh: list[str]
    remark: str
    sets: list[str]
    removed: bool


def _shown(around: Around, made: Made, edit: Edit, seen: Selection) -> Shown:
    fresh = editing.added(made, seen.drawn(made.after), seen.editions)
    selected = seen.evolve(part=",".join(fresh[0]) or seen.part, effect=fresh[1] or seen.effect)
    remark = " ".join(filter(None, (edit.remark(Surroundings.of(around.index)), _lost(made, edit))))
    view = look_of(around, made.now, selected)
    return Shown(view, list(fresh[0]), remark, sorted(edit.sets()), edit.removes())


def _lost(done: Made, edit: Edit) -> str:
    made_apart = InEditions | InStates | OfStates
    return "" if isinstance(edit, made_apart) else lost_words(done.before, done.after)


def _with_meanwhile(done: Made) -> str:
    """What was done, and what other windows did before it came."""
    if not done.meanwhile:
        return done.said
    more = f" and {len(done.meanwhile) - 1} more" if len(done.meanwhile) > 1 else ""
    return f"{done.said}. In another window meanwhile: {done.meanwhile[-1].label}{more}"


@router.post(BENCH + "/steps/{way}")
def undo_or_redo(
    request: Request, kit: str, control: str, way: Literal["undo", "redo"],
    seen: Annotated[Selection, Body()] = NOTHING, window: Window = "", ident: Ident = "",
) -> dict[str, Any]:  # fmt: skip
    """Take back the newest edit of this control, or do it again."""
    kits, sender = kits_of(request), Sender(window, ident)
    step = kits.redo(kit, control, sender) if way == "redo" else kits.undo(kit, control, sender)
    stored = kits.control(kit, control)
    if step is not None:
        _announce(request, kit, stored, sender, said=_said(step, way), whose=step.window)
        announce_led(request, kit, step.led)
        if step.of_kit:
            presence_of(request).tell_kit(kit, {"news": "", "version": 0})
    said = {"said": with_led(_said(step, way), step.led if step else ())}
    try:
        return _parcel(request, kit, stored, seen) | said
    except Exception:
        # The step is taken, so it is no error; the page is asked for anew, and says what cannot be shown.
        log.exception("A control cannot be shown after a step")
        return {"lost": True} | said


def _said(step: Step | None, way: str) -> str:
    if step is None:
        return "There is nothing to do again." if way == "redo" else "There is nothing to take back."
    return f"{'Did again' if way == 'redo' else 'Took back'}: {step.label}"


def _announce(
    request: Request, kit: str, stored: Stored, sender: Sender, *,
    said: str, paths: Sequence[str] = (), whose: str = "",
) -> None:  # fmt: skip
    """Tell every window what was done, which values it set, and whose edit it took back or did again."""
    news: dict[str, object] = {
        "news": stored.hash, "version": stored.version, "by": sender.window,
        "said": said, "paths": list(paths), "whose": whose,
    }  # fmt: skip
    presence_of(request).tell((kit, stored.control.id), news)
    presence_of(request).tell((kit, ""), {"news": stored.hash})
