"""What is brought in from outside: icons, SVG drawings, pictures, fonts."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, Body, Query, Request
from starlette.responses import Response

from obrell.app import imports
from obrell.core.document.model import KitSettings
from obrell.core.errors import NoSuchThing
from obrell.core.files import picture_type
from obrell.core.geometry.svgdata import path_data
from obrell.core.icons import find_icons, icon_names, icon_paths
from obrell.core.interchange.limits import MAX_SVG_CHARACTERS
from obrell.core.text.fonts import FONT_NAMES, load
from obrell.core.text.setting import set_words
from obrell.web.assets import FOR_EVER
from obrell.web.bench import BENCH, made
from obrell.web.selection import NOTHING, Selection
from obrell.web.services import Based, Content, Ident, Sender, Window, kits_of

router = APIRouter()
SHOWN_SIZE = 22.0
SHOWN_WORDS = 40


@router.get("/icons")
def icons(words: str = "") -> dict[str, Any]:
    """Icons whose name or tags hold the words."""
    found = find_icons(words[:100])
    return {"icons": [{"name": name, "paths": icon_paths(name)} for name in found], "count": len(icon_names())}


@router.post(BENCH + "/drawings")
def drawing(
    request: Request, kit: str, control: str,
    svg: Annotated[str, Body(max_length=MAX_SVG_CHARACTERS)], name: Annotated[str, Body(max_length=200)] = "",
    seen: Annotated[Selection, Body()] = NOTHING, window: Window = "", ident: Ident = "", based: Based = 0,
) -> dict[str, Any]:  # fmt: skip
    """The parts of an SVG put into a control; what was left out is said."""
    brought = imports.drawing(kits_of(request), kit, svg, name)
    state = made(request, kit, control, brought.edit, seen, Sender(window, ident, based), brought.files)
    if brought.left_out:
        state["said"] += f". {brought.left_out}"
    return state


@router.post(BENCH + "/pictures")
def picture(
    request: Request, kit: str, control: str, content: Content, name: Annotated[str, Query(max_length=200)] = "",
    use: str = "part", path: Annotated[str, Query(max_length=300)] = "",
    seen: Annotated[str, Query(max_length=4000)] = "", window: Annotated[str, Query(max_length=60)] = "",
    ident: Annotated[str, Query(max_length=60)] = "", based: Annotated[int, Query(ge=0)] = 0,
) -> dict[str, Any]:  # fmt: skip
    """A picture, the body of the request, put in as a part, as the fill at ``path``, or pinned as the
    reference. ``seen`` is the page's selection as JSON."""
    brought = imports.picture(content, name, use, path)
    shown = Selection.model_validate_json(seen) if seen else NOTHING
    return made(request, kit, control, brought.edit, shown, Sender(window, ident, based), brought.files)


@router.get("/files/{name}")
def file(request: Request, name: str) -> Response:
    """A kept picture, for the stage."""
    content = kits_of(request).file(name)
    kind = None if content is None else picture_type(content)
    if kind is None:
        raise NoSuchThing("That picture is not stored here.")
    return Response(content, media_type=kind, headers=FOR_EVER)


@router.get("/kits/{kit}/fonts")
def fonts(
    request: Request, kit: str, words: Annotated[str, Query(max_length=200)] = "", weight: float = 600
) -> dict[str, Any]:  # fmt: skip
    """Every font the kit has, with the words set in it; favourites first."""
    index = kits_of(request).index(kit)
    shown = words.replace("\n", " ").strip()[:SHOWN_WORDS] or "Label"
    return {"fonts": _shown_fonts(index, shown, weight)}


@router.post("/kits/{kit}/fonts")
def bring_font(request: Request, kit: str, content: Content) -> dict[str, Any]:
    """A font, the body of the request, brought into the kit."""
    kept = imports.font(kits_of(request), kit, content)
    return {"font": kept.file, "name": kept.name}


@router.post("/kits/{kit}/fonts/{font}/favourite")
def favourite(request: Request, kit: str, font: str) -> dict[str, Any]:
    """A font made a favourite, or no longer one."""
    imports.favourite(kits_of(request), kit, font)
    return {}


def _shown_fonts(index: KitSettings, words: str, weight: float) -> list[dict[str, Any]]:
    names = [*FONT_NAMES, *(font.file for font in index.fonts)]
    names.sort(key=lambda name: name not in index.favourites)
    return [_shown_font(name, words, weight, name in index.favourites) for name in names]


def _shown_font(name: Any, words: str, weight: float, is_favourite: bool) -> dict[str, Any]:
    font = load(name)
    setting = set_words(words, name, SHOWN_SIZE, min(1000.0, max(1.0, weight)), 0.0)
    ink = setting.path.bounds()
    box = [min(0.0, ink.left), min(ink.top, -SHOWN_SIZE), max(setting.advance, ink.right), ink.bottom]
    return {
        "name": name, "label": font.name, "favourite": is_favourite, "path": path_data(setting.path),
        "box": box,
        "missing": bool(font.missing(words)),
    }  # fmt: skip
