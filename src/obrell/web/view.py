"""Everything the Bench shows of a control: facts, blocks of HTML, and lists whose items are sent one by one."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import partial
from typing import Any, get_args

from obrell.core.deliver.order import Order
from obrell.core.document.fingerprint import fingerprint, fingerprints, ground_fingerprint
from obrell.core.document.model import REST, Control, KitSettings, Measure, Part, Swatch
from obrell.core.document.nodes import Node
from obrell.core.document.readings import seen as as_seen
from obrell.core.document.resolve import DAY, DAY_NAME, Resolved, palette, resolve
from obrell.core.document.touching import touch_data
from obrell.core.document.tree import descendants
from obrell.core.edit.base import part_of
from obrell.core.edit.kits import KitIndex
from obrell.core.edit.pieces import PieceName
from obrell.core.findings import SEVERITIES, Finding, found_in_state
from obrell.core.geometry.svgdata import number
from obrell.core.paint.areas import touched
from obrell.core.raster.layers import PixelBox
from obrell.core.render.build_up import build_steps, upto
from obrell.core.render.picture import device
from obrell.core.scene.bounds import bounds_of
from obrell.core.scene.stands import stand_of
from obrell.core.shelf import STARTS
from obrell.core.values.roles import ROLES
from obrell.core.workspace import OfObject, remembered
from obrell.store.history import Step, Steps
from obrell.store.kits import Kin, Kits, Stored
from obrell.web.commands import ALIGNMENTS, DRAW_WORDS, FOLDS, LOOKS, MODES, POINTS, WAYS
from obrell.web.edges import edges_of
from obrell.web.editions import editions_view
from obrell.web.moving import came_from, movement_of
from obrell.web.pages import block
from obrell.web.parcels import View
from obrell.web.pictures import Dressed, shown_address
from obrell.web.readings import at_others, driving, offered, readings_of, ways
from obrell.web.scene import around_of, fall_scene, gradient_scene, parts_of
from obrell.web.selection import Selection
from obrell.web.sheet import Mark, PartView, SheetView, sheet_view
from obrell.web.states import departing, states_of
from obrell.web.touching import touch_view

STRIP_WIDTH_PX, STRIP_SHAPE = 168, 1.62
START_WIDTH_PX, START_SHAPE, START_AIR_PX = 176, 1.5, 6
"""Width of a step's picture in device px, and its width over its height."""
MAX_THUMB_PX = 2048
WORDS = {
    "draw": DRAW_WORDS, "modes": MODES, "alignments": ALIGNMENTS, "ways": WAYS, "points": POINTS,
    "measures": get_args(Measure), "looks": LOOKS, "folds": FOLDS,
    "pieces": get_args(PieceName),
}  # fmt: skip
"""Words of the sheet that are the same for every control."""


@dataclass(frozen=True, slots=True)
class Around:
    """What a control's view needs of its kit: the kit's id, its own values with their hash, and the controls that the
    control follows or that follow it."""

    kit: str
    index: KitIndex
    hash: str
    kin: Kin


def view_of(kits: Kits, kit: str, stored: Stored, seen: Selection) -> View:
    """What the Bench shows of a control to a window with that selection."""
    around = Around(kit, kits.index(kit), kits.index_hash(kit), kits.kin(kit, stored.control))
    return with_history(look_of(around, stored, seen), kits.history(kit, stored.control.id))


def with_history(view: View, steps: Steps) -> View:
    """A view with what was done to its control."""
    can = {"undo": steps.can_undo, "redo": steps.can_redo}
    return View(view.facts | can, view.blocks, view.lists | {"steps": step_lines(steps)})


