"""The sixteen blend modes of Compositing and Blending 1, sections 9.1 and 9.2, on rows of premultiplied float32. Mode
codes follow ``values.blends.BLENDS``."""

from __future__ import annotations

import numpy as np

from obrell.core.raster.jit import helper

PLAIN = (0, 1, 2, 4, 5, 10, 11)
"""Modes whose premultiplied form needs no division: from normal and multiply to difference and exclusion."""


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
def blend_plainly(target, y, left, source, count, mode):
    """Blend ``source`` (4, count) into row ``y`` of ``target`` from column ``left`` on, by a mode of ``PLAIN``."""
    if mode == 0:
        for channel in range(4):
            _lay(target[channel, y, left : left + count], source[channel], source[3])
        return
    base = target[3, y, left : left + count]
    for channel in range(3):
        under = target[channel, y, left : left + count]
        _lay_product(mode, under, source[channel], source[3], base)
    _lay(base, source[3], source[3])


@helper
def blend_row(target, y, left, source, count, mode):
    """The same by any mode."""
    if mode in PLAIN:
        blend_plainly(target, y, left, source, count, mode)
        return
    one = np.float32(1)
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
