"""Paint servers of SVG as fills (SVG 2, chapter 14)."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Mapping
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal
from xml.etree.ElementTree import Element

import numpy as np

from obrell.core.colour.spaces import from_hex, mixed
from obrell.core.geometry.affine import IDENTITY, Affine
from obrell.core.geometry.plane import Rect
from obrell.core.interchange.svg.cascade import Cascade, Style
from obrell.core.interchange.svg.colours import colour_of
from obrell.core.interchange.svg.document import href_of, name_of
from obrell.core.interchange.svg.lengths import View, length, opacity, share
from obrell.core.interchange.svg.transforms import BadTransform, transform
from obrell.core.values.paints import MAX_STOPS, Fill, Linear, Radial, Solid, Stop

UNIT = Rect(0, 0, 1, 1)
PIECES = 12
"""Into how many a stretch is cut over which both colour and opacity change."""
SPREADS: dict[str, Literal["once", "repeated", "mirrored"]] = {"reflect": "mirrored", "repeat": "repeated"}
MOST_SHARE, LEAST_SHARE = 1000.0, 0.001


def reference(text: str) -> tuple[str, str] | None:
    """Return the id in ``url(#id)`` and the text after it, or None if the text begins otherwise."""
    inside, closed, behind = text.strip().partition(")")
    begun, named = inside[:4] == "url(", inside[4:].strip()
    if named[:1] in ("'", '"') and len(named) > 1 and named[-1] == named[0]:
        named = named[1:-1].strip()
    name = named[1:].strip()
    if not (begun and closed and named.startswith("#") and name) or "'" in name or '"' in name:
        return None
    return name, behind.strip()


@dataclass(frozen=True, slots=True)
class Filled:
    """A fill, and how opaque its one colour is; gradients keep opacity in their stops."""

    fill: Fill
    opacity: float = 1.0


@dataclass(frozen=True, slots=True)
class Laid:
    """Where a fill is laid: the element's box in its own space and what is 100 % there, the way to the part's
    space, and the part's box."""

    box: Rect
    view: View
    to_part: Affine
    part_box: Rect


@dataclass(frozen=True, slots=True)
class Paints:
    """The paints of a document; ``left_out`` is told what cannot be read."""

    by_id: Mapping[str, Element]
    cascade: Cascade
    left_out: Counter[str]

    def fill(self, text: str, style: Style, laid: Laid) -> Filled | None:
        """What ``fill`` or ``stroke`` asks for."""
        found = reference(text)
        if found is None:
            return self._solid(text, style)
        element = self.by_id.get(found[0])
        name = "" if element is None else name_of(element)
        if element is None or name not in ("linearGradient", "radialGradient"):
            if element is not None:
                self.left_out[name or "paint of another kind"] += 1
            return self._solid(found[1] or "none", style)
        return self._gradient(element, laid)

    def _solid(self, text: str, style: Style) -> Filled | None:
        colour = colour_of(text, style.get("color", "#000000"))
        return None if colour is None else Filled(Solid(colour=colour[0]), colour[1])

    def _gradient(self, element: Element, laid: Laid) -> Filled | None:
        stops = self._stops(element)
        if not stops:
            return None
        if len(stops) == 1:
            return Filled(Solid(colour=stops[0].colour), stops[0].opacity)
        own = self._value(element, "gradientTransform", "")
        in_box = self._value(element, "gradientUnits", "objectBoundingBox") == "objectBoundingBox"
        if in_box and laid.box.empty:
            return None
        try:
            by = transform(own, UNIT)
        except BadTransform:
            by = IDENTITY
        units = Affine(laid.box.width, 0, 0, laid.box.height, laid.box.left, laid.box.top) if in_box else IDENTITY
        way = laid.to_part.after(units).after(by)
        view = View(1.0, 1.0) if in_box else laid.view
        made = self._linear if name_of(element) == "linearGradient" else self._radial
        fill = made(element, view, way, _straight(stops), laid.part_box)
        last = stops[-1]
        return Filled(Solid(colour=last.colour), last.opacity) if fill is None else Filled(fill)

    def _linear(
        self, element: Element, view: View, way: Affine, stops: tuple[Stop, ...], box: Rect
    ) -> Linear | None:  # fmt: skip
        """By angle, length and place, as CSS has it (CSS Images 4, section 3.1): however it is slanted, it rises
        evenly in one direction. None for a line without length."""
        x1, x2 = (length(self._value(element, name, to), view.across) for name, to in (("x1", "0%"), ("x2", "100%")))
        y1, y2 = (length(self._value(element, name, "0%"), view.down) for name in ("y1", "y2"))
        dx, dy = x2 - x1, y2 - y1
        square, area = dx * dx + dy * dy, way.a * way.d - way.b * way.c
        if square == 0 or area == 0:
            return None
        across, down = (dx * way.d - dy * way.b) / (area * square), (dy * way.a - dx * way.c) / (area * square)
        x, y = way.apply(x1, y1)
        steep = math.hypot(across, down)
        whole = max((abs(box.width * across) + abs(box.height * down)) / steep, 1e-6)
        middle = (box.centre.x - x) * across + (box.centre.y - y) * down
        scale, offset = 1 / (steep * whole), (0.5 - middle) / (steep * whole)
        return Linear(
            stops=stops, angle=math.degrees(math.atan2(across, -down)) % 360, scale=_extent(scale),
            offset=_place(offset), spread=self._spread(element),
        )  # fmt: skip

    def _radial(
        self, element: Element, view: View, way: Affine, stops: tuple[Stop, ...], box: Rect
    ) -> Radial | None:  # fmt: skip
        """The turned ellipse that the circle becomes; None for one without a radius."""
        radius = length(self._value(element, "r", "50%"), view.whole)
        cx, cy = self._value(element, "cx", "50%"), self._value(element, "cy", "50%")
        x, y = length(cx, view.across), length(cy, view.down)
        fx = length(self._value(element, "fx", cx), view.across)
        fy = length(self._value(element, "fy", cy), view.down)
        if radius <= 0 or way.a * way.d == way.b * way.c:
            return None
        stops = self._from_ring(element, stops, length(self._value(element, "fr", "0"), view.whole) / radius)
        turn, (wide, high) = _axes(way)
        centre, ahead = way.apply(x, y), way.turn(fx - x, fy - y)
        cos, sin = math.cos(turn), math.sin(turn)
        focus = (
            (ahead[0] * cos + ahead[1] * sin) / (wide * radius), (ahead[1] * cos - ahead[0] * sin) / (high * radius)
        )  # fmt: skip
        if math.hypot(*focus) > 1 + 1e-6:
            self.left_out["focus outside of its circle"] += 1
        sides = box.width or 1.0, box.height or 1.0
        return Radial(
            stops=stops, spread=self._spread(element), turn=round(math.degrees(turn), 9) % 360,
            centre_x=_place((centre[0] - box.left) / sides[0]), centre_y=_place((centre[1] - box.top) / sides[1]),
            radius_x=_extent(wide * radius / sides[0]), radius_y=_extent(high * radius / sides[1]),
            focus_x=_focus(focus[0]), focus_y=_focus(focus[1]),
        )  # fmt: skip

    def _from_ring(self, element: Element, stops: tuple[Stop, ...], start: float) -> tuple[Stop, ...]:
        """The ramp of a gradient that begins on a circle round its focus, at a share of its radius."""
        if not 0 < start < 1:
            return stops
        moved = self._value(element, "fx", "") or self._value(element, "fy", "")
        if moved or self._spread(element) != "once":
            self.left_out["fr"] += 1
        return tuple(stop.evolve(position=start + (1 - start) * stop.position) for stop in stops)

    def _spread(self, element: Element) -> Literal["once", "repeated", "mirrored"]:
        return SPREADS.get(self._value(element, "spreadMethod", "pad"), "once")

    def _chain(self, element: Element) -> list[Element]:
        """The gradient and those it takes values from."""
        chain = [element]
        while len(chain) < 10:
            found = self.by_id.get(href_of(chain[-1]).removeprefix("#"))
            if found is None or found in chain:
                break
            chain.append(found)
        return chain

    def _value(self, element: Element, name: str, usual: str) -> str:
        if name == "gradientTransform":
            own = self.cascade.style(element, {})
            if "transform" in own:
                return own["transform"]
        return next((link.attrib[name] for link in self._chain(element) if name in link.attrib), usual)

    def _stops(self, element: Element) -> tuple[Stop, ...]:
        for link in self._chain(element):
            stops = [child for child in link if name_of(child) == "stop"]
            if stops:
                above = self.cascade.style(link, {})
                if len(stops) > MAX_STOPS:
                    self.left_out["gradient stop that changes little"] += len(stops) - MAX_STOPS
                return _fewest(_in_order([self._stop(child, above) for child in stops]))
        return ()

    def _stop(self, element: Element, above: Style) -> Stop:
        style = self.cascade.style(element, above)
        colour = colour_of(style.get("stop-color", "#000"), style.get("color", "#000000")) or ("#000000", 0.0)
        position = min(1.0, max(0.0, share(element.get("offset"), 0.0)))
        return Stop(position=position, colour=colour[0], opacity=opacity(style.get("stop-opacity")) * colour[1])


def _in_order(stops: list[Stop]) -> tuple[Stop, ...]:
    """No stop lies before the one that is said before it (SVG 2, section 14.2.4)."""
    placed: list[Stop] = []
    for stop in stops:
        least = placed[-1].position if placed else 0.0
        placed.append(stop.evolve(position=max(least, stop.position)))
    return tuple(placed)


def _fewest(stops: tuple[Stop, ...]) -> tuple[Stop, ...]:
    """Return at most ``MAX_STOPS``: as often as needed, the stop is left out whose colour is nearest to what its
    neighbours come to without it."""
    rows = np.array([_row(stop) for stop in stops]).reshape(-1, 5)
    kept = np.arange(len(stops))
    while len(kept) > MAX_STOPS:
        before, here, after = rows[kept[:-2]], rows[kept[1:-1]], rows[kept[2:]]
        length = after[:, :1] - before[:, :1]
        way = (here[:, :1] - before[:, :1]) / np.where(length > 0, length, 1)
        without = before + (after - before) * way
        kept = np.delete(kept, 1 + np.abs(here - without).max(axis=1).argmin())
    return tuple(stops[place] for place in kept)


def _row(stop: Stop) -> tuple[float, ...]:
    """Return the position, the colour premultiplied and the opacity, all 0 to 1."""
    return (stop.position, *(channel * stop.opacity for channel in from_hex(str(stop.colour))), stop.opacity)


def _straight(stops: tuple[Stop, ...]) -> tuple[Stop, ...]:
    """SVG mixes colours without regard to their opacity, ours are mixed premultiplied: stretches where
    both change are cut into short ones, over which that is the same to the eye."""
    result = list(stops[:1])
    for one, other in pairwise(stops):
        changing = one.colour != other.colour and one.opacity != other.opacity and one.position < other.position
        pieces = PIECES if changing else 1
        result += [_mixed(one, other, step / pieces) for step in range(1, pieces + 1)]
    return tuple(result) if len(result) <= MAX_STOPS else stops


def _mixed(one: Stop, other: Stop, t: float) -> Stop:
    position, opaque = (a + (b - a) * t for a, b in ((one.position, other.position), (one.opacity, other.opacity)))
    return Stop(position=position, colour=mixed(str(one.colour), str(other.colour), t), opacity=opaque)


def _axes(way: Affine) -> tuple[float, tuple[float, float]]:
    """How the ellipse lies that a circle of radius 1 becomes: the turn of its first axis in radians, and both
    half axes. Axes that stay along the sides keep their order."""
    if way.b == way.c == 0:
        return 0.0, (abs(way.a), abs(way.d))
    if way.a == way.d == 0:
        return 0.0, (abs(way.c), abs(way.b))
    e, f, g, h = (way.a + way.d) / 2, (way.a - way.d) / 2, (way.b + way.c) / 2, (way.b - way.c) / 2
    q, r = math.hypot(e, h), math.hypot(f, g)
    turn = (math.atan2(h, e) + math.atan2(g, f)) / 2
    return turn, (q + r, max(abs(q - r), 1e-9))


def _place(value: float) -> float:
    return min(MOST_SHARE, max(-MOST_SHARE, value))


def _extent(value: float) -> float:
    return min(MOST_SHARE, max(LEAST_SHARE, value))


def _focus(value: float) -> float:
    return round(min(1.0, max(-1.0, value)), 6)
