"""Bench: draw one control."""

from __future__ import annotations

import logging
from collections.abc import Sequence
from functools import partial
from typing import Annotated, Any, Literal, get_args

from fastapi import APIRouter, Body, Query, Request
from starlette.responses import HTMLResponse

from obrell.core.check.cut_strokes import cut_strokes
from obrell.core.check.soft_sides import soft_sides
from obrell.core.deliver.order import Order
from obrell.core.document.model import Control, Measure, Part
from obrell.core.document.nodes import Node
from obrell.core.document.resolve import Resolved, resolve
from obrell.core.document.tree import descendants
from obrell.core.edit import Edit, read_edit
from obrell.core.edit.base import part_of
from obrell.core.errors import ObrellError, Unreadable
from obrell.core.geometry.svgdata import number
from obrell.core.kept import OfObject
from obrell.core.raster.layers import NO_BOX, Box
from obrell.core.render.build_up import build_steps, costs
from obrell.core.render.compose import SHARED, canvas_box, painted_bounds
from obrell.core.render.picture import device
from obrell.core.render.site import device_box, site_of
from obrell.store.history import Step
from obrell.store.kits import Kits, Stored
from obrell.web.commands import ALIGNMENTS, DRAW_WORDS, GROUNDS, LOOKS, MODES, NEEDS, POINTS, WAYS, commands
from obrell.web.lost import lost
from obrell.web.pages import block, page
from obrell.web.pictures import picture_address
from obrell.web.scene import gradient_scene, scene_of
from obrell.web.selection import NOTHING, Selection
from obrell.web.services import Ident, Sender, Window, kits_of, rooms_of, turn_of
from obrell.web.sheet import PartView, SheetView, sheet_view

router = APIRouter()
CANNOT = "Something in it cannot be drawn; it is our fault, and it is logged."
log = logging.getLogger(__name__)
BENCH = "/kits/{kit}/controls/{control}"
EDGE_DENSITIES = (1.0, 1.5, 2.0, 3.0)
EDGE_SIZE = (24, 18)
"""Logical px of the corner shown at each density."""
EDGE_LEAD = 4
"""Logical px shown outside the corner."""
STRIP_WIDTH_PX, STRIP_SHAPE = 168, 1.62
"""Width of a step's picture in device px, and its width over its height."""
PROOF_WIDTH, PROOF_HEIGHT = 216.0, 300.0
"""Logical px that the column at the right has for the whole control."""
MAX_THUMB_PX = 2048
COST_DENSITY = 2.0
WORDS = {
    "draw": DRAW_WORDS, "modes": MODES, "alignments": ALIGNMENTS, "ways": WAYS, "points": POINTS,
    "measures": get_args(Measure), "looks": LOOKS,
}  # fmt: skip
"""Words of the sheet that are the same for every control."""


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
        state = _state(kits, kit, stored, seen)
    except ObrellError as error:
        return lost(request, kit, str(error), control)
    except Exception:
        log.exception("A control cannot be shown")
        return lost(request, kit, CANNOT, control)
    context = {
        "view": "bench", "kit": index, "control": stored.control, "state": state,
        "start": {name: value for name, value in state.items() if name != "blocks"},
        "grounds": GROUNDS, "files": _file_count(), "densities": EDGE_DENSITIES, "kits": kits.names(),
        "commands": commands(), "needs": NEEDS,
    }  # fmt: skip
    return page(request, "bench.html", context)


@router.get(BENCH + "/blocks")
def blocks(
    request: Request, kit: str, control: str, seen: Annotated[Selection, Query()]
) -> dict[str, Any]:  # fmt: skip
    """The view's blocks as they stand, for a selection."""
    kits = kits_of(request)
    stored = kits.control(kit, control)
    return _state(kits, kit, stored, seen)


@router.get(BENCH + "/costs")
def step_costs(request: Request, kit: str, control: str, part: str) -> dict[str, list[float]]:
    """What each step of a part's build-up costs at density 2, milliseconds."""
    kits = kits_of(request)
    shown = kits.control(kit, control).control
    part_of(shown, part)
    return {"ms": costs(kits.index(kit).settings(), shown, part, COST_DENSITY)}


