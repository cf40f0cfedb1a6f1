"""A control as a whole made larger or smaller, and made wider while what it is made of keeps its height."""

from __future__ import annotations

import math
from collections.abc import Iterable

from obrell.core.document.lengths import DECIMALS, scale_lengths
from obrell.core.document.measures import frame_on_canvas
from obrell.core.document.model import Control, Part
from obrell.core.document.tree import arranged, descendants
from obrell.core.document.value_paths import live_at
from obrell.core.errors import ObrellError
from obrell.core.geometry.paths import Path
from obrell.core.geometry.plane import Similarity
from obrell.core.geometry.svgdata import path_data, read_again
from obrell.core.shapes import Box, Container, Icon, Repeat, Text
from obrell.core.values.readings import Drive, Reading
from obrell.core.values.touches import Touch, TouchesOutline

REACHES = 0.6
"""The share of the widest part from which a part is pulled longer with it."""
THIRD = 1 / 3


def scaled(control: Control, factor: float) -> Control:
    """Every length of a control multiplied: parts, effects, distances that follow, touch area, what readings drive,
    and the canvas, which is whole px then."""
    parts = tuple(_scaled_part(part, factor) for part in control.parts)
    width, height = (max(1, math.ceil(round(side * factor, DECIMALS)))
                     for side in (control.canvas.width, control.canvas.height))  # fmt: skip
    canvas = scale_lengths(control.canvas, factor, round_off=True).evolve(width=width, height=height)
    return control.evolve(
        parts=parts,
        canvas=canvas,
        follows=scale_lengths(control.follows, factor, round_off=True),
        touch=None if control.touch is None else _scaled_touch(control.touch, factor),
        readings=tuple(_scaled_reading(control, one, factor) for one in control.readings),
    )


def _scaled_part(part: Part, factor: float) -> Part:
    """A part with its place; looks that are kept aside are the same at all sizes."""
    extent = None if part.material_extent is None else part.material_extent * factor
    made: Part = scale_lengths(part, factor, round_off=True)
    return made.evolve(versions=part.versions, material_extent=extent)


def _scaled_touch(touch: Touch, factor: float) -> Touch:
    made: Touch = scale_lengths(touch, factor, round_off=True)
    if not isinstance(made, TouchesOutline):
        return made
    outline: Path = read_again(made.data).transformed(Similarity(factor))
    return made.evolve(data=path_data(outline))


def _scaled_reading(control: Control, reading: Reading, factor: float) -> Reading:
    return reading.evolve(drives=tuple(_scaled_drive(control, one, factor) for one in reading.drives))


def _scaled_drive(control: Control, drive: Drive, factor: float) -> Drive:
    try:
        live = live_at(control, drive.path)
    except ObrellError:
        return drive
    if live is None or live.unit != "px" or drive.along is not None:
        return drive
    ends = {
        name: round(value * factor, DECIMALS)
        for name, value in (("start", drive.start), ("end", drive.end))
        if isinstance(value, int | float)
    }
    return drive.evolve(**ends)


def widened(control: Control, more: float) -> Control:
    """A control so many px wider: what reaches across most of it is pulled longer, what lies in the left third of it
    stays, in the right third goes along, in between keeps to the middle; what is copied goes where its copies go."""
    seen = arranged(control).all
    boxes = {part.id: frame_on_canvas(seen[part.id].part) for part in control.parts}
    left, right = _reach((boxes[part.id].left, boxes[part.id].right) for part in control.parts)
    whole = right - left
    copied = {
        inner: part.id for part in control.parts if isinstance(part.shape, Repeat)
        for inner in descendants(control, (part.id,))
    }  # fmt: skip

    def wide(part: Part) -> Part:
        box = boxes[copied.get(part.id, part.id)]
        if part.id not in copied and _is_pulled(part) and box.width >= whole * REACHES:
            frame = part.shape.frame()
            longer = part.evolve(shape=part.shape.resized(max(1.0, frame.width + more), frame.height))
            return longer.evolve(x=longer.x + box.left - frame_on_canvas(longer).left)
        at = (box.centre.x - left) / whole if whole else 0.5
        return part.evolve(x=part.x + more * (0.0 if at < THIRD else 1.0 if at > 1 - THIRD else 0.5))

    canvas = control.canvas.evolve(width=max(1.0, float(math.ceil(control.canvas.width + more))))
    return control.evolve(canvas=canvas, parts=tuple(map(wide, control.parts)))


def _reach(sides: Iterable[tuple[float, float]]) -> tuple[float, float]:
    sides = tuple(sides)
    return (min(one for one, _ in sides), max(other for _, other in sides)) if sides else (0.0, 0.0)


def _is_pulled(part: Part) -> bool:
    """Whether a part can be pulled longer across the canvas: what lies turned, keeps its proportions, is read or as
    round as a circle cannot."""
    shape, frame = part.shape, part.shape.frame()
    circular = not isinstance(shape, Box) and math.isclose(frame.width, frame.height)
    plain = not isinstance(shape, Container | Text | Icon) and not shape.keeps_proportions and not circular
    return plain and part.rotation % 180 == 0
