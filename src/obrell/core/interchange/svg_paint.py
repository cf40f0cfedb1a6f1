"""Colours and gradients of an SVG as fills."""

from __future__ import annotations

import math
import re
from collections.abc import Mapping
from dataclasses import dataclass
from itertools import pairwise
from xml.etree.ElementTree import Element

from PIL import ImageColor

from obrell.core.colour.spaces import mixed
from obrell.core.geometry.affine import IDENTITY, Affine, read_transform
from obrell.core.geometry.plane import Rect
from obrell.core.values.paints import MAX_STOPS, Fill, Linear, Radial, Solid, Stop

_NUMBER = re.compile(r"[-+]?(\d+\.?\d*|\.\d+)([eE][-+]?\d+)?")
_UNITS = {"px": 1.0, "pt": 4 / 3, "pc": 16.0, "mm": 96 / 25.4, "cm": 96 / 2.54, "in": 96.0}
PIECES = 8
MOST = 1e6
"""Numbers beyond this are cut down to it."""


def number_of(text: str) -> float:
    """A number with or without a unit; 0 for anything else, NaN and infinity included.

    >>> number_of("12px"), number_of("1in"), number_of("NaN")
    (12.0, 96.0, 0.0)
    """
    found = _NUMBER.match(text.strip())
    if found is None:
        return 0.0
    value = float(found[0]) * _UNITS.get(text.strip()[found.end() :], 1.0)
    return max(-MOST, min(MOST, value)) if math.isfinite(value) else 0.0


def colour_of(text: str) -> tuple[str, float] | None:
    """A CSS colour as hexadecimal digits and opacity; None when it is none."""
    text = text.strip().lower()
    if text in ("none", "transparent", ""):
        return None
    if text == "currentcolor":
        return "#000000", 1.0
    call = re.fullmatch(r"rgba?\((.*)\)", text)
    try:
        r, g, b, *alpha = _channels(call[1]) if call else ImageColor.getrgb(text)
    except ValueError:
        return None
    return f"#{r:02x}{g:02x}{b:02x}", alpha[0] / 255 if alpha else 1.0


def _channels(text: str) -> tuple[int, ...]:
    """The three or four values of ``rgb()``, with commas or spaces between (CSS Color 4, section 5.1)."""
    pieces = [piece for piece in re.split(r"[\s,/]+", text.strip()) if piece]
    if len(pieces) not in (3, 4):
        raise ValueError
    whole = [
        255.0 * _share(p) if p.endswith("%") else number_of(p) * (1 if i < 3 else 255) for i, p in enumerate(pieces)
    ]
    return tuple(min(255, max(0, math.floor(value + 0.5))) for value in whole)


@dataclass(frozen=True, slots=True)
class Filled:
    """A fill, and how opaque its one colour is; gradients keep opacity in their stops."""

    fill: Fill
    opacity: float = 1.0


@dataclass(frozen=True, slots=True)
class Laid:
    """Where a fill is laid: the element's box in its own space, its way to the canvas, and the box of what
    is painted there."""

    box: Rect
    to_canvas: Affine
    seen: Rect


class Ramps:
    """The gradients of a document."""

    def __init__(self, by_id: Mapping[str, Element]) -> None:
        self._by_id = by_id

    def fill(self, text: str, laid: Laid, values: Mapping[str, str]) -> Filled | None:
        """The fill that ``fill`` or ``stroke`` asks for."""
        if text.strip().lower() == "currentcolor":
            text = values.get("color", "#000")
        found = re.match(r"url\(['\"]?#([^'\")]+)['\"]?\)\s*(.*)", text.strip())
        if found is None:
            colour = colour_of(text)
            return None if colour is None else Filled(Solid(colour=colour[0]), colour[1])
        element = self._by_id.get(found[1])
        stops = self._stops(element) if element is not None else ()
        if element is None or not stops or laid.box.empty:
            return self.fill(found[2] or "none", laid, values)
        if len(stops) == 1:
            return Filled(Solid(colour=stops[0].colour), stops[0].opacity)
        return Filled(self._ramp(element, stops, laid))

    def _ramp(self, element: Element, stops: tuple[Stop, ...], laid: Laid) -> Fill:
        own = read_transform(self._value(element, "gradientTransform", ""))
        units = IDENTITY
        if self._value(element, "gradientUnits", "objectBoundingBox") == "objectBoundingBox":
            units = Affine(laid.box.width, 0, 0, laid.box.height, laid.box.left, laid.box.top)
        to_canvas = laid.to_canvas.after(units).after(own)

        def place(x: str, y: str, usual: tuple[str, str]) -> tuple[float, float]:
            across, down = (_share(self._value(element, name, to)) for name, to in zip((x, y), usual, strict=True))
            return across, down

        if element.tag.endswith("linearGradient"):
            start, end = place("x1", "y1", ("0", "0")), place("x2", "y2", ("1", "0"))
            return _linear(start, end, to_canvas, stops, laid.seen)
        radius = _share(self._value(element, "r", "0.5"))
        centre = place("cx", "cy", ("0.5", "0.5"))
        usual = self._value(element, "cx", "0.5"), self._value(element, "cy", "0.5")
        return _radial(centre, place("fx", "fy", usual), radius, to_canvas, stops, laid.seen)

    def _chain(self, element: Element) -> list[Element]:
        """The gradient and those it takes values from."""
        chain = [element]
        while len(chain) < 10:
            target = next((v for k, v in chain[-1].attrib.items() if k == "href" or k.endswith("}href")), "")
            found = self._by_id.get(target[1:])
            if found is None or found in chain:
                break
            chain.append(found)
        return chain

    def _value(self, element: Element, name: str, usual: str) -> str:
        return next((link.attrib[name] for link in self._chain(element) if name in link.attrib), usual)

    def _stops(self, element: Element) -> tuple[Stop, ...]:
        for link in self._chain(element):
            stops = [child for child in link if isinstance(child.tag, str) and child.tag.endswith("stop")]
            if stops:
                return _straight(tuple(_stop(child) for child in stops[:MAX_STOPS]))
        return ()