@router.post(BENCH + "/edits")
def edit(
    request: Request, kit: str, control: str,
    edit: Annotated[Any, Body()], seen: Annotated[Selection, Body()] = NOTHING,
    window: Window = "", ident: Ident = "",
) -> dict[str, Any]:  # fmt: skip
    """Apply one edit to the newest version, save it, and give back what changed; an edit that is sent again is
    answered again and not done again."""
    return made(request, kit, control, read_edit(edit), seen, Sender(window, ident))


def made(
    request: Request, kit: str, control: str, edit: Edit, seen: Selection, sender: Sender
) -> dict[str, Any]:  # fmt: skip
    """Apply and save an edit, tell other windows, and give back what changed."""
    kits = kits_of(request)
    with turn_of(request):
        return _made(request, kits, kit, control, edit, seen, sender)


def _made(
    request: Request, kits: Kits, kit: str, control: str, edit: Edit, seen: Selection, sender: Sender
) -> dict[str, Any]:  # fmt: skip
    done = kits.edit(kit, control, edit, sender)
    fresh = _fresh(done.before, done.after)
    shown = seen.evolve(part=",".join(fresh[0]) or seen.part, effect=fresh[1] or seen.effect)
    _announce(request, kit, done.now, sender, said=done.label, paths=sorted(edit.sets()))
    return _state(kits, kit, done.now, shown) | {
        "said": done.label, "fresh": list(fresh[0]), "removed": edit.removes(),
    }  # fmt: skip


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
    return _state(kits, kit, stored, seen) | {"said": _said(step, way)}


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
    rooms_of(request).tell((kit, stored.control.id), news)


def _selected(control: Control, part: str) -> tuple[str, ...]:
    """The parts named in ``part`` that are there, in paint order."""
    wanted = set(part.split(","))
    return tuple(p.id for p in control.parts if p.id in wanted)


def _fresh(before: Control, after: Control) -> tuple[tuple[str, ...], str]:
    """Parts and the effect that an edit added."""
    old = {p.id: p for p in before.parts}
    new = {p.id for p in after.parts if p.id not in old}
    parts = tuple(p.id for p in after.parts if p.id in new and p.within not in new)
    for part in after.parts:
        if part.id in old:
            known = {e.id for e in old[part.id].effects}
            added = [e.id for e in part.effects if e.id not in known]
            if added:
                return parts, added[-1]
    return parts, ""


def _state(kits: Kits, kit: str, stored: Stored, seen: Selection) -> dict[str, Any]:
    """Everything the page shows of a control: blocks of HTML, the scene, what can be undone."""
    control, index, index_hash = stored.control, kits.index(kit), kits.index_hash(kit)
    settings = index.settings()
    resolved = resolve(settings, control)
    selected, effect = _selected(control, seen.part), seen.effect
    held = descendants(control, selected)
    node = resolved.tree.all[selected[0]] if len(selected) == 1 else None
    part = node.part if node else None
    steps = kits.history(kit, control.id)
    sheet = sheet_view(control, settings, resolved, seen, selected, _off_canvas(resolved))
    context = {"kit": settings, "control": control}
    return {
        "version": stored.version, "hash": stored.hash, "index": index_hash,
        "selected": list(selected), "effect": effect, "name": control.name,
        "clip": [p.model_dump(mode="json") for p in control.parts if p.id in held],
        "cut": [
            {"name": cut.name, "inside": cut.inside().model_dump(), "grow": cut.grown().model_dump()}
            for cut in cut_strokes(resolved)
        ],
        "ground": picture_address(index_hash, stored.hash, 2, ground=1),
        "gradient": gradient_scene(control, resolved.tree, ",".join(selected), effect),
        "scene": scene_of(control, settings, resolved.tree, outlines=True),
        "undo": steps.can_undo, "redo": steps.can_redo,
        "blocks": {
            "sheet": block("_sheet.html", context | {
                "sheet": sheet, "canvas_middle": _middle(control),
                "words": WORDS, "lines": _lines(sheet, _thumbs(index_hash, stored, resolved), _middle(control)),
            }),
            "strip": block("_strip.html", context | {
                "part": part, "effect": effect, "steps": _strip(index_hash, stored, resolved, node),
            }),
            "proof": block("_proof.html", context | {
                "part": part, "proof": _proof(index_hash, stored),
                "edges": _edges(index_hash, stored, resolved, part),
            }),
            "history": block("_history.html", {"steps": steps}),
        },
    }  # fmt: skip


_LINES = OfObject[str](8192)


