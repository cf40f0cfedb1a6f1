"""Transforms as SVG's attributes and CSS write them (SVG 2, section 8.5; CSS Transforms 1)."""

from __future__ import annotations

import math
import re
from collections.abc import Mapping
from typing import Any

import tinycss2

from obrell.core.geometry.affine import IDENTITY, Affine
from obrell.core.geometry.plane import Rect
from obrell.core.interchange.svg.lengths import FONT_PX, length, numbers

MOST_CHARACTERS = 10_000
_DEGREES = {"": 1.0, "deg": 1.0, "grad": 0.9, "rad": 180 / math.pi, "turn": 360.0}
_TURNS = frozenset({"rotate", "skewX", "skewY", "skew"})
_SAME_NAMES = {"skewx": "skewX", "skewy": "skewY", "translatex": "translateX", "translatey": "translateY"}
_SIDES = {"left": "0%", "top": "0%", "center": "50%", "right": "100%", "bottom": "100%"}


class BadTransform(ValueError):
    """It cannot be read; a browser leaves it out."""


def transform(text: str, box: Rect) -> Affine:
    """The transform of an attribute or a property; percentages are of ``box``. Raises ``BadTransform``."""
    if len(text) > MOST_CHARACTERS:
        raise BadTransform
    result = IDENTITY
    closed_up = re.sub(r"(?<=[a-zA-Z])\s+\(", "(", text)
    for token in tinycss2.parse_component_value_list(closed_up, skip_comments=True):
        if token.type == "function":
            name = _SAME_NAMES.get(token.lower_name, token.name)
            result = result.after(_one(name, list(_values(name, token.arguments, box))))
        elif token.type != "whitespace" and token != "," and text.strip().lower() != "none":
            raise BadTransform
    return result


def whole_transform(style: Mapping[str, str]) -> str:
    """Return all that moves an element as one list of functions: ``translate``, ``rotate`` and ``scale``, then
    ``transform`` (CSS Transforms 2, section 12)."""
    single = ((name, style.get(name, "").split()) for name in ("translate", "rotate", "scale"))
    pieces = [f"{name}({', '.join(_in_plane(values))})" for name, values in single if values not in ([], ["none"])]
    text = style.get("transform", "")
    return " ".join([*pieces, text]) if pieces and text.strip().lower() != "none" else text or " ".join(pieces)


def _in_plane(values: list[str]) -> list[str]:
    """Return the values without an axis of turning: the one that is looked along."""
    return [value for value in values if value.lower() != "z"]


def about_origin(by: Affine, origin: str, box: Rect, font: float = FONT_PX) -> Affine:
    """The transform about its origin (CSS Transforms 1, section 5): keywords, lengths, shares of ``box``."""
    places = [_SIDES.get(word.lower(), word) for word in numbers(origin)]
    if not places:
        return by
    if numbers(origin)[0].lower() in ("top", "bottom") and len(places) > 1:
        places[0], places[1] = places[1], places[0]
    elif numbers(origin)[0].lower() in ("top", "bottom"):
        places = ["50%", places[0]]
    places.append("50%")
    x = box.left + length(places[0], box.width, font)
    y = box.top + length(places[1], box.height, font)
    return Affine(e=x, f=y).after(by).after(Affine(e=-x, f=-y))


def _values(name: str, tokens: list[Any], box: Rect) -> list[float]:
    found: list[float] = []
    for token in tokens:
        if token.type == "number":
            found.append(float(token.value))
        elif token.type == "dimension" and name in _TURNS and token.lower_unit in _DEGREES and not found:
            found.append(float(token.value) * _DEGREES[token.lower_unit])
        elif token.type == "dimension":
            found.append(length(f"{token.value}{token.lower_unit}", usual=math.nan))
        elif token.type == "percentage":
            sides = (box.height,) if name == "translateY" else (box.width, box.height)
            found.append(float(token.value) / 100 * (sides[len(found) % len(sides)] if "translate" in name else 1.0))
        elif token.type != "whitespace" and token != ",":
            raise BadTransform
    if not all(math.isfinite(value) for value in found):
        raise BadTransform
    return found


def _one(name: str, n: list[float]) -> Affine:
    match name, len(n):
        case "matrix", 6:
            return Affine(*n)
        case "translate", 1 | 2:
            return Affine(e=n[0], f=n[1] if len(n) > 1 else 0.0)
        case "translateX", 1:
            return Affine(e=n[0])
        case "translateY", 1:
            return Affine(f=n[0])
        case "scale", 1 | 2:
            return Affine(a=n[0], d=n[-1])
        case (("scaleX" | "scalex"), 1):
            return Affine(a=n[0])
        case (("scaleY" | "scaley"), 1):
            return Affine(d=n[0])
        case "rotate", 1 | 3:
            cos, sin = math.cos(math.radians(n[0])), math.sin(math.radians(n[0]))
            turn = Affine(cos, sin, -sin, cos)
            return turn if len(n) == 1 else Affine(e=n[1], f=n[2]).after(turn).after(Affine(e=-n[1], f=-n[2]))
        case "skewX", 1:
            return Affine(c=math.tan(math.radians(n[0])))
        case "skewY", 1:
            return Affine(b=math.tan(math.radians(n[0])))
        case "skew", 1 | 2:
            ways = [math.tan(math.radians(angle)) for angle in (*n, 0.0)]
            return Affine(c=ways[0], b=ways[1])
    raise BadTransform
