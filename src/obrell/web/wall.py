"""Wall: all controls of a kit, and all kits."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass
from math import floor
from typing import Annotated, Any

from fastapi import APIRouter, File, Form, Request, UploadFile
from pydantic import ValidationError
from starlette.datastructures import URL, QueryParams
from starlette.responses import HTMLResponse, RedirectResponse, Response

from obrell.app import copying, editing
from obrell.app.checking import check_one
from obrell.core.document.model import Canvas, Control
from obrell.core.document.resolve import DAY, DAY_NAME, colourway_or_day, palette
from obrell.core.edit import read_edit
from obrell.core.edit.colourways import name_of
from obrell.core.edit.kits import KitIndex, with_light
from obrell.core.edit.swatches import ROLES
from obrell.core.edit.typed import number_from
from obrell.core.edit.variants import Variant, icons_of, main_colours, texts_of
from obrell.core.errors import BadValue, Unreadable
from obrell.core.geometry.svgdata import number
from obrell.core.interchange.kit_file import write_kit
from obrell.core.interchange.limits import MAX_KIT_BYTES
from obrell.core.interchange.palettes import LABELS
from obrell.core.trial.kits import read_kit
from obrell.core.values.base import bad_value, text_hash
from obrell.core.values.fields import Live
from obrell.core.values.slugs import slug
from obrell.store.history import Step
from obrell.store.kits import Kits
from obrell.web.commands import GROUNDS
from obrell.web.led import announce_led, with_led
from obrell.web.lost import lost
from obrell.web.pages import block, page
from obrell.web.pictures import Dressed
from obrell.web.scales import scale_in
from obrell.web.services import Form as WholeForm
from obrell.web.services import kits_of, presence_of

router = APIRouter()
WALL = "/kits/{kit}"
PX = Live("px")
DEGREES = Live("°")
BESIDE = "all"
"""What the address says when every colourway is shown."""
ROWS = 4
"""Rows that the table of copies begins with."""
ROOM_PX, MOST_HIGH_PX = 940, 420
"""The largest that art is shown: as wide as a row of tiles in a small window, and short enough to be seen whole."""
WIDE_PX = 330
"""Wider than one tile among others."""


@router.get("/")
def start(request: Request) -> Response:
    """The first kit's Wall, or the page that offers to make one."""
    shown = [kit for kit in kits_of(request).names() if not kit.removed and not kit.damaged]
    if shown:
        return RedirectResponse(f"/kits/{shown[0].id}", 303)
    context = {"view": "none", "kits": kits_of(request).names(), "kit": None, "control": None}
    return page(request, "no_kit.html", context)


@router.get(WALL + "/wall")
def now(request: Request, kit: str) -> HTMLResponse:
    """What stands on it now, after something was done in another window."""
    return _wall(request, kit, template="_wall.html")


@router.get(WALL)
def wall(request: Request, kit: str) -> HTMLResponse:
    """The whole view; of a kit whose own values cannot be read, its history and the way back."""
    try:
        return _wall(request, kit)
    except Unreadable as error:
        return lost(request, kit, str(error))


@dataclass(frozen=True, slots=True)
class Art:
    """How large a control is shown, logical px, and its size in words, with the scale where that is not true size."""

    scale: float
    width: float
    height: float
    words: str
    wide: bool
    """Whether it takes a row to itself."""

    @classmethod
    def of(cls, width: float, height: float, room: float) -> Art:
        """At true size, or whole where it is larger than ``room`` px across or ``MOST_HIGH_PX``; a control that cannot
        be read has none."""
        # A density of whole thousandths, as addresses of pictures have it.
        scale = floor(1000 * scale_in(width, height, room, MOST_HIGH_PX)) / 1000
        size = f"{number(width)} × {number(height)}"
        words = size if scale == 1 else f"{size}, at {max(1, round(scale * 100))} %"
        return cls(scale, width * scale, height * scale, words, width * scale > WIDE_PX)


def _wall(request: Request, kit: str, said: str = "", template: str = "wall.html") -> HTMLResponse:
    kits = kits_of(request)
    index = kits.index(kit)
    way, beside = shown_way(request, index)
    dressed, shown = Dressed(kit, index, way), kits.tiles(kit)
    ways = [Dressed(kit, index, one) for one in (DAY, *(one.id for one in index.colourways))] if beside else []
    room = ROOM_PX / max(1, len(ways))
    tiles = [
        {
            "control": tile,
            "art": art,
            "picture": dressed.of(tile.hash, tile.uses, art.scale),
            "ground": dressed.of(tile.hash, tile.uses, 1, ground=1),
            "stands": tile.stands,
            "double": dressed.of(tile.hash, tile.uses, 2 * art.scale),
            "ways": [
                (one.colourway, one.of(tile.hash, tile.uses, art.scale), one.of(tile.hash, tile.uses, 1, ground=1))
                for one in ways
            ],
            "key": f"{tile.id}-{text_hash(dressed.of(tile.hash, tile.uses, 1))}",
        }
        for tile in shown
        for art in (Art.of(tile.width, tile.height, room),)
    ]
    steps = kits.history(kit)
    followed = Counter[str]()
    for tile in shown:
        followed.update(tile.uses)
    context = {
        "view": "wall", "kit": index, "standing": kits.standing(kit), "tiles": tiles,
        "kits": kits.names(), "said": said,
        "steps": steps, "undo": steps.can_undo, "redo": steps.can_redo,
        "control": None, "grounds": GROUNDS, "followed": followed, "roles": ROLES,
        "written_as": LABELS, "way": way, "beside": beside,
        "palette": palette(index, way), "way_name": name_of(index, way),
        "colourways": [(DAY, DAY_NAME), *((one.id, one.name) for one in index.colourways)],
    }  # fmt: skip
    return page(request, template, context)


