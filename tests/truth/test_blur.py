"""Blur against the sampled, normalised Gaussian in float64."""

import numpy as np
import pytest

from obrell.core.geometry.plane import Similarity
from obrell.core.geometry.rounded import rounded_box
from obrell.core.paint.areas import Blurred
from obrell.core.raster import blur as gaussian
from obrell.core.raster.coverage import rasterise
from obrell.core.raster.layers import Coverage, PixelBox
from obrell.core.render.cache import PixelCache

BOX = PixelBox(-40, -30, 260, 190)


def truth(values, sigma):
    """Both directions with whole taps out to nine standard deviations."""
    radius = int(9 * sigma) + 1
    x = np.arange(-radius, radius + 1)
    taps = np.exp(-0.5 * (x / sigma) ** 2)
    taps /= taps.sum()
    padded = np.pad(values.astype(np.float64), radius)

    def along(a):
        spectrum = np.fft.rfft(a, a.shape[1] + 2 * radius, axis=1)
        kernel = np.fft.rfft(taps, a.shape[1] + 2 * radius)
        return np.fft.irfft(spectrum * kernel, a.shape[1] + 2 * radius, axis=1)[:, radius : radius + a.shape[1]]

    if len(values) == 1:
        return along(padded)[radius : radius + 1, radius:-radius]
    both = along(along(padded).T).T
    return both[radius:-radius, radius:-radius]


def masks():
    pill = rounded_box(150, 60, (30,) * 4).transformed(Similarity(dx=100.3, dy=80.7))
    yield "pill", rasterise(pill.rows, BOX)
    noise = np.random.default_rng(7).random((BOX.height, BOX.width)).astype(np.float32)
    yield "noise", Coverage(BOX, noise)
    lines = np.zeros((BOX.height, BOX.width), np.float32)
    lines[::37] = 1
    yield "lines", Coverage(BOX, lines)


@pytest.mark.parametrize("sigma", [0.25, 0.5, 1, 2, 2.79, 2.8, 4.2, 5.59, 8, 13.7, 25, 60])
@pytest.mark.parametrize(("name", "mask"), list(masks()), ids=lambda value: value if isinstance(value, str) else "")
def test_every_width_is_within_a_third_of_a_level(sigma, name, mask):
    got = gaussian.blur(mask, sigma, BOX).values
    assert np.abs(got - truth(mask.values, sigma)).max() < 0.3 / 255


def test_a_tile_has_the_bytes_of_the_whole():
    mask = next(masks())[1]
    for sigma in (3.0, 20.0):
        whole = gaussian.blur(mask, sigma, BOX).values
        tile = PixelBox(13, 21, 90, 77)
        part = gaussian.blur(mask, sigma, tile).values
        y, x = tile.top - BOX.top, tile.left - BOX.left
        assert np.array_equal(part, whole[y : y + tile.height, x : x + tile.width])


def test_a_very_wide_blur_on_an_enlarged_stage_stays_true():
    path = rounded_box(1200, 500, (0,) * 4).transformed(Similarity(dx=700, dy=300))
    got = Blurred(path, 200.0).over(PixelBox(0, 0, 700, 650), PixelCache(0)).values
    down, across = np.zeros((1, 650)), np.zeros((1, 1400))
    down[:, 50:550] = 1
    across[:, 100:1300] = 1
    want = np.outer(truth(down, 200.0)[0], truth(across, 200.0)[0, :700])
    assert np.abs(got - want).max() < 0.3 / 255
