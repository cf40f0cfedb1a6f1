"""Every file a delivery will make, before any of it is made."""

from __future__ import annotations

import math
from dataclasses import dataclass

from obrell.core.deliver.names import file_name, slug
from obrell.core.deliver.order import Format, Order
from obrell.core.document.looks import effects_of
from obrell.core.document.model import Control, KitSettings
from obrell.core.document.resolve import REST, Resolved, resolve
from obrell.core.document.tree import walk
from obrell.core.errors import Refused
from obrell.core.geometry.plane import NOWHERE, Rect
from obrell.core.geometry.svgdata import number
from obrell.core.raster.layers import NO_BOX, Box
from obrell.core.render.compose import SHARED, canvas_box
from obrell.core.render.limits import check_region
from obrell.core.render.picture import device, ink, picture
from obrell.core.render.site import site_of


@dataclass(frozen=True, slots=True)
class File:
    """One file to make. ``box`` is the logical rectangle it shows; ``density`` is 1 for SVG."""

    name: str
    control: str
    state: str
    format: Format
    density: float
    box: Rect
    pixels: Box
    resolved: Resolved
    ground: bool = False
    """Whether it shows what the control stands on."""
    embedded: float = 2.0
    """The density of what an SVG has to embed as pictures."""

    def shown(self) -> Resolved:
        """What is to be drawn."""
        return self.resolved.standing() if self.ground else self.resolved


def plan(kit: KitSettings, controls: tuple[Control, ...], order: Order) -> tuple[File, ...]:
    """The files in order of control, format and density.

    Raises ``Refused`` when two would have one name or a picture would be too large.
    """
    chosen = [c for c in controls if not order.controls or c.id in order.controls]
    if not chosen:
        raise Refused("No control is chosen: a delivery needs at least one.")
    files = [file for control in chosen for file in _of_control(kit, control, order)]
    seen: set[str] = set()
    for file in files:
        if file.name.lower() in seen:
            raise Refused(
                f"Two files would be called “{file.name}”. "
                "Put {density} into the name pattern, or give the controls different names."
            )
        seen.add(file.name.lower())
    return tuple(files)


def _of_control(kit: KitSettings, control: Control, order: Order) -> list[File]:
    resolved = resolve(kit, control)
    box = delivered_box(resolved, order)
    files = []
    for form in order.formats:
        for density in order.densities if form == "png" else (1.0,):
            words = {
                "kit": slug(kit.name, kit.id),
                "control": slug(control.name, control.id),
                "state": REST,
                "density": number(density) if form == "png" else "",
            }
            pixels = device(box, density)
            check_region(pixels)
            name = file_name(order.pattern, words, form)
            files.append(
                File(name, control.id, REST, form, density, box, pixels, resolved, order.ground, order.densities[-1])
            )
    return files


def delivered_box(resolved: Resolved, order: Order) -> Rect:
    """The logical box of a control's files: its canvas, or the ink at every density asked, plus the
    margin, grown outward to whole steps (``rendering.md``, coverage)."""
    canvas = resolved.control.canvas
    if not order.trimmed:
        return Rect(0, 0, canvas.width, canvas.height)
    step = order.step()
    around = NOWHERE
    for density in order.densities:
        check_region(canvas_box(resolved, density))
        found = ink(picture(resolved, density))
        if found is not None:
            around = around.union(Rect(*(v / density for v in (found.left, found.top, found.right, found.bottom))))
    if around.empty:
        raise Refused(f"“{resolved.control.name}” has nothing on its canvas to trim to.")
    around = around.grown(order.margin)
    slack = 1e-9
    return Rect(
        math.floor(around.left / step + slack) * step, math.floor(around.top / step + slack) * step,
        math.ceil(around.right / step - slack) * step, math.ceil(around.bottom / step - slack) * step,
    )  # fmt: skip


def body_box(resolved: Resolved, density: float) -> Box:
    """Around the shapes of all shown parts, effects not counted, in device pixels of the canvas."""
    canvas = canvas_box(resolved, density)
    box = NO_BOX
    for node in walk(resolved.tree.nodes):
        if effects_of(node.part):
            box = box.join(site_of(resolved, node.part, density, canvas, SHARED).own_box)
    return box