def shown_way(request: Request, index: KitIndex) -> tuple[str, bool]:
    """The colourway that the Wall is shown in, and whether all of them stand beside each other: as its address says,
    or that of the page which asks. One that is gone is Day."""
    asked_from = QueryParams(URL(request.headers.get("hx-current-url", "")).query)
    wanted = request.query_params.get("colourway") or asked_from.get("colourway", DAY)
    return colourway_or_day(index, wanted), wanted == BESIDE and bool(index.colourways)


def wall_block(request: Request, kit: str, said: str = "") -> HTMLResponse:
    """What stands on the Wall after something was done there, which its other windows hear of."""
    presence_of(request).tell((kit, ""), {"standing": kits_of(request).standing(kit)})
    return _wall(request, kit, said, "_wall.html")


@router.post(WALL + "/controls")
def add_control(
    request: Request, kit: str, name: Annotated[str, Form()],
    width: Annotated[str, Form()], height: Annotated[str, Form()],
) -> Response:  # fmt: skip
    """A new control, opened on the Bench."""
    try:
        canvas = Canvas(width=number_from(width, PX), height=number_from(height, PX))
        Control(id="new", name=name.strip(), canvas=canvas)
    except ValidationError as error:
        raise bad_value(error, Canvas if "canvas" in str(error).lower() else Control) from error
    new = kits_of(request).add_control(kit, name.strip(), canvas)
    return Response(headers={"hx-redirect": f"/kits/{kit}/controls/{new}"})


@router.get(WALL + "/controls/{control}/found")
def found(request: Request, kit: str, control: str) -> HTMLResponse:
    """How much was found in a control, for its tile."""
    found = check_one(kits_of(request), kit, control)
    return HTMLResponse(block("_found.html", {"found": found, "kit": kit, "control": control}))


@router.post(WALL + "/controls/{control}/name")
def rename_control(request: Request, kit: str, control: str, name: Annotated[str, Form()]) -> HTMLResponse:
    """Another name, in place."""
    change = {"kind": "set", "changes": [{"path": "name", "value": name.strip()}]}
    stored = editing.edit(kits_of(request), kit, control, read_edit(change)).now
    news: dict[str, object] = {"news": stored.hash, "version": stored.version}
    presence_of(request).tell((kit, control), news)
    return wall_block(request, kit)


@router.post(WALL + "/controls/{control}/copy")
def copy_control(request: Request, kit: str, control: str) -> HTMLResponse:
    """A copy right behind it."""
    kits_of(request).duplicate_control(kit, control)
    return wall_block(request, kit, "Made a copy.")


@router.get(WALL + "/controls/{control}/variants")
def variants(request: Request, kit: str, control: str) -> HTMLResponse:
    """The small table of copies with changes."""
    kits = kits_of(request)
    stored, index = kits.control(kit, control), kits.index(kit)
    context = {
        "kit": index, "control": stored.control, "texts": texts_of(stored.control),
        "icons": icons_of(stored.control), "colours": main_colours(stored.control, palette(index)),
        "rows": range(ROWS), "picture": Dressed(kit, index).stored(stored, 1),
    }  # fmt: skip
    return page(request, "_variants.html", context)


@router.post(WALL + "/controls/{control}/variants")
def make_variants(request: Request, kit: str, control: str, fields: WholeForm) -> HTMLResponse:
    """A copy for every row that has a name."""
    follow = "follow" in fields
    rows = [(name, value) for name, value in fields.multi_items() if name != "follow"]
    made = copying.copies(kits_of(request), kit, control, _variants(rows), follow=follow)
    return wall_block(request, kit, f"Made {len(made)} cop{'y' if len(made) == 1 else 'ies'}.")


