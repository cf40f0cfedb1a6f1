"""Fills prepared for the kernels: a fill, the box it spans and the way to device space."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from obrell.core.colour.spaces import from_hex, from_oklab, mixed, to_hex, to_oklab
from obrell.core.geometry.plane import Rect, Similarity, about, direction
from obrell.core.raster.layers import Coverage, Layer, PixelBox
from obrell.core.raster.ramps import (
    CONIC,
    FOCAL,
    LINEAR,
    MIRRORED,
    ONCE,
    RADIAL,
    REPEATED,
    SOLID,
    Pigment,
    midpoint_exponent,
)
from obrell.core.raster.samples import (
    EMPTY,
    FOLDED,
    PADDED,
    WRAPPED,
    Stretch,
    cropped,
    mean_of,
    sampled,
    seams,
    size_of,
)
from obrell.core.values.paints import Conic, Fill, Gradient, Handled, Linear, Picture, Solid, Stop, Texture
from obrell.core.workspace import remembered

RAMP_SIZE = 1025
LEVEL = 1 / 255
"""How far the straight pieces of a bent ramp may be from it."""
QUARTERS = (0.25, 0.75)
MOST_HALVINGS = 11
NOTHING = (0.0, 0.0, 0.0)
SPREADS = {"once": ONCE, "repeated": REPEATED, "mirrored": MIRRORED}


def pigment(fill: Solid | Handled, box: Rect, to_device: Similarity) -> Pigment:
    """``box`` is the part's own unrotated box; colours must be literals."""
    if isinstance(fill, Solid):
        return solid(str(fill.colour))
    stops = np.array([stop_row(stop, fill.space) for stop in fill.stops])
    oklab = fill.space == "oklab"
    if isinstance(fill, Linear):
        x, y = direction(fill.angle)
        length = max(abs(box.width * x) + abs(box.height * y), 1e-9)
        cx, cy = (box.left + box.right) / 2, (box.top + box.bottom) / 2
        first, last = fill.ends
        whole = max(last - first, 1e-9)
        along = _affine(to_device, lambda px, py: (((px - cx) * x + (py - cy) * y) / length + 0.5 - first) / whole)
        return Pigment(LINEAR, _field(along), stops, oklab, SPREADS[fill.spread])
    if isinstance(fill, Conic):
        cx, cy = box.left + fill.centre_x * box.width, box.top + fill.centre_y * box.height
        x, y = direction(fill.start)
        across = _affine(to_device, lambda px, py: -(px - cx) * y + (py - cy) * x)
        down = _affine(to_device, lambda px, py: (px - cx) * x + (py - cy) * y)
        return Pigment(CONIC, _field(across, down), stops, oklab)
    rx = max(fill.radius_x * box.width, 1e-9)
    ry = max(fill.radius_y * box.height, 1e-9)
    cx, cy = box.left + fill.centre_x * box.width, box.top + fill.centre_y * box.height
    cos, sin, _, _ = Similarity(turn=fill.turn).linear()
    across = _affine(to_device, lambda px, py: ((px - cx) * cos + (py - cy) * sin) / rx)
    down = _affine(to_device, lambda px, py: ((py - cy) * cos - (px - cx) * sin) / ry)
    kind = RADIAL if fill.focus == (0.0, 0.0) else FOCAL
    return Pigment(kind, _field(across, down, fill.focus), stops, oklab, SPREADS[fill.spread])


Ends = tuple[tuple[float, float], tuple[float, float]]
"""Two places of a part's own space."""


def along_way(colour: str, ends: Ends, opacities: tuple[float, float], place: Similarity) -> Pigment:
    """One colour whose opacity changes evenly between two places of the part's own space."""
    (x, y), (to_x, to_y) = ends
    dx, dy = to_x - x, to_y - y
    square = max(dx * dx + dy * dy, 1e-12)
    along = _affine(place, lambda px, py: ((px - x) * dx + (py - y) * dy) / square)
    rgb = from_hex(colour)
    rows = [[float(at), *(c * opacity for c in rgb), opacity, 1.0] for at, opacity in enumerate(opacities)]
    return Pigment(LINEAR, _field(along), np.array(rows))


