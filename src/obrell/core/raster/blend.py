"""Compositing and the sixteen blend modes of Compositing and Blending 1, on premultiplied float32.

A source is painted row by row into a scratch row and blended from there, so that every pairing of
source and mode costs one compilation. Mode codes follow ``values.blends.BLENDS``.
"""

from __future__ import annotations

import numpy as np

from obrell.core.raster.jit import helper, kernel
from obrell.core.raster.layers import Coverage, Layer, PixelBox
from obrell.core.raster.ramps import Pigment


def paint(target: Layer, mask: Coverage, pigment: Pigment | Layer, opacity: float, mode: int) -> None:
    """Blend ``pigment``, covered by ``mask`` and faded by ``opacity``, into ``target``."""
    box = mask.box.meet(target.box)
    if isinstance(pigment, Layer):
        box = box.meet(pigment.box)
    if box.empty or opacity <= 0:
        return
    if isinstance(pigment, Layer):
        _cover(
            target.planes, target.box.left, target.box.top,
            mask.values, mask.box.left, mask.box.top,
            pigment.planes, pigment.box.left, pigment.box.top,
            box.left, box.top, box.right, box.bottom, opacity, mode,
        )  # fmt: skip
        return
    _paint(
        target.planes, target.box.left, target.box.top,
        mask.values, mask.box.left, mask.box.top,
        box.left, box.top, box.right, box.bottom,
        pigment.shape, pigment.field, pigment.stops, pigment.oklab, pigment.spread, opacity, mode,
    )  # fmt: skip


def composite(target: Layer, source: Layer, opacity: float, mode: int) -> None:
    """Blend the layer ``source`` into ``target``."""
    box = source.box.meet(target.box)
    if box.empty or opacity <= 0:
        return
    _composite(
        target.planes, target.box.left, target.box.top,
        source.planes, source.box.left, source.box.top,
        box.left, box.top, box.right, box.bottom, opacity, mode,
    )  # fmt: skip


def mix(target: Layer, inside: Layer, shape: Coverage) -> None:
    """target ← (1 − c) · target + c · inside over the box of ``inside``, c the shape's coverage.

    The box of ``inside`` lies within those of ``shape`` and of the target.
    """
    box = inside.box
    if not box.empty:
        y, x = box.top - target.box.top, box.left - target.box.left
        down, along = box.top - shape.box.top, box.left - shape.box.left
        _mix(target.planes, y, x, inside.planes, shape.values, down, along)


def split(layer: Layer, box: PixelBox, shape: Coverage) -> Layer:
    """What ``layer`` shows inside a shape, over ``box``, taken out of it: afterwards ``layer`` is what
    it shows outside, and weaving both by the shape's coverage gives what it was.

    Where the shape covers a part c of a pixel, as much as possible of the pixel's alpha is taken to
    lie inside, up to 1: an edge that ``layer`` shares with the shape is inside alone.
    """
    inside = layer.crop(box)
    if not box.empty:
        y, x = box.top - layer.box.top, box.left - layer.box.left
        _split(layer.planes, y, x, inside.planes, shape.values, box.top - shape.box.top, box.left - shape.box.left)
    return inside


@kernel("void(float32[:,:,::1], int64, int64, float32[:,:,::1], float32[:,::1], int64, int64)")
def _split(outside, top, left, inside, shape, down, along):
    height, width = inside.shape[1], inside.shape[2]
    for y in range(height):
        for x in range(width):
            cover, alpha = shape[down + y, along + x], inside[3, y, x]
            factor = min(np.float32(1), alpha / cover) / alpha if cover > 0 and alpha > 0 else np.float32(0)
            for channel in range(4):
                whole = inside[channel, y, x]
                inside[channel, y, x] = whole * factor
                rest = (whole - cover * whole * factor) / (1 - cover) if cover < 1 else np.float32(0)
                outside[channel, top + y, left + x] = rest


