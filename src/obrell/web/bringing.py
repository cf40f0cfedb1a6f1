"""What is brought in from outside: icons and SVG drawings."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, Body, Request

from obrell.core.edit.insert import InsertParts
from obrell.core.icons import find_icons, icon_names, icon_paths
from obrell.core.interchange.svg_read import MAX_BYTES, read_svg
from obrell.web.bench import BENCH, made
from obrell.web.selection import NOTHING, Selection

router = APIRouter()


@router.get("/icons")
async def icons(words: str = "") -> dict[str, Any]:
    """Icons whose name or tags hold the words."""
    found = find_icons(words[:100])
    return {"icons": [{"name": name, "paths": icon_paths(name)} for name in found], "count": len(icon_names())}


@router.post(BENCH + "/drawings")
async def drawing(
    request: Request, kit: str, control: str,
    svg: Annotated[str, Body(max_length=MAX_BYTES)], name: Annotated[str, Body(max_length=200)] = "",
    seen: Annotated[Selection, Body()] = NOTHING, window: Annotated[str, Body(max_length=60)] = "",
) -> dict[str, Any]:  # fmt: skip
    """The parts of an SVG put into a control; what was left out is said."""
    read = read_svg(svg)
    state = await made(request, kit, control, InsertParts(parts=read.parts, name=name[:80] or "Drawing"), seen, window)
    if read.left_out:
        names = ", ".join(f"{what} ({count})" if count > 1 else what for what, count in read.left_out.items())
        state["said"] += f". Not understood and left out: {names}"
    return state