def _stop(element: Element) -> Stop:
    own = dict(element.attrib)
    for item in element.get("style", "").split(";"):
        key, _, value = item.partition(":")
        own[key.strip()] = value.strip()
    colour = colour_of(own.get("stop-color", "#000")) or ("#000000", 0.0)
    opacity = _share(own.get("stop-opacity", "1")) * colour[1]
    position = _share(own.get("offset", "0"))
    return Stop(position=min(1.0, max(0.0, position)), colour=colour[0], opacity=min(1.0, max(0.0, opacity)))


def _straight(stops: tuple[Stop, ...]) -> tuple[Stop, ...]:
    """SVG mixes colours without regard to their opacity, ours are mixed premultiplied: stretches where
    both change are cut into short ones, over which that is the same to the eye."""
    result = list(stops[:1])
    for one, other in pairwise(stops):
        pieces = PIECES if one.colour != other.colour and one.opacity != other.opacity else 1
        result += [_mixed(one, other, step / pieces) for step in range(1, pieces + 1)]
    return tuple(result) if len(result) <= MAX_STOPS else stops


def _mixed(one: Stop, other: Stop, t: float) -> Stop:
    position, opacity = (a + (b - a) * t for a, b in ((one.position, other.position), (one.opacity, other.opacity)))
    return Stop(position=position, colour=mixed(str(one.colour), str(other.colour), t), opacity=opacity)


def _share(text: str) -> float:
    return number_of(text.rstrip("%")) / (100 if text.strip().endswith("%") else 1)


def _linear(
    start: tuple[float, float], end: tuple[float, float], to_canvas: Affine, stops: tuple[Stop, ...], box: Rect
) -> Fill:  # fmt: skip
    """The gradient as CSS has it: by angle, its line as long as the box needs (CSS Images 4, 3.1.1). However
    it is slanted, it rises evenly in one direction."""
    dx, dy = end[0] - start[0], end[1] - start[1]
    square, area = dx * dx + dy * dy, to_canvas.a * to_canvas.d - to_canvas.b * to_canvas.c
    if square == 0 or area == 0:
        return Solid(colour=stops[-1].colour)
    across = (dx * to_canvas.d - dy * to_canvas.b) / (area * square)
    down = (dy * to_canvas.a - dx * to_canvas.c) / (area * square)
    x, y = to_canvas.apply(*start)
    steep = math.hypot(across, down)
    whole = (abs(box.width * across) + abs(box.height * down)) / steep
    middle = (box.centre.x - x) * across + (box.centre.y - y) * down
    half = whole * steep / 2
    angle = math.degrees(math.atan2(across, -down)) % 360
    return Linear(stops=_between(stops, middle - half, middle + half), angle=angle)


def _radial(
    centre: tuple[float, float], focus: tuple[float, float], radius: float, to_canvas: Affine,
    stops: tuple[Stop, ...], box: Rect,
) -> Fill:  # fmt: skip
    """The ellipse that a circle becomes, upright; one that is slanted is read as wide and high as it is."""
    x, y = to_canvas.apply(*centre)
    radii = math.hypot(to_canvas.a, to_canvas.c) * radius, math.hypot(to_canvas.b, to_canvas.d) * radius
    to_x, to_y = focus[0] - centre[0], focus[1] - centre[1]
    shares = ((x - box.left) / (box.width or 1), (y - box.top) / (box.height or 1))
    cx, cy = (min(10.0, max(-10.0, v)) for v in shares)
    rx, ry = (min(10.0, max(0.001, v)) for v in (radii[0] / (box.width or 1), radii[1] / (box.height or 1)))
    ways = (to_canvas.a * to_x + to_canvas.c * to_y, to_canvas.b * to_x + to_canvas.d * to_y)
    fx, fy = (min(1.0, max(-1.0, way / (r or 1))) for way, r in zip(ways, radii, strict=True))
    return Radial(
        stops=stops, centre_x=cx, centre_y=cy, radius_x=rx, radius_y=ry, focus_x=round(fx, 6), focus_y=round(fy, 6)
    )


def _between(stops: tuple[Stop, ...], first: float, last: float) -> tuple[Stop, ...]:
    """The stretch of a ramp from ``first`` to ``last``, drawn out beyond its ends, as a ramp of its own."""
    ends = [_ramp_at(stops, at) for at in (first, last)]
    inner = [stop for stop in stops if first < stop.position < last]
    placed = [
        stop.evolve(position=min(1.0, max(0.0, (at - first) / (last - first))))
        for stop, at in [(ends[0], first), *((stop, stop.position) for stop in inner), (ends[1], last)]
    ]
    return tuple(placed[:MAX_STOPS])


def _ramp_at(stops: tuple[Stop, ...], at: float) -> Stop:
    if at <= stops[0].position:
        return stops[0]
    for one, other in pairwise(stops):
        if one.position <= at < other.position:
            return _mixed(one, other, (at - one.position) / (other.position - one.position))
    return stops[-1]