@kernel("void(float32[:,:,::1], int64, int64, float32[:,:,::1], float32[:,::1], int64, int64)")
def _mix(target, top, left, inside, shape, down, along):
    height, width = inside.shape[1], inside.shape[2]
    for channel in range(4):
        for y in range(height):
            below = target[channel, top + y, left : left + width]
            above, cover = inside[channel, y], shape[down + y, along : along + width]
            for x in range(width):
                below[x] += cover[x] * (above[x] - below[x])


@helper
def _hard_light(b, s):
    if s <= 0.5:
        return b * 2 * s
    return b + (2 * s - 1) - b * (2 * s - 1)


@helper
def _soft_light(b, s):
    if s <= 0.5:
        return b - (1 - 2 * s) * b * (1 - b)
    d = ((16 * b - 12) * b + 4) * b if b <= 0.25 else np.sqrt(b)
    return b + (2 * s - 1) * (d - b)


@helper
def _dodge(b, s):
    if b <= 0:
        return b * 0
    return min(b * 0 + 1, b / (1 - s)) if s < 1 else b * 0 + 1


@helper
def _burn(b, s):
    if b >= 1:
        return b * 0 + 1
    return 1 - min(b * 0 + 1, (1 - b) / s) if s > 0 else b * 0


@helper
def _mixed(mode, b, s):
    """B(cb, cs) of the separable modes that divide, section 9.1, on straight values."""
    if mode == 3:
        return _hard_light(s, b)
    if mode == 6:
        return _dodge(b, s)
    if mode == 7:
        return _burn(b, s)
    if mode == 8:
        return _hard_light(b, s)
    return _soft_light(b, s)


@helper
def _lum(r, g, b):
    return 0.3 * r + 0.59 * g + 0.11 * b


@helper
def _with_lum(r, g, b, lum):
    """SetLum with ClipColor, section 9.2."""
    d = lum - _lum(r, g, b)
    r, g, b = r + d, g + d, b + d
    level = _lum(r, g, b)
    low, high = min(r, g, b), max(r, g, b)
    if low < 0 and level > low:
        k = level / (level - low)
        r, g, b = level + (r - level) * k, level + (g - level) * k, level + (b - level) * k
    if high > 1 and high > level:
        k = (1 - level) / (high - level)
        r, g, b = level + (r - level) * k, level + (g - level) * k, level + (b - level) * k
    return r, g, b


@helper
def _with_sat(r, g, b, saturation):
    """SetSat, section 9.2, written without sorting."""
    low, high = min(r, g, b), max(r, g, b)
    if high <= low:
        return 0.0 * r, 0.0 * g, 0.0 * b
    k = saturation / (high - low)
    return (r - low) * k, (g - low) * k, (b - low) * k


@helper
def _nonseparable(mode, br, bg, bb, sr, sg, sb):
    if mode == 12:
        r, g, b = _with_sat(sr, sg, sb, max(br, bg, bb) - min(br, bg, bb))
        return _with_lum(r, g, b, _lum(br, bg, bb))
    if mode == 13:
        r, g, b = _with_sat(br, bg, bb, max(sr, sg, sb) - min(sr, sg, sb))
        return _with_lum(r, g, b, _lum(br, bg, bb))
    if mode == 14:
        return _with_lum(sr, sg, sb, _lum(br, bg, bb))
    return _with_lum(br, bg, bb, _lum(sr, sg, sb))


@helper
def _lay(under, over, alpha):
    """One channel of source-over; rows are contiguous views, which become vector code."""
    one = np.float32(1)
    for x in range(len(under)):
        under[x] = over[x] + under[x] * (one - alpha[x])


@helper
def _lay_product(mode, under, over, alpha, base):
    """One colour channel of the modes whose premultiplied form needs no division."""
    one, two = np.float32(1), np.float32(2)
    if mode == 1:
        for x in range(len(under)):
            under[x] = over[x] * (one - base[x]) + under[x] * (one - alpha[x]) + over[x] * under[x]
    elif mode == 2:
        for x in range(len(under)):
            under[x] = over[x] + under[x] - over[x] * under[x]
    elif mode == 4:
        for x in range(len(under)):
            both = min(over[x] * base[x], under[x] * alpha[x])
            under[x] = over[x] * (one - base[x]) + under[x] * (one - alpha[x]) + both
    elif mode == 5:
        for x in range(len(under)):
            both = max(over[x] * base[x], under[x] * alpha[x])
            under[x] = over[x] * (one - base[x]) + under[x] * (one - alpha[x]) + both
    elif mode == 10:
        for x in range(len(under)):
            both = min(over[x] * base[x], under[x] * alpha[x])
            under[x] = over[x] + under[x] - two * both
    else:
        for x in range(len(under)):
            under[x] = over[x] + under[x] - two * over[x] * under[x]


