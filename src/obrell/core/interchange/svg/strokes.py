"""How an element is stroked, as a pen of ours (SVG 2, section 13.5)."""

from __future__ import annotations

import math

from obrell.core.geometry.affine import Affine
from obrell.core.geometry.pens import MITRE_LIMIT, Cap, Join, Pen, dashes_of
from obrell.core.interchange.svg.cascade import Style
from obrell.core.interchange.svg.lengths import FONT_PX, View, length, numbers

CAPS: dict[str, Cap] = {"round": "round", "square": "square"}
JOINS: dict[str, Join] = {"round": "round", "bevel": "bevel"}
MOST_WIDTH, MOST_MITRE, MOST_DASHES = 4096.0, 100.0, 32
EVEN = 1e-4
"""How much two scales of a transform may differ, as a share, and still be one."""


def pen_of(style: Style, view: View, stretch: float = 1.0) -> Pen:
    """The pen in user units; ``stretch`` is the true length over ``pathLength``, and lengthens dashes."""
    font = length(style.get("font-size"), usual=FONT_PX)
    width = max(0.0, length(style.get("stroke-width"), view.whole, font, 1.0))
    return Pen(
        width,
        CAPS.get(style.get("stroke-linecap", ""), "flat"),
        JOINS.get(style.get("stroke-linejoin", ""), "mitre"),
        min(MOST_MITRE, max(1.0, length(style.get("stroke-miterlimit"), usual=MITRE_LIMIT))),
        _dashes(style, view, font, stretch),
        length(style.get("stroke-dashoffset"), view.whole, font) * stretch,
    )


def _dashes(style: Style, view: View, font: float, stretch: float) -> tuple[float, ...]:
    found = [length(text, view.whole, font, -1.0) * stretch for text in numbers(style.get("stroke-dasharray", ""))]
    if not found or min(found) < 0 or sum(found) <= 0 or len(found) > MOST_DASHES:
        return ()
    return tuple(found) if len(found) == 1 else dashes_of(found[0], found[1], tuple(found[2:]))


def scaled(pen: Pen, by: float) -> Pen:
    """The pen in a space that is so much larger; a single dash is a dash and a gap."""
    dashes = tuple(dash * by for dash in (pen.dashes * 2 if len(pen.dashes) == 1 else pen.dashes))
    return Pen(min(MOST_WIDTH, pen.width * by), pen.cap, pen.join, pen.mitre, dashes, pen.phase * by)


def keeps_shape(by: Affine) -> bool:
    """Whether it scales alike in all directions, so that a round pen stays round."""
    across, down = math.hypot(by.a, by.b), math.hypot(by.c, by.d)
    slant = abs(by.a * by.c + by.b * by.d)
    largest = max(across, down, 1e-12)
    return abs(across - down) <= EVEN * largest and slant <= EVEN * largest * largest


def dash_fields(pen: Pen) -> dict[str, object]:
    """The pen's dashes as paths and outlines of ours say them."""
    if not pen.dashes:
        return {}
    phase = math.remainder(pen.phase, sum(pen.dashes))
    return {"dash": pen.dashes[0], "gap": pen.dashes[1], "further": pen.dashes[2:], "phase": phase}


def mirrors(by: Affine) -> bool:
    """Whether it turns left into right, or makes everything flat."""
    return by.a * by.d <= by.b * by.c


def turn_of(by: Affine) -> float:
    """How far it turns what lies along the x axis, degrees clockwise."""
    return round(math.degrees(math.atan2(by.b, by.a)), 9) % 360