def texture_field(fill: Texture, box: Rect, to_device: Similarity) -> tuple[tuple[float, ...], float]:
    """What ``noise.textured`` is asked with: the way from device space to the pattern, and the size of its
    unit in device px."""
    x, y = direction(fill.angle)
    cx, cy, side = box.centre.x + fill.across, box.centre.y + fill.down, -1 if fill.mirrored else 1
    along = _affine(to_device, lambda px, py: ((px - cx) * x + (py - cy) * y) / fill.scale)
    across = _affine(to_device, lambda px, py: side * (-(px - cx) * y + (py - cy) * x) / fill.scale)
    return (*along, *across), fill.scale * to_device.scale


def texture_layer(fill: Texture, values: Coverage) -> Layer:
    """A texture's values as colours between its two."""
    share = np.clip(0.5 + fill.contrast * (values.values - np.float32(0.5)), 0, 1).astype(np.float32)
    layer = Layer.clear(values.box)
    for channel, (low, high) in enumerate(zip(from_hex(str(fill.colour)), from_hex(str(fill.second)), strict=True)):
        layer.planes[channel] = np.float32(low) + share * np.float32(high - low)
    layer.planes[3] = 1
    return layer


def picture_layer(fill: Picture, box: Rect, to_device: Similarity, region: PixelBox) -> Layer:
    """The picture over a region of the device grid, laid on the part's own unrotated box."""
    seen, (left, top, right, bottom) = picture_frame(fill, box)
    scale = to_device.scale
    small = tuple(max(1, round(side * scale)) for side in (seen.width, seen.height))
    size = min(small[0], right - left), min(small[1], bottom - top)
    wide, high = size[0] / seen.width, size[1] / seen.height
    laid = to_device.after(tile_turn(fill, box))
    across = _affine(laid, lambda px, _: (px - seen.left) * wide)
    down = _affine(laid, lambda _, py: (py - seen.top) * high)
    beyond = {"whole": EMPTY, "tiled": WRAPPED, "tiled, mirrored": FOLDED}.get(fill.fit, PADDED)
    if size == (right - left, bottom - top) and beyond == PADDED:
        first, last = _under(region, across, size[0]), _under(region, down, size[1])
        planes = cropped(fill.file, left + first[0], top + last[0], left + first[1], top + last[1], *size)
        across, down = (*across[:2], across[2] - first[0]), (*down[:2], down[2] - last[0])
    else:
        planes = cropped(fill.file, left, top, right, bottom, *size)
    return sampled(planes, Stretch((*across, *down), beyond), region)


def _under(region: PixelBox, field: tuple[float, ...], count: int) -> tuple[int, int]:
    """Which px of a picture's row or column, of ``count``, lie under a region of the device grid."""
    a, b, c = field
    ends = [a * x + b * y + c for x in (region.left, region.right) for y in (region.top, region.bottom)]
    first = min(max(math.floor(min(ends)) - 2, 0), count - 1)
    return first, max(first + 1, min(math.ceil(max(ends)) + 2, count))


def seams_of(fill: Picture) -> tuple[str, ...]:
    """The ways, ``across`` and ``down``, in which the tiles of a picture show a seam."""
    shows = seams(fill.file, *_seen_px(fill)) if fill.fit == "tiled" else (False, False)
    return tuple(way for way, seam in zip(("across", "down"), shows, strict=True) if seam)


def _seen_px(fill: Picture) -> tuple[int, int, int, int]:
    """Which px of the picture are seen: left, top, right and bottom."""
    width, height = size_of(fill.file)
    left, top = min(round(fill.cut_left * width), width - 1), min(round(fill.cut_top * height), height - 1)
    right = max(left + 1, width - round(fill.cut_right * width))
    bottom = max(top + 1, height - round(fill.cut_bottom * height))
    return left, top, right, bottom