@helper
def _lay_through(under, colours, mask, alpha):
    """The same with ``over`` the product of colours and mask, which is then not written down."""
    for x in range(len(under)):
        under[x] = colours[x] * mask[x] + under[x] * (np.float32(1) - alpha[x])


@helper
def _times(out, colours, mask):
    for x in range(len(out)):
        out[x] = colours[x] * mask[x]


@helper
def _blend_row(target, y, left, source, count, mode):
    """Blend ``source`` (4, count) into row ``y`` of ``target`` from column ``left`` on."""
    one = np.float32(1)
    if mode == 0:
        for channel in range(4):
            _lay(target[channel, y, left : left + count], source[channel], source[3])
        return
    if mode in (1, 2, 4, 5, 10, 11):
        base = target[3, y, left : left + count]
        for channel in range(3):
            under = target[channel, y, left : left + count]
            _lay_product(mode, under, source[channel], source[3], base)
        _lay(base, source[3], source[3])
        return
    for x in range(count):
        alpha = source[3, x]
        if alpha <= 0:
            continue
        base = target[3, y, left + x]
        if base <= 0:
            for channel in range(4):
                target[channel, y, left + x] += source[channel, x] * (one - base)
            continue
        if mode < 12:
            for channel in range(3):
                s, b = source[channel, x] / alpha, target[channel, y, left + x] / base
                both = alpha * base * _mixed(mode, b, s)
                target[channel, y, left + x] = (
                    source[channel, x] * (one - base) + target[channel, y, left + x] * (one - alpha) + both
                )
        else:
            mixed = _nonseparable(
                mode,
                target[0, y, left + x] / base,
                target[1, y, left + x] / base,
                target[2, y, left + x] / base,
                source[0, x] / alpha, source[1, x] / alpha, source[2, x] / alpha,
            )  # fmt: skip
            for channel in range(3):
                target[channel, y, left + x] = np.float32(
                    source[channel, x] * (one - base)
                    + target[channel, y, left + x] * (one - alpha)
                    + alpha * base * mixed[channel]
                )
        target[3, y, left + x] = alpha + base * (one - alpha)


@helper
def _encode_srgb(value):
    """IEC 61966-2-1, linear to encoded."""
    if value <= 0.0031308:
        return 12.92 * value
    return 1.055 * value ** (1 / 2.4) - 0.055


@helper
def _from_oklab(stop, out):
    """Premultiplied OKLab in ``stop`` to premultiplied sRGB (CSS Color 4, section 20)."""
    alpha = stop[3]
    if alpha <= 0:
        for channel in range(4):
            out[channel] = 0.0
        return
    lightness, a, b = stop[0] / alpha, stop[1] / alpha, stop[2] / alpha
    long = (lightness + 0.3963377773761749 * a + 0.2158037573099136 * b) ** 3
    medium = (lightness - 0.1055613458156586 * a - 0.0638541728258133 * b) ** 3
    short = (lightness - 0.0894841775298119 * a - 1.2914855480194092 * b) ** 3
    red = 4.0767416360759574 * long - 3.3077115392580616 * medium + 0.2309699031821044 * short
    green = -1.2684379732850317 * long + 2.6097573492876887 * medium - 0.3413193760026573 * short
    blue = -0.0041960761386756 * long - 0.7034186179359362 * medium + 1.7076146940746117 * short
    out[0] = min(1.0, max(0.0, _encode_srgb(red))) * alpha
    out[1] = min(1.0, max(0.0, _encode_srgb(green))) * alpha
    out[2] = min(1.0, max(0.0, _encode_srgb(blue))) * alpha
    out[3] = alpha


