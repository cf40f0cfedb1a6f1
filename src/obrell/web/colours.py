"""One colour in every space people type it in."""

from __future__ import annotations

import re
from typing import Annotated

from fastapi import APIRouter, Query, Request

from obrell.core.colour.neutrals import OFF_BLACKS, OFF_WHITES
from obrell.core.colour.notations import SPACES
from obrell.core.colour.spaces import from_hex, to_hex
from obrell.core.document.colours import used_colours
from obrell.core.document.resolve import resolve
from obrell.core.errors import BadValue, Refused
from obrell.core.geometry.svgdata import number
from obrell.core.render.own_paint import own_colour
from obrell.core.values.fields import LIMIT_PX, Id
from obrell.web.services import kits_of

router = APIRouter()
Coordinate = Annotated[float, Query(ge=-LIMIT_PX, le=LIMIT_PX)]


@router.get("/colour")
def converted(space: str = "hex", value: Annotated[str, Query(max_length=80)] = "#000000") -> dict[str, object]:
    """A typed colour in all spaces; ``value`` is three numbers, or hex."""
    return _in_all_spaces(_read(space, value)) | {"opacity": _opacity(space, value)}


@router.get("/kits/{kit}/colours")
def offered(request: Request, kit: str) -> dict[str, object]:
    """Colours to start from: those used in the kit, and off-whites and off-blacks."""
    controls = [stored.control for stored in kits_of(request).controls(kit)]
    return {"used": used_colours(controls)[:32], "whites": OFF_WHITES, "blacks": OFF_BLACKS}


@router.get("/kits/{kit}/controls/{control}/own-colour")
def own(request: Request, kit: str, control: str, part: Id, x: Coordinate, y: Coordinate) -> dict[str, object]:
    """The colour that a part is painted with itself at a place of the canvas; raises ``Refused`` where it is not."""
    kits = kits_of(request)
    resolved = resolve(kits.index(kit), kits.control(kit, control).control)
    colour = own_colour(resolved, part, x, y)
    if colour is None:
        raise Refused(f"“{resolved.tree.all[part].part.name}” has no paint of its own there.")
    return {"hex": colour}


def _read(space: str, value: str) -> tuple[float, float, float]:
    if space == "hex":
        digits = value.strip().lstrip("#")
        if re.fullmatch(r"[0-9a-fA-F]{3,4}", digits):
            digits = "".join(digit * 2 for digit in digits)
        if re.fullmatch(r"[0-9a-fA-F]{8}", digits):
            digits = digits[:6]
        if not re.fullmatch(r"[0-9a-fA-F]{6}", digits):
            raise BadValue(
                f"“{value}” is not a colour: write three or six hexadecimal digits, with opacity four or eight."
            )
        return from_hex(f"#{digits}")
    numbers = re.findall(r"-?\d*\.?\d+", value)
    if len(numbers) != 3 or space not in SPACES:
        raise BadValue(f"“{value}” is not a colour: three numbers are needed.")
    first, second, third = (float(number) for number in numbers)
    return SPACES[space].back((first, second, third))


def _opacity(space: str, value: str) -> float | None:
    """The opacity that a hexadecimal colour of four or eight digits says."""
    digits = value.strip().lstrip("#")
    if space != "hex" or len(digits) not in (4, 8):
        return None
    last = digits[-1] * 2 if len(digits) == 4 else digits[-2:]
    return round(int(last, 16) / 255, 2)


def _in_all_spaces(rgb: tuple[float, float, float]) -> dict[str, object]:
    texts: dict[str, object] = {"hex": to_hex(rgb)}
    for name, space in SPACES.items():
        texts[name] = [number(round(value, space.decimals)) for value in space.of(rgb)]
    return texts
