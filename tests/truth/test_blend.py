"""All sixteen modes against the published formulas of Compositing and Blending 1, in float64."""

import numpy as np
import pytest

from obrell.core.raster import blend
from obrell.core.raster.layers import Coverage, Layer, PixelBox
from obrell.core.raster.paint import paint
from obrell.core.raster.ramps import SOLID, Pigment
from obrell.core.values.blends import BLEND_CODES, BLENDS

SIZE = 64
BOX = PixelBox(3, 5, 3 + SIZE, 5 + SIZE)


def lum(c):
    return 0.3 * c[0] + 0.59 * c[1] + 0.11 * c[2]


def clip_colour(c):
    level, low, high = lum(c), c.min(axis=0), c.max(axis=0)
    with np.errstate(divide="ignore", invalid="ignore"):
        c = np.where(low < 0, level + (c - level) * level / (level - low), c)
        return np.where(high > 1, level + (c - level) * (1 - level) / (high - level), c)


def set_lum(c, level):
    return clip_colour(c + (level - lum(c)))


def sat(c):
    return c.max(axis=0) - c.min(axis=0)


def set_sat(c, saturation):
    order = np.argsort(c, axis=0, kind="stable")
    low, mid, high = (np.take_along_axis(c, order[i : i + 1], 0)[0] for i in range(3))
    with np.errstate(divide="ignore", invalid="ignore"):
        middle = np.where(high > low, (mid - low) * saturation / (high - low), 0)
    values = np.stack([np.zeros_like(low), middle, np.where(high > low, saturation, 0)])
    result = np.empty_like(c)
    np.put_along_axis(result, order, values, 0)
    return result


def hard_light(b, s):
    return np.where(s <= 0.5, b * 2 * s, b + (2 * s - 1) - b * (2 * s - 1))


def soft_light(b, s):
    d = np.where(b <= 0.25, ((16 * b - 12) * b + 4) * b, np.sqrt(b))
    return np.where(s <= 0.5, b - (1 - 2 * s) * b * (1 - b), b + (2 * s - 1) * (d - b))


def dodge(b, s):
    with np.errstate(divide="ignore", invalid="ignore"):
        return np.where(b == 0, 0, np.where(s == 1, 1, np.minimum(1, b / (1 - s))))


def burn(b, s):
    with np.errstate(divide="ignore", invalid="ignore"):
        return np.where(b == 1, 1, np.where(s == 0, 0, 1 - np.minimum(1, (1 - b) / s)))


FORMULAS = {
    "normal": lambda b, s: s,
    "multiply": lambda b, s: b * s,
    "screen": lambda b, s: b + s - b * s,
    "overlay": lambda b, s: hard_light(s, b),
    "darken": np.minimum,
    "lighten": np.maximum,
    "color-dodge": dodge,
    "color-burn": burn,
    "hard-light": hard_light,
    "soft-light": soft_light,
    "difference": lambda b, s: np.abs(b - s),
    "exclusion": lambda b, s: b + s - 2 * b * s,
    "hue": lambda b, s: set_lum(set_sat(s, sat(b)), lum(b)),
    "saturation": lambda b, s: set_lum(set_sat(b, sat(s)), lum(b)),
    "color": lambda b, s: set_lum(s, lum(b)),
    "luminosity": lambda b, s: set_lum(b, lum(s)),
}


def composite(mode, backdrop, source):
    """Premultiplied result of straight colours with alpha, (4, …) each; section 5.8.1."""
    (cb, ab), (cs, alpha) = (backdrop[:3], backdrop[3]), (source[:3], source[3])
    mixed = (1 - ab) * cs + ab * FORMULAS[mode](cb, cs)
    return np.concatenate([(1 - alpha) * ab * cb + alpha * mixed, [alpha + ab * (1 - alpha)]])


def picture(seed):
    """Random straight colours, with plenty of exact 0 and 1 in colour and alpha."""
    values = np.random.default_rng(seed).random((4, SIZE, SIZE))
    values[:, ::5] = np.round(values[:, ::5])
    return values.astype(np.float32).astype(np.float64)


def premultiplied(values):
    return np.concatenate([values[:3] * values[3], values[3:]]).astype(np.float32)


@pytest.mark.parametrize("mode", BLENDS)
def test_an_image_over_an_image(mode):
    backdrop, source = picture(1), picture(2)
    target = Layer(BOX, premultiplied(backdrop))
    blend.composite(target, Layer(BOX, premultiplied(source)), 1.0, BLEND_CODES[mode])
    assert np.abs(target.planes - composite(mode, backdrop, source)).max() < 2e-6


@pytest.mark.parametrize("mode", BLENDS)
def test_a_covered_and_faded_colour_over_an_image(mode):
    backdrop = picture(3)
    target = Layer(BOX, premultiplied(backdrop))
    cover = np.random.default_rng(4).random((SIZE, SIZE)).astype(np.float32)
    colour = (0.2, 0.65, 0.9)
    stops = np.array([[0, *colour, 1, 1]])
    paint(target, Coverage(BOX, cover), Pigment(SOLID, np.zeros(6), stops), 0.7, BLEND_CODES[mode])
    source = np.empty((4, SIZE, SIZE))
    source[:3] = np.array(colour)[:, None, None]
    source[3] = 0.7 * cover
    assert np.abs(target.planes - composite(mode, backdrop, source)).max() < 2e-6


def test_every_published_mode_is_there():
    assert set(FORMULAS) == set(BLENDS)
    assert len(BLENDS) == 16