@helper
def _locate(stops, t):
    """Where ``t`` lies on the ramp: a stop and the share of the way to the next one."""
    last = stops.shape[0] - 1
    if t <= stops[0, 0]:
        return 0, 0.0
    if t >= stops[last, 0]:
        return last - 1, 1.0
    k = 0
    while t >= stops[k + 1, 0]:
        k += 1
    share = (t - stops[k, 0]) / (stops[k + 1, 0] - stops[k, 0])
    if stops[k, 5] != 1.0:
        share = share ** stops[k, 5]
    return k, share


@helper
def _folded_back(t, spread):
    """The place on the ramp that lies at ``t``, when the ramp is repeated or mirrored."""
    if spread == 1:
        return t - np.floor(t)
    if spread == 2:
        t -= 2 * np.floor(t / 2)
        return min(t, 2 - t)
    return t


@helper
def _colour_at(stops, t, oklab, lab, out):
    """The premultiplied colour at a place on the ramp."""
    k, share = _locate(stops, t)
    for channel in range(4):
        low, high = stops[k, channel + 1], stops[k + 1, channel + 1]
        lab[channel] = low + share * (high - low)
    if oklab:
        _from_oklab(lab, out)
    else:
        out[:] = lab


@helper
def _edges_of(stops, spread):
    """Where colours change at once: on the ramp itself, over one turn of it when it is repeated, there and back
    when it is mirrored."""
    last = stops.shape[0] - 1
    found, count = np.empty(2 * last + 3), 0
    for k in range(last):
        if stops[k + 1, 0] - stops[k, 0] <= 1e-9 and (k == 0 or stops[k, 0] - stops[k - 1, 0] > 1e-9):
            found[count] = stops[k, 0]
            count += 1
            if spread == 2:
                found[count] = 2 - stops[k, 0]
                count += 1
    if spread == 1:
        differ = False
        for channel in range(1, 5):
            differ |= abs(stops[0, channel] - stops[last, channel]) > 1e-9
        if differ:
            found[count] = 0.0
            count += 1
    return found[:count].copy()


@helper
def _share_below(s, wide, narrow):
    """How much of a pixel lies where a place along the ramp is less than ``s`` more than at its centre: over the
    pixel that place changes by ``wide`` along one side and by ``narrow``, no more, along the other."""
    half = (wide + narrow) / 2
    if s <= -half:
        return 0.0
    if s >= half:
        return 1.0
    if abs(s) <= (wide - narrow) / 2:
        return 0.5 + s / wide
    tail = (half - abs(s)) * (half - abs(s)) / (2 * wide * narrow)
    return tail if s < 0 else 1 - tail


@helper
def _edges_near(edges, spread, t, half, places):
    """The edges less than ``half`` away from ``t``, in order, written to ``places``; their number, -1 for more than
    there is room for."""
    count = 0
    period = 2.0 if spread == 2 else 1.0
    for e in range(edges.shape[0]):
        first, last = 0, 0
        if spread > 0:
            first = int(np.ceil((t - half - edges[e]) / period))
            last = int(np.floor((t + half - edges[e]) / period))
        for turn in range(first, last + 1):
            at = edges[e] + turn * period
            if at <= t - half or at >= t + half:
                continue
            if count == places.shape[0]:
                return -1
            k = count
            while k > 0 and places[k - 1] > at:
                places[k] = places[k - 1]
                k -= 1
            places[k] = at
            count += 1
    return count


@helper
def _averaged(stops, spread, oklab, t, wide, narrow, places, count, lab, out, total):
    """The ramp's mean over a pixel with edges at ``places``: each stretch between two of them by its middle, as much
    as it has of the pixel."""
    total[:] = 0.0
    half = (wide + narrow) / 2
    start, before = t - half, 0.0
    for k in range(count + 1):
        end = places[k] if k < count else t + half
        until = _share_below(end - t, wide, narrow) if k < count else 1.0
        _colour_at(stops, _folded_back((start + end) / 2, spread), oklab, lab, out)
        for channel in range(4):
            total[channel] += (until - before) * out[channel]
        start, before = end, until


