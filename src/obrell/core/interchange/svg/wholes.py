"""What is done to the whole of an element: it is clipped, masked, faded and blended (SVG 2, section 3.6)."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field, replace
from typing import Any
from xml.etree.ElementTree import Element

from pydantic import ValidationError

from obrell.core.document.model import Part
from obrell.core.errors import BadDocument, ObrellError
from obrell.core.geometry.affine import Affine
from obrell.core.geometry.knots import Bend
from obrell.core.geometry.paths import Path as Outlined
from obrell.core.geometry.plane import Rect
from obrell.core.interchange.svg.cascade import Style
from obrell.core.interchange.svg.context import Context, Here, called
from obrell.core.interchange.svg.document import name_of
from obrell.core.interchange.svg.extents import Extents, box_around
from obrell.core.interchange.svg.gradients import reference
from obrell.core.interchange.svg.items import Item, grouped
from obrell.core.interchange.svg.lengths import View, length, opacity
from obrell.core.interchange.svg.regions import Regions, Unread
from obrell.core.interchange.svg.shapes import Runs, runs_of
from obrell.core.shapes import Path
from obrell.core.shapes.outlined import contours_from
from obrell.core.values.blends import BLENDS
from obrell.core.values.fields import LIMIT_PX

SLACK_PX = 0.01
"""How far something may reach beyond a viewport without being cut."""


@dataclass(slots=True)
class Wholes:
    """Does to items what their element asks; ``draw`` makes items of what lies in an element."""

    context: Context
    draw: Callable[[Element, Here], list[Item]]
    regions: Regions = field(init=False)
    extents: Extents = field(init=False)

    def __post_init__(self) -> None:
        self.regions = Regions(self.context.by_id, self.context.cascade)
        self.extents = Extents(self.context)

    def done(self, items: list[Item], element: Element, here: Here, group: str) -> list[Item]:
        """The items of an element as it asks; several are a group, called ``group``, unless that is empty and
        nothing is asked."""
        style = here.style
        if style.get("filter", "none") != "none":
            self.context.left_out["filter"] += 1
        if not items:
            return []
        name, fields = called(element, group or items[0].part.name), self._fields(style)
        region, cover = self._region(element, here), self._cover(element, here)
        if (region is not None and not region.part.shape.path()) or (cover is not None and not cover.held):
            return []
        isolated = style.get("isolation") == "isolate" and any(item.part.blend != "normal" for item in items)
        if not fields and region is None and cover is None and not isolated:
            return [grouped(items, name)] if group and len(items) > 1 else items
        if len(items) > 1 or not items[0].plain or isolated:
            whole = grouped(items, name, **fields or {"opacity": 1.0})
        else:
            whole = items[0].evolved(**fields) if fields else items[0]
        return [replace(whole, clip=region, cover=cover, measure=self._measure(style))]

    def cut(self, items: list[Item], seen: Rect, by: Affine, name: str) -> list[Item]:
        """Items cut to what is seen of a viewport, when they leave it; ``by`` leads from around it to the canvas."""
        if not items:
            return items
        area, upright = box_around(seen, by), by.b == by.c == 0 or by.a == by.d == 0
        bounds = [item.bounds() for item in items]
        if upright and all(_inside(box, area.grown(SLACK_PX)) for box in bounds):
            return items
        if seen.empty or (upright and not any(_overlap(box, area) for box in bounds)):
            return []
        corners = ((seen.left, seen.top), (seen.right, seen.top), (seen.right, seen.bottom), (seen.left, seen.bottom))
        at = [Bend(*(max(-LIMIT_PX, min(LIMIT_PX, one)) for one in by.apply(*corner))) for corner in corners]
        clip = self._as_item([(True, at)], _within_reach(area), name)
        whole = items[0] if len(items) == 1 and items[0].plain else grouped(items, name, opacity=1.0)
        return [replace(whole, clip=clip)]

    def _fields(self, style: Style) -> dict[str, Any]:
        fields: dict[str, Any] = {}
        if opacity(style.get("opacity")) < 1:
            fields["opacity"] = opacity(style.get("opacity"))
        blend = style.get("mix-blend-mode", "normal")
        if blend in BLENDS and blend != "normal":
            fields["blend"] = blend
        elif blend not in BLENDS:
            self.context.left_out[f"blend mode {blend}"[:60]] += 1
        return fields

    def _region(self, element: Element, here: Here) -> Item | None:
        text = here.style.get("clip-path", "none")
        if text == "none":
            return None
        try:
            region = self.regions.of(text, here.to_canvas, here.view, self.extents.of(element, here))
            return None if region is None else self._outline(region)
        except Unread as error:
            self.context.left_out[str(error)] += 1
            return None
        except ObrellError:
            self.context.left_out["clip-path"] += 1
            return None

    def _outline(self, outline: Outlined) -> Item:
        return self._as_item(runs_of(outline, Affine(), dots=False), outline.bounds(), "Clip")

    def _as_item(self, runs: Runs, around: Rect, name: str) -> Item:
        """Return knots on the canvas as a path around their centre. Raise ``BadDocument`` if they lie out of range."""
        x, y = around.centre.x, around.centre.y
        try:
            contours = contours_from([(closed, [bend.moved(-x, -y) for bend in bends]) for closed, bends in runs])
            part = Part(id="p0", name=name, shape=Path(contours=contours), x=x, y=y)
        except ValidationError as error:
            raise BadDocument(f"“{name}” in this SVG reaches too far out.") from error
        return self.context.counted(part)

    def _mask_of(self, style: Style) -> Element | None:
        found = reference(style.get("mask", "none"))
        target = self.context.by_id.get(found[0]) if found else None
        return target if target is not None and name_of(target) == "mask" else None

    def _measure(self, style: Style) -> str:
        mask = self._mask_of(style)
        kind = "" if mask is None else self.context.cascade.style(mask, {}).get("mask-type")
        return "opacity" if kind == "alpha" else "lightness"

    def _cover(self, element: Element, here: Here) -> Item | None:
        """What masks an element: the mask's own content, cut where its region ends."""
        mask = self._mask_of(here.style)
        key = "" if mask is None else "mask " + mask.get("id", "")
        if mask is None or key in here.uses:
            return None
        box = self.extents.of(element, here)
        in_box = mask.get("maskContentUnits") == "objectBoundingBox"
        units = Affine(box.width, 0, 0, box.height, box.left, box.top) if in_box else Affine()
        view = View(1.0, 1.0) if in_box else here.view
        style = self.context.cascade.style(mask, {})
        inner = Here(here.to_canvas.after(units), view, style, (*here.uses, key))
        items = self.cut(self.draw(mask, inner), _mask_region(mask, box, here.view), here.to_canvas, "Mask region")
        return grouped(self.done(items, mask, inner, ""), "Mask", opacity=1.0)


