"""Colours and gradients of an SVG as fills."""

from __future__ import annotations

import math
import re
from collections.abc import Mapping
from dataclasses import dataclass
from itertools import pairwise
from xml.etree.ElementTree import Element

from PIL import ImageColor

from obrell.core.colour.spaces import from_hex, to_hex
from obrell.core.geometry.affine import Affine, read_transform
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


class Ramps:
    """The gradients of a document."""

    def __init__(self, by_id: Mapping[str, Element]) -> None:
        self._by_id = by_id

    def fill(self, text: str, box: Rect, to_canvas: Affine, values: Mapping[str, str]) -> Filled | None:
        """The fill that ``fill`` or ``stroke`` asks for, over a box in the element's own space."""
        if text.strip().lower() == "currentcolor":
            text = values.get("color", "#000")
        found = re.match(r"url\(['\"]?#([^'\")]+)['\"]?\)\s*(.*)", text.strip())
        if found is None:
            colour = colour_of(text)
            return None if colour is None else Filled(Solid(colour=colour[0]), colour[1])
        element = self._by_id.get(found[1])
        stops = self._stops(element) if element is not None else ()
        if element is None or not stops or box.empty:
            return self.fill(found[2] or "none", box, to_canvas, values)
        if len(stops) == 1:
            return Filled(Solid(colour=stops[0].colour), stops[0].opacity)
        return Filled(self._ramp(element, stops, box))

    def _ramp(self, element: Element, stops: tuple[Stop, ...], box: Rect) -> Fill:
        shares = self._value(element, "gradientUnits", "objectBoundingBox") == "objectBoundingBox"
        own = read_transform(self._value(element, "gradientTransform", ""))

        def place(x: str, y: str, usual: tuple[str, str]) -> tuple[float, float]:
            across, down = (_share(self._value(element, name, to)) for name, to in zip((x, y), usual, strict=True))
            across, down = own.apply(across, down)
            if shares:
                return across, down
            return (across - box.left) / (box.width or 1), (down - box.top) / (box.height or 1)

        if element.tag.endswith("linearGradient"):
            start, end = place("x1", "y1", ("0", "0")), place("x2", "y2", ("1", "0"))
            return _linear(start, end, stops, box)
        centre = place("cx", "cy", ("0.5", "0.5"))
        radius = _share(self._value(element, "r", "0.5"))
        rx, ry = math.hypot(own.a, own.b) * radius, math.hypot(own.c, own.d) * radius
        if not shares:
            rx, ry = rx / (box.width or 1), ry / (box.height or 1)
        x, y = (min(10.0, max(-10.0, v)) for v in centre)
        rx, ry = (min(10.0, max(0.001, v)) for v in (rx, ry))
        return Radial(stops=stops, centre_x=x, centre_y=y, radius_x=rx, radius_y=ry)

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
    first, second = from_hex(str(one.colour)), from_hex(str(other.colour))
    r, g, b = (p + (q - p) * t for p, q in zip(first, second, strict=True))
    position = one.position + (other.position - one.position) * t
    return Stop(position=position, colour=to_hex((r, g, b)), opacity=one.opacity + (other.opacity - one.opacity) * t)


def _share(text: str) -> float:
    return number_of(text.rstrip("%")) / (100 if text.strip().endswith("%") else 1)


def _linear(start: tuple[float, float], end: tuple[float, float], stops: tuple[Stop, ...], box: Rect) -> Fill:
    """The gradient as CSS has it: by angle, its line as long as the box needs (CSS Images 4, 3.1.1)."""
    dx, dy = (end[0] - start[0]) * box.width, (end[1] - start[1]) * box.height
    length = math.hypot(dx, dy)
    if length == 0:
        return Solid(colour=stops[-1].colour)
    angle = math.degrees(math.atan2(dx, -dy)) % 360
    whole = abs(box.width * dx / length) + abs(box.height * dy / length)
    along = ((start[0] - 0.5) * box.width * dx + (start[1] - 0.5) * box.height * dy) / length
    first, factor = along / whole + 0.5, length / whole
    moved = tuple(
        stop.evolve(position=min(1.0, max(0.0, first + stop.position * factor))) for stop in stops
    )  # fmt: skip
    return Linear(stops=moved, angle=angle)
