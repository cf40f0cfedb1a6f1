"""Relative colours of CSS: a colour written with the channels of another one (CSS Color 5, section 4)."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Mapping
from typing import Any

import numpy as np
import tinycss2
from numpy.typing import NDArray
from tinycss2 import color4

from obrell.core.colour.notations import SPACES
from obrell.core.colour.spaces import Triple, decoded, encoded, from_hex, to_oklab, to_oklch
from obrell.core.colour.xyz import D50_OF_LINEAR, P3_OF_LINEAR, XYZ_OF_LINEAR

DECIMALS = 6
SHARES = ("hsl", "hsla", "hwb")
"""Functions whose second and third numbers are percentages."""
Matrix = NDArray[np.float64]
Numbers = Mapping[str, float]
Read = Callable[[str], tuple[str, float] | None]
"""Gives the ``#rrggbb`` and the opacity of a written colour."""


def channels_of(name: str, rgb: Triple) -> dict[str, float]:
    """Return the channels of an encoded colour, each 0 to 1, as a function of CSS names and counts them."""
    return _CHANNELS[name](rgb)


def function_of(space: str, channels: Iterable[float]) -> str:
    """Return the function of CSS that writes channels of a space, as ``channels_of`` counts them."""
    name, inner = ("color", f"{space} ") if space in _OF_COLOR else (space, "")
    return f"{name}({inner}{' '.join(f'{value:.{DECIMALS}f}' for value in channels)})"


def is_relative(arguments: list[list[Any]]) -> bool:
    """Return whether the arguments of a colour's function begin with ``from``."""
    first = arguments[0][:1] if len(arguments) == 1 else []
    return bool(first) and first[0].type == "ident" and first[0].lower_value == "from"


def written_out(name: str, tokens: list[Any], read: Read) -> str | None:
    """Return the same colour without another one in it, or None for what is not understood. ``tokens`` are all that
    stands between the brackets."""
    found = read(tinycss2.serialize(tokens[1:2])) if len(tokens) > 1 else None
    if found is None:
        return None
    rest, space = tokens[2:], ""
    if name == "color":
        space = rest[0].lower_value if rest and rest[0].type == "ident" else ""
        rest = rest[1:]
    channels = _CHANNELS.get(space or name)
    if channels is None or (space in _OF_COLOR) != (name == "color"):
        return None
    known = channels(from_hex(found[0])) | {"alpha": found[1]}
    if len(rest) == 3:
        written = [_written(one, known) for one in rest] + [f"{found[1]:.{DECIMALS}f}"]
    elif len(rest) == 5 and rest[3] == "/":
        written = [_written(one, known) for one in (*rest[:3], rest[4])]
    else:
        return None
    if name in SHARES:
        written[1:3] = [one and (one if one.endswith(("%", "none")) else f"{one}%") for one in written[1:3]]
    return None if None in written else f"{name}({space} {' '.join(map(str, written[:3]))} / {written[3]})"


def _written(token: Any, known: Numbers) -> str | None:
    """Return a value with numbers in the place of channels."""
    if token.type in ("number", "percentage", "dimension") or (token.type == "ident" and token.lower_value == "none"):
        return str(token.serialize())
    if token.type == "ident" and token.lower_value in known:
        return f"{known[token.lower_value]:.{DECIMALS}f}"
    if token.type == "function" and token.lower_name == "calc":
        value = _calculated(token.arguments, known)
        return None if value is None or not math.isfinite(value) else f"{value:.{DECIMALS}f}"
    return None


def _calculated(tokens: list[Any], known: Numbers) -> float | None:
    """Return the number that sums and products of numbers and channels come to (CSS Values 4, section 10.1), or None
    for anything else."""
    left = [one for one in tokens if one.type not in ("whitespace", "comment")]
    try:
        value = _sum(left, known)
    except (KeyError, IndexError, ZeroDivisionError):
        return None
    return None if left else value


def _sum(left: list[Any], known: Numbers) -> float:
    value = _product(left, known)
    while left and left[0] in ("+", "-"):
        sign = 1 if left.pop(0) == "+" else -1
        value += sign * _product(left, known)
    return value


def _product(left: list[Any], known: Numbers) -> float:
    value = _factor(left, known)
    while left and left[0] in ("*", "/"):
        by = left.pop(0)
        value = value * _factor(left, known) if by == "*" else value / _factor(left, known)
    return value


def _factor(left: list[Any], known: Numbers) -> float:
    token = left.pop(0)
    if token.type == "number":
        return float(token.value)
    if token.type == "() block" or (token.type == "function" and token.lower_name == "calc"):
        inner = token.content if token.type == "() block" else token.arguments
        value = _calculated(inner, known)
        if value is None:
            raise KeyError
        return value
    return known[token.lower_value if token.type == "ident" else ""]


def _named(names: str, values: tuple[float, ...]) -> dict[str, float]:
    return dict(zip(names, values, strict=True))


def _hwb(rgb: Triple) -> tuple[float, ...]:
    return SPACES["hsl"].of(rgb)[0], min(rgb) * 100, (1 - max(rgb)) * 100


def _p3(rgb: Triple) -> tuple[float, ...]:
    linear = P3_OF_LINEAR @ np.array([decoded(one) for one in rgb])
    return tuple(encoded(float(one)) for one in linear)


def _light(matrix: Matrix) -> Callable[[Triple], dict[str, float]]:
    """Return the function that gives the X, Y and Z of a colour, for the matrix from linear sRGB."""
    return lambda rgb: _named("xyz", tuple(map(float, matrix @ np.array([decoded(one) for one in rgb]))))


def _lab(rgb: Triple) -> tuple[float, ...]:
    xyz = D50_OF_LINEAR @ np.array([decoded(one) for one in rgb])
    return tuple(map(float, color4.Color("xyz-d50", tuple(map(float, xyz)), 1.0).to("lab").coordinates))


def _lch(rgb: Triple) -> tuple[float, ...]:
    lightness, a, b = _lab(rgb)
    return lightness, math.hypot(a, b), math.degrees(math.atan2(b, a)) % 360


_OF_FUNCTION: dict[str, Callable[[Triple], dict[str, float]]] = {
    **dict.fromkeys(("rgb", "rgba"), lambda rgb: _named("rgb", SPACES["rgb"].of(rgb))),
    **dict.fromkeys(("hsl", "hsla"), lambda rgb: _named("hsl", SPACES["hsl"].of(rgb))),
    "hwb": lambda rgb: _named("hwb", _hwb(rgb)),
    "lab": lambda rgb: _named("lab", _lab(rgb)),
    "lch": lambda rgb: _named("lch", _lch(rgb)),
    "oklab": lambda rgb: _named("lab", to_oklab(rgb)),
    "oklch": lambda rgb: _named("lch", to_oklch(rgb)),
}
"""The channels of a colour by the function that writes them."""
_OF_COLOR: dict[str, Callable[[Triple], dict[str, float]]] = {
    "srgb": lambda rgb: _named("rgb", rgb),
    "srgb-linear": lambda rgb: _named("rgb", tuple(map(decoded, rgb))),
    "display-p3": lambda rgb: _named("rgb", _p3(rgb)),
    "xyz": _light(XYZ_OF_LINEAR),
    "xyz-d65": _light(XYZ_OF_LINEAR),
    "xyz-d50": _light(D50_OF_LINEAR),
}
"""The channels of a colour by the space of ``color()``: the numbers that CSS writes."""
_CHANNELS: dict[str, Callable[[Triple], dict[str, float]]] = _OF_FUNCTION | _OF_COLOR
