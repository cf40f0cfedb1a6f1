"""Colours of CSS that are mixed of two others (CSS Color 5, section 3)."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Any

import tinycss2

from obrell.core.colour.relative import Read, channels_of, function_of
from obrell.core.colour.spaces import Triple, from_hex, to_hex

Mix = Callable[[Triple, Triple, tuple[float, float], float], Triple]
STRAIGHT = ("srgb", "srgb-linear", "display-p3", "lab", "oklab", "xyz", "xyz-d50", "xyz-d65")
"""Spaces without a hue."""
POLAR = {"hsl": ("s", 0.01), "lch": ("c", 0.01), "oklch": ("c", 4e-4)}
"""Spaces with a hue; a colour is grey, and has none, where this channel is below this number."""


@dataclass(frozen=True, slots=True)
class Circle:
    """A space with a circle of hues, and how far they turn, degrees."""

    space: str
    turn: Callable[[float], float]
    read: Read


def mixed(arguments: list[list[Any]], read: Read) -> tuple[str, float] | None:
    """Return two colours mixed, weighed and premultiplied (CSS Color 5, section 3)."""
    method = [one.lower_value for one in arguments[0] if one.type == "ident"]
    if len(arguments) == 2:
        method, arguments = ["in", "oklab"], [[], *arguments]
    if len(arguments) != 3 or method[:1] != ["in"] or len(method) < 2:
        return None
    way = _way(method[1], method[2:], read)
    if way is None:
        return None
    parts = [_weighed(one, read) for one in arguments[-2:]]
    if parts[0] is None or parts[1] is None:
        return None
    (one, clear, first), (other, faint, second) = parts[0], parts[1]
    first, second = _shares(first, second)
    whole = first + second
    if whole <= 0:
        return None
    share = second / whole
    alpha = clear + (faint - clear) * share
    shares = (1 - share, share) if alpha == 0 else (clear * (1 - share) / alpha, faint * share / alpha)
    return to_hex(way(from_hex(one), from_hex(other), shares, share)), alpha * min(1.0, whole)


def _way(space: str, hue: list[str], read: Read) -> Mix | None:
    """Return what mixes two colours in a space, for shares of all channels and of the hue."""
    if space in STRAIGHT and not hue:
        return lambda one, other, shares, _: _straight(space, (one, other), shares, read)
    turn = _TURNS.get(hue[0]) if len(hue) == 2 and hue[1] == "hue" else None if hue else _TURNS["shorter"]
    if space not in POLAR or turn is None:
        return None
    return lambda one, other, shares, share: _round(Circle(space, turn, read), (one, other), shares, share)


def _straight(space: str, colours: tuple[Triple, Triple], shares: tuple[float, float], read: Read) -> Triple:
    """Return two colours mixed along the straight line between them in a space."""
    one, other = (channels_of(space, rgb) for rgb in colours)
    return _seen(space, (one[name] * shares[0] + other[name] * shares[1] for name in one), read)


def _seen(space: str, channels: Iterable[float], read: Read) -> Triple:
    found = read(function_of(space, channels))
    assert found is not None
    return from_hex(found[0])


def _round(circle: Circle, colours: tuple[Triple, Triple], shares: tuple[float, float], share: float) -> Triple:
    """Return two colours mixed round the circle of hues (CSS Color 4, section 12.4); a grey has that of the other."""
    one, other = (channels_of(circle.space, rgb) for rgb in colours)
    channel, least = POLAR[circle.space]
    hues = [None if values[channel] < least else values["h"] for values in (one, other)]
    start = next((hue for hue in hues if hue is not None), 0.0) if hues[0] is None else hues[0]
    end = start if hues[1] is None else hues[1]
    values = {name: one[name] * shares[0] + other[name] * shares[1] for name in one}
    values["h"] = start + circle.turn(end - start) * share
    return _seen(circle.space, values.values(), circle.read)


def _weighed(tokens: list[Any], read: Read) -> tuple[str, float, float | None] | None:
    """Return a colour, its opacity, and its share, if one is written."""
    shares = [float(one.value) / 100 for one in tokens if one.type == "percentage"]
    colour = read(tinycss2.serialize([one for one in tokens if one.type != "percentage"]))
    if colour is None or len(shares) > 1 or not all(0 <= share <= 1 for share in shares):
        return None
    return *colour, shares[0] if shares else None


def _shares(first: float | None, second: float | None) -> tuple[float, float]:
    if first is None:
        return (0.5, 0.5) if second is None else (1 - second, second)
    return first, 1 - first if second is None else second


def _shorter(way: float) -> float:
    return (way + 180) % 360 - 180


_TURNS: dict[str, Callable[[float], float]] = {
    "shorter": _shorter,
    "longer": lambda way: _shorter(way) - 360 if _shorter(way) > 0 else _shorter(way) + 360,
    "increasing": lambda way: way % 360,
    "decreasing": lambda way: way % 360 - 360 if way % 360 else 0.0,
}
"""How far hues turn, degrees, by the way that is asked for."""