def picture_frame(fill: Picture, box: Rect) -> tuple[Rect, tuple[int, int, int, int]]:
    """Where the picture, or its middle tile, lies in the part's own space, and which of its px are seen:
    left, top, right and bottom."""
    left, top, right, bottom = _seen_px(fill)
    wide, high = right - left, bottom - top
    if fill.fit == "stretched":
        return box, (left, top, right, bottom)
    by_side = (box.width / wide, box.height / high)
    factor = {"whole": min(by_side), "filling": max(by_side)}.get(fill.fit, fill.scale)
    x, y = wide * factor / 2, high * factor / 2
    middle = box.centre
    return Rect(middle.x - x, middle.y - y, middle.x + x, middle.y + y), (left, top, right, bottom)


def tile_turn(fill: Picture, box: Rect) -> Similarity:
    """How tiles are turned about the box's middle and moved, in the part's own space."""
    if not fill.tiled:
        return Similarity()
    return Similarity(dx=fill.across, dy=fill.down).after(about(box.centre.x, box.centre.y, fill.turn))


def solid(colour: str) -> Pigment:
    """One colour everywhere."""
    row = [0.0, *from_hex(colour), 1.0, 1.0]
    return Pigment(SOLID, _field(), np.array([row]))


def stop_row(stop: Stop, space: str) -> list[float]:
    """Position, premultiplied colour in a space, alpha, and the exponent of the way to the next stop."""
    rgb = from_hex(str(stop.colour))
    values = to_oklab(rgb) if space == "oklab" else rgb
    premultiplied = [value * stop.opacity for value in values]
    return [stop.position, *premultiplied, stop.opacity, midpoint_exponent(stop.midpoint)]


def _field(
    across: tuple[float, ...] = NOTHING, down: tuple[float, ...] = NOTHING, focus: tuple[float, float] = (0.0, 0.0)
) -> NDArray[np.float64]:
    """What ``Pigment`` keeps of where a ramp lies."""
    return np.array([*across, *down, *focus])


def _affine(to_device: Similarity, of_place: Callable[[float, float], float]) -> tuple[float, float, float]:
    """(a, b, c) with a·X + b·Y + c = ``of_place``(the local point that lands on device (X, Y))."""
    here = of_place(*to_device.undo(0.0, 0.0))
    right = of_place(*to_device.undo(1.0, 0.0))
    below = of_place(*to_device.undo(0.0, 1.0))
    return right - here, below - here, here


def sample(gradient: Gradient, t: float) -> Stop:
    """The ramp's colour at ``t`` as a stop of its own, mixed as the kernels mix it."""
    stops = gradient.stops
    if t <= stops[0].position:
        return stops[0].evolve(position=t, midpoint=0.5)
    for first, second in pairwise(stops):
        if first.position <= t < second.position:
            share = (t - first.position) / (second.position - first.position)
            share = share ** midpoint_exponent(first.midpoint)
            return _mixed(first, second, share, gradient.space).evolve(position=t)
    return stops[-1].evolve(position=t, midpoint=0.5)


@remembered(64)
def colours_of(gradient: Gradient) -> NDArray[np.float32]:
    """Its premultiplied colours at evenly spaced places from 0 to 1, shape (n, 4), where it is laid along no box.
    A linear one keeps its length, its place and what lies beyond its ends."""
    places = np.linspace(0.0, 1.0, RAMP_SIZE)
    if isinstance(gradient, Linear):
        first, last = gradient.ends
        places = _spread((places - first) / max(last - first, 1e-9), gradient.spread)
    rows = [stop_row(sample(gradient, float(at)), "srgb")[1:5] for at in places]
    return np.ascontiguousarray(rows, np.float32)


def _spread(places: NDArray[np.float64], spread: str) -> NDArray[np.float64]:
    if spread == "repeated":
        return np.asarray(places % 1.0)
    return np.abs((places + 1) % 2.0 - 1) if spread == "mirrored" else places