def _lines(sheet: SheetView, thumbs: dict[str, str], middle: tuple[str, str]) -> list[str]:
    """The block of every part; those that are not open are kept."""
    context = {"sheet": sheet, "words": WORDS, "canvas_middle": middle}

    def line(part: PartView) -> str:
        return block("_part.html", context | {"part": part, "thumb": thumbs[part.id]})

    return [
        line(part) if part.open else _LINES.get(part, thumbs[part.id], partial(line, part)) for part in sheet.parts
    ]


def _middle(control: Control) -> tuple[str, str]:
    return number(control.canvas.width / 2), number(control.canvas.height / 2)


def _thumbs(index: str, stored: Stored, resolved: Resolved) -> dict[str, str]:
    return {
        name: picture_address(
            index, stored.hash, 1, part=name, free=1, **_query(_shape_box(resolved, node.part).grown(2))
        )
        for name, node in resolved.tree.all.items()
    }


def _shape_box(resolved: Resolved, part: Part) -> Box:
    """The device pixels of a part's shape at density 1, wherever it lies; no more than can be drawn."""
    box = _outer_box(resolved, part)
    limit = Box(box.left, box.top, box.left + MAX_THUMB_PX, box.top + MAX_THUMB_PX)
    return box.meet(limit)


_OUTER = OfObject[Box](8192)


def _outer_box(resolved: Resolved, part: Part) -> Box:
    """The device pixels of a part's shape at density 1."""

    def made() -> Box:
        return device_box(site_of(resolved, part, 1.0, NO_BOX, SHARED).outline)

    return _OUTER.get(part, resolved.fit, made)


def _query(box: Box) -> dict[str, int]:
    return {"left": box.left, "top": box.top, "width": box.width, "height": box.height}


def _strip(index: str, stored: Stored, resolved: Resolved, node: Node | None) -> list[dict[str, object]]:
    if node is None:
        return []
    part, bounds = node.part, painted_bounds(resolved, node)
    across = max(1.0, bounds.width, bounds.height * STRIP_SHAPE)
    density = round(min(4.0, max(0.02, STRIP_WIDTH_PX / across)), 3)
    where = _query(device(bounds, density))
    return [
        {
            "picture": picture_address(
                index, stored.hash, density, part=part.id, count=step.count, free=1, **where
            ),
            "heat": picture_address(
                index, stored.hash, density, part=part.id, count=step.count, free=1, hot=1, **where
            ) if step.effect and not step.hidden else "",
            "label": step.label, "effect": step.effect, "hidden": step.hidden,
        }
        for step in build_steps(part)
    ]  # fmt: skip


def _proof(index: str, stored: Stored) -> dict[str, object]:
    """The whole control in the column at the right: at true size, or as large as the column lets it be."""
    canvas = stored.control.canvas
    scale = min(1.0, PROOF_WIDTH / canvas.width, PROOF_HEIGHT / canvas.height)
    single, double = (picture_address(index, stored.hash, round(d * scale, 3)) for d in (1, 2))
    size = {"width": round(canvas.width * scale), "height": round(canvas.height * scale)}
    return {"scale": scale, "single": single, "double": double} | size


def _edges(index: str, stored: Stored, resolved: Resolved, part: Part | None) -> list[dict[str, object]]:
    """One corner of the part at each density, and how many of its sides are soft."""
    if part is None:
        return []
    bounds = part.shape.frame()
    edges: list[dict[str, object]] = []
    for density in EDGE_DENSITIES:
        left = round((part.x + bounds.left - EDGE_LEAD) * density)
        top = round((part.y + bounds.top - EDGE_LEAD) * density)
        width, height = (round(size * density) for size in EDGE_SIZE)
        box = _query(Box(left, top, left + width, top + height))
        edges.append({
            "density": density, "soft": soft_sides(resolved, part, density),
            "picture": picture_address(index, stored.hash, density, free=1, **box),
        })  # fmt: skip
    return edges


def _off_canvas(resolved: Resolved) -> frozenset[str]:
    """Parts whose shape lies wholly or partly off the canvas."""
    canvas = canvas_box(resolved, 1.0)
    outside = set()
    for name, node in resolved.tree.all.items():
        box = _outer_box(resolved, node.part)
        if not box.empty and box.meet(canvas) != box:
            outside.add(name)
    return frozenset(outside)


def _file_count() -> int:
    order = Order()
    return len(order.densities) + 1