def _variants(fields: Iterable[tuple[str, object]]) -> list[Variant]:
    """What stands in the rows of the table: fields called ``3 words p2`` and the like; a name makes it a copy."""
    rows: dict[str, dict[str, Any]] = {}
    for field, value in fields:
        row, kind, which = [*field.split(" ", 2), ""][:3]
        if not isinstance(value, str) or kind not in ("name", "words", "icons", "colours"):
            raise BadValue("This is not a table of copies.")
        values = rows.setdefault(row, {})
        if kind == "name":
            values["name"] = value.strip()
        elif value.strip() or kind == "words":
            values.setdefault(kind, {})[which] = value.strip()
    try:
        return [Variant.model_validate(values) for values in rows.values() if values.get("name")]
    except ValidationError as error:
        raise bad_value(error, Variant) from error


@router.post(WALL + "/controls/{control}/remove")
def remove_control(request: Request, kit: str, control: str) -> HTMLResponse:
    """Taken out of the kit; the message offers to take it back."""
    name = kits_of(request).remove_control(kit, control)
    presence_of(request).tell((kit, control), {"gone": True})
    return wall_block(request, kit, f"Removed “{name}”. Undo brings it back.")


@router.post(WALL + "/controls/{control}/move")
def move_control(request: Request, kit: str, control: str, to: Annotated[int, Form(ge=0)]) -> HTMLResponse:
    """To another place in the order."""
    kits_of(request).move_control(kit, control, to)
    return wall_block(request, kit)


@router.post(WALL + "/undo")
def undo(request: Request, kit: str) -> HTMLResponse:
    """Take back the newest step of the kit or any of its controls."""
    return _stepped(request, kit, kits_of(request).undo(kit), "Took back")


@router.post(WALL + "/redo")
def redo(request: Request, kit: str) -> HTMLResponse:
    """Do it again."""
    return _stepped(request, kit, kits_of(request).redo(kit), "Did again")


def _stepped(request: Request, kit: str, step: Step | None, verb: str) -> HTMLResponse:
    if step is None:
        return wall_block(request, kit, "There is nothing left to do there.")
    news: dict[str, object] = {"news": "", "version": 0, "said": f"{verb}: {step.label}", "whose": step.window}
    if step.control and not step.of_kit:
        presence_of(request).tell((kit, step.control), news)
        presence_of(request).tell((kit, ""), news)
    else:
        presence_of(request).tell_kit(kit, news)
    announce_led(request, kit, step.led)
    return wall_block(request, kit, with_led(f"{verb}: {step.label}", step.led))


@router.post(WALL + "/light")
def set_light(
    request: Request, kit: str,
    direction: Annotated[str | None, Form()] = None, height: Annotated[str | None, Form()] = None,
) -> HTMLResponse:  # fmt: skip
    """The kit's key light: from where, or how high; controls without a light of their own follow."""
    typed = {"direction": direction, "height": height}
    values = {name: number_from(text, DEGREES) for name, text in typed.items() if text is not None}
    kits_of(request).change_index(kit, lambda index: with_light(index, **values), "Moved the kit's key light")
    presence_of(request).tell_kit(kit, {"news": "", "version": 0})
    return wall_block(request, kit)


@router.post(WALL + "/name")
def rename_kit(request: Request, kit: str, name: Annotated[str, Form()]) -> Response:
    """Another name for the kit."""
    wanted = name.strip()
    kits_of(request).change_index(kit, lambda i: i.evolve(name=wanted), f"Renamed the kit to “{wanted}”")
    return Response(headers={"hx-refresh": "true"})


@router.post("/kits")
def add_kit(request: Request, name: Annotated[str, Form()]) -> Response:
    """A new, empty kit."""
    kits: Kits = kits_of(request)
    if not name.strip():
        raise BadValue("Name: cannot be empty.")
    try:
        new = kits.add_kit(name.strip())
    except ValidationError as error:
        raise bad_value(error, Control) from error
    return Response(headers={"hx-redirect": f"/kits/{new}"})


@router.post("/kits/import")
def import_kit(request: Request, file: Annotated[UploadFile, File()]) -> Response:
    """A kit from a file, beside the others."""
    content = file.file.read(MAX_KIT_BYTES + 1)
    new = kits_of(request).import_texts(read_kit(content))
    return Response(headers={"hx-redirect": f"/kits/{new}"})


@router.get(WALL + "/export")
def export_kit(request: Request, kit: str) -> Response:
    """The kit as one file."""
    document = kits_of(request).export_kit(kit)
    headers = {"content-disposition": f'attachment; filename="{slug(document.name, kit)}.kit.json"'}
    return Response(write_kit(document), media_type="application/json", headers=headers)


@router.post(WALL + "/remove")
def remove_kit(request: Request, kit: str) -> Response:
    """Taken out of the list; it can be brought back."""
    kits_of(request).index(kit)
    kits_of(request).set_removed(kit, True)
    return Response(headers={"hx-redirect": "/"})


@router.post(WALL + "/restore")
def restore_kit(request: Request, kit: str) -> Response:
    """Back in the list."""
    kits_of(request).set_removed(kit, False)
    return Response(headers={"hx-redirect": f"/kits/{kit}"})