def mean_colour(fill: Fill) -> str:
    """The mean of what a fill with literal colours shows, as ``#rrggbb``; what lets through counts less."""
    if isinstance(fill, Solid):
        return str(fill.colour)
    if isinstance(fill, Texture):
        return mixed(str(fill.colour), str(fill.second), 0.5)
    mean = mean_of(fill.file) if isinstance(fill, Picture) else colours_of(fill).mean(axis=0)
    red, green, blue, alpha = (float(v) for v in mean)
    return to_hex((red / alpha, green / alpha, blue / alpha)) if alpha > 0 else "#ffffff"


def _mixed(first: Stop, second: Stop, share: float, space: str) -> Stop:
    low, high = stop_row(first, space), stop_row(second, space)
    red, green, blue, alpha = (a + share * (b - a) for a, b in zip(low[1:5], high[1:5], strict=True))
    if alpha <= 0:
        return Stop(position=0, colour=first.colour, opacity=0)
    straight = (red / alpha, green / alpha, blue / alpha)
    rgb = from_oklab(straight) if space == "oklab" else straight
    return Stop(position=0, colour=to_hex(rgb), opacity=min(1.0, alpha))


def linear_ends(angle: float, box: Rect) -> tuple[tuple[float, float], tuple[float, float]]:
    """Start and end of a CSS gradient line (CSS Images 4, section 3.1): its perpendiculars at the
    ends go through the box's corners."""
    x, y = direction(angle)
    half = (abs(box.width * x) + abs(box.height * y)) / 2
    cx, cy = (box.left + box.right) / 2, (box.top + box.bottom) / 2
    return (cx - x * half, cy - y * half), (cx + x * half, cy + y * half)


def straightened(gradient: Gradient) -> tuple[Stop, ...]:
    """Stops for a renderer that mixes straight sRGB along straight ramps: ramps bent by a midpoint, mixed in OKLab, or
    whose ends differ both in colour and in opacity (SVG does not premultiply) are cut until each piece is straight to
    a level."""
    result: list[Stop] = []
    for first, second in pairwise(gradient.stops):
        result.append(first.evolve(midpoint=0.5))
        bent = first.midpoint != 0.5 or gradient.space != "srgb"
        faded = first.opacity != second.opacity and first.colour != second.colour
        if (bent or faded) and second.position > first.position:
            ends = first.evolve(midpoint=0.5), second.evolve(midpoint=0.5)
            result.extend(_bent(gradient, *ends, MOST_HALVINGS))
    return (*result, gradient.stops[-1].evolve(midpoint=0.5))


def _bent(gradient: Gradient, first: Stop, second: Stop, halvings: int) -> Iterator[Stop]:
    """Stops between two that a straight ramp needs to follow the gradient."""
    middle = sample(gradient, (first.position + second.position) / 2)
    quarters = [sample(gradient, first.position + (second.position - first.position) * share) for share in QUARTERS]
    straight = all(
        _apart(stop, first, second, share) < LEVEL for stop, share in zip(quarters, QUARTERS, strict=True)
    )  # fmt: skip
    if halvings == 0 or (straight and _apart(middle, first, second, 0.5) < LEVEL):
        return
    yield from _bent(gradient, first, middle, halvings - 1)
    yield middle
    yield from _bent(gradient, middle, second, halvings - 1)


def _apart(stop: Stop, first: Stop, second: Stop, share: float) -> float:
    """By how much a stop differs, premultiplied, from what SVG mixes of two others."""
    opacity = first.opacity + share * (second.opacity - first.opacity)
    pairs = zip(from_hex(str(first.colour)), from_hex(str(second.colour)), from_hex(str(stop.colour)), strict=True)
    colours = (abs((one + share * (other - one)) * opacity - own * stop.opacity) for one, other, own in pairs)
    return max(abs(opacity - stop.opacity), *colours)
