"""Colours of a pigment along a row of pixels: gradients of sRGB and OKLab, their edges averaged over the pixel."""

from __future__ import annotations

import numpy as np

from obrell.core.raster.jit import helper


@helper
def fill(row, value):
    """A loop, because assigning to a slice takes the compiler a second each time."""
    for x in range(len(row)):
        row[x] = value


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
        for channel in range(4):
            out[channel] = lab[channel]


@helper
def edges_of(stops, spread):
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
    return found[:count]


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
    for channel in range(4):
        total[channel] = 0.0
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
    for channel in range(4):
        total[channel] = 0.0
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
def plain_row(shape, field, stops, left, y, count, opacity, along, colours):
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
        fill(out, np.float32(stops[0, channel + 1]) * fade)
        for k in range(stops.shape[0] - 1):
            start = np.float32(stops[k, 0])
            rise = np.float32(1 / (stops[k + 1, 0] - stops[k, 0]))
            step = np.float32(stops[k + 1, channel + 1] - stops[k, channel + 1]) * fade
            if step != 0:
                for x in range(count):
                    share = min(np.float32(1), max(np.float32(0), (along[x] - start) * rise))
                    out[x] += share * step


@helper
def colour_row(shape, field, stops, oklab, spread, edges, left, y, first, last, opacity, colours):
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
