"""Where in the field of a hue a label could be read, on the pixels that the chosen colour makes.

What a colour makes of a pixel is a straight line in each of its channels for every blend mode that mixes linearly, so
two pictures, with black and with white in its place, tell what every colour makes. Where a third one does not lie on
that line, nothing is said.
"""

from __future__ import annotations

import colorsys
from collections.abc import Callable, Sequence

import numpy as np
from numpy.typing import NDArray

from obrell.core.colour.contrast import FLARE, LUMINANCE, ORDINARY
from obrell.core.colour.spaces import from_hex
from obrell.core.document.resolve import Resolved
from obrell.core.render.cache import PixelCache
from obrell.core.render.label_contrast import Looked, letter_pixels, linear, looked

Curve = tuple[tuple[float, float], ...]
Values = NDArray[np.float64]
SATURATIONS, STRENGTHS = 13, 41
"""How finely the field is looked at."""
MOST_PIXELS = 240
"""Of one letter, and of what is behind it; evenly taken out of more."""
TRIED = "#808080"
"""The colour by which it is tried that all others lie between black and white."""
SLACK = 3 / 255
"""How far a channel may be from the straight line: twice a picture's rounding, and a little."""


def readable_field(
    name: str, with_colour: Callable[[str], Resolved], hue: float, cache: PixelCache | None = None
) -> tuple[Curve, ...]:  # fmt: skip
    """Return where a text or icon is just read at 4.5 : 1, as curves of saturation and value, both 0 to 100, in the
    field of a hue, degrees. ``with_colour`` gives the control with a ``#rrggbb`` in the place of the colour that is
    chosen. Return nothing where every colour, or none, reaches it, and where a third picture does not lie between."""
    pictures = [looked(with_colour(colour), name, cache) for colour in ("#000000", "#ffffff", TRIED)]
    if any(one is None for one in pictures):
        return ()
    black, white, shown = (one for one in pictures if one is not None)
    lines = _letters(black, white, shown, np.array(from_hex(TRIED)))
    if not lines:
        return ()
    saturations, strengths = np.linspace(0, 1, SATURATIONS), np.linspace(0, 1, STRENGTHS)
    colours = np.array([[colorsys.hsv_to_rgb(hue / 360, s, v) for v in strengths] for s in saturations])
    ratios = np.min([_ratios(*one, colours) for one in lines], axis=0)
    return _crossings(ratios, saturations * 100, strengths * 100)


Line = tuple[Values, Values]
"""What pixels are with black and with white, count × 3, 0 to 1."""


def _letters(black: Looked, white: Looked, shown: Looked, now: Values) -> list[tuple[Line, Line]]:
    """Return the pixels of each letter, and those behind it; nothing where what is shown now does not lie between."""
    found = []
    for dark, light, seen in zip(*(letter_pixels(one) for one in (black, white, shown)), strict=True):
        pair = [(_some(one), _some(other)) for one, other in zip(dark, light, strict=True)]
        for (low, high), real in zip(pair, seen, strict=True):
            if np.abs(low + (high - low) * now - _some(real)).max(initial=0) > SLACK:
                return []
        found.append((pair[0], pair[1]))
    return found


def _some(pixels: Values) -> Values:
    return pixels[:: max(1, len(pixels) // MOST_PIXELS)]


def _ratios(own: Line, behind: Line, colours: Values) -> Values:
    """Return the contrast of a letter with every colour, as ``colours`` are laid out."""
    one, other = _luminances(own, colours), _luminances(behind, colours)
    ratios: Values = (np.maximum(one, other) + FLARE) / (np.minimum(one, other) + FLARE)
    return ratios


def _luminances(line: Line, colours: Values) -> Values:
    """Return the mean relative luminance of pixels with every colour."""
    low, high = line
    mean = np.zeros(colours.shape[:-1])
    for channel, weight in enumerate(LUMINANCE):
        start, way = low[:, channel], high[:, channel] - low[:, channel]
        values = start + colours[..., channel, None] * way
        mean += weight * linear(values).mean(axis=-1)
    return mean


def _crossings(ratios: Values, saturations: Values, strengths: Values) -> tuple[Curve, ...]:
    """Return where ratios pass what is enough, upwards and downwards in value, as one curve for each."""
    curves = []
    for upwards in (True, False):
        curve = tuple(
            (round(float(saturation), 2), round(float(at), 2))
            for saturation, column in zip(saturations, ratios, strict=True)
            for at in _passed(column, strengths, upwards)[:1]
        )
        curves += [curve] if len(curve) > 1 else []
    return tuple(curves)


def _passed(column: Values, strengths: Values, upwards: bool) -> Sequence[float]:
    """Return the values at which a contrast begins, or ends, to be enough."""
    enough = column >= ORDINARY
    steps = np.flatnonzero((enough[1:] != enough[:-1]) & (enough[1:] == upwards))
    share = (ORDINARY - column[steps]) / (column[steps + 1] - column[steps])
    found: Values = strengths[steps] + share * (strengths[steps + 1] - strengths[steps])
    return [float(one) for one in found]