def look_of(around: Around, stored: Stored, seen: Selection) -> View:
    """All of a view but the history: nothing is asked of the store, so it can be made before anything is stored."""
    kit, index, drawn = around.kit, around.index, seen.drawn(stored.control)
    document, stored = stored.control, seen.edition(stored)
    settings, values = index.settings(), seen.values(stored.control)
    way = seen.way(settings)
    resolved = resolve(settings, stored.control, drawn, way, values)
    control = as_seen(stored.control, drawn, values, palette(settings, way))
    editions = editions_view(document, seen.editions, drawn, settings, way)
    dressed = Dressed(kit, settings, way, drawn, at_others(stored.control, values), editions.query)
    seats = Seats(kit, stored, fingerprints(resolved), dressed)
    states = states_of(stored.control, dressed, values, frozenset(seen.also.split(",")))
    selected = _selected(control, seen.part)
    seen = seen.evolve(effect=_opened(control, selected, seen.effect))
    node = resolved.tree.all[selected[0]] if len(selected) == 1 else None
    found = found_in_state(stored.control, drawn, resolved)
    sheet = sheet_view(control, settings, resolved, seen, selected, marks_of(found))
    paths = states.paths | editions.paths
    sheet = driving(departing(replace(sheet, stateful=bool(stored.control.states)), paths), stored.control)
    facts = _facts(resolved, seats, seen, selected, found) | {
        "clip": [_dumped(part) for part in control.parts if part.id in descendants(control, selected)],
        "swatches": [{"id": one.id, "role": one.role, "colour": colour} for one, colour in _coloured(settings)],
        "index": around.hash, "state": drawn,
        "stateName": states.name, "editions": editions.query, "edition": editions.uppermost,
        "files": Order().count_of(document),
        "sizes": [one.id for one in document.sizes], "arts": [one.id for one in document.arts],
        "sign": " · ".join((*editions.names, *([states.name] if drawn != REST else []))),
        "readings": {one.id: one.value for one in stored.control.readings}, "states": [one.id for one in states.all],
        "around": around_of(control, settings, touch_data(stored.control)),
    }  # fmt: skip
    came = came_from(stored.control, drawn, seen.came) if seen.came else ""
    movement = movement_of(stored, dressed, values, came) if came else None
    facts |= {"came": came, "whole": movement.whole if movement else 0.0}
    part = node.part if node else None
    context = {
        "kit": settings, "control": control, "kin": around.kin, "palette": palette(settings, way),
        "states": states, "movement": movement, "editions": editions,
        "touch": touch_view(stored.control, selected), "readings": readings_of(stored.control, control, values),
        "drivable": offered(stored.control, control, selected[0]) if len(selected) == 1 else (),
        "ways": ways(stored.control, control, selected[0]) if len(selected) == 1 else (),
    }  # fmt: skip
    blocks = {
        "sheet-top": block("_sheet.html", context | {"sheet": sheet, "words": WORDS}),
        "strip": block(
            "_strip.html", context | {"part": part, "effect": seen.effect, "steps": _strip(seats, resolved, node)}
        ),
        "moving": block("_moving.html", {"movement": movement}),
        "editions": block("_editions.html", {"editions": editions}),
        "states": block("_states.html", {
            "states": states, "way": way,
            "ways": [(DAY, DAY_NAME), *((one.id, one.name) for one in settings.colourways)],
        }),
        "state-doings": block("_state_doings.html", {"states": states, "editions": editions, "roles": ROLES}),
        "edges": block("_proof.html", {
            "part": part, "edges": edges_of(seats.dressed, stored, resolved, part, seen.place()),
            "found": [_found_view(one) for one in found],
        }),
    }  # fmt: skip
    lists: dict[str, dict[str, Any]] = {
        "parts": _lines(sheet, _thumbs(seats, resolved), _middle(control), _starts(seats, resolved, node)),
        "scene": parts_of(resolved.tree),
    }
    return View(facts, blocks, lists)


def _coloured(kit: KitSettings) -> Iterator[tuple[Swatch, str]]:
    """The swatches of a kit and what each looks like, for what is copied to other kits."""
    colours = palette(kit)
    return ((swatch, colours[swatch.id]) for swatch in kit.swatches)


def _facts(
    resolved: Resolved, seats: Seats, seen: Selection, selected: tuple[str, ...], found: tuple[Finding, ...]
) -> dict[str, Any]:
    control, stored = resolved.control, seats.stored
    return {
        "version": stored.version, "hash": stored.hash, "name": control.name,
        "selected": list(selected), "effect": seen.effect,
        "found": [_found_view(one) for one in found if one.severity == SEVERITIES[0]],
        "ground": shown_address(
            seats.kit, control.id, ground_fingerprint(resolved), 2, ground=1, **seats.dressed.query
        ),
        "stands": control.stands_on,
        "gradient": gradient_scene(control, resolved.tree, ",".join(selected), seen.effect),
        "fall": fall_scene(resolved.tree, ",".join(selected), seen.effect, resolved.lamp.direction),
    }  # fmt: skip


@dataclass(frozen=True, slots=True)
class Seats:
    """Where pictures of a control are found: its kit, the document, what each part shows, and where all of it is."""

    kit: str
    stored: Stored
    shown: dict[str, str]
    dressed: Dressed

    def of(self, part: str, shown: str, density: float, **rest: object) -> str:
        """The address of a picture of a part that shows what has that fingerprint."""
        return shown_address(self.kit, self.stored.control.id, shown, density, part=part, **self.dressed.query, **rest)


def _opened(control: Control, selected: tuple[str, ...], effect: str) -> str:
    """Return the effect that is open; empty where what is selected has it no more."""
    there = {one.id for part in control.parts if part.id in selected for one in part.effects}
    return effect if effect in there else ""


_DUMPED = OfObject[dict[str, Any]](8192)


def _dumped(part: Part) -> dict[str, Any]:
    return _DUMPED.get(part, "", lambda: part.model_dump(mode="json"))


@remembered(8192)
def _step_line(step: Step) -> str:
    return block("_step.html", {"step": step})


