"""Colours of CSS as ours: hexadecimal digits and an opacity (CSS Color 4)."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any

import numpy as np
import tinycss2
from tinycss2 import color4

from obrell.core.colour.mixes import mixed
from obrell.core.colour.relative import is_relative, written_out
from obrell.core.colour.spaces import decoded, encoded, to_hex
from obrell.core.colour.xyz import D65_OF_D50, LINEAR_OF_XYZ, XYZ_OF_P3

MOST_CHARACTERS = 200


def css_colour(text: str) -> tuple[str, float] | None:
    """A colour and its opacity; None for what is no colour, or stands for another one (``currentcolor``)."""
    if len(text) > MOST_CHARACTERS:
        return None
    name, arguments = _call(text)
    if name in _OF_OTHERS:
        return _OF_OTHERS[name](arguments)
    if is_relative(arguments):
        written = written_out(name, arguments[0], css_colour)
        return None if written is None else css_colour(written)
    found = _parsed(text.strip())
    if found is None or isinstance(found, str):
        return None
    try:
        rgb = _srgb(found)
    except OverflowError:
        return None
    if rgb is None or not all(map(math.isfinite, (*rgb, found.alpha))):
        return None
    red, green, blue = (min(1.0, max(0.0, value)) for value in rgb)
    return to_hex((red, green, blue)), min(1.0, max(0.0, found.alpha))


def is_colour(text: str) -> bool:
    """Return whether a text is a colour, also a transparent one or ``currentcolor``."""
    return _parsed(text.strip()) is not None or css_colour(text) is not None


def _call(text: str) -> tuple[str, list[list[Any]]]:
    """Return the name and the arguments of a text that is one function; empty when it is none."""
    tokens = [one for one in tinycss2.parse_component_value_list(text, skip_comments=True) if one.type != "whitespace"]
    if len(tokens) != 1 or tokens[0].type != "function":
        return "", [[]]
    arguments: list[list[Any]] = [[]]
    for token in tokens[0].arguments:
        if token == ",":
            arguments.append([])
        elif token.type != "whitespace":
            arguments[-1].append(token)
    return tokens[0].lower_name, arguments


def _light(arguments: list[list[Any]]) -> tuple[str, float] | None:
    """Return the first of two: what is drawn is looked at in a light scheme (CSS Color 5, section 6)."""
    return css_colour(tinycss2.serialize(arguments[0])) if len(arguments) == 2 else None


_OF_OTHERS: dict[str, Callable[[list[list[Any]]], tuple[str, float] | None]] = {
    "light-dark": _light,
    "color-mix": lambda arguments: mixed(arguments, css_colour),
}


def _parsed(text: str) -> color4.Color | str | None:
    """Return the parsed colour, or None if the text is too long or not a colour."""
    if not text or len(text) > MOST_CHARACTERS:
        return None
    try:
        return color4.parse_color(text)
    except Exception:  # whatever a text that is none makes the parser raise
        return None


def _srgb(colour: color4.Color) -> tuple[float, float, float] | None:
    space = str(colour.space)
    values = np.array([0.0 if value is None else float(value) for value in colour.coordinates])
    if space in ("srgb", "hsl", "hwb"):
        red, green, blue = colour.to("srgb").coordinates
        return float(red), float(green), float(blue)
    if space == "srgb-linear":
        linear = values
    elif space == "display-p3":
        linear = LINEAR_OF_XYZ @ XYZ_OF_P3 @ np.array([decoded(value) for value in values])
    elif space in ("lab", "lch", "xyz-d50"):
        linear = LINEAR_OF_XYZ @ D65_OF_D50 @ np.array(colour.to("xyz-d50").coordinates)
    elif space in ("oklab", "oklch", "xyz", "xyz-d65"):
        linear = LINEAR_OF_XYZ @ np.array(colour.to("xyz-d65").coordinates)
    else:
        return None
    red, green, blue = (encoded(float(min(1.0, max(0.0, value)))) for value in linear)
    return red, green, blue