@helper
def _sampled(shape, field, stops, spread, oklab, x, y, lab, out, total):
    """The mean over a pixel in which the ramp turns too much to be taken as straight: 16 by 16 places."""
    total[:] = 0.0
    for i in range(256):
        t, _, _ = _place(shape, field, x + (i % 16 + 0.5) / 16 - 0.5, y + (i // 16 + 0.5) / 16 - 0.5)
        _colour_at(stops, _folded_back(t, spread), oklab, lab, out)
        for channel in range(4):
            total[channel] += out[channel] / 256


@helper
def _from_focus(field, u, v):
    """The share of the way from the focus through (u, v) to the unit circle."""
    fx, fy = field[6], field[7]
    du, dv = u - fx, v - fy
    along, free = fx * du + fy * dv, 1 - fx * fx - fy * fy
    return (along + np.sqrt(along * along + (du * du + dv * dv) * free)) / free


@helper
def _place(shape, field, x, y):
    """Position along the ramp at the device point (x, y), and its change over one pixel across and down."""
    u = field[0] * x + field[1] * y + field[2]
    if shape == 1:
        return u, field[0], field[1]
    v = field[3] * x + field[4] * y + field[5]
    square = max(u * u + v * v, 1e-18)
    if shape == 3:
        t = np.arctan2(u, v) / (2 * np.pi)
        turn = 2 * np.pi * square
        return t - np.floor(t), (v * field[0] - u * field[3]) / turn, (v * field[1] - u * field[4]) / turn
    if shape == 4:
        t = _from_focus(field, u, v)
        right = _from_focus(field, u + field[0], v + field[3]) - t
        below = _from_focus(field, u + field[1], v + field[4]) - t
        return t, right, below
    radius = np.sqrt(square)
    return radius, (field[0] * u + field[3] * v) / radius, (field[1] * u + field[4] * v) / radius


@helper
def _plain_row(shape, field, stops, left, y, count, opacity, along, colours):
    """A straight sRGB ramp along a row, as a sum of clamped ramps: vector code throughout."""
    fade = np.float32(opacity)
    for x in range(count):
        along[x] = np.float32(field[0] * (left + x + 0.5) + field[1] * (y + 0.5) + field[2])
    if shape == 2:
        for x in range(count):
            v = np.float32(field[3] * (left + x + 0.5) + field[4] * (y + 0.5) + field[5])
            along[x] = np.sqrt(along[x] * along[x] + v * v)
    for channel in range(4):
        out = colours[channel]
        out[:] = np.float32(stops[0, channel + 1]) * fade
        for k in range(stops.shape[0] - 1):
            start = np.float32(stops[k, 0])
            rise = np.float32(1 / (stops[k + 1, 0] - stops[k, 0]))
            step = np.float32(stops[k + 1, channel + 1] - stops[k, channel + 1]) * fade
            if step != 0:
                for x in range(count):
                    share = min(np.float32(1), max(np.float32(0), (along[x] - start) * rise))
                    out[x] += share * step


@helper
def _colour_row(shape, field, stops, oklab, spread, edges, left, y, first, last, opacity, colours):
    """Premultiplied colours of the pigment in columns ``first`` to ``last`` of a row. A conic's ramp is repeated."""
    lab, out, total, places = np.empty(4), np.empty(4), np.empty(4), np.empty(24)
    round_again = 1 if shape == 3 else spread
    for x in range(first, last):
        t, across, down = _place(shape, field, left + x + 0.5, y + 0.5)
        averaged = False
        if edges.shape[0] > 0:
            wide, narrow = max(abs(across), abs(down), 1e-12), min(abs(across), abs(down))
            narrow = max(narrow, 1e-12)
            bends = (shape == 3 and wide > 0.04) or (shape == 2 and t < 1.5 * (wide + narrow))
            count = _edges_near(edges, round_again, t, (wide + narrow) / 2, places)
            if count < 0 or bends:
                averaged = True
                _sampled(shape, field, stops, round_again, oklab, left + x + 0.5, y + 0.5, lab, out, total)
            elif count > 0:
                averaged = True
                _averaged(stops, round_again, oklab, t, wide, narrow, places, count, lab, out, total)
        if not averaged:
            _colour_at(stops, _folded_back(t, round_again), oklab, lab, total)
        for channel in range(4):
            colours[channel, x] = np.float32(total[channel] * opacity)


@kernel(
    "void(float32[:,:,::1], int64, int64, float32[:,::1], int64, int64, int64, int64, int64, int64,"
    " int64, float64[::1], float64[:,::1], boolean, int64, float64, int64)"
)
def _paint(
    target, target_left, target_top, mask, mask_left, mask_top,
    left, top, right, bottom, shape, field, stops, oklab, spread, opacity, mode,
):  # fmt: skip
    """Rows of constant colour are evaluated once, columns of constant colour once for all rows."""
    count = right - left
    source = np.empty((4, count), np.float32)
    colours = np.empty((4, count), np.float32)
    by_row = shape == 1 and abs(field[0]) < 1e-15
    by_column = shape == 1 and abs(field[1]) < 1e-15
    along = np.empty(count, np.float32)
    edges, plain = _edges_of(stops, 1 if shape == 3 else spread), not oklab
    for k in range(stops.shape[0] - 1):
        plain &= stops[k, 5] == 1.0
    plain &= edges.shape[0] == 0 and shape < 3 and spread == 0
    for y in range(top, bottom):
        if shape == 0:
            if y == top:
                for channel in range(4):
                    colours[channel, :] = np.float32(stops[0, channel + 1] * opacity)
        elif by_column and not by_row and y > top:
            pass
        elif plain and not by_row:
            _plain_row(shape, field, stops, left, y, count, opacity, along, colours)
        else:
            seen = 1 if by_row else count
            _colour_row(shape, field, stops, oklab, spread, edges, left, y, 0, seen, opacity, colours)
            for channel in range(4 if by_row else 0):
                colours[channel, :] = colours[channel, 0]
        row = mask[y - mask_top, left - mask_left : right - mask_left]
        if mode == 0:
            _times(source[3], colours[3], row)
            for channel in range(4):
                under = target[channel, y - target_top, left - target_left : right - target_left]
                _lay_through(under, colours[channel], row, source[3])
            continue
        for channel in range(4):
            _times(source[channel], colours[channel], row)
        _blend_row(target, y - target_top, left - target_left, source, count, mode)


@kernel(
    "void(float32[:,:,::1], int64, int64, float32[:,:,::1], int64, int64, int64, int64, int64, int64, float64, int64)"
)
def _composite(
    target, target_left, target_top, layer, layer_left, layer_top,
    left, top, right, bottom, opacity, mode,
):  # fmt: skip
    count = right - left
    source = np.empty((4, count), np.float32)
    fade = np.float32(opacity)
    for y in range(top, bottom):
        for channel in range(4):
            row = layer[channel, y - layer_top, left - layer_left : right - layer_left]
            for x in range(count):
                source[channel, x] = row[x] * fade
        _blend_row(target, y - target_top, left - target_left, source, count, mode)


@kernel(
    "void(float32[:,:,::1], int64, int64, float32[:,::1], int64, int64, float32[:,:,::1], int64, int64,"
    " int64, int64, int64, int64, float64, int64)"
)
def _cover(
    target, target_left, target_top, mask, mask_left, mask_top, layer, layer_left, layer_top,
    left, top, right, bottom, opacity, mode,
):  # fmt: skip
    count = right - left
    source = np.empty((4, count), np.float32)
    fade = np.float32(opacity)
    for y in range(top, bottom):
        cover = mask[y - mask_top, left - mask_left : right - mask_left]
        for channel in range(4):
            row = layer[channel, y - layer_top, left - layer_left : right - layer_left]
            for x in range(count):
                source[channel, x] = row[x] * cover[x] * fade
        _blend_row(target, y - target_top, left - target_left, source, count, mode)