def _more(undone: int = 0, older: int = 0, *, damaged: bool = False) -> str:
    """The line before, after or in place of the steps that are listed."""
    return block("_step_more.html", {"undone": undone, "older": older, "damaged": damaged})


def step_lines(steps: Steps) -> dict[str, str]:
    """The list of what was done, by keys."""
    before = {"undone": _more(undone=steps.undone)} if steps.undone else {}
    after = {"older": _more(older=steps.older)} if steps.older else {}
    none = {} if steps.shown else {"none": _more(damaged=steps.damaged)}
    return {**before, **{f"step-{step.number}": _step_line(step) for step in steps.shown}, **after, **none}


_LINES = OfObject[str](8192)


def _lines(
    sheet: SheetView, thumbs: dict[str, str], middle: tuple[str, str], starts: list[tuple[str, str, str]]
) -> dict[str, str]:  # fmt: skip
    """The line of every part; those that are not open are kept."""
    context = {"sheet": sheet, "words": WORDS, "canvas_middle": middle, "starts": starts}

    def line(part: PartView) -> str:
        return block("_part.html", context | {"part": part, "thumb": thumbs[part.id]})

    return {
        part.id: line(part) if part.open else _LINES.get(part, thumbs[part.id], partial(line, part))
        for part in sheet.parts
    }


def _middle(control: Control) -> tuple[str, str]:
    return number(control.canvas.width / 2), number(control.canvas.height / 2)


def _starts(seats: Seats, resolved: Resolved, node: Node | None) -> list[tuple[str, str, str]]:
    """What can be begun with, by id, name and the address of its picture on the one selected part."""
    if node is None:
        return []
    bounds = bounds_of(resolved, node).grown(START_AIR_PX)
    across = max(1.0, bounds.width, bounds.height * START_SHAPE)
    density = round(min(4.0, max(0.02, START_WIDTH_PX / across)), 3)
    where = _query(device(bounds, density))
    shown = seats.shown[node.part.id]
    return [(s.id, s.name, seats.of(node.part.id, shown, density, start=s.id, free=1, **where)) for s in STARTS]


def _thumbs(seats: Seats, resolved: Resolved) -> dict[str, str]:
    def address(part: Part, shown: str) -> str:
        return seats.of(part.id, shown, 1, free=1, **_query(_shape_box(resolved, part).grown(2)))

    place = (seats.kit, seats.stored.control.id, seats.dressed.colourway)
    return {
        name: _ADDRESSES.get(node.part, (*place, shown), partial(address, node.part, shown))
        for name, node in resolved.tree.all.items()
        for shown in (seats.shown[name],)
    }


_ADDRESSES = OfObject[str](8192)


def _shape_box(resolved: Resolved, part: Part) -> PixelBox:
    """The device pixels of a part's shape at density 1, wherever it lies; no more than can be drawn."""
    box = touched(stand_of(resolved, part, 1.0).outline)
    return box.meet(PixelBox(box.left, box.top, box.left + MAX_THUMB_PX, box.top + MAX_THUMB_PX))


def _query(box: PixelBox) -> dict[str, int]:
    return {"left": box.left, "top": box.top, "width": box.width, "height": box.height}


def marks_of(found: tuple[Finding, ...]) -> dict[str, Mark]:
    """What stands at the lines of parts, by their ids: the mark of the first finding that has one."""
    marks: dict[str, Mark] = {}
    for one in found:
        for part in one.parts if one.mark else ():
            marks.setdefault(part, Mark(one.mark, one.words))
    return marks


def _found_view(found: Finding) -> dict[str, object]:
    """What was found, and what can be done about it."""
    return {
        "kind": found.kind, "severity": found.severity, "words": found.words, "parts": list(found.parts),
        "cures": [{"words": cure.words, "edit": cure.edit.model_dump(mode="json")} for cure in found.cures],
    }  # fmt: skip


def _strip(seats: Seats, resolved: Resolved, node: Node | None) -> list[dict[str, object]]:
    if node is None:
        return []
    part, bounds = node.part, bounds_of(resolved, node)
    across = max(1.0, bounds.width, bounds.height * STRIP_SHAPE)
    density = round(min(4.0, max(0.02, STRIP_WIDTH_PX / across)), 3)
    where = _query(device(bounds, density))
    whole = part_of(resolved.control, part.id)

    def picture(count: int, **rest: object) -> str:
        shown = fingerprint(resolved, upto(whole, count))
        return seats.of(part.id, shown, density, count=count, free=1, **rest, **where)

    return [
        {
            "picture": picture(step.count),
            "heat": picture(step.count, hot=1) if step.effect and not step.hidden else "",
            "label": step.label, "effect": step.effect, "hidden": step.hidden,
        }
        for step in build_steps(part)
    ]  # fmt: skip


def _selected(control: Control, part: str) -> tuple[str, ...]:
    """The parts named in ``part`` that are there, in paint order."""
    wanted = set(part.split(","))
    return tuple(p.id for p in control.parts if p.id in wanted)