def _mask_region(mask: Element, box: Rect, view: View) -> Rect:
    """What a mask can show, in the space of the element it masks (CSS Masking 1, section 8.1)."""
    in_box = mask.get("maskUnits", "objectBoundingBox") == "objectBoundingBox"
    across, down = (1.0, 1.0) if in_box else (view.across, view.down)
    x, y = length(mask.get("x", "-10%"), across), length(mask.get("y", "-10%"), down)
    width, height = length(mask.get("width", "120%"), across), length(mask.get("height", "120%"), down)
    if not in_box:
        return Rect(x, y, x + width, y + height)
    left, top = box.left + x * box.width, box.top + y * box.height
    return Rect(left, top, left + width * box.width, top + height * box.height)


def _inside(box: Rect, area: Rect) -> bool:
    return box.left >= area.left and box.right <= area.right and box.top >= area.top and box.bottom <= area.bottom


def _overlap(box: Rect, area: Rect) -> bool:
    return box.left < area.right and box.right > area.left and box.top < area.bottom and box.bottom > area.top


def _within_reach(box: Rect) -> Rect:
    """Return a box cut to the largest coordinates."""
    left, top, right, bottom = (
        max(-LIMIT_PX, min(LIMIT_PX, one)) for one in (box.left, box.top, box.right, box.bottom)
    )
    return Rect(left, top, right, bottom)
